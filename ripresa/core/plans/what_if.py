"""What if: a student's own log, replayed under other rules. A model, not a promise.

From the log it is taken how far above or below the level of that day each take was and whether it was clean, how the
level went from day to day, and how many takes a day had. A replay draws blocks of neighbouring days from these, with
replacement, lets the level go on as it went in them (its rise dying away as the forecast's does), and climbs by a
rule: a take is clean with the chance that takes of such a margin had. Many replays run side by side, from one seed.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from itertools import pairwise
from typing import Any

import numpy as np

from ripresa.core.climbs import PACES, ClimbPlan
from ripresa.core.exact import plural
from ripresa.core.plans.forecast import DAMPING, CleanTake, daily_best

REPLAYS, SEED, BLOCK, MOST_WEEKS = 400, 20262, 3, 26
FEWEST_TAKES, FEWEST_DAYS = 15, 4
#: How steeply the chance of a clean take falls with speed before anything was played: 3 % faster makes 73 of 100 to 50.
_SLOPE, _SLOPE_WEIGHT = 0.03, 6.0
MODEL = "A model of this log, not a promise."
Array = np.ndarray[Any, np.dtype[np.float64]]


@dataclass(frozen=True, slots=True)
class LoggedTake:
    """A take of one drill and click: on which day, at how many notes a second, and whether it was clean."""

    day: date
    nps: float
    is_clean: bool


@dataclass(frozen=True, slots=True)
class WhatIf:
    """How a rule went in the replays.

    Args:
        weeks: Until the target stood: (low, high) of four in five; the high one None where fewer got there at all.
        shaky: Share of shaky takes on the way, (low, high) of four in five.
        replays: How many there were. arrived: Share of them that got there within half a year.
    """

    weeks: tuple[float, float | None] | None
    shaky: tuple[float, float]
    replays: int
    arrived: float


@dataclass(frozen=True, slots=True)
class _Days:
    """The days of a log: change of the level since the day before, takes, days since the day before."""

    change: Array
    takes: Array
    gap: Array


def silent_about(takes: Sequence[LoggedTake]) -> str | None:
    """Return why nothing can be replayed; None where it can."""
    days = {take.day for take in takes}
    if len(takes) < FEWEST_TAKES or len(days) < FEWEST_DAYS or not any(take.is_clean for take in takes):
        return (
            f"{plural(len(takes), 'take')} on {plural(len(days), 'day')}. "
            f"From {FEWEST_TAKES} on {FEWEST_DAYS} days on a log can be replayed."
        )
    return None


def what_if(takes: Sequence[LoggedTake], plan: ClimbPlan, nps_of_rungs: Sequence[float]) -> WhatIf:
    """Replay a log under the rule of a plan, from its first rung.

    Args:
        takes: Oldest first, enough of them (``silent_about``).
        nps_of_rungs: Notes a second at each rung of the plan.
    """
    level, days = _levels(takes)
    centre, slope = _chance(takes, level)
    now = level[max(level)]
    rng = np.random.default_rng(SEED)
    weeks, shaky = _replay(rng, plan, np.log(nps_of_rungs), now, days, (centre, slope))
    arrived = float(np.isfinite(weeks).mean())
    low, high = (float(one) for one in np.quantile(weeks, (0.1, 0.9), method="nearest"))
    share = tuple(float(one) for one in np.quantile(shaky, (0.1, 0.9)))
    return WhatIf(
        weeks=(low, high if np.isfinite(high) else None) if np.isfinite(low) else None,
        shaky=(share[0], share[1]),
        replays=REPLAYS,
        arrived=arrived,
    )


def _levels(takes: Sequence[LoggedTake]) -> tuple[dict[date, float], _Days]:
    """Return the level of each day, as a logarithm, and the days as they can be drawn.

    The level is the running mean of the fastest clean take of a day; a day without one stays where it was.
    """
    best, _ = daily_best((CleanTake(take.day, take.nps) for take in takes if take.is_clean), max(t.day for t in takes))
    clean = {take.day: float(np.log(take.nps)) for take in best}
    days = sorted({take.day for take in takes})
    level: dict[date, float] = {}
    current = next(iter(clean.values()))
    for day in days:
        current += 0.5 * (clean.get(day, current) - current)
        level[day] = current
    values = np.array([level[day] for day in days])
    return level, _Days(
        change=np.diff(values, prepend=values[0]),
        takes=np.array([sum(take.day == day for take in takes) for day in days], dtype=float),
        gap=np.array([1, *((after - before).days for before, after in pairwise(days))], dtype=float),
    )


def _chance(takes: Sequence[LoggedTake], level: dict[date, float]) -> tuple[float, float]:
    """Return at which margin over the level half of the takes are clean, and how steeply that falls: a logistic curve.

    Found by Newton's steps on the likelihood, with a prior that stands for six takes.
    """
    margin = np.array([np.log(take.nps) - level[take.day] for take in takes])
    clean = np.array([take.is_clean for take in takes], dtype=float)
    centre, slope = 0.01, _SLOPE
    for _ in range(30):
        z = (centre - margin) / slope
        p = 1 / (1 + np.exp(-np.clip(z, -30, 30)))
        pull = (clean - p).sum() / slope - _SLOPE_WEIGHT * (centre - 0.01) / 0.03**2 / 4
        bend = (p * (1 - p)).sum() / slope**2 + _SLOPE_WEIGHT / 0.03**2 / 4
        centre = float(np.clip(centre + pull / bend, -0.15, 0.15))
        # The slope by its own log, a small grid: two numbers on few takes do not bear more.
        slopes = _SLOPE * np.array([0.4, 0.6, 0.8, 1.0, 1.3, 1.7, 2.2])
        zs = np.clip((centre - margin[None, :]) / slopes[:, None], -30, 30)
        likely = (clean * -np.log1p(np.exp(-zs)) + (1 - clean) * -np.log1p(np.exp(zs))).sum(axis=1)
        likely -= _SLOPE_WEIGHT * np.log(slopes / _SLOPE) ** 2 / 2
        slope = float(slopes[likely.argmax()])
    return centre, slope


def _replay(
    rng: np.random.Generator, plan: ClimbPlan, rungs: Array, now: float, days: _Days, chance: tuple[float, float]
) -> tuple[Array, Array]:
    """Return (weeks until the target stood, share of shaky takes) of each replay; no end is infinite."""
    climbers = Climbers(plan, len(rungs), REPLAYS)
    ability = np.full(REPLAYS, now)
    weeks = np.full(REPLAYS, np.inf)
    passed = np.zeros(REPLAYS)
    count, shaky = np.zeros(REPLAYS), np.zeros(REPLAYS)
    block = np.zeros(REPLAYS, dtype=int)
    number, drift = 0, float(days.change.mean())
    while (passed < 7 * MOST_WEEKS).any() and not np.isfinite(weeks).all():
        if number % BLOCK == 0:
            block = rng.integers(0, len(days.change), REPLAYS)
        drawn = (block + number % BLOCK) % len(days.change)
        number += 1
        # What went up on the whole goes up ever less: no straight line goes on for half a year.
        ability += days.change[drawn] - drift * (1 - DAMPING**passed)
        passed += days.gap[drawn]
        for take in range(int(days.takes.max())):
            playing = (take < days.takes[drawn]) & ~np.isfinite(weeks) & (passed < 7 * MOST_WEEKS)
            if not playing.any():
                break
            z = (chance[0] - (rungs[climbers.rung] - ability)) / chance[1]
            clean = rng.random(REPLAYS) < 1 / (1 + np.exp(-np.clip(z, -30, 30)))
            count += playing
            shaky += playing & ~clean
            stood = climbers.take(clean, playing)
            weeks[stood] = passed[stood] / 7
    return weeks, shaky / np.maximum(count, 1)


class Climbers:
    """Many climbs by one rule, side by side: what ``decide`` says of one, said of all at once.

    Args:
        count: Of the climbs.
    """

    def __init__(self, plan: ClimbPlan, rungs: int, count: int) -> None:
        self.plan, self.last = plan, rungs - 1
        self.rung = np.zeros(count, dtype=int)
        self.stood = np.zeros(count, dtype=bool)
        self._clean, self._shaky = np.zeros(count, dtype=int), np.zeros(count, dtype=int)
        self._all = np.zeros((2, count), dtype=int)
        self._by_two = np.zeros(count, dtype=bool)

    def take(self, clean: np.ndarray[Any, Any], playing: np.ndarray[Any, Any]) -> np.ndarray[Any, Any]:
        """Let those who are playing make a take; return whose target stands by it."""
        plan, paces = self.plan, PACES[self.plan.moving]
        good, bad = playing & clean, playing & ~clean
        self._clean = np.where(good, self._clean + 1, np.where(bad, 0, self._clean))
        self._shaky = np.where(bad, self._shaky + 1, np.where(good, 0, self._shaky))
        self._all += np.stack([good, bad])
        if plan.moving == "time_box":
            # A take of half a minute: the replay knows no clock.
            full = self._all.sum(axis=0) >= 2 * plan.box_minutes
            up, back = full & (self._all[0] > self._all[1]), full & (self._all[0] < self._all[1])
        else:
            up, back = self._clean >= plan.clean_to_rise, self._shaky >= plan.shaky_to_fall
        up, back = up & playing, back & playing
        self.stood = up & (self.rung == self.last)
        pace = np.where(self._by_two, paces.after_two, paces.up)
        before = self.rung
        self.rung = np.where(up, np.clip(before + pace, 0, self.last), self.rung)
        self.rung = np.where(back, np.maximum(0, before - paces.back), self.rung)
        moved = self.rung != before
        self._by_two = np.where(moved, (self.rung - before == paces.up) & (paces.up > 1), self._by_two)
        for counts in (self._clean, self._shaky, *self._all):
            counts[moved] = 0
        return self.stood
