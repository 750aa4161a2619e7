"""Care: the usual cautions, short, where they concern; never a diagnosis: clinicians’ and local rules come first."""

from collections.abc import Iterable, Iterator

from ripresa.core.drill import Drill
from ripresa.core.drill.hands import NoHands
from ripresa.core.pitch import Instrument


def care_for(instrument: Instrument, drills: Iterable[Drill]) -> Iterator[str]:
    """Yield the cautions that concern who plays some drills on an instrument."""
    played = list(drills)
    yield "Warm up first. Stop at pain, tingling, numbness or weakness; see a doctor or a performers’ clinic."
    yield "Rest 5 minutes after 25. No records at the end of a session."
    if instrument.breathes:
        yield "Rest as long as you play; stop when light-headed."
    if instrument.is_loud:
        yield "It is loud: short stretches, some distance to walls, ears protected where it is needed."
    if instrument.voice in {"keys", "pluck"}:
        yield "A finger that does not obey any more needs advice, not repetition."
    if any(drill.hands != NoHands() for drill in played):
        yield "Alternate the hands, and what they do: nothing the same for long."
    yield "Listen no louder than one can talk over."
    if any(drill.body.movement in {"step", "sway"} for drill in played):
        yield "Stepping and swaying need a clear floor."
