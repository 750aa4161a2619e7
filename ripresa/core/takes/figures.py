"""The figures of a take: bias, spread and drift, slots and seams, each with its count and its uncertainty.

Bias, spread and drift are three separate numbers. Drift comes from a straight
or bent line through the offsets (least squares); spread is what is left
after it. Half-widths are for 95 %, from the normal approximation, with the
number of notes cut where neighbours correlate (Bartlett's rule for an AR(1)
series: n (1 − r) / (1 + r)).
"""

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from math import sqrt

import numpy as np
from numpy.typing import NDArray

from ripresa.core.exact import Exact
from ripresa.core.grid import Event
from ripresa.core.reading import Reading
from ripresa.core.rhythm import span_seconds
from ripresa.core.takes.match import Match

Floats = NDArray[np.float64]

#: Fewer matched notes than this say nothing about spread or drift (half-width over a third of the value).
FEWEST_NOTES = 16
_FEWEST_FOR_BEND = 24
_SHORTEST_FOR_DRIFT = 5.0
_Z95 = 1.96
_MEDIAN_FACTOR = 1.2533
_MOST_DOTS = 60
_MOST_POINTS = 240
#: Beats after a gear change that count as the seam (DOMAIN: the first two).
_SEAM_BEATS = 2


@dataclass(frozen=True, slots=True)
class Interval:
    """A figure with its 95 % half-width, both in the same unit, and how many notes it rests on."""

    value: float
    half_width: float
    count: int


@dataclass(frozen=True, slots=True)
class SlotFigures:
    """One slot of a division.

    Args:
        slot: From 0. count: Its word.
        bias: Offset from the player's own median, seconds; None under two notes.
        share: Its part of the beat, 0 to 1; None where its gaps were not heard.
        dots: Offsets from the player's median, seconds, up to 60, in order.
    """

    slot: int
    count: str
    bias: Interval | None
    share: float | None
    dots: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class LegFigures:
    """All slots of one division."""

    division: Exact
    slots: tuple[SlotFigures, ...]


@dataclass(frozen=True, slots=True)
class SeamFigures:
    """The first two beats after a change of division.

    Args:
        before, after: Notes per beat.
        offset: From the player's own median, seconds, late above 0.
        changes: How often the change was heard.
    """

    before: Exact
    after: Exact
    offset: Interval
    changes: int


@dataclass(frozen=True, slots=True)
class Figures:
    """What a take measures; times in seconds, negative is early.

    Args:
        due, matched, missed, extra: Counts of notes.
        bias: Median offset after latency. spread: SD after bias and drift.
        drift_percent: Faster (above 0) or slower than asked.
        drift_bpm_a_minute: How the tempo itself changes.
        line: (seconds, offset from the median) through the take, up to 240 points.
        gap_seconds: The shortest gap that was due, which limits are a share of.
    """

    due: int
    matched: int
    missed: int
    extra: int
    gap_seconds: float
    bias: Interval | None
    spread: Interval | None
    drift_percent: Interval | None
    drift_bpm_a_minute: Interval | None
    legs: tuple[LegFigures, ...]
    seams: tuple[SeamFigures, ...]
    line: tuple[tuple[float, float], ...]


@dataclass(frozen=True, slots=True)
class _Heard:
    at: float
    offset: float
    due: int
    event: Event


