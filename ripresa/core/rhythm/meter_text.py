"""Meters as they are typed: ``7/4``, ``11/8 (3+3+3+2)``, ``3/4 -2/16``, ``4/4 | 7/8 (2+2+3)``, ``3/4 ; 13/16 (4+4+5)``.

Meters parted by ``|`` take turns bar by bar, by ``;`` leg by leg. In the name of the note that bpm counts stands the
first one's: the lengths of all are told in its beats.
"""

import re
from dataclasses import replace
from functools import lru_cache

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction, plural
from ripresa.core.rhythm.meter import METERS, Bar, Meter

LARGEST_ABOVE = 64
MOST_BEATS = 32
MOST_CELLS = 8
MOST_IN_TURN = 8
LONGEST_TEXT = 120

_TYPED = re.compile(r"^(\d{1,2})/(2|4|8|16)(?: ?\((\d{1,2}(?:\+\d{1,2})*)\))?( in eighths)?$")
_CELLS = re.compile(r"^(?P<base>.+?)(?P<cells>(?: [+-]\d{1,2}/(?:4|8|16|32)(?:@\d{1,2})?)+)$")
_CELL = re.compile(r"([+-])(\d{1,2})/(\d{1,2})(?:@(\d{1,2}))?")


@lru_cache(maxsize=256)
def meter_named(name: str) -> Meter:
    """Return the meter of a text; of several that take turns leg by leg, the first.

    Raises:
        OutOfRange: It is none, or its cells leave nothing of the bar.

    >>> meter_named("3/4 -2/16").signature, meter_named("3/4 +1/16").signature, meter_named("3/4 +2/16").signature
    ((5, 8), (13, 16), (7, 8))
    >>> [str(beat) for beat in meter_named("11/8 (3+3+3+2)").beats_of(1)]
    ['3/2', '3/2', '3/2', '1']
    >>> meter_named("3/4 | 13/16 (4+4+5)").cycle_beats
    Fraction(25, 4)
    """
    return leg_meters(name)[0]


@lru_cache(maxsize=256)
def leg_meters(name: str) -> tuple[Meter, ...]:
    """Return the meters that the legs of a drill take in turn; one where all are in the same.

    Raises:
        OutOfRange: As ``meter_named``.
    """
    if len(name) > LONGEST_TEXT:
        raise OutOfRange(f"A meter has up to {LONGEST_TEXT} signs, not {len(name)}.", field="meter")
    found = [_in_turn(part, number) for number, part in enumerate(_parts(name, ";"))]
    counted = found[0].counted
    return tuple(replace(_counted_in(meter, counted), name=meter.name) for meter in found)


def _in_turn(text: str, leg: int) -> Meter:
    """Return the meter of bars that take turns."""
    meters = [_one(part) for part in _parts(text, "|")]
    counted = meters[0].counted
    bars = tuple(
        # Counted on from leg to leg: meters that take turns by legs have clicks of their own too.
        replace(bar, of=number + leg)
        for number, meter in enumerate(meters)
        for bar in _counted_in(meter, counted).bars
    )
    return Meter(" | ".join(meter.name for meter in meters), bars, counted)


def _parts(text: str, sign: str) -> list[str]:
    parts = [" ".join(part.split()) for part in text.split(sign)]
    if len(parts) > MOST_IN_TURN:
        raise OutOfRange(f"Up to {MOST_IN_TURN} meters take turns, not {len(parts)}.", field="meter")
    return parts


def _counted_in(meter: Meter, counted: Fraction) -> Meter:
    """Return a meter with its lengths told in another note than its own."""
    if meter.counted == counted:
        return meter
    by = meter.counted / counted
    bars = tuple(replace(bar, beats=tuple(beat * by for beat in bar.beats)) for bar in meter.bars)
    return replace(meter, bars=bars, counted=counted)


def _one(name: str) -> Meter:
    if name in METERS:
        return METERS[name]
    made = _CELLS.match(name)
    if made:
        return _by_cells(_one(made["base"]), made["cells"])
    typed = _TYPED.match(name)
    if not typed:
        raise OutOfRange(
            f"“{name}” is not a meter. Write 7/4, 11/8 (3+3+3+2) or 3/4 -2/16, over 2, 4, 8 or 16; 4/4 | 7/8 take "
            "turns bar by bar, 4/4 ; 7/8 leg by leg.",
            field="meter",
        )
    return _typed(int(typed[1]), int(typed[2]), typed[3], in_eighths=bool(typed[4]))


