"""Meters: a bar as a list of beats, and the note value that bpm counts."""

import re
from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction

from ripresa.core.errors import OutOfRange

_NOTE_SIGNS = {
    # The sign of a half note is in few fonts; its name is in all of them.
    Fraction(1, 2): "half",
    Fraction(1, 4): "♩",
    Fraction(3, 8): "♩.",
    Fraction(1, 8): "♪",
}
_NOTE_NAMES = {
    Fraction(1, 2): "half note",
    Fraction(1, 4): "quarter",
    Fraction(3, 8): "dotted quarter",
    Fraction(1, 8): "eighth",
}


@dataclass(frozen=True, slots=True)
class Meter:
    """A bar: its beats, each with a length, and what one beat of the bpm is.

    Args:
        name: As it is written, ``"6/8"``, ``"7/8 (2+2+3)"``.
        beats: Length of each beat, in units of the note that bpm counts; all
            1 unless beats are unequal (7/8 as 2+2+3 eighths).
        counted: The note that bpm counts, as a share of a whole note.
    """

    name: str
    beats: tuple[Fraction, ...]
    counted: Fraction

    @property
    def bar_length(self) -> Fraction:
        """Length of a bar in beats of the bpm."""
        return sum(self.beats, Fraction(0))

    @property
    def sign(self) -> str:
        """The sign of the note that bpm counts: ``♩`` or ``♩.``."""
        return _NOTE_SIGNS[self.counted]

    @property
    def signature(self) -> tuple[int, int]:
        """The time signature: ``(7, 8)`` for ``7/8 (2+2+3)``."""
        above, below = self.name.split()[0].split("/")
        return int(above), int(below)

    @property
    def shortest_beat(self) -> Fraction:
        """Length of the shortest beat: where a division is at its fastest."""
        return min(self.beats)

    @property
    def counted_name(self) -> str:
        """The name of the note that bpm counts, for people who listen to the screen."""
        return _NOTE_NAMES[self.counted]

    def beat_starts(self) -> tuple[Fraction, ...]:
        """Return where each beat of a bar starts, in beats of the bpm, the first at 0."""
        starts = [Fraction(0)]
        for length in self.beats[:-1]:
            starts.append(starts[-1] + length)
        return tuple(starts)

    def place(self, position: Fraction) -> tuple[int, int, Fraction]:
        """Return bar (from 1), beat (from 1) and what is left inside the beat, for a position in beats.

        >>> METERS["4/4"].place(Fraction(29, 2))
        (4, 3, Fraction(1, 2))
        """
        bar, inside = divmod(position, self.bar_length)
        beat = 0
        for length in self.beats:
            if inside < length:
                break
            inside -= length
            beat += 1
        return int(bar) + 1, beat + 1, inside

    def beats_passed(self, position: Fraction) -> Fraction:
        """Return how many beats of the meter have passed at a position, however long each was.

        >>> str(METERS["7/8 (2+2+3)"].beats_passed(Fraction(5, 2)))
        '7/3'
        """
        bar, beat, inside = self.place(position)
        return (bar - 1) * len(self.beats) + beat - 1 + inside / self.beats[beat - 1]

    def bar_start(self, bar: int) -> Fraction:
        """Return where a bar, from 1, begins, in beats of the bpm."""
        return (bar - 1) * self.bar_length

    def beats_until(self, end: Fraction) -> Iterator[Fraction]:
        """Yield where each beat begins, from the first bar on, before a position."""
        at, bar = Fraction(0), 1
        while at < end:
            for length in self.beats:
                if at < end:
                    yield at
                at += length
            bar += 1

    def beats_before(self, start: Fraction) -> Iterator[tuple[Fraction, int]]:
        """Yield (position, number in its bar) of each beat before a position on a beat, the nearest first, without end.

        Positions before the first bar are negative, and go on as the meter would have.
        """
        at, beat = start, self.place(start)[1]
        while True:
            beat = beat - 1 or len(self.beats)
            at -= self.beats[beat - 1]
            yield at, beat

    def bars_passed(self, position: Fraction) -> Fraction:
        """Return how many bars have passed at a position."""
        return position / self.bar_length

    def to_bar_line(self, position: Fraction) -> Fraction:
        """Return how many beats are missing from a position to the next bar line; 0 on one.

        >>> METERS["4/4"].to_bar_line(Fraction(14))
        Fraction(2, 1)
        """
        return -position % self.bar_length

    def to_beat(self, position: Fraction) -> Fraction:
        """Return how many beats are missing from a position to the next beat; 0 on one."""
        _, beat, inside = self.place(position)
        return self.beats[beat - 1] - inside if inside else Fraction(0)


