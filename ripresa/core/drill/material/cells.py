"""Cells: rhythms of one beat, mixed into bars in every combination, woven, or drawn by lot."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from itertools import product
from random import Random
from typing import Annotated, Literal

from ripresa.core.drill.material.count import every_beat, rhythm_of
from ripresa.core.drill.material.notes import NotePass
from ripresa.core.errors import OutOfRange, Unreadable
from ripresa.core.exact import Fraction, plural
from ripresa.core.kind import Between, Kind, check_bounds
from ripresa.core.pitch import Instrument
from ripresa.core.rhythm import CountedBeat, Meter, parse_count

Mix = Literal["all", "weave", "drawn", "by_hand"]

LONGEST_TEXT = 400
MOST_CELLS = 8
MOST_BARS = 128
MOST_CHOSEN = 512
MIXES: dict[Mix, tuple[str, str]] = {
    "all": ("in every combination", "Two cells over four beats are 16 bars: nothing is left out."),
    "weave": (
        "bar by bar, then beat by beat",
        "Each alone for a bar, then half bars, then in turn on each beat.",
    ),
    "by_hand": ("woven by hand", "Press a beat of the rail: it goes over to the next cell."),
    "drawn": ("drawn by lot", "Another order for each number; the same number gives the same bars again."),
}
#: How often a cell may come in a row when cells are drawn.
IN_A_ROW = 2


@dataclass(frozen=True, slots=True)
class Cells:
    """One-beat rhythms mixed into bars. They bring their own divisions, as a count does.

    Args:
        text: Cells as counts of one beat, parted by ``;``: ``"1 &; 1 e & a; (1) trip let"``; 2 to 8 of them.
        mix: Every combination, woven, drawn by lot, or by hand.
        chosen: By hand: which cell, from 1, stands on each beat, bar after bar; what is missing of a bar is cell 1.
        bars: Bars that are drawn, 1 to 128. seed: Which draw, 0 to 9999.

    Raises:
        Unreadable: A cell cannot be read; the sentence says which.
        OutOfRange: Too few or many cells, bars or a seed out of range.
    """

    kind: Literal["cells"] = field(default="cells", kw_only=True)
    text: str = "1 &; 1 e & a"
    mix: Mix = "all"
    bars: Annotated[int, Between(1, MOST_BARS, "Draw {least} to {most} bars, not {value}.")] = 8
    seed: Annotated[
        int,
        Between(
            0,
            9999,
            "A draw has a number from {least} to {most}, not {value}.",
            "Another number, another order; the same number gives the same bars again.",
        ),
    ] = 1
    chosen: tuple[int, ...] = ()

    def __post_init__(self) -> None:
        if len(self.text) > LONGEST_TEXT:
            raise OutOfRange(f"Cells have up to {LONGEST_TEXT} signs, not {len(self.text)}.", field="material.text")
        check_bounds(self, "material")
        count = len(self.cells)
        if len(self.chosen) > MOST_CHOSEN or any(not 1 <= one <= count for one in self.chosen):
            raise OutOfRange(
                f"Each beat has one of the cells 1 to {count}, and up to {MOST_CHOSEN} beats are chosen by hand.",
                field="material.chosen",
            )

    @property
    def cells(self) -> tuple[CountedBeat, ...]:
        """Its cells, each as beat 1 of a count."""
        texts = [text.strip() for text in self.text.split(";") if text.strip()]
        if not 2 <= len(texts) <= MOST_CELLS:
            raise OutOfRange(
                f"Mix 2 to {MOST_CELLS} cells, not {len(texts)}. Part them with ;  1 &; 1 e & a.", field="material.text"
            )
        return tuple(_cell(number, text) for number, text in enumerate(texts, start=1))

    @property
    def title(self) -> str:
        """What it is, in words."""
        return f"the cells {self.text if len(self.text) <= 40 else self.text[:39] + '…'}"

    @property
    def own_division(self) -> Fraction:
        """Most slots of any cell."""
        return Fraction(max(cell.division for cell in self.cells))

    def order(self, meter: Meter) -> tuple[tuple[int, ...], ...]:
        """Return which cell, from 0, stands on each beat of each bar.

        Raises:
            OutOfRange: All combinations are more than 128 bars.

        >>> from ripresa.core.rhythm import METERS
        >>> len(Cells().order(METERS["4/4"])), Cells().order(METERS["4/4"])[:3]
        (16, ((0, 0, 0, 0), (0, 0, 0, 1), (0, 0, 1, 0)))
        """
        if not meter.is_plain:
            raise OutOfRange(
                "Cells are mixed into bars of one meter, not of meters that take turns. Take one.", field="material.mix"
            )
        count, beats = len(self.cells), len(meter.beats_of(1))
        match self.mix:
            case "all":
                if count**beats > MOST_BARS:
                    raise OutOfRange(
                        f"{count} cells over {plural(beats, 'beat')} are {count**beats:,} bars, more than {MOST_BARS}. "
                        "Take fewer cells, or let them be drawn.",
                        field="material.mix",
                    )
                return tuple(product(range(count), repeat=beats))
            case "weave":
                return tuple(_woven(count, beats))
            case "by_hand":
                chosen = [one - 1 for one in self.chosen] or [0] * beats
                chosen += [0] * (-len(chosen) % beats)
                return tuple(tuple(chosen[at : at + beats]) for at in range(0, len(chosen), beats))
            case "drawn":
                drawn = _drawn(count, beats * self.bars, self.seed)
                return tuple(tuple(drawn[at : at + beats]) for at in range(0, len(drawn), beats))

    def pass_for(self, _divisions: Sequence[Fraction], _instrument: Instrument, meter: Meter) -> NotePass:
        """Return the bars, one slot after the other; what a cell does not say is held."""
        order = self.order(meter)
        said = [
            self.cells[cell]._replace(bar=bar, beat=beat)
            for bar, inside in enumerate(order, start=1)
            for beat, cell in enumerate(inside, start=1)
        ]
        slots = rhythm_of(every_beat(said, meter))
        notes = sum(slot.kind == "note" for slot in slots)
        return NotePass((None,) * notes, described=plural(len(order), "bar"), rhythm=slots)


def _cell(number: int, text: str) -> CountedBeat:
    try:
        beats = parse_count(text)
    except Unreadable as error:
        raise Unreadable(f"Cell {number}: {error.message}", field="material.text") from error
    if len(beats) != 1 or (beats[0].bar, beats[0].beat) != (1, 1):
        raise Unreadable(
            f"Cell {number}, “{text}”, is not one beat. Write it on beat 1: 1 e & a.", field="material.text"
        )
    return beats[0]


def _woven(count: int, beats: int) -> Iterator[tuple[int, ...]]:
    """Yield each cell for a bar, then pairs by half bars where the bar can be halved, then in turn by beats."""
    for cell in range(count):
        yield (cell,) * beats
    half = beats // 2
    if beats % 2 == 0 and half > 1:
        for cell in range(count):
            yield (cell,) * half + ((cell + 1) % count,) * half
    for first in range(count):
        yield tuple((first + beat) % count for beat in range(beats))


def _drawn(count: int, beats: int, seed: int) -> list[int]:
    """Return cells by lot: none more than twice in a row, and all about equally often."""
    # Only random() is the same on every machine and in every version (Python's own promise).
    lot = Random(seed)
    found: list[int] = []
    used = [0] * count
    for _ in range(beats):
        barred = found[-1] if len(found) >= IN_A_ROW and len(set(found[-IN_A_ROW:])) == 1 else None
        fewest = min(times for cell, times in enumerate(used) if cell != barred)
        # Whoever is more than two behind comes first; else all may.
        open_cells = [cell for cell in range(count) if cell != barred and used[cell] <= fewest + 1]
        cell = open_cells[int(lot.random() * len(open_cells))]
        found.append(cell)
        used[cell] += 1
    return found


KIND = Kind(Cells(), "the cells", "Rhythms of one beat, mixed into bars.")
