"""The model of a player: where each note is expected, from what was matched so far.

A trend, a running median around it, and the habit of each slot. A running median follows a drift and keeps a step
where it is: a beat that was lost or won moves everything after it at once.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

_WINDOW = 25
#: From so many notes on a slot is taken to have a habit.
_FEWEST_FOR_HABIT = 4
_MAD_TO_SD = 1.4826
#: One deviation is at least so long, in seconds, and at most such a share of the gap beside a note.
_FLOOR, _MOST = 0.006, 0.2
#: The ends of a path are led on where that is so much of a gap.
_LEADS = 0.25
#: What a note may lie off by without being another one, however steady the hand, as a share of the gap.
_LEEWAY = 0.07
#: How much wider it is after a change, and its leeway there: (beats, factor, share of the gap).
_AFTER_CHANGE = ((1.0, 2.5, 0.2), (2.0, 1.6, 0.12))
#: Notes on either side by which a step is told, and how far apart they have to lie: a share of the gap, scales.
_STEP_NOTES, _STEP_SHARE, _STEP_SCALES = 7, 0.4, 4.0


@dataclass(frozen=True, slots=True)
class Wanted:
    """What is due, as matching needs it.

    Args:
        at: Seconds, rising. gap: To the nearer neighbour, in seconds. beat: Seconds of a beat.
        place: The number of the slot that each stands on. since_change: Beats since the division changed.
    """

    at: Floats
    gap: Floats
    beat: float
    place: Ints
    since_change: Floats

    def head(self, count: int) -> "Wanted":
        """Return the first so many."""
        return Wanted(self.at[:count], self.gap[:count], self.beat, self.place[:count], self.since_change[:count])


@dataclass(frozen=True, slots=True)
class Model:
    """Where a player is expected.

    Args:
        path: The offset without habits, for each due note, in seconds. habit: Of the slot of each.
        scale: One deviation, in seconds.
        slope: Seconds of offset a second, the trend alone.
    """

    path: Floats
    habit: Floats
    scale: float
    slope: float

    @property
    def centre(self) -> Floats:
        """The expected offset of each due note."""
        return self.path + self.habit

    def scales(self, wanted: Wanted) -> Floats:
        """Return one deviation for each note: wider after a change, never wider than a share of the gap."""
        factor, leeway = np.ones(len(wanted.at)), np.full(len(wanted.at), _LEEWAY)
        for beats, widened, share in reversed(_AFTER_CHANGE):
            factor[wanted.since_change < beats], leeway[wanted.since_change < beats] = widened, share
        wide = np.maximum(self.scale * factor, leeway * wanted.gap)
        return np.clip(wide, _FLOOR, np.maximum(_FLOOR, _MOST * wanted.gap))


def constant(wanted: Wanted, offset: float, slope: float = 0.0) -> Model:
    """Return the model of a player who is off by so much, and more by ``slope`` each second."""
    path = offset + slope * (wanted.at - wanted.at[0])
    return Model(path, np.zeros(len(wanted.at)), float(0.16 * np.median(wanted.gap)), slope)


def fitted(wanted: Wanted, due: Ints, offsets: Floats) -> Model:
    """Return the model of a player from matched notes: which are due, and how far each was off."""
    times = wanted.at[due]
    slope = _slope(times, offsets)
    level = offsets - slope * times
    habits = np.zeros(len(wanted.at))
    path = running_median(level)
    for _ in range(2):
        habits = _habits(wanted, due, level - path)
        path = running_median(level - habits[due])
    path = _with_ends(path, level - habits[due], wanted.gap[due])
    rest = level - path - habits[due]
    away = wanted.since_change[due] >= _AFTER_CHANGE[-1][0]
    told = rest[away] if away.sum() >= _WINDOW else rest
    scale = max(_FLOOR, 1.15 * _MAD_TO_SD * float(np.median(np.abs(told))))
    everywhere = np.interp(np.arange(len(wanted.at)), due, path) + slope * wanted.at
    return Model(everywhere, habits, scale, slope)


def running_median(values: Floats) -> Floats:
    """Return the median around each value; at the ends that of the first and of the last window."""
    width = min(_WINDOW, len(values) - (len(values) + 1) % 2)
    if width < 3:
        return np.full(len(values), np.median(values))
    middles = np.median(np.lib.stride_tricks.sliding_window_view(values, width), axis=1)
    return np.pad(middles, width // 2, mode="edge")


def _with_ends(path: Floats, level: Floats, gap: Floats) -> Floats:
    """Return a running median that goes on at either end as it went in the last window, where that leads far.

    A median stays behind there by half of its window: of who turns faster near the end it would lose the last notes.
    """
    half = _WINDOW // 2
    if len(path) < 2 * _WINDOW:
        return path
    found = path.copy()
    order = np.arange(1, half + 1)
    for side in (1, -1):
        inside = level[::side][-_WINDOW:]
        lag = _WINDOW // 3
        slope = float(np.median(inside[lag:] - inside[:-lag])) / lag
        if abs(slope) * half > _LEADS * float(np.median(gap)):
            ends = found[::side]
            ends[-half:] = ends[-half - 1] + slope * order
    return found


def without_bend(values: Floats, times: Floats) -> Floats:
    """Return values without the trend and the bend that they have over time; a leap stays a leap, and tilts nothing.

    Both follow from the median slopes over a twelfth of the values in the first and in the second half.
    """
    count = len(values)
    lag = max(8, count // 12)
    if count < 4 * lag:
        return np.asarray(values - _slope(times, values) * (times - times.mean()))
    slopes = (values[lag:] - values[:-lag]) / np.maximum(times[lag:] - times[:-lag], 1e-6)
    middles = (times[lag:] + times[:-lag]) / 2
    half = len(slopes) // 2
    first, second = float(np.median(slopes[:half])), float(np.median(slopes[half:]))
    begin, end = float(middles[:half].mean()), float(middles[half:].mean())
    bend = (second - first) / max(1e-6, end - begin)
    moved = times - (begin + end) / 2
    return np.asarray(values - (first + second) / 2 * moved - bend / 2 * moved * moved)


def steps_in(rest: Floats, gap: Floats, scale: float) -> list[int]:
    """Return where a series of offsets moves at once by more than 0.4 gaps, as indexes of the first note after it."""
    count = len(rest)
    if count < 2 * _STEP_NOTES:
        return []
    windows = np.median(np.lib.stride_tricks.sliding_window_view(rest, _STEP_NOTES), axis=1)
    places = np.arange(_STEP_NOTES, count - _STEP_NOTES + 1)
    sizes = np.abs(windows[places] - windows[places - _STEP_NOTES])
    sizes[sizes < np.maximum(_STEP_SHARE * gap[places], _STEP_SCALES * scale)] = 0.0
    found = []
    while sizes.any():
        top = int(sizes.argmax())
        nearby = slice(max(0, top - _STEP_NOTES), top + _STEP_NOTES + 1)
        # Around the greatest difference the step itself is where neighbours lie farthest apart.
        begin = max(1, places[top] - 3)
        leaps = np.abs(np.diff(rest[begin - 1 : places[top] + 4]))
        found.append(int(begin + leaps.argmax()))
        sizes[nearby] = 0.0
    return sorted(found)


def _slope(times: Floats, offsets: Floats) -> float:
    """Return the median slope over a sixth of the notes, which a lost beat does not bend (after Theil 1950)."""
    lag = max(8, len(times) // 6)
    if len(times) < 2 * lag:
        return 0.0
    spans = np.maximum(times[lag:] - times[:-lag], 1e-6)
    return float(np.median((offsets[lag:] - offsets[:-lag]) / spans))


def _habits(wanted: Wanted, due: Ints, rest: Floats) -> Floats:
    found = np.zeros(len(wanted.at))
    places = wanted.place[due]
    for place in np.unique(places):
        own = rest[places == place]
        if len(own) >= _FEWEST_FOR_HABIT:
            found[wanted.place == place] = np.median(own)
    return found
