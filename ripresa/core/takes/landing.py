"""Seams and landings: how a player meets a change, and the notes that have to land."""

from collections import defaultdict
from collections.abc import Sequence
from itertools import pairwise
from math import sqrt

import numpy as np
from numpy.typing import NDArray

from ripresa.core.rhythm import span_seconds
from ripresa.core.takes.due import SEAM_BEATS, Due
from ripresa.core.takes.figures import LandingFigures, SeamFigures
from ripresa.core.takes.fit import Fit
from ripresa.core.takes.interval import Interval, student

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

_BEATS_TOLD = 4
#: A rest of a beat is a silence that has to be landed after; so is a silence of the click of two beats.
_SILENCE, _CLICK_SILENCE = 1.0, 2.0
_FEWEST_LANDINGS = 2
_FEWEST_IN_FILL = 4


def seams(due: Due, row: Ints, rest: Floats, fit: Fit | None) -> tuple[SeamFigures, ...]:
    """Return how each kind of change was met, of a take.

    Args:
        row: Indexes of the met notes. rest: What remains of each beside the fit.
    """
    if fit is None:
        return ()
    at = due.at[row]
    found: dict[tuple[str, str], list[float]] = defaultdict(list)
    for seam in due.seams:
        found[seam.kind, seam.name].append(seam.at)
    told = []
    for (kind, name), moments in found.items():
        # Where it comes again and again inside, it is its slot’s habit too: the fit takes that off, and here it counts.
        values = rest + fit.habit_of(due.place_number[row]) if kind == "inside" else rest
        places = np.searchsorted(at, np.array(moments) - 1e-6)
        heard = [
            int(one)
            for one, moment in zip(places, moments, strict=True)
            if one < len(at) and abs(at[one] - moment) < 1e-6
        ]
        note = fit.mean([np.array([one]) for one in heard], values)
        bins = [[_between(at, moment, beat, beat + 1, due.beat) for moment in moments] for beat in range(_BEATS_TOLD)]
        first = fit.mean(bins[0], values)
        two = fit.mean([_between(at, moment, 0, SEAM_BEATS, due.beat) for moment in moments], values)
        if first is None or two is None:
            continue
        after = np.concatenate(bins[0])
        told.append(
            SeamFigures(
                kind,
                name,
                float(due.even_gap[row][after].min()),
                first,
                two,
                tuple(float(values[np.concatenate(one)].mean()) if any(map(len, one)) else None for one in bins),
                tuple(float(values[one].mean()) for one in bins[0] if len(one)),
                note,
                tuple(float(values[one]) for one in heard),
            )
        )
    return tuple(told)


def landings(due: Due, row: Ints, fit: Fit | None) -> tuple[LandingFigures, ...]:
    """Return how notes were met that have to land: hits, arrivals, after rests, after silence of the click."""
    if fit is None or not len(row):
        return ()
    kinds = due_landings(due)
    told = []
    for kind, indexes in kinds.items():
        places = np.searchsorted(row, indexes)
        met = [
            int(place) for place, index in zip(places, indexes, strict=True) if place < len(row) and row[place] == index
        ]
        if len(met) < _FEWEST_LANDINGS:
            continue
        mean = fit.mean([np.array([one]) for one in met])
        if mean is not None:
            told.append(LandingFigures(kind, float(due.even_gap[row][met].min()), mean, len(met)))
    return tuple(told)


def fills(due: Due, row: Ints, fit: Fit | None) -> Interval | None:
    """Return the tempo inside fills against that of the whole, in per cent; None without hits or fills.

    A fill is a run of four notes and more, of a beat and more, between two hits.
    """
    if fit is None or not len(row):
        return None
    runs = [np.flatnonzero((row >= begin) & (row < end)) for begin, end in _fill_runs(due)]
    found = fit.slope([run for run in runs if len(run) >= _FEWEST_IN_FILL], due.at[row])
    return Interval(-100 * found.value, 100 * found.half_width, found.count) if found else None


def _fill_runs(due: Due) -> list[tuple[int, int]]:
    """Return (first, index of the hit after it) of each fill."""
    hits = [index for index, event in enumerate(due.events) if event.accent == "accent"]
    if len(hits) > 0.5 * len(due):
        return []
    return [
        (before + 1, after)
        for before, after in pairwise(hits)
        if after - before > _FEWEST_IN_FILL and due.at[after] - due.at[before + 1] >= due.beat - 1e-6
    ]