def _meter(signature: str, counted: Fraction, *eighths: int) -> Meter:
    """Return a meter of beats that last so many eighths each; unequal beats are named in brackets."""
    beats = tuple(Fraction(length, 8) / counted for length in eighths)
    unequal = f" ({'+'.join(str(length) for length in eighths)})" if len(set(eighths)) > 1 else ""
    eighth_beats = " in eighths" if counted == _EIGHTH else ""
    return Meter(signature + unequal + eighth_beats, beats, counted)


_HALF, _QUARTER, _DOTTED, _EIGHTH = (Fraction(*share) for share in ((1, 2), (1, 4), (3, 8), (1, 8)))

METERS: dict[str, Meter] = {
    meter.name: meter
    for meter in (
        _meter("4/4", _QUARTER, 2, 2, 2, 2),
        _meter("3/4", _QUARTER, 2, 2, 2),
        _meter("2/4", _QUARTER, 2, 2),
        _meter("5/4", _QUARTER, 2, 2, 2, 2, 2),
        _meter("2/2", _HALF, 4, 4),
        _meter("6/8", _DOTTED, 3, 3),
        _meter("9/8", _DOTTED, 3, 3, 3),
        _meter("12/8", _DOTTED, 3, 3, 3, 3),
        _meter("5/8", _QUARTER, 2, 3),
        _meter("5/8", _QUARTER, 3, 2),
        _meter("7/8", _QUARTER, 2, 2, 3),
        _meter("7/8", _QUARTER, 3, 2, 2),
        _meter("8/8", _QUARTER, 3, 3, 2),
        _meter("7/8", _EIGHTH, 1, 1, 1, 1, 1, 1, 1),
    )
}


_CELLS = re.compile(r"^(?P<base>.+?)(?P<cells>(?: [+-]\d{1,2}/(?:4|8|16|32)(?:@\d{1,2})?)+)$")
_CELL = re.compile(r"([+-])(\d{1,2})/(\d{1,2})(?:@(\d{1,2}))?")
MOST_CELLS = 8


def meter_named(name: str) -> Meter:
    """Return a meter by its name, or one that is made of it by cells: ``"3/4 -2/16"``, ``"4/4 +1/16@2"``.

    A cell is added to a beat or taken from it, the last where none is named after ``@``.

    Raises:
        OutOfRange: No meter of that name is known, or its cells leave nothing of the bar.

    >>> meter_named("3/4 -2/16").signature, meter_named("3/4 +1/16").signature, meter_named("3/4 +2/16").signature
    ((5, 8), (13, 16), (7, 8))
    """
    made = _CELLS.match(name)
    if made and made["base"] in METERS:
        return _by_cells(METERS[made["base"]], made["cells"])
    try:
        return METERS[name]
    except KeyError:
        raise OutOfRange(
            f"“{name}” is not a meter that Ripresa knows. Use one of {', '.join(METERS)}, or one of them with cells: "
            "3/4 -2/16.",
            field="meter",
        ) from None


def _by_cells(base: Meter, text: str) -> Meter:
    beats = list(base.beats)
    cells = _CELL.findall(text)
    if len(cells) > MOST_CELLS:
        raise OutOfRange(f"A meter takes up to {MOST_CELLS} cells, not {len(cells)}.", field="meter")
    for sign, count, value, at in cells:
        length = Fraction(int(count), int(value)) / base.counted
        beat = int(at) - 1 if at else len(beats) - 1
        if not 0 <= beat < len(base.beats):
            raise OutOfRange(f"{base.name} has beats 1 to {len(base.beats)}, and not {at}.", field="meter")
        beats[beat] += length if sign == "+" else -length
        if beats[beat] < 0:
            raise OutOfRange(
                f"Beat {beat + 1} of {base.name} is shorter than {count}/{value}. Take less, or from another beat.",
                field="meter",
            )
    left = tuple(beat for beat in beats if beat)
    if not left:
        raise OutOfRange(f"These cells leave nothing of {base.name}. Take fewer.", field="meter")
    above, below = _signature(sum(left, Fraction(0)) * base.counted, base.signature[1])
    return Meter(f"{above}/{below} ({base.name}{text.replace('-', '−')})", left, base.counted)


def _signature(bar: Fraction, at_least: int) -> tuple[int, int]:
    """Return the signature of a bar that lasts such a share of a whole note."""
    below = max(bar.denominator, at_least)
    return int(bar * below), below
