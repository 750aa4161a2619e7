"""The fit report: how a pass of a leg fits the bar."""

from dataclasses import dataclass

from ripresa.core.exact import Fraction, plural
from ripresa.core.grid import LegReading, SlotPlace
from ripresa.core.rhythm import Meter, place_name, slot_name


@dataclass(frozen=True, slots=True)
class Fit:
    """How a pass of a leg fits the bar.

    Args:
        notes, beats, bars: Length of the pass: N, N / s, and in bars.
        last_note: Where its last note falls, in words.
        closing: Where the closing tonic falls, in words; None without.
        plays_closing: Whether this leg plays it; else it is the first note of what follows.
        missing_beats: Beats missing to the bar line after the pass; 0 if it fits.
    """

    notes: int
    beats: Fraction
    bars: Fraction
    last_note: str
    closing: str | None
    plays_closing: bool
    missing_beats: Fraction

    @property
    def sentence(self) -> str:
        """All of it in words."""
        length = f"{plural(self.notes, 'note')} are {plural(self.beats, 'beat')}"
        if self.closing is None:
            closing = ""
        elif self.plays_closing:
            closing = f" The closing tonic is {self.closing}."
        else:
            closing = " The closing tonic is the first note of what follows."
        if not self.missing_beats:
            return f"{length}, {plural(self.bars, 'bar')} exactly.{closing}"
        return f"{length}; {plural(self.missing_beats, 'beat')} missing to the bar line.{closing}"


def fit(leg: LegReading, meter: Meter) -> Fit:
    """Return the fit report of a leg's pass; its bars are those of the drill, as everywhere.

    >>> from ripresa.core.drill import Drill
    >>> from ripresa.core.reading import read
    >>> reading = read(Drill())
    >>> fit(reading.legs[0], reading.meter).sentence
    '28 notes are 14 beats; 2 beats missing to the bar line. The closing tonic is bar 4, beat 3.'
    """
    beats, end = leg.pass_beats, leg.start + leg.pass_beats
    return Fit(
        notes=leg.pass_notes,
        beats=beats,
        bars=meter.bars_passed(end) - meter.bars_passed(leg.start),
        last_note=_place(leg, leg.last, meter),
        closing=_place(leg, leg.end, meter) if leg.has_closing else None,
        plays_closing=leg.plays_closing,
        missing_beats=meter.to_bar_line(end),
    )


def _place(leg: LegReading, place: SlotPlace, meter: Meter) -> str:
    position, division, slot = place
    bar, beat, _ = meter.place(leg.start + position)
    span = meter.beats_of(bar)[beat - 1] if division.denominator == 1 else None
    return place_name(bar, beat, slot_name(division, slot, span))
