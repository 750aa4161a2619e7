"""The sums column: the numbers that a reading implies at a tempo."""

from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction
from itertools import groupby, pairwise

from ripresa.core.drill import DIVISIONS
from ripresa.core.drill.accents import EveryNth, Walk
from ripresa.core.drill.accents import seams as walk_seams
from ripresa.core.drill.hands import ByOrder
from ripresa.core.exact import division_label, plural
from ripresa.core.grid import Event, LegReading, SlotPlace
from ripresa.core.reading import Reading
from ripresa.core.reports.dial import Dial, dial
from ripresa.core.reports.groups import Landing, Realignment, landings, realignment
from ripresa.core.rhythm import (
    GearChange,
    Meter,
    Speeds,
    count_word,
    gear_change,
    mixed_speeds,
    place_name,
    span_seconds,
    speed_nps,
    speed_twins,
)


@dataclass(frozen=True, slots=True)
class Fit:
    """How a pass of a leg fits the bar.

    Args:
        notes, beats, bars: Length of the pass: N, N / s, and in bars.
        last_note: Where its last note falls, in words.
        closing: Where the closing tonic falls, in words; None without.
        missing_beats: Beats missing to the bar line after the pass; 0 if it fits.
    """

    notes: int
    beats: Fraction
    bars: Fraction
    last_note: str
    closing: str | None
    missing_beats: Fraction

    @property
    def sentence(self) -> str:
        """All of it in words."""
        length = f"{plural(self.notes, 'note')} are {plural(self.beats, 'beat')}"
        if not self.missing_beats:
            return f"{length}, {plural(self.bars, 'bar')} exactly."
        closing = f" The closing tonic is {self.closing}." if self.closing else ""
        return f"{length}; {plural(self.missing_beats, 'beat')} missing to the bar line.{closing}"


@dataclass(frozen=True, slots=True)
class LegSums:
    """The numbers of one leg; beats and seconds with what the seam adds.

    ``gap_seconds`` is that of even notes; ``gaps`` are those in use, the longest first: more than one where they swing.
    """

    leg: LegReading
    nps: Fraction
    gap_seconds: Fraction
    gaps: tuple[Fraction, ...]
    beats: Fraction
    bars: Fraction
    seconds: Fraction
    fit: Fit


@dataclass(frozen=True, slots=True)
class Home:
    """When groups and hands come home on one division.

    ``cut`` holds the notes of each group in the first bar, where groups start anew on each bar or beat.
    """

    division: Fraction
    groups: Realignment | None
    landings: tuple[Landing, ...]
    cut: tuple[int, ...]
    lead_beats: Fraction | None


@dataclass(frozen=True, slots=True)
class WalkSums:
    """An accent walk on one division.

    Args:
        stations: Count word and hands of each station, in order; hands are
            those that play its slot, more than one where they alternate.
        bars, notes, seconds: Until the walk is home.
        walked_bars: Bars of the first leg on this division.
        gap, home_gap: Slots from one station's last group to the next one's first, and on the return home.
    """

    division: Fraction
    stations: tuple[tuple[str, tuple[str, ...]], ...]
    bars: int
    notes: int
    seconds: Fraction
    walked_bars: Fraction
    gap: int
    home_gap: int


@dataclass(frozen=True, slots=True)
class Sums:
    """All numbers of a drill at a tempo; lengths in beats and bars, times in seconds."""

    bpm: Fraction
    notes: int
    beats: Fraction
    bars: Fraction
    seconds: Fraction
    speeds: Speeds
    legs: tuple[LegSums, ...]
    gears: tuple[GearChange, ...]
    twins: tuple[tuple[Fraction, Fraction], ...]
    homes: tuple[Home, ...]
    walks: tuple[WalkSums, ...]
    dial: Dial


def fit(leg: LegReading, meter: Meter) -> Fit:
    """Return the fit report of a leg's pass, counted from a bar line.

    >>> from ripresa.core.drill import Drill
    >>> from ripresa.core.reading import read
    >>> reading = read(Drill())
    >>> fit(reading.legs[0], reading.meter).sentence
    '28 notes are 14 beats; 2 beats missing to the bar line. The closing tonic is bar 4, beat 3.'
    """
    beats = leg.pass_beats
    return Fit(
        notes=leg.pass_notes,
        beats=beats,
        bars=beats / meter.bar_length,
        last_note=_place(leg.last, meter),
        closing=_place(leg.closing, meter) if leg.has_closing else None,
        missing_beats=meter.to_bar_line(beats),
    )


def sums(reading: Reading, bpm: Fraction) -> Sums:
    """Return the numbers of a drill at a tempo."""
    meter = reading.meter
    slots = _shortest_slots(reading)
    rows = tuple(
        LegSums(
            leg=leg,
            nps=1 / span_seconds(slots[leg.index], bpm),
            gap_seconds=span_seconds(slots[leg.index], bpm),
            gaps=_gaps(leg.division, slots[leg.index], reading, bpm),
            beats=leg.beats,
            bars=leg.beats / meter.bar_length,
            seconds=span_seconds(leg.beats, bpm),
            fit=fit(leg, meter),
        )
        for leg in reading.legs
    )
    onsets = [event.onset for event in reading.notes]
    divisions = tuple(dict.fromkeys(division for leg in reading.legs for division in leg.divisions))
    fastest = reading.drill.fastest_division
    return Sums(
        bpm=bpm,
        notes=len(onsets),
        beats=reading.beats,
        bars=reading.bars,
        seconds=span_seconds(reading.beats, bpm),
        speeds=mixed_speeds(onsets, reading.beats, bpm),
        legs=rows,
        gears=tuple(gear_change(before, after, bpm, slots) for before, after, slots in _changes(reading)),
        twins=speed_twins(speed_nps(bpm, fastest), [d for d in DIVISIONS if 2 <= d <= 6]),
        homes=tuple(_home(reading, division) for division in divisions),
        walks=tuple(_walk(reading, division, bpm) for division in divisions if isinstance(reading.drill.accents, Walk)),
        dial=dial(reading.click_cycle, meter, bpm),
    )


