"""Measuring: from a matched take to its figures, all of them told against one joint fit."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import pairwise
from math import log

import numpy as np
from numpy.typing import NDArray

from ripresa.core.exact import Fraction
from ripresa.core.rhythm import leads
from ripresa.core.takes.due import SEAM_BEATS, Due
from ripresa.core.takes.figures import (
    CornerFigures,
    Dot,
    Figures,
    LegFigures,
    LostBeat,
    Point,
    SlotFigures,
    SwingFigures,
)
from ripresa.core.takes.fit import Fit, Rows, joint_fit
from ripresa.core.takes.heard import HeardNote, strikes_of
from ripresa.core.takes.interval import Interval
from ripresa.core.takes.landing import fills, landings, seams
from ripresa.core.takes.match import Match
from ripresa.core.takes.model import running_median, steps_in, without_bend
from ripresa.core.takes.places import furthest, places, strays
from ripresa.core.takes.touch import accents, articulation, hands, held

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

#: Fewer notes than this say nothing about spread or tempo.
FEWEST_NOTES = 16
#: Where changes follow each other so closely that less than this is left beside them, all notes are fitted.
_LEFT = 0.4
_MOST_DOTS, _MOST_POINTS = 60, 480
_MOST_STEPS = 24
#: Divisions whose slots are pairs.
_PAIRS = (2, 4)
#: What a second of the drill lasts at least.
_AT_ONCE = 0.05
#: Of a pair neither is shorter than this share of both.
_A_PAIR = 0.05
#: A step is told by so many notes on either side.
_BESIDE = 12
#: A step is at least so much of a gap.
_STEP_SHARE = 0.4
#: A lost beat that comes back within so many beats was a group that stood off.
_GROUP_BEATS = 4.5
#: Silence that is called a lost beat, in beats.
_SILENT_BEATS = 0.9
#: A player misses at least so many; a run that comes more often by chance is no lost beat.
_RARE_MISS, _BY_CHANCE = 0.01, 0.01


@dataclass(frozen=True)
class Measured:
    """A take as it was matched and fitted.

    Args:
        due, match, notes: What was asked, how it was met, and by what.
        row: Indexes of the due notes that were met in their own pitch; note: those they were met by.
        fit: None where too little was heard.
    """

    due: Due
    match: Match
    notes: Sequence[HeardNote]
    row: Ints
    note: Ints
    fit: Fit | None

    @cached_property
    def struck(self) -> Floats:
        """When each stroke came, in seconds, rising: the notes of a chord are one."""
        return np.array([strike.at for strike in strikes_of(self.notes, self.due.chords)])

    @property
    def rest(self) -> Floats:
        """What remains of each met note beside the fit, in seconds; its offset around their median without one."""
        if self.fit is not None:
            return self.fit.rest
        return self.offset - (float(np.median(self.offset)) if len(self.row) else 0.0)

    @property
    def offset(self) -> Floats:
        """The offset of each met note, in seconds, as it came."""
        return np.array([self.notes[note].at for note in self.note.tolist()]) - self.due.at[self.row]


def fitted_take(due: Due, match: Match, notes: Sequence[HeardNote]) -> Measured:
    """Return a matched take with its joint fit."""
    wrong = set(match.wrong)
    pairs = [pair for pair in match.pairs if pair[0] not in wrong]
    row = np.array([pair[0] for pair in pairs], dtype=np.int64)
    note = np.array([pair[1] for pair in pairs], dtype=np.int64)
    bare = Measured(due, match, notes, row, note, None)
    if len(row) < 4:
        return bare
    offset = bare.offset
    settled = due.since_change[row] >= SEAM_BEATS
    if settled.sum() < max(FEWEST_NOTES, _LEFT * len(row)):
        settled = np.ones(len(row), dtype=bool)
    rows = Rows(
        time=due.at[row],
        offset=offset,
        place=due.place_number[row],
        division=due.division_number[row],
        steps=tuple(_steps(bare, offset)),
        counts=settled,
    )
    return Measured(due, match, notes, row, note, joint_fit(rows))


def measure(take: Measured, latency: tuple[float, float] | None) -> Figures:
    """Return the figures of a take.

    Args:
        latency: Known delay of the source and its half-width, in seconds; None where it was not measured.
    """
    due, match, fit = take.due, take.match, take.fit
    late, unsure = latency if latency else (0.0, 0.0)
    bias = tempo = bend = spread = None
    if fit is not None:
        count = fit.count
        start = fit.told(fit.start, count)
        bias = Interval(start.value - late, start.half_width, count)
        if fit.has_drift:
            tempo = tempo_between(fit, float(due.at[0]), float(due.at[-1]))
        if fit.has_bend:
            curve = fit.told(fit.unit(2), count)
            scale = 2 * 60 * float(due.bpm)
            bend = Interval(-scale * curve.value, scale * curve.half_width, count)
        spread = fit.spread() if count >= FEWEST_NOTES else None
    known = None
    if bias is not None and latency is not None:
        known = Interval(bias.value, float(np.hypot(bias.half_width, unsure)), bias.count)
    return Figures(
        due=len(due),
        matched=len(match.pairs),
        missed=len(match.missed),
        extra=len(match.extra),
        wrong=len(match.wrong),
        gap_seconds=float(due.even_gap.min()) if len(due) else due.beat,
        bias=bias,
        with_click=known,
        tempo_percent=tempo,
        bend=bend,
        spread=spread,
        legs=tuple(_legs(take)),
        seams=seams(take.due, take.row, take.rest, fit),
        landings=landings(take.due, take.row, fit),
        fills=fills(take.due, take.row, fit),
        hands=hands(take.due, take.row, take.note, take.notes, fit),
        accents=accents(take.due, take.row, take.note, take.notes),
        articulation=articulation(take.due, take.row, take.note, take.notes),
        held=held(take.due, take.row, take.note, take.notes),
        lost=tuple(_lost(take)),
        line=_line(take),
        strays=strays(due, take.row, take.rest, fit),
        places=places(due, take.row, take.rest, fit),
        furthest=furthest(due, take.row, take.offset, fit, latency),
        corner=_corner(due, fit),
        outside=len(take.struck) - len(match.pairs) - len(match.extra),
    )


def tempo_between(fit: Fit, begin: float, end: float) -> Interval:
    """Return how much faster than asked the tempo is between two moments, in per cent."""
    drift = fit.told(fit.slope_over(begin, end), fit.count)
    # An offset that grows by b seconds a second means a tempo of 1 / (1 + b) of what was asked; who strikes everything
    # at once has none, and is faster than any.
    lasts = max(_AT_ONCE, 1 + drift.value)
    return Interval(100 * (1 / lasts - 1), 100 / lasts**2 * drift.half_width, fit.count)


def _corner(due: Due, fit: Fit | None) -> CornerFigures | None:
    if fit is None or fit.corner is None:
        return None
    index = min(len(due) - 1, int(np.searchsorted(due.at, fit.corner - 1e-9)))
    event = int(due.index[index])
    before, after = tempo_between(fit, float(due.at[0]), fit.corner), tempo_between(fit, fit.corner, float(due.at[-1]))
    return CornerFigures(due.beat_name(event), event, int(due.turn[index]), before, after)


def _steps(take: Measured, offset: Floats) -> list[int]:
    """Return the rows from which the offset stays moved: what a change does to a hand passes, and is a seam."""
    model, due = take.match.model, take.due
    settled = np.flatnonzero(due.since_change[take.row] >= SEAM_BEATS)
    if model is None or len(settled) < FEWEST_NOTES:
        return []
    rest = without_bend(offset - model.habit[take.row], due.at[take.row])
    gap = due.near_gap[take.row]
    steps = settled[steps_in(rest[settled], gap[settled], model.scale)].tolist()
    # Who parts from the click as often as that has not lost beats: it is another tempo, or another drill.
    if len(steps) > _MOST_STEPS:
        return []
    while steps:
        sizes = np.abs(_sizes(rest, steps))
        small = [number for number, step in enumerate(steps) if sizes[number] < _STEP_SHARE * gap[step]]
        if not small:
            break
        del steps[min(small, key=lambda number: float(sizes[number]))]
    return [int(step) for step in steps]


def _lost(take: Measured) -> list[LostBeat]:
    """Return where player and click parted: steps of the offset, groups that stood off, and beats left out."""
    due, row = take.due, take.row
    found: list[LostBeat] = []
    if len(row) >= FEWEST_NOTES:
        offset = take.offset
        model = take.match.model
        if model is not None:
            offset = without_bend(offset - model.habit[row], due.at[row])
        steps = _steps(take, take.offset)
        sizes = _sizes(offset, steps)
        number = 0
        while number < len(steps):
            index, size = int(row[steps[number]]), sizes[number]
            kind = "late" if size > 0 else "early"
            if number + 1 < len(steps):
                back = int(row[steps[number + 1]])
                span = (due.at[back] - due.at[index]) / due.beat
                if span <= _GROUP_BEATS and abs(size + sizes[number + 1]) < 0.4 * abs(size):
                    kind = "group"
                    number += 1
            found.append(_lost_at(due, kind, abs(size), index))
            number += 1
    found += _left_out(take)
    return sorted(found, key=lambda one: (one.turn, due.reading.every[one.event].onset))


def _sizes(offset: Floats, steps: Sequence[int]) -> list[float]:
    """Return by how much the offset moves at each step: the notes just after it against those just before."""
    edges = [0, *steps, len(offset)]
    return [
        float(
            np.median(offset[step : min(after, step + _BESIDE)]) - np.median(offset[max(before, step - _BESIDE) : step])
        )
        for before, step, after in zip(edges, edges[1:], edges[2:], strict=False)
    ]


def _left_out(take: Measured) -> list[LostBeat]:
    """Return stretches of a beat or more in which every note was missed, between others that were met."""
    due = take.due
    met = np.array(sorted(one for one, _ in take.match.pairs), dtype=np.int64)
    missed = len(take.match.missed)
    found = []
    for before, after in pairwise(met.tolist()):
        first, run = before + 1, after - before - 1
        # As many as the player misses anyway come in a row by chance.
        usual = max(_RARE_MISS, (missed - run) / len(due))
        if run < 2 or len(due) * usual**run > _BY_CHANCE:
            continue
        silent = due.at[after - 1] - due.at[first] + due.even_gap[after - 1]
        if silent >= _SILENT_BEATS * due.beat:
            found.append(_lost_at(due, "silent", float(silent), first))
    return found


def _lost_at(due: Due, kind: str, seconds: float, index: int) -> LostBeat:
    event = int(due.index[index])
    return LostBeat(kind, seconds, seconds / due.beat, event, int(due.turn[index]), due.beat_name(event))


def _legs(take: Measured) -> list[LegFigures]:
    due, row = take.due, take.row
    divisions = dict.fromkeys(division for division, _ in due.place)
    places = due.place_number
    numbers = {place: number for number, place in enumerate(dict.fromkeys(due.place))}
    words = {place: ("1" if place[1] == 0 else event.count) for place, event in zip(due.place, due.events, strict=True)}
    found = []
    for number, division in enumerate(divisions):
        here = due.division_number[row] == number
        if not here.any():
            continue
        gap = float(np.median(due.even_gap[row][here]))
        slots = sorted(slot for one, slot in numbers if one == division)
        habits = {slot: _habit(take, numbers[division, slot], places) for slot in slots}
        shares, crowding, swing = _shares(take, division, numbers, gap)
        spread = take.fit.spread(here) if take.fit is not None else None
        found.append(
            LegFigures(
                division,
                gap,
                spread,
                crowding,
                tuple(
                    SlotFigures(
                        slot,
                        words[division, slot],
                        habits[slot],
                        shares.get(slot),
                        _dots(take, places[row] == numbers[division, slot], habits[slot]),
                    )
                    for slot in slots
                    if (places[row] == numbers[division, slot]).any()
                ),
                swing=swing,
            )
        )
    return found


def _habit(take: Measured, place: int, places: Ints) -> Interval | None:
    if take.fit is None or place not in take.fit.habits:
        return None
    count = int(((places[take.row] == place) & take.fit.counts).sum())
    return take.fit.told(take.fit.habits[place], count)


def _dots(take: Measured, here: NDArray[np.bool_], habit: Interval | None) -> tuple[Dot, ...]:
    chosen = np.flatnonzero(here)[:_MOST_DOTS]
    around = habit.value if habit else 0.0
    due = take.due
    return tuple(
        Dot(float(take.rest[one]) + around, int(due.index[take.row[one]]), int(due.turn[take.row[one]]))
        for one in chosen.tolist()
    )


def _shares(
    take: Measured, division: Fraction, numbers: dict[tuple[Fraction, int], int], gap: float
) -> tuple[dict[int, float], Interval | None, SwingFigures | None]:
    """Return each slot’s share of the beat, how much longer the last is than the mean of the others, and the swing.

    All follow from the habits, which hold each slot against the same line; where a slot has none, none is told.
    """
    fit, slots = take.fit, division.numerator
    if fit is None or slots < 2 or not all(numbers.get((division, slot)) in fit.habits for slot in range(slots)):
        return {}, None, None
    lengths = _lengths(take.due, division)
    if len(lengths) < slots:
        return {}, None, None
    habits = [fit.habits[numbers[division, slot]] for slot in range(slots)]
    longer = [habits[(slot + 1) % slots] - habits[slot] for slot in range(slots)]
    values = [lengths[slot] + float(longer[slot] @ fit.solution) for slot in range(slots)]
    whole = sum(values)
    shares = {slot: value / whole for slot, value in enumerate(values)}
    count = int((fit.counts & (take.due.even_gap[take.row] > 0)).sum())
    swing = _swing(take.due, fit, values, longer, count)
    if slots < 3:
        return shares, None, swing
    # last / mean(others) − 1, for small differences: (last − mean(others)) / gap; swing is no crowding.
    contrast = (longer[-1] - sum(longer[:-1]) / (slots - 1)) / gap
    return shares, fit.told(contrast, count), swing


def _swing(due: Due, fit: Fit, values: Sequence[float], longer: Sequence[Floats], count: int) -> SwingFigures | None:
    """Return the swing of pairs, of slots or of halves of the beat, whichever lies farther from what was asked."""
    slots, whole = len(values), sum(values)
    asked = due.reading.drill.swing
    found = []
    for on in (one for one in _PAIRS if slots in _PAIRS and one <= slots):
        first = [slot for slot in range(slots) if leads(slot, slots, on)]
        long = sum(values[slot] for slot in first) / whole
        if not _A_PAIR < long < 1 - _A_PAIR:
            continue
        ratio = asked.ratio if asked.on == on else Fraction(1)
        # r = L / (1 − L) of the long share L, so that dr = dL / (1 − L)².
        told = fit.told(np.sum([longer[slot] for slot in first], axis=0) / (whole * (1 - long) ** 2), count)
        found.append(SwingFigures(replace(told, value=long / (1 - long)), ratio, on))
    return max(found, key=lambda one: abs(log(one.heard.value / one.asked)), default=None)


def _lengths(due: Due, division: Fraction) -> dict[int, float]:
    """Return how long each slot of a division is laid, in seconds: uneven with swing."""
    found: dict[int, float] = {}
    for event in due.reading.events:
        if event.division == division and event.slot not in found:
            found[event.slot] = float(event.length) * due.beat
    return found


def _line(take: Measured) -> tuple[Point, ...]:
    """Return the offsets through a take around its start, the habits in; of many notes every n-th."""
    if not len(take.row):
        return ()
    offset = take.offset - float(np.median(running_median(take.offset)))
    chosen = range(0, len(take.row), max(1, -(-len(take.row) // _MOST_POINTS)))
    due = take.due
    return tuple(
        Point(
            float(due.at[take.row[one]]),
            float(offset[one]),
            int(due.index[take.row[one]]),
            int(due.turn[take.row[one]]),
        )
        for one in chosen
    )
