"""A rhythm typed as a count: ``1 & a 2 e & (3) 4 &``."""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, field
from itertools import cycle
from typing import Annotated, Literal

from ripresa.core.drill.material.notes import NotePass
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction, plural
from ripresa.core.grid import AS_WRITTEN, How, Slot
from ripresa.core.kind import Between, Kind, check_bounds
from ripresa.core.pitch import Instrument
from ripresa.core.rhythm import CountedBeat, Filled, Meter, SlotKind, parse_count, parse_named, there

LONGEST_TEXT = 4000
FARTHEST_SHIFT = 64
#: Divisions of a beat that share the finest grid among them.
BINARY = (1, 2, 4)
_UNSAID = Filled()
#: A damped stroke.
DEAD = How(dead=True)


@dataclass(frozen=True, slots=True)
class Count:
    """A rhythm as it is said. It brings its own divisions; those of the legs only say how often it is played.

    Args:
        text: Words as ``parse_count`` takes them, up to 4000 signs.
        shift: Slots of its grid by which it is moved, later above 0; −64 to 64.
        under: A second layer under it, a count of its own that begins again by itself; empty for none.
        around: Whether what is moved over the end comes round to the start;
            else it goes over the bar line, or begins as a pickup.

    Raises:
        Unreadable: A word cannot be read; the sentence says which, and what would be right.
        OutOfRange: It is too long, or moved too far.
    """

    kind: Literal["count"] = field(default="count", kw_only=True)
    text: str = "1 & 2 & 3 & 4 &"
    shift: Annotated[
        int,
        Between(
            -FARTHEST_SHIFT,
            FARTHEST_SHIFT,
            "A rhythm is moved by up to {most} slots, not {value}.",
            "Slots of its grid: 2 is an eighth later where quarters of a beat are said, −1 a slot earlier.",
        ),
    ] = 0
    around: bool = True
    under: str = ""

    def __post_init__(self) -> None:
        if len(self.text) > LONGEST_TEXT:
            raise OutOfRange(f"A count has up to {LONGEST_TEXT} signs, not {len(self.text)}.", field="material.text")
        check_bounds(self, "material")
        parse_count(self.text)
        if len(self.under) > LONGEST_TEXT:
            raise OutOfRange(f"A count has up to {LONGEST_TEXT} signs, not {len(self.under)}.", field="material.under")
        self._under()

    @property
    def title(self) -> str:
        """What it is, in words."""
        short = self.text if len(self.text) <= 40 else self.text[:39] + "…"
        return f"the count {short}"

    @property
    def own_division(self) -> Fraction:
        """Most slots of any beat that is said."""
        return Fraction(max(beat.division for beat in parse_count(self.text)))

    def pass_for(self, _divisions: Sequence[Fraction], _instrument: Instrument, meter: Meter) -> NotePass:
        """Return the rhythm of a leg, one slot after the other; what is not said is the held part of what was.

        Raises:
            OutOfRange: A bar has more beats than the meter, or it has no one grid to be moved on.
        """
        beats = every_beat(there(parse_count(self.text), meter.beats_of), meter)
        if self.shift:
            beats = moved_beats(beats, self.shift, meter, around=self.around)
        slots = rhythm_of(beats)
        notes = sum(slot.kind == "note" for slot in slots)
        bars = beats[-1].bar
        under = there(self._under(), meter.beats_of)
        for beat in under:
            _check_beat(beat, meter, "the second layer", "material.under")
        return NotePass(
            (None,) * notes,
            described=plural(bars, "bar"),
            rhythm=slots,
            second=tuple(
                place_in(meter, beat, slot)
                for beat in under
                for slot, filled in enumerate(beat.slots)
                if filled.kind == "note"
            ),
            # In meters that take turns it begins again where they do.
            second_beats=meter.bar_start(
                -(-max((beat.bar for beat in under), default=0) // len(meter.bars)) * len(meter.bars) + 1
            ),
        )

    def _under(self) -> tuple[CountedBeat, ...]:
        if not self.under.strip():
            return ()
        return parse_named(self.under, "the second layer", "material.under")


def place_in(meter: Meter, beat: CountedBeat, slot: int) -> Fraction:
    """Return where a slot of a counted beat stands, in beats of the bpm from the start of bar 1."""
    bar, number = meter.bar(beat.bar), beat.beat - 1
    return meter.bar_start(beat.bar) + bar.beat_starts()[number] + bar.beats[number] * slot / beat.division


def filled_slots(beats: Iterable[CountedBeat]) -> Iterator[tuple[CountedBeat, int, SlotKind, Filled]]:
    """Yield beat, number, kind and filling of every slot; what is not said is the held part of what was, or silent."""
    sounding = False
    for beat in beats:
        for number, filled in enumerate(beat.slots):
            if filled.kind is not None:
                # A damped stroke does not go on.
                sounding = filled.kind == "note" and not filled.dead
            yield beat, number, filled.kind or ("hold" if sounding else "rest"), filled


def rhythm_of(beats: Iterable[CountedBeat]) -> tuple[Slot, ...]:
    """Return the slots of beats that carry no chords, one after the other."""
    return tuple(
        Slot(Fraction(beat.division), number, kind, None, filled.accent, how=DEAD if filled.dead else AS_WRITTEN)
        for beat, number, kind, filled in filled_slots(beats)
    )


def every_beat(
    said: Sequence[CountedBeat], meter: Meter, name: str = "the count", field: str = "material.text"
) -> list[CountedBeat]:
    """Return the beats that were said and those between them, on grids that agree.

    Halves and quarters of a beat share the finer grid, so that an arm that
    keeps moving has its places: it does not change its rate from beat to beat.

    Raises:
        OutOfRange: A beat that the meter does not have; the sentence names the text, and the field is to blame.
    """
    finest = max((beat.division for beat in said if beat.division in BINARY), default=1)
    # A beat that a cell made shorter has fewer of these places, and none that is shorter than elsewhere.
    shortest = min((_slot_beats(beat, meter) for beat in said if beat.division == finest), default=Fraction(1))
    found: list[CountedBeat] = []
    last_bar = said[-1].bar
    for bar in range(1, last_bar + 1):
        known = {beat.beat: beat for beat in said if beat.bar == bar}
        for beat in known.values():
            _check_beat(beat, meter, name, field)
        highest = max(known, default=1)
        ends = highest if bar == last_bar else len(meter.beats_of(bar))
        for number in range(1, ends + 1):
            beat = known.get(number) or CountedBeat(bar, number, 1, (_UNSAID,))
            size = beat.division
            while size < finest and size in BINARY and _slot_beats(beat, meter) * beat.division > shortest * size:
                size *= 2
            found.append(_refined(beat, size))
    return found


def _slot_beats(beat: CountedBeat, meter: Meter) -> Fraction:
    """Return how long a slot of a beat lasts, in beats of the bpm; a whole beat where there is none."""
    beats = meter.beats_of(beat.bar)
    return beats[beat.beat - 1] / beat.division if beat.beat <= len(beats) else Fraction(1)


def _check_beat(beat: CountedBeat, meter: Meter, what: str, field: str) -> None:
    """Refuse a beat that its bar does not have, or that is not as long as it was counted."""
    beats = len(meter.beats_of(beat.bar))
    if beat.beat > beats:
        raise OutOfRange(
            f"Bar {beat.bar} of {what} has a beat {beat.beat}, and the meter has {plural(beats, 'beat')} a bar."
            + (f" For beats {' and '.join(str(beat.beat))} write {' '.join(str(beat.beat))}." if beat.beat > 9 else ""),
            field=field,
        )
    lasts = meter.beats_of(beat.bar)[beat.beat - 1]
    if beat.goes_on and lasts != Fraction(5, 4):
        raise OutOfRange(
            f"“a +” counts a fifth quarter of a beat, and beat {beat.beat} of bar {beat.bar} of {what} lasts "
            f"{plural(lasts, 'beat')}. Write {beat.beat}/5 .2 .3 .4 .5 for five on it.",
            field=field,
        )


def moved_beats(beats: Sequence[CountedBeat], shift: int, meter: Meter, *, around: bool) -> list[CountedBeat]:
    """Return beats moved by so many slots: whole bars, rotated, or with silence before them.

    Raises:
        OutOfRange: Their slots are not all as long, or bars of several lengths take turns.
    """
    if not meter.is_plain:
        raise OutOfRange(
            "A rhythm in meters that take turns is not moved: its bars differ. Take one meter.", field="material.shift"
        )
    slots = {_slot_beats(beat, meter) for beat in beats}
    sizes = [length / min(slots) for length in meter.beats_of(1)]
    if len(slots) > 1 or any(size.denominator > 1 for size in sizes):
        mixed = " and ".join(str(one) for one in sorted({beat.division for beat in beats}))
        raise OutOfRange(f"A rhythm with {mixed} a beat has no one grid to be moved on.", field="material.shift")
    bar = int(sum(sizes))
    flat = [filled for beat in beats for filled in beat.slots]
    flat += [_UNSAID] * (-len(flat) % bar)
    if around:
        by = shift % len(flat)
        flat = flat[-by:] + flat[:-by] if by else flat
    else:
        flat = [_UNSAID] * (shift % bar) + flat
        while flat[-1] == _UNSAID:
            flat.pop()
    return list(_on_beats(flat, [int(size) for size in sizes]))


def _on_beats(flat: Sequence[Filled], sizes: Sequence[int]) -> Iterator[CountedBeat]:
    """Yield slots beat by beat, each beat with its number of them; what the last one lacks is unsaid."""
    at = 0
    for number, size in enumerate(cycle(sizes)):
        if at >= len(flat):
            return
        slots = (*flat[at : at + size], *[_UNSAID] * (at + size - len(flat)))
        yield CountedBeat(number // len(sizes) + 1, number % len(sizes) + 1, size, slots)
        at += size


def _refined(beat: CountedBeat, size: int) -> CountedBeat:
    if beat.division == size:
        return beat
    slots: list[Filled] = [_UNSAID] * size
    slots[:: size // beat.division] = list(beat.slots)
    return CountedBeat(beat.bar, beat.beat, size, tuple(slots))


KIND = Kind(
    Count("1 2 & (3) & 4 &"), "the rhythm", "Typed as it is said: 1 & a 2 e & (3) 4 &. What is not said is held."
)