def _shortest_slots(reading: Reading) -> list[Fraction]:
    """Return the beats of the shortest even slot that a note of each leg stands on."""
    found = [reading.meter.bar_length for _ in reading.legs]
    # Notes of one leg, division and beat of the bar stand on equal slots: one of them is enough.
    different = {(event.leg, event.division, event.beat): event for event in reading.notes}
    for event in different.values():
        found[event.leg] = min(found[event.leg], reading.slot_beats(event))
    return found


def _gaps(division: Fraction, slot: Fraction, reading: Reading, bpm: Fraction) -> tuple[Fraction, ...]:
    """Return the lengths in seconds of the slots of a division, the longest first: more than one where they swing."""
    swing = reading.drill.swing
    shares = {swing.share(division, number) for number in range(division.numerator)}
    return tuple(span_seconds(slot * division.numerator * share, bpm) for share in sorted(shares, reverse=True))


def _changes(reading: Reading) -> Iterator[tuple[Fraction, Fraction, tuple[Fraction, Fraction]]]:
    """Yield every step from one division to another that is quicker or slower, once each, in order.

    Each is (division before, after, beats that a slot of each lasts). A leg of
    mixed divisions goes round from its last to its first.
    """
    known: set[tuple[Fraction, Fraction]] = set()
    for before, after in _neighbours(reading):
        if before.division is after.division or before.division == after.division:
            continue
        pair = (before.division, after.division)
        slots = (reading.slot_beats(before), reading.slot_beats(after))
        if slots[0] != slots[1] and pair not in known:
            known.add(pair)
            yield (*pair, slots)


def _neighbours(reading: Reading) -> Iterator[tuple[Event, Event]]:
    """Yield each note with the one that follows, and the last of a mixed leg with its first."""
    notes = reading.notes
    firsts: dict[int, Event] = {}
    for event in notes:
        firsts.setdefault(event.leg, event)
    for before, after in pairwise([*notes, None]):
        if before is None:
            return
        if after is not None:
            yield before, after
        mixed = len(reading.legs[before.leg].divisions) > 1
        if mixed and (after is None or after.leg != before.leg):
            yield before, firsts[before.leg]


def warnings(reading: Reading) -> tuple[str, ...]:
    """Return what the teacher has to know about a reading, one sentence each."""
    outside = [leg for leg in reading.legs if leg.out_of_range]
    if not outside:
        return ()
    named = ", ".join(dict.fromkeys(f"{division_label(*leg.divisions)} a beat ({leg.described})" for leg in outside))
    return (
        f"Out of range for {reading.instrument.name}: {named}. "
        "One octave repeated lasts the same beats; fewer octaves fit too.",
    )


def _home(reading: Reading, division: Fraction) -> Home:
    accents, hands = reading.drill.accents, reading.drill.hands
    anew = isinstance(accents, EveryNth) and accents.restart in {"bar", "beat"}
    groups = None
    if isinstance(accents, EveryNth) and not anew:
        groups = realignment(accents.size, division, reading.meter)
    return Home(
        division=division,
        groups=groups,
        landings=landings(groups.size, division, reading.meter) if groups else (),
        cut=_cut(reading, division) if anew else (),
        lead_beats=hands.home_beats(division) if isinstance(hands, ByOrder) else None,
    )


def _first_on(reading: Reading, division: Fraction) -> tuple[LegReading, list[Event]]:
    """Return the first leg on a division, and its notes."""
    leg = next(leg for leg in reading.legs if division in leg.divisions)
    return leg, [event for event in reading.notes if event.leg == leg.index]


def _cut(reading: Reading, division: Fraction) -> tuple[int, ...]:
    """Return the notes of each group in the first bar of the first leg on a division."""
    _, inside = _first_on(reading, division)
    first = [event.group for event in inside if event.bar == inside[0].bar]
    return tuple(len(list(notes)) for _, notes in groupby(first))


def _walk(reading: Reading, division: Fraction, bpm: Fraction) -> WalkSums:
    walk = reading.drill.accents
    assert isinstance(walk, Walk)
    leg, inside = _first_on(reading, division)
    stations = tuple(
        (
            count_word(division, 1, slot),
            tuple(dict.fromkeys(event.stroke for event in inside if event.slot == slot and event.stroke)),
        )
        for slot in range(walk.stations(division))
    )
    bars = walk.home_bars(division)
    beats = bars * reading.meter.bar_length
    gap, home_gap = walk_seams(division)
    return WalkSums(
        division=division,
        stations=stations,
        bars=bars,
        notes=int(bars * len(reading.meter.beats) * division),
        seconds=span_seconds(beats, bpm),
        walked_bars=leg.pass_beats / reading.meter.bar_length,
        gap=gap,
        home_gap=home_gap,
    )


def _place(place: SlotPlace, meter: Meter) -> str:
    position, division, slot = place
    bar, beat, _ = meter.place(position)
    return place_name(bar, beat, count_word(division, beat, slot))
