"""A rhythm typed as a count: ``1 & a 2 e & (3) 4 &``."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from fractions import Fraction
from typing import Literal

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import plural
from ripresa.core.instrument import Instrument
from ripresa.core.material.count_words import CountedBeat, Filled, parse_count
from ripresa.core.material.notes import NotePass
from ripresa.core.meter import Meter
from ripresa.core.place import Slot

LONGEST_TEXT = 4000
_BINARY = (1, 2, 4)


@dataclass(frozen=True, slots=True)
class Count:
    """A rhythm as it is said. It brings its own divisions; those of the legs only say how often it is played.

    Args:
        text: Words as ``parse_count`` takes them, up to 4000 signs.

    Raises:
        Unreadable: A word cannot be read; the sentence says which, and what would be right.
        OutOfRange: It is too long.
    """

    kind: Literal["count"] = field(default="count", kw_only=True)
    text: str = "1 & 2 & 3 & 4 &"

    def __post_init__(self) -> None:
        if len(self.text) > LONGEST_TEXT:
            raise OutOfRange(f"A count has up to {LONGEST_TEXT} signs, not {len(self.text)}.", field="material.text")
        parse_count(self.text)

    @property
    def title(self) -> str:
        """What it is, in words."""
        short = self.text if len(self.text) <= 40 else self.text[:39] + "…"
        return f"the count {short}"

    @property
    def fastest_division(self) -> Fraction:
        """Most slots of any beat that is said."""
        return Fraction(max(beat.division for beat in parse_count(self.text)))

    def pass_for(self, _divisions: Sequence[Fraction], _instrument: Instrument, meter: Meter) -> NotePass:
        """Return the rhythm of a leg, one slot after the other; what is not said is the held part of what was.

        Raises:
            OutOfRange: A bar has more beats than the meter.
        """
        said = parse_count(self.text)
        slots: list[Slot] = []
        sounding = False
        for beat in _every_beat(said, len(meter.beats)):
            for number, (kind, accent) in enumerate(beat.slots):
                if kind is None:
                    slots.append(Slot(Fraction(beat.division), number, "hold" if sounding else "rest"))
                    continue
                sounding = kind == "note"
                slots.append(Slot(Fraction(beat.division), number, kind, None, accent))
        notes = sum(slot.kind == "note" for slot in slots)
        bars = said[-1].bar
        return NotePass((None,) * notes, described=plural(bars, "bar"), rhythm=tuple(slots))


def _every_beat(said: Sequence[CountedBeat], beats: int) -> list[CountedBeat]:
    """Return the beats that were said and those between them, on grids that agree.

    Halves and quarters of a beat share the finer grid, so that an arm that
    keeps moving has its places: it does not change its rate from beat to beat.
    """
    finest = max((beat.division for beat in said if beat.division in _BINARY), default=1)
    found: list[CountedBeat] = []
    last_bar = said[-1].bar
    for bar in range(1, last_bar + 1):
        known = {beat.beat: beat for beat in said if beat.bar == bar}
        highest = max(known, default=1)
        if highest > beats:
            raise OutOfRange(
                f"Bar {bar} of the count has a beat {highest}, and the meter has {plural(beats, 'beat')} a bar.",
                field="material.text",
            )
        ends = highest if bar == last_bar else beats
        for number in range(1, ends + 1):
            found.append(_refined(known.get(number) or CountedBeat(bar, number, 1, ((None, None),)), finest))
    return found


def _refined(beat: CountedBeat, finest: int) -> CountedBeat:
    if beat.division not in _BINARY or beat.division == finest:
        return beat
    step = finest // beat.division
    slots: list[Filled] = [(None, None)] * finest
    slots[::step] = list(beat.slots)
    return CountedBeat(beat.bar, beat.beat, finest, tuple(slots))
