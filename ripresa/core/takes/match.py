"""Matching: which played onset belongs to which due one, in order, with misses and extras.

A banded dynamic programme in the manner of sequence alignment (Needleman and
Wunsch 1970), whose costs act on *changes* of the offset: a constant latency
and a slow drift are free, and a stumble costs a capped amount. A second pass
holds offsets against their own running median. Several openings are tried,
and the one whose second pass is the cheapest stands; a median that leaps by a
slot costs extra, because that is what a slip looks like and a drift does not.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Pairs = list[tuple[int, int]]

# Costs are in squared deviations; chosen on seeded stand-in takes, decisions/0003.
_MISS = 5.0
_EXTRA = 5.0
_STUMBLE = 8.0
#: How strongly an offset is drawn to the centre. Openings are tried from firmly (a player who loses notes
#: but keeps the beat) to hardly at all (one who drifts by more than a note).
_AWAY = 0.6
_OPENINGS = (0.6, 0.02, 0.002)
_CHANGE_SHARE = 0.16
_CHANGE_FLOOR = 0.015
#: What a leap of the centre costs, and over how many notes one is sudden.
_LEAP = 15.0
_LEAP_NOTES = 12
#: Candidates lie within so many gaps, and within these seconds.
_REACH = 5.0
_NEAREST, _FARTHEST = 0.12, 1.0
_SKIPS = 5
_WIDEST = 48
_MEDIAN_HALF = 12
_FEWEST_FOR_CENTRE = 8


@dataclass(frozen=True, slots=True)
class Match:
    """Which due onset was met by which played one.

    Args:
        pairs: (index of the due, index of the played), rising in both.
        missed: Indexes of due onsets without a played one.
        extra: Indexes of played onsets that belong to none.
    """

    pairs: tuple[tuple[int, int], ...]
    missed: tuple[int, ...]
    extra: tuple[int, ...]


def match_onsets(due: Sequence[float], played: Sequence[float], latency: float = 0.0) -> Match:
    """Return the cheapest matching of played to due onsets, both in seconds and rising.

    Args:
        latency: Known delay of the source, in seconds; where the search starts.

    >>> match_onsets([0.0, 0.5, 1.0], [0.01, 1.02]).missed
    (1,)
    """
    wanted = np.asarray(due, dtype=float)
    heard = np.asarray(played, dtype=float)
    if not len(wanted) or not len(heard):
        return Match((), tuple(range(len(wanted))), tuple(range(len(heard))))
    gaps = _gaps(wanted)
    start = np.full(len(wanted), latency)
    openings: list[Pairs] = []
    for pull in _OPENINGS:
        opening, _ = _align(wanted, heard, gaps, start, pull)
        if opening not in openings:
            openings.append(opening)
    pairs, _ = min((_settle(wanted, heard, gaps, start, one) for one in openings), key=lambda found: found[1])
    met = {due_index for due_index, _ in pairs}
    used = {played_index for _, played_index in pairs}
    return Match(
        tuple(pairs),
        tuple(index for index in range(len(wanted)) if index not in met),
        tuple(index for index in range(len(heard)) if index not in used),
    )


def _settle(wanted: Floats, heard: Floats, gaps: Floats, start: Floats, opening: Pairs) -> tuple[Pairs, float]:
    """Return an opening aligned once more, held against its own running median, and what that costs."""
    if len(opening) < _FEWEST_FOR_CENTRE:
        return _align(wanted, heard, gaps, start, _AWAY)
    centre = _running_centre(wanted, heard, opening)
    pairs, cost = _align(wanted, heard, gaps, centre, _AWAY)
    return pairs, cost + _leaps(centre, gaps)


def _gaps(wanted: Floats) -> Floats:
    """Return for each due onset the smaller of the gaps beside it; 0.5 s for a lone one."""
    if len(wanted) < 2:
        return np.array([0.5])
    between = np.diff(wanted)
    return np.asarray(np.minimum(np.append(between, between[-1]), np.insert(between, 0, between[0])))


def _running_centre(wanted: Floats, heard: Floats, pairs: Pairs) -> Floats:
    indexes = np.array([pair[0] for pair in pairs])
    offsets = np.array([heard[played] - wanted[due] for due, played in pairs])
    padded = np.pad(offsets, _MEDIAN_HALF, mode="edge")
    windows = np.lib.stride_tricks.sliding_window_view(padded, 2 * _MEDIAN_HALF + 1)
    middles: Floats = np.interp(np.arange(len(wanted)), indexes, np.median(windows, axis=1))
    return middles


def _leaps(centre: Floats, gaps: Floats) -> float:
    """Return the cost of sudden changes of the centre: what a slip by a slot looks like, and a drift does not."""
    if len(centre) <= _LEAP_NOTES:
        return 0.0
    steps = (centre[_LEAP_NOTES:] - centre[:-_LEAP_NOTES])[::_LEAP_NOTES]
    sudden = (steps - np.median(steps)) / gaps[:-_LEAP_NOTES][::_LEAP_NOTES]
    return float(_LEAP * np.minimum(sudden**2, 1.0).sum())


def _align(wanted: Floats, heard: Floats, gaps: Floats, centre: Floats, pull: float) -> tuple[Pairs, float]:
    count = len(wanted)
    reach = np.clip(gaps * _REACH, _NEAREST, _FARTHEST)
    low = np.searchsorted(heard, wanted + centre - reach)
    high = np.searchsorted(heard, wanted + centre + reach)
    width = int(min(_WIDEST, max(1, (high - low).max())))
    # Row r holds the played onsets low[r] … low[r] + width − 1 as candidates for due onset r.
    columns = low[:, None] + np.arange(width)
    inside = columns < np.minimum(high, len(heard))[:, None]
    offsets = heard[np.minimum(columns, len(heard) - 1)] - wanted[:, None]
    scale = np.maximum(_CHANGE_FLOOR, gaps * _CHANGE_SHARE)
    away = pull * np.minimum(((offsets - centre[:, None]) / (0.5 * gaps[:, None])) ** 2, 16.0)
    start = _MISS * np.arange(count)[:, None] + _EXTRA * columns + away
    # Rows and candidates before the first, and one column of infinity for what lies outside the band.
    best = np.full((count + _SKIPS, width + 1), np.inf)
    shifted = np.zeros((count + _SKIPS, width + 1))
    shifted[_SKIPS:, :width] = offsets
    begins = np.concatenate([np.zeros(_SKIPS, dtype=np.int64), low])
    back = np.full((count, width), -1, dtype=np.int64)
    steps = np.arange(1, _SKIPS + 1)
    skipped = (_MISS * (steps[:, None] - 1) + _EXTRA * (steps[None, :] - 1))[:, :, None]
    numbers = np.arange(width)
    reach_back = numbers[None, None, :] - steps[None, :, None]
    for row in range(count):
        above = row + _SKIPS - steps
        # (skip of due, skip of played, candidate) → place in a row above; outside becomes the last column.
        place = reach_back + (low[row] - begins[above])[:, None, None]
        place[(place < 0) | (place >= width)] = width
        flat = place + (above * (width + 1))[:, None, None]
        change = (offsets[row] - shifted.ravel()[flat]) / scale[row]
        total = best.ravel()[flat] + np.minimum(change * change, _STUMBLE) + skipped
        merged = total.reshape(_SKIPS * _SKIPS, width)
        choice = merged.argmin(axis=0)
        reached = merged[choice, numbers] + away[row]
        better = reached < start[row]
        source = flat.reshape(_SKIPS * _SKIPS, width)[choice, numbers]
        cost = np.where(better, reached, start[row])
        best[row + _SKIPS, :width] = np.where(inside[row], cost, np.inf)
        back[row] = np.where(better, source, -1)
    # Back to plain (row, candidate) places without the padding.
    padded_row, column = np.divmod(back, width + 1)
    back = np.where(back >= 0, (padded_row - _SKIPS) * width + column, -1)
    best = best[_SKIPS:, :width]
    return _trace(best, back, columns, len(heard))


def _trace(best: Floats, back: Ints, columns: Ints, played: int) -> tuple[Pairs, float]:
    count, width = best.shape
    rows = np.arange(count)[:, None]
    ended = best + _MISS * (count - 1 - rows) + _EXTRA * (played - 1 - columns)
    if not np.isfinite(ended).any():
        return [], math.inf
    cost = float(ended.min())
    at = int(np.argmin(ended))
    pairs = []
    while at >= 0:
        row, place = divmod(at, width)
        pairs.append((row, int(columns[row, place])))
        at = int(back[row, place])
    return pairs[::-1], cost
