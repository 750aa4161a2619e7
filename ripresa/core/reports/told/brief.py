"""The brief: a drill as the sentence that the bench is made of, for paper and for whoever reads it aloud.

What the bench has as words to press are words here too, so that paper can set them in bold. Words that only repeat what
is usual are left out.
"""

from collections.abc import Iterable, Iterator, Sequence
from typing import Any

from ripresa.core.drill import (
    ARTICULATIONS,
    CLOSINGS,
    FINGERINGS,
    SEAMS,
    VOICINGS,
    Drill,
    Leg,
)
from ripresa.core.drill.accents import EachBeat
from ripresa.core.drill.material import (
    AS_ON_STRINGS,
    MATERIALS,
    own_rhythm,
)
from ripresa.core.exact import Fraction, label, plural
from ripresa.core.pitch import LEVELS
from ripresa.core.reading import Reading
from ripresa.core.reports.told.brief_material import MATERIALS_TOLD
from ripresa.core.reports.told.clauses import (
    SWUNG,
    accents_told,
    entries_told,
    foot_told,
    hands_told,
    hits_told,
    legs_told,
    movement_told,
    reduce_told,
    second_told,
    voice_told,
)
from ripresa.core.reports.told.words import Run, runs, times, word
from ripresa.core.rhythm import RATIOS, RUNS, SYSTEMS, meter_named


def brief_runs(reading: Reading) -> tuple[Run, ...]:
    """Return a drill as one sentence or a few."""
    drill = reading.drill
    return runs(" ".join(part for part in _sentences(reading, drill) if part))


def brief(reading: Reading) -> str:
    """Return a drill as one sentence or a few, in plain text."""
    return "".join(run.text for run in brief_runs(reading))


def _sentences(reading: Reading, drill: Drill) -> Iterator[str]:
    material: Any = drill.material
    name = next(kind.name for kind in MATERIALS if kind.value == material.kind)
    rhythm = _often(len(drill.legs)) if own_rhythm(material) else f", {_stepping(drill.legs, reading.meter.counted)}"
    seam = f", {word(SEAMS[drill.seam][0])}" if drill.seam != "hold" else ""
    closing = ""
    if any(leg.has_closing for leg in reading.legs) and drill.closing != "by_seam":
        closing = f", the closing tonic {word(CLOSINGS[drill.closing][0])}"
    played = f"{word(name)} {MATERIALS_TOLD[material.kind](material)}"
    yield f"Play {played}, in {word(drill.meter)}{rhythm}{seam}{closing}{_joined(_in_time(drill))}."
    if drill.hands.kind != "none":
        yield f"{hands_told(drill)}{_joined(_on_the_instrument(drill))}."
    elif drill.fingering != "none" or drill.ornaments:
        yield f"{_capital_run(list(_on_the_instrument(drill)))}."
    if drill.accents.kind != "none" and drill.accents != EachBeat():
        yield f"Accent {accents_told(drill.accents)}."
    if drill.hits.is_written or drill.hits.fills:
        yield f"{hits_told(drill)}."
    if drill.second.is_there:
        yield f"The left hand {second_told(drill)}."
    moving = list(with_the_body(drill))
    if moving:
        yield f"{_capital_run(moving)}."
    sounding = list(_sounding(reading))
    if sounding:
        yield f"{_capital_run(sounding)}."
    click = drill.click.words
    sign = meter_named(drill.meter).sign
    instrument = drill.plays_on.name
    level = f", {word(LEVELS[drill.level][0])}" if drill.level != "full" else ""
    played_on = f", for {word(instrument)}{level}" if drill.instrument != "any" else level
    yield f"Click {word(click)} at {sign} = {word(label(drill.bpm))}{played_on}."


def _joined(parts: Iterable[str]) -> str:
    return "".join(f", {part}" for part in parts)


def _capital_run(parts: Sequence[str]) -> str:
    """Return parts as one clause that begins a sentence; the mark of a word to press comes before its letter."""
    text = ", ".join(parts)
    start = next(at for at, sign in enumerate(text) if sign.isalnum())
    return text[:start] + text[start].upper() + text[start + 1 :]


def _often(count: int) -> str:
    return f", {word(times(count))}" if count > 1 else ""


def _stepping(legs: tuple[Leg, ...], counted: Fraction) -> str:
    if len(set(legs)) == 1:
        often = f", {word(times(len(legs)))}" if len(legs) > 1 else ""
        return f"in {word(legs_told(legs[:1], counted))}{often}"
    return f"stepping through {word(legs_told(legs, counted))}"


def _in_time(drill: Drill) -> Iterator[str]:
    """Yield how its time is bent, counted, and what of it is played."""
    if drill.swing.ratio != 1:
        name = next((name for ratio, name, _ in RATIOS if ratio == drill.swing.ratio), None)
        yield f"{word(name or f'with a swing of {label(drill.swing.ratio)}')} on {word(SWUNG[drill.swing.on])}"
    if drill.counting.system != "numbers" or drill.counting.runs != "bar":
        counting = drill.counting
        said = [SYSTEMS[counting.system][0]] * (counting.system != "numbers")
        said += [RUNS[counting.runs][0]] * (counting.runs != "bar")
        yield f"counted {' '.join(word(one) for one in said)}"
    if drill.reduce.part != "everything":
        yield f"playing {reduce_told(drill)}"


def _on_the_instrument(drill: Drill) -> Iterator[str]:
    """Yield how the hands lie, and which notes they do not strike."""
    if drill.fingering != "none":
        place = f", {word(drill.place.words)}" if drill.fingering == "position" and drill.place.words else ""
        yield word(FINGERINGS[drill.fingering][0]) + place
    if drill.fingers or drill.second.fingers:
        yield word("with fingers of one’s own")
    if drill.ornaments:
        yield word(f"{plural(len(drill.ornaments), 'note')} not struck")


def with_the_body(drill: Drill) -> Iterator[str]:
    """Yield what foot, body and voice do, and when they enter."""
    if drill.foot.which != "none":
        yield foot_told(drill)
    if drill.body.movement != "none":
        yield f"with {movement_told(drill)}"
    if drill.voice != "silent":
        prompt = f": {word(drill.prompt)}" if drill.voice == "talk" and drill.prompt else ""
        yield f"{voice_told(drill)}{prompt}"
    late = entries_told(drill)
    if late:
        yield late


def _sounding(reading: Reading) -> Iterator[str]:
    """Yield how long notes sound, where they lie, and how long a breath is."""
    drill = reading.drill
    if drill.articulation != 1:
        name = next((name for share, name, _ in ARTICULATIONS if share == drill.articulation), None)
        yield f"notes {word(name or f'sounding for {label(drill.articulation)} of their length')}"
    if drill.register:
        octaves = "an octave" if abs(drill.register) == 1 else f"{abs(drill.register)} octaves"
        stays = any(leg.described.endswith(AS_ON_STRINGS) for leg in reading.legs)
        side = "higher" if drill.register > 0 else "lower"
        yield word(f"{octaves} {side}") + (f", but {AS_ON_STRINGS}" if stays else "")
    if drill.voicing != "as_written":
        yield word(VOICINGS[drill.voicing][0])
    if drill.folded:
        yield word("folded into the range")
    if drill.breath:
        yield f"one breath lasting {word(label(drill.breath))} seconds"