def _typed(above: int, below: int, grouping: str | None, *, in_eighths: bool) -> Meter:
    if not 1 <= above <= LARGEST_ABOVE:
        raise OutOfRange(f"A bar has 1 to {LARGEST_ABOVE} notes, not {above}.", field="meter")
    sizes = [int(size) for size in grouping.split("+")] if grouping else _usual(above, below, in_eighths=in_eighths)
    if sum(sizes) != above or 0 in sizes:
        raise OutOfRange(
            f"The groups {grouping} make {sum(sizes)}, and {above}/{below} has {above}. Let them add up.", field="meter"
        )
    groups: tuple[int, ...] = ()
    if grouping and below <= 4:
        # Quarters and halves are beats by themselves; the groups say which are felt together.
        groups, sizes = tuple(sizes), [1] * above
    if len(sizes) > MOST_BEATS:
        raise OutOfRange(
            f"This bar has {plural(len(sizes), 'beat')}, and up to {MOST_BEATS} can be laid out. Group them: (3+3+2).",
            field="meter",
        )
    counted = Fraction(_unit(sizes, below, in_eighths=in_eighths), below)
    beats = tuple(Fraction(size, below) / counted for size in sizes)
    shown = f" ({grouping})" if grouping and (groups or len(set(sizes)) > 1) else ""
    name = f"{above}/{below}{shown}" + (" in eighths" if in_eighths else "")
    return Meter(name, (Bar(beats, (above, below), groups=groups),), counted)


def _usual(above: int, below: int, *, in_eighths: bool) -> list[int]:
    """Return how a bar falls into beats where nobody says: eighths and sixteenths in threes where they make them."""
    threes = below >= 8 and above > 3 and above % 3 == 0 and not in_eighths
    return [3] * (above // 3) if threes else [1] * above


def _unit(sizes: list[int], below: int, *, in_eighths: bool) -> int:
    """Return how many notes the one that bpm counts lasts.

    Beats that are all alike are counted themselves; unequal ones in quarters of a bar over 8, as 2+2+3 is, and in the
    largest of 4, 2, 1 that no beat is shorter than in one over 16.
    """
    if in_eighths or below <= 4:
        return 1
    if len(set(sizes)) == 1 and sizes[0] in {1, 2, 3, 4}:
        return sizes[0]
    if below == 8:
        return 2
    return max(unit for unit in (4, 2, 1) if unit <= min(sizes))


def _by_cells(base: Meter, text: str) -> Meter:
    """Return a meter with cells added to a beat or taken from it, the last where none is named after ``@``."""
    beats = list(base.bars[0].beats)
    cells = _CELL.findall(text)
    if len(cells) > MOST_CELLS:
        raise OutOfRange(f"A meter takes up to {MOST_CELLS} cells, not {len(cells)}.", field="meter")
    for sign, count, value, at in cells:
        # Cells are told in shares of a whole note, beats in the note that bpm counts.
        length = Fraction(int(count), int(value)) / base.counted
        beat = int(at) - 1 if at else len(beats) - 1
        if not 0 <= beat < len(beats):
            raise OutOfRange(f"{base.name} has beats 1 to {len(beats)}, and not {at}.", field="meter")
        beats[beat] += length if sign == "+" else -length
        if beats[beat] < 0:
            raise OutOfRange(
                f"Beat {beat + 1} of {base.name} is shorter than {count}/{value}. Take less, or from another beat.",
                field="meter",
            )
    # A beat that was taken away whole is none: the bar has one beat less.
    left = tuple(beat for beat in beats if beat)
    if not left:
        raise OutOfRange(f"These cells leave nothing of {base.name}. Take fewer.", field="meter")
    above, below = _signature(sum(left, Fraction(0)) * base.counted, base.signature[1])
    name = f"{above}/{below} ({base.name}{text.replace('-', '−')})"
    return Meter(name, (Bar(left, (above, below)),), base.counted)


def _signature(bar: Fraction, at_least: int) -> tuple[int, int]:
    """Return the signature of a bar that lasts such a share of a whole note."""
    below = max(bar.denominator, at_least)
    return int(bar * below), below