def pooled(takes: Sequence[Sequence[SeamFigures]]) -> tuple[SeamFigures, ...]:
    """Return the seams of several takes as one: each change by all times that it was heard.

    Means are weighted by their notes; their variances add up accordingly.
    """
    kinds: dict[tuple[str, str], list[SeamFigures]] = defaultdict(list)
    for seam in (seam for take in takes for seam in take):
        kinds[seam.kind, seam.name].append(seam)
    return tuple(_as_one(alike) for alike in kinds.values())


def _as_one(alike: Sequence[SeamFigures]) -> SeamFigures:
    if len(alike) == 1:
        return alike[0]
    each = tuple(value for seam in alike for value in seam.each)
    notes = [seam.note for seam in alike if seam.note is not None]
    struck = tuple(value for seam in alike for value in seam.notes)
    last = alike[-1]
    return SeamFigures(
        last.kind,
        last.name,
        min(seam.gap for seam in alike),
        _mean([seam.first for seam in alike], each),
        _mean([seam.two for seam in alike], ()),
        last.beats,
        each,
        _mean(notes, struck) if notes else None,
        struck,
    )


def _mean(intervals: Sequence[Interval], each: Sequence[float]) -> Interval:
    count = sum(one.count for one in intervals)
    value = sum(one.value * one.count for one in intervals) / count
    half = sqrt(sum((one.half_width * one.count / count) ** 2 for one in intervals))
    if len(each) >= 3:
        # A player who meets a change now so and now so is less sure than his notes alone.
        half = max(half, student(0.95, len(each) - 1) * float(np.std(each, ddof=1)) / sqrt(len(each)))
    return Interval(value, half, count)


def _between(at: Floats, moment: float, first: float, last: float, beat: float) -> Ints:
    begin, end = np.searchsorted(at, [moment + first * beat - 1e-6, moment + last * beat - 1e-6])
    return np.arange(begin, end)


def due_landings(due: Due) -> dict[str, list[int]]:
    """Return which due notes are landings of which kind, as indexes."""
    found: dict[str, list[int]] = defaultdict(list)
    arrivals = _arrivals(due)
    silent = click_silences(due)
    found["after a fill"] = [after for _, after in _fill_runs(due)]
    gaps = np.diff(due.at, prepend=np.inf)
    ends = _sounding_ends(due)
    for index, event in enumerate(due.events):
        at = float(due.at[index])
        if index and gaps[index] - ends[index - 1] >= _SILENCE * due.beat - 1e-6:
            found["after a rest"].append(index)
        if int(due.index[index]) in arrivals:
            found["arrivals"].append(index)
        if any(begin + 1e-6 < at - 1e-9 and abs(at - end) < 1e-6 for begin, end in silent):
            found["after silence of the click"].append(index)
        if event.accent == "accent":
            found["hits"].append(index)
    if len(found["hits"]) > 0.7 * len(due):
        del found["hits"]
    return {kind: indexes for kind, indexes in found.items() if indexes}


def _sounding_ends(due: Due) -> Floats:
    """Return for each due note how long it is written to last, in seconds, the held parts in."""
    return np.array([due.sounding.get(id(event), due.beat) for event in due.events])


def _arrivals(due: Due) -> set[int]:
    """Return the events that are the last note of a leg: the closing tonic, where a line comes home."""
    last: dict[int, int] = {}
    for index, event in enumerate(due.reading.events):
        if event.kind == "note":
            last[event.leg] = index
    return {index for leg, index in last.items() if due.reading.legs[leg].plays_closing}


def click_silences(due: Due) -> list[tuple[float, float]]:
    """Return (begin, end) of each silence of the click, in seconds: the end is the click that breaks it."""
    cycle = due.reading.click_cycle
    usual = min(cycle.gaps, default=0)
    long = [
        (at, at + gap)
        for (at, _), gap in zip(cycle.clicks, cycle.gaps, strict=True)
        if gap >= max(_CLICK_SILENCE, 2 * usual) and usual
    ]
    if not long or not len(due):
        return []
    found = []
    rounds = int(float(due.at[-1]) / due.beat / float(cycle.length)) + 2
    for number in range(rounds):
        for begin, end in long:
            start = number * cycle.length
            found.append((float(span_seconds(start + begin, due.bpm)), float(span_seconds(start + end, due.bpm))))
    return found