def measure(
    reading: Reading,
    bpm: Fraction,
    due: Sequence[tuple[float, int]],
    played: Sequence[float],
    match: Match,
    latency: float = 0.0,
) -> Figures:
    """Return the figures of a take.

    Args:
        due: (seconds, index of the event) as ``expected_onsets`` gives them.
        played: Seconds on the same clock.
        match: How they belong together.
        latency: Known delay of the source in seconds, taken off every offset.
    """
    heard = [
        _Heard(due[wanted][0], played[found] - due[wanted][0] - latency, wanted, reading.events[due[wanted][1]])
        for wanted, found in match.pairs
    ]
    gaps = np.diff([at for at, _ in due])
    gap = float(gaps.min()) if len(gaps) else float(span_seconds(Fraction(1), bpm))
    offsets = np.array([one.offset for one in heard])
    middle = float(np.median(offsets)) if len(heard) else 0.0
    centred = [_Heard(one.at, one.offset - middle, one.due, one.event) for one in heard]
    bias, spread, percent, bend = _three(np.array([one.at for one in heard]), offsets, float(bpm))
    return Figures(
        due=len(due),
        matched=len(heard),
        missed=len(match.missed),
        extra=len(match.extra),
        gap_seconds=gap,
        bias=bias,
        spread=spread,
        drift_percent=percent,
        drift_bpm_a_minute=bend,
        legs=_legs(reading, centred, float(span_seconds(Fraction(1), bpm))),
        seams=_seams(reading, centred, float(reading.loop_beats), float(bpm)),
        line=tuple((one.at, one.offset) for one in centred[:: max(1, len(centred) // _MOST_POINTS)]),
    )


def _three(times: Floats, offsets: Floats, bpm: float) -> tuple[Interval | None, ...]:
    """Return bias, spread, drift in per cent and drift in bpm a minute, None where there is too little."""
    count = len(offsets)
    if count < 2:
        return None, None, None, None
    duration = float(times[-1] - times[0])
    bends = count >= _FEWEST_FOR_BEND and duration >= _SHORTEST_FOR_DRIFT
    degree = 2 if bends else 1 if count >= FEWEST_NOTES else 0
    centre = times - times.mean()
    design = np.vander(centre, degree + 1, increasing=True)
    solution, *_ = np.linalg.lstsq(design, offsets, rcond=None)
    rest = offsets - design @ solution
    freedom = max(1, count - degree - 1)
    deviation = sqrt(float(rest @ rest) / freedom)
    effective = _effective(rest)
    bias = Interval(float(np.median(offsets)), _Z95 * _MEDIAN_FACTOR * deviation / sqrt(effective), count)
    if count < FEWEST_NOTES:
        return bias, None, None, None
    spread = Interval(deviation, _Z95 * deviation / sqrt(2 * (effective - 1)), count)
    if not bends:
        return bias, spread, None, None
    errors = deviation * np.sqrt(np.diag(np.linalg.inv(design.T @ design)) * count / effective)
    # An offset that grows by b seconds a second means a tempo of 1 / (1 + b), near 1 − b, of what was asked.
    percent = Interval(-100 * float(solution[1]), _Z95 * 100 * float(errors[1]), count)
    bend = Interval(-2 * 60 * bpm * float(solution[2]), _Z95 * 2 * 60 * bpm * float(errors[2]), count)
    return bias, spread, percent, bend


def _effective(rest: Floats) -> float:
    """Return the number of notes that count as independent; at least 4."""
    power = float(rest @ rest)
    if power == 0 or len(rest) < 4:
        return float(max(4, len(rest)))
    neighbour = min(0.8, max(0.0, float(rest[1:] @ rest[:-1]) / power))
    return max(4.0, len(rest) * (1 - neighbour) / (1 + neighbour))


def interval_of(values: Sequence[float]) -> Interval | None:
    """Return the mean of some values with its 95 % half-width; None under two."""
    if len(values) < 2:
        return None
    array = np.asarray(values)
    return Interval(float(array.mean()), _Z95 * float(array.std(ddof=1)) / sqrt(len(array)), len(array))


def _legs(reading: Reading, heard: Sequence[_Heard], beat_seconds: float) -> tuple[LegFigures, ...]:
    offsets: dict[tuple[Fraction, int], list[float]] = defaultdict(list)
    widths: dict[tuple[Fraction, int], list[float]] = defaultdict(list)
    words: dict[tuple[Fraction, int], str] = {}
    for number, one in enumerate(heard):
        division = one.event.division
        key = division, one.event.slot
        offsets[key].append(one.offset)
        words[key] = "1" if one.event.slot == 0 else one.event.count
        following = heard[number + 1] if number + 1 < len(heard) else None
        # Only a gap between two heard neighbours, one slot apart, is a share of the beat.
        if following and following.due == one.due + 1 and following.event.onset == one.event.onset + one.event.length:
            widths[key].append(float(one.event.length) + (following.offset - one.offset) / beat_seconds)
    divisions = dict.fromkeys(event.division for event in reading.notes)
    return tuple(
        LegFigures(
            division,
            tuple(
                SlotFigures(
                    slot,
                    words[division, slot],
                    interval_of(offsets[division, slot]),
                    float(np.mean(widths[division, slot])) if widths[division, slot] else None,
                    tuple(offsets[division, slot][:_MOST_DOTS]),
                )
                for slot in range(division.numerator)
                if (division, slot) in words
            ),
        )
        for division in divisions
        if any(key[0] == division for key in words)
    )


def _seams(reading: Reading, heard: Sequence[_Heard], turn_beats: float, bpm: float) -> tuple[SeamFigures, ...]:
    offsets: dict[tuple[Fraction, Fraction], list[float]] = defaultdict(list)
    changes: dict[tuple[Fraction, Fraction], set[tuple[int, int]]] = defaultdict(set)
    for one in heard:
        leg = reading.legs[one.event.leg]
        before = reading.legs[leg.index - 1].leaves if leg.index else None
        after = leg.enters
        if before is None or before == after or one.event.onset - leg.start >= _SEAM_BEATS:
            continue
        key = before, after
        offsets[key].append(one.offset)
        turn = int(one.at * bpm / 60 / turn_beats + 1e-6)
        changes[key].add((turn, leg.index))
    return tuple(
        SeamFigures(before, after, interval, len(changes[before, after]))
        for (before, after), values in offsets.items()
        if (interval := interval_of(values)) is not None
    )
