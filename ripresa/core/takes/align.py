"""The alignment: due notes against strikes, in order, with misses and extras, inside a band.

Needleman and Wunsch (1970), with a cost for each pair that comes from its deviation from a model of the player and
from the symbol. Row by row, with the extras of a row taken by a running minimum, so that time and memory grow with
notes × band.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

#: Costs are negative log likelihoods, up to a constant: what a missed and what an extra note costs.
MISS, EXTRA = 4.5, 4.5
#: From so many scales on a deviation costs linearly: hands have heavier tails than the normal law.
_KNEE = 2.5
#: Strikes that one due note is held against at most.
_WIDEST = 160
#: A price that no path pays.
_NEVER = 1e9


@dataclass(frozen=True, slots=True)
class Costs:
    """What pairs cost.

    Args:
        centre: Where the model expects each due note, as an offset in seconds. scale: One deviation, in seconds.
        reach: How far from the centre a strike may lie, in seconds.
        symbols: Extra cost by kind of strike × kind of due note; strike_kinds, due_kinds: the kinds.
        most: What a pair of the right symbol costs at most, however far it lies; infinite without symbols.
        extra: What each strike costs that belongs to no note: nothing outside of the stretch.
    """

    centre: Floats
    scale: Floats
    reach: Floats
    extra: Floats
    symbols: Floats | None = None
    strike_kinds: Ints | None = None
    due_kinds: Ints | None = None
    most: float = np.inf


@dataclass(frozen=True, slots=True)
class Aligned:
    """Pairs (due, strike), rising in both, and what the alignment costs in all."""

    due: Ints
    strike: Ints
    cost: float


def tail(deviation: Floats) -> Floats:
    """Return what a deviation costs, in scales: half its square, and from 2.5 on linearly."""
    size = np.abs(deviation)
    return np.where(size <= _KNEE, 0.5 * size * size, _KNEE * size - 0.5 * _KNEE * _KNEE)


def align(wanted: Floats, heard: Floats, costs: Costs) -> Aligned:
    """Return the cheapest alignment of strikes to due notes, both in seconds and rising."""
    rows, strikes = len(wanted), len(heard)
    if not rows or not strikes:
        none = np.array([], dtype=np.int64)
        return Aligned(none, none, MISS * rows + float(costs.extra.sum()))
    expected = wanted + costs.centre
    # A model may run back in time; the band may not. However many strikes crowd together, it has a width.
    middle = np.searchsorted(heard, expected)
    first = np.maximum(np.searchsorted(heard, expected - costs.reach), middle - _WIDEST // 2)
    low = np.maximum.accumulate(first)
    high = np.maximum(np.minimum(np.searchsorted(heard, expected + costs.reach), middle + _WIDEST // 2), low)
    width = int((high - low).max()) + 1
    gain = _gains(expected, heard, costs, low, high, width)
    best = _fill(low, gain, width)
    last = min(width - 1, strikes - int(low[-1]))
    due, strike = _trace(best, gain, low, last)
    return Aligned(due, strike, float(best[-1, last]) + MISS * rows + float(costs.extra.sum()))


def _gains(expected: Floats, heard: Floats, costs: Costs, low: Ints, high: Ints, width: int) -> Floats:
    """Return what it costs to pair each due note with each strike of its band, instead of a miss and an extra."""
    columns = low[:, None] + np.arange(width - 1)
    place = np.minimum(columns, len(heard) - 1)
    price = tail((heard[place] - expected[:, None]) / costs.scale[:, None])
    if costs.symbols is not None and costs.strike_kinds is not None and costs.due_kinds is not None:
        price = np.minimum(price, costs.most) + costs.symbols[costs.strike_kinds[place], costs.due_kinds[:, None]]
    return np.where(columns < high[:, None], price - costs.extra[place] - MISS, _NEVER)


def _fill(low: Ints, gain: Floats, width: int) -> Floats:
    """Return, row by row, the least cost for each number of strikes used, beside that of all missed and all extra.

    Counted like this, a miss and an extra cost nothing, and beyond the band of a row its last value goes on: each
    row holds it once more, as far as the next band can reach.
    """
    rows = len(low)
    best = np.empty((rows, 2 * width))
    before = np.zeros(2 * width)
    room = np.empty(width - 1)
    steps = np.minimum(np.diff(low, prepend=low[0]), width).tolist()
    for row, step in enumerate(steps):
        here = best[row]
        np.add(before[step : step + width - 1], gain[row], out=room)
        here[0] = before[step]
        np.minimum(room, before[step + 1 : step + width], out=here[1:width])
        np.minimum.accumulate(here[:width], out=here[:width])
        here[width:] = here[width - 1]
        before = here
    return best


def _trace(best: Floats, gain: Floats, low: Ints, place: int) -> tuple[Ints, Ints]:
    """Return the pairs of the path that ends at a place of the last row, in order."""
    width = best.shape[1] // 2
    steps = np.minimum(np.diff(low, prepend=low[0]), width)
    above = np.vstack([np.zeros(2 * width), best[:-1]])
    above = np.take_along_axis(above, steps[:, None] + np.arange(width), axis=1)
    # Byte for byte, because a path reads a few of very many.
    met = np.pad(above[:, :-1] + gain <= above[:, 1:], ((0, 0), (1, 0))).tobytes()
    extra = np.pad(best[:, 1:width] == best[:, : width - 1], ((0, 0), (1, 0))).tobytes()
    begins = low.tolist()
    due, strike = [], []
    used = begins[-1] + place
    for row in range(len(begins) - 1, -1, -1):
        begin = row * width
        at = begin + min(used - begins[row], width - 1)
        while extra[at]:
            at -= 1
        used = begins[row] + at - begin
        if met[at]:
            used -= 1
            due.append(row)
            strike.append(used)
    return np.array(due[::-1], dtype=np.int64), np.array(strike[::-1], dtype=np.int64)
