"""The speed to expect: a damped local trend over clean takes, as an 80 % range, 2 to 6 weeks ahead.

Of each day the fastest clean take counts, in notes a second, on a scale on which a per cent is a per cent at any
height. A Kalman filter follows a level and a trend that dies away (by 2 % a day); how much both of them wander is the
likeliest of a grid of ratios, held back by a prior, because a log is short. What comes is drawn from it: paths of days,
practised as often as the last weeks were, and of each week the fastest clean take. Straight lines through the last
takes were tried: their ranges held far less than they promised.

A pause is a step of its own: what it takes away comes back fast, and is no trend. What is slower after one than before
is laid aside, as far as it is not back yet, and added to the paths again with how sure that is.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from functools import cache
from itertools import pairwise
from math import exp
from typing import Any

import numpy as np

from ripresa.core.exact import plural

DAMPING = 0.98
HORIZON = (2, 3, 4, 5, 6)
FEWEST_TAKES, FEWEST_DAYS = 8, 4
#: Days without a clean take after which what was known has gone stale.
STALE_DAYS = 60
#: Days without a clean take that are a pause, what a day of it takes away in logarithms, and that most.
PAUSE_DAYS, _LOST, _MOST_LOST = 12, 0.0045, 0.2
#: In so many days most of it comes back; of one path that is shorter or longer by a factor of e to this.
_BACK_DAYS, _BACK_UNSURE = 9.0, 0.5
#: A date is named where the range of days on which the target is met is no wider than this.
NARROW_DAYS = 21
PATHS, SEED = 2000, 20261
_RANGE = (0.1, 0.5, 0.9)
Array = np.ndarray[Any, np.dtype[np.float64]]


@dataclass(frozen=True, slots=True)
class CleanTake:
    """A clean take: on which day, at how many notes a second."""

    day: date
    nps: float


@dataclass(frozen=True, slots=True)
class ExpectedWeek:
    """The fastest clean take to expect in the seven days that end so many weeks from now, in notes a second."""

    week: int
    low: float
    middle: float
    high: float


@dataclass(frozen=True, slots=True)
class Forecast:
    """What is to be expected; ``silent`` says why there is nothing.

    Args:
        first, last: Between which days a target is met, in four of five cases, where that is narrow enough to say.
        reason: Why it lies where nobody would expect it; else empty.
        sentence: All of it in a sentence.
    """

    weeks: tuple[ExpectedWeek, ...]
    silent: str | None
    takes: int
    days: int
    first: date | None = None
    last: date | None = None
    reason: str = ""

    @property
    def sentence(self) -> str:
        """The range at its end, or why there is none."""
        if self.silent is not None:
            return self.silent
        end = self.weeks[-1]
        told = f"{end.low:.1f} to {end.high:.1f} n/s in {end.week} weeks, in 4 of 5 cases."
        return f"{told} {self.reason}" if self.reason else told


@dataclass(frozen=True, slots=True)
class _Fit:
    """What the filter knows at the end: mean and covariance of (level, trend), and what wanders by how much a day."""

    mean: Array
    cov: Array
    wander: tuple[float, float]
    noise: float


def forecast(takes: Iterable[CleanTake], today: date, target: float | None = None) -> Forecast:
    """Return the speed to expect.

    Args:
        takes: Clean ones of one drill and click; those after today do not count.
        target: Notes a second; a date is named only where its range is narrow.
    """
    best, count = daily_best(takes, today)
    if silent := _too_little(best, count, today):
        return Forecast((), silent, count, len(best))
    best = _without_warm_ups(best)
    paths = _paths(best, today)
    weekly = np.stack([paths[:, 7 * week - 7 : 7 * week].max(axis=1) for week in HORIZON], axis=1)
    quantiles = np.exp(np.quantile(weekly, _RANGE, axis=0))
    weeks = tuple(
        ExpectedWeek(week, *(float(one) for one in quantiles[:, number])) for number, week in enumerate(HORIZON)
    )
    first, last = _when(paths, target, today) if target else (None, None)
    return Forecast(weeks, None, count, len(best), first, last, _reason(best, weeks, today))


def _reason(best: Sequence[CleanTake], weeks: Sequence[ExpectedWeek], today: date) -> str:
    """Return why what is expected lies under what was clean this week, or that a pause is behind it; else nothing."""
    pause = max(((after.day - before.day).days for before, after in pairwise(best[-_RECENT:])), default=0)
    away = (today - best[-1].day).days
    if away >= PAUSE_DAYS:
        return f"After {away} days without a clean take it begins lower, and most of it comes back soon."
    lately = max((take.nps for take in best if (today - take.day).days < 7), default=0.0)
    if weeks[0].middle >= lately:
        return ""
    if pause >= PAUSE_DAYS:
        return f"The pause of {pause} days is not made good yet."
    return f"{lately:.1f} n/s this week was better than the days around it."


def daily_best(takes: Iterable[CleanTake], today: date) -> tuple[list[CleanTake], int]:
    """Return the fastest clean take of each day up to today, oldest first, and how many takes they were found in."""
    best: dict[date, float] = {}
    count = 0
    for take in takes:
        if take.day <= today and take.nps > 0:
            count += 1
            best[take.day] = max(take.nps, best.get(take.day, 0.0))
    return [CleanTake(day, best[day]) for day in sorted(best)], count


def _without_warm_ups(best: Sequence[CleanTake]) -> list[CleanTake]:
    """Return the days on which it was tried: a best far below those around it was a warm-up, and no try was clean.

    Of the last days what comes after is not known yet: a drop is believed where it stays.
    """
    kept: list[CleanTake] = []
    for number, take in enumerate(best):
        before, after = kept[-_AROUND:], best[number + 1 : number + 1 + _AROUND]
        around = [max((one.nps for one in before), default=0.0)]
        if len(after) == _AROUND:
            around.append(max(one.nps for one in after))
        paused = bool(kept) and (take.day - kept[-1].day).days >= PAUSE_DAYS
        if paused or take.nps >= _WARM_UP * min(around):
            kept.append(take)
    return kept if len(kept) >= FEWEST_DAYS else list(best)


def _too_little(best: Sequence[CleanTake], count: int, today: date) -> str | None:
    if count < FEWEST_TAKES or len(best) < FEWEST_DAYS:
        return (
            f"{plural(count, 'clean take')} on {plural(len(best), 'day')}. "
            f"From {FEWEST_TAKES} on {FEWEST_DAYS} days on there is something to say."
        )
    away = (today - best[-1].day).days
    if away > STALE_DAYS:
        return f"No clean take for {away} days: what was known then says little of what comes."
    return None


def _paths(best: Sequence[CleanTake], today: date) -> Array:
    """Return the best clean take of each day to come, on the scale of logarithms; −∞ on days without practice."""
    lost = _lost_in_pauses(best)
    fit = _likeliest(best, lost)
    rng = np.random.default_rng(SEED)
    days = 7 * HORIZON[-1]
    state = rng.multivariate_normal(fit.mean, fit.cov, size=PATHS)
    level, trend = state[:, 0], state[:, 1]
    away = (today - best[-1].day).days
    for _ in range(away):
        level, trend = _step(level, trend, fit, rng)
    # What is still missing: of the last pause, or of one that is not over. How fast it is back differs.
    paused = min(_MOST_LOST, _LOST * away) if away >= PAUSE_DAYS else 0.0
    missing = (lost[-1] * exp(-away / _BACK_DAYS) + paused) * rng.uniform(0.4, 1.6, PATHS)
    back = _BACK_DAYS * np.exp(rng.normal(0, _BACK_UNSURE, PATHS))
    practised = rng.random((PATHS, days)) < _days_share(best, today)
    # In every week to come there is a day of practice: else there is nothing to expect of it.
    practised.reshape(PATHS, -1, 7)[:, :, 3] |= ~practised.reshape(PATHS, -1, 7).any(axis=2)
    found = np.empty((PATHS, days))
    for number in range(days):
        level, trend = _step(level, trend, fit, rng)
        found[:, number] = level + rng.normal(0, fit.noise, PATHS) - missing * np.exp(-(number + 1) / back)
    return np.where(practised, found, -np.inf)


def _step(level: Array, trend: Array, fit: _Fit, rng: np.random.Generator) -> tuple[Array, Array]:
    up, turn = (rng.normal(0, size, level.shape) for size in fit.wander)
    return level + trend + up, DAMPING * trend + turn


def _days_share(best: Sequence[CleanTake], today: date) -> float:
    """Return on what share of days there was a clean take, over the last six weeks of the log."""
    since = max(best[0].day, today - timedelta(days=42))
    span = max(7, (today - since).days + 1)
    return min(1.0, max(1 / 7, sum(take.day >= since for take in best) / span))


#: Days on either side that a warm-up is told by, and of their best what it lies under.
_AROUND, _WARM_UP = 3, 0.88
#: Days of takes by which a pause is not long ago.
_RECENT = 15
#: Ratios of what wanders a day to the noise of a day's best that are tried: level, trend.
_LEVELS = (0.05, 0.15, 0.3, 0.6, 1.0)
_TRENDS = (0.001, 0.005, 0.015, 0.04)
#: What the noise, and the trend at the beginning, are before anything was played: 1.5 %, and 0.4 ± 0.3 % a day.
_NOISE, _NOISE_WEIGHT = 0.015, 4.0
_TREND, _TREND_SIZE = 0.004, 0.003


def _lost_in_pauses(best: Sequence[CleanTake]) -> Array:
    """Return how much of what a pause took away is missing on each day yet, in logarithms.

    What it took is how far the fastest of the first two days after it lies under the last two before, at most
    ``_MOST_LOST``; it comes back by an exponential.
    """
    values = np.log([take.nps for take in best])
    found = np.zeros(len(best))
    for number in range(1, len(best)):
        if (best[number].day - best[number - 1].day).days < PAUSE_DAYS:
            continue
        before, after = values[max(0, number - 2) : number].max(), values[number : number + 2].max()
        lost = min(_MOST_LOST, max(0.0, float(before - after)))
        since = np.array([(take.day - best[number].day).days for take in best[number:]])
        found[number:] = lost * np.exp(-since / _BACK_DAYS)
    return found


def _likeliest(best: Sequence[CleanTake], lost: Array) -> _Fit:
    """Return the filter whose wandering is the likeliest, every pair of ratios weighed by what the log says of it."""
    values = np.log([take.nps for take in best]) + lost
    gaps = [0, *((after.day - before.day).days for before, after in pairwise(best))]
    ratios = np.array([(level, trend) for level in _LEVELS for trend in _TRENDS])
    mean, cov, score, noise = _filtered(values, gaps, ratios)
    weight = np.exp(score - score.max())
    weight /= weight.sum()
    centre = (weight[:, None] * mean).sum(axis=0)
    away = mean - centre
    spread = (weight[:, None, None] * (cov + away[:, :, None] * away[:, None, :])).sum(axis=0)
    up, turn = np.sqrt((weight[:, None] * (ratios * noise[:, None]) ** 2).sum(axis=0))
    return _Fit(centre, spread, (float(up), float(turn)), float(np.sqrt((weight * noise**2).sum())))


def _filtered(values: Array, gaps: Sequence[int], ratios: Array) -> tuple[Array, Array, Array, Array]:
    """Return mean, covariance, score and noise of the filter at every pair of ratios, all at once.

    The noise is that which makes the errors of one step as large as they are, held back by a prior of four errors.
    """
    count = len(ratios)
    mean = np.tile([values[0], _TREND], (count, 1))
    cov = np.zeros((count, 2, 2))
    cov[:, 0, 0] = 1.0
    cov[:, 1, 1] = (_TREND_SIZE / _NOISE) ** 2
    squares, logs, seen = np.zeros(count), np.zeros(count), 0
    for value, gap in zip(values, gaps, strict=True):
        if gap:
            turn, wander = _over(gap)
            mean = mean @ turn.T
            cov = turn @ cov @ turn.T + ratios[:, 0, None, None] ** 2 * wander[0]
            cov = cov + ratios[:, 1, None, None] ** 2 * wander[1]
            error, size = value - mean[:, 0], cov[:, 0, 0] + 1
            squares += error**2 / size
            logs += np.log(size)
            seen += 1
        gain = cov[:, :, 0] / (cov[:, 0, 0] + 1)[:, None]
        mean = mean + gain * (value - mean[:, 0])[:, None]
        cov = cov - gain[:, :, None] * cov[:, None, 0, :]
    noise = np.sqrt((squares + _NOISE_WEIGHT * _NOISE**2) / (seen + _NOISE_WEIGHT))
    score = -0.5 * logs - (seen + _NOISE_WEIGHT) * np.log(noise)
    return mean, cov * noise[:, None, None] ** 2, score, noise


@cache
def _over(gap: int) -> tuple[Array, tuple[Array, Array]]:
    """Return what so many days make of a state, and of the wandering of level and trend by 1 each."""
    once = np.array([[1.0, 1.0], [0.0, DAMPING]])
    turn, level, trend = np.eye(2), np.zeros((2, 2)), np.zeros((2, 2))
    for _ in range(gap):
        level = once @ level @ once.T + np.diag([1.0, 0.0])
        trend = once @ trend @ once.T + np.diag([0.0, 1.0])
        turn = once @ turn
    return turn, (level, trend)


def _when(paths: Array, target: float, today: date) -> tuple[date | None, date | None]:
    """Return between which days a target is first met in four of five cases; nothing where that is too wide to say."""
    met = paths >= np.log(target)
    day = np.where(met.any(axis=1), met.argmax(axis=1) + 1, paths.shape[1] + NARROW_DAYS + 1)
    low, high = (int(one) for one in np.quantile(day, (_RANGE[0], _RANGE[-1]), method="nearest"))
    if high > paths.shape[1] or high - low > NARROW_DAYS:
        return None, None
    return today + timedelta(days=low), today + timedelta(days=high)
