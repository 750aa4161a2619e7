"""Made-up learners: how fast they can play from day to day, and the takes that they make of it under a rule.

Each yields (day from 0, notes a second, whether it was clean). The forecast was set up with the first two in sight.
Nothing was tuned on the third, nor on the one who never wavers, whose ranges come out too wide rather than too narrow.
"""

from collections.abc import Callable, Collection, Iterator

import numpy as np

Log = list[tuple[int, float, bool]]


def _climbing(
    rng: np.random.Generator,
    ability: np.ndarray,
    step: float = 1.04,
    takes: tuple[int, int] = (2, 5),
    paused: Collection[int] = (),
    share: float | None = None,
) -> Log:
    """Return the takes of one who climbs by per cent, up after two clean and back after three shaky."""
    found: Log = []
    speed, clean_run, shaky_run = ability[0] * 0.93, 0, 0
    share = rng.uniform(0.4, 0.9) if share is None else share
    for day, able in enumerate(ability):
        # Who comes back begins where it goes.
        if day in paused:
            speed, clean_run, shaky_run = able * 0.85, 0, 0
            continue
        if rng.random() > share:
            continue
        form = rng.normal(0, 0.02)
        for _ in range(rng.integers(*takes)):
            margin = np.log(able / speed) + form
            clean = bool(rng.random() < 1 / (1 + np.exp(-margin / 0.02)))
            found.append((day, float(speed), clean))
            clean_run, shaky_run = (clean_run + 1, 0) if clean else (0, shaky_run + 1)
            if clean_run == 2:
                speed, clean_run = speed * step, 0
            elif shaky_run == 3:
                speed, shaky_run = speed / step, 0
    return found


def late_starter(rng: np.random.Generator, days: int) -> Log:
    """One who grows slowly, then fast, then slowly again."""
    middle, width, gain = rng.uniform(0, days), rng.uniform(8, 25), rng.uniform(0.15, 0.6)
    ability = rng.uniform(4, 7) * (1 + gain / (1 + np.exp(-(np.arange(days) - middle) / width)))
    return _climbing(rng, ability)


def wanderer(rng: np.random.Generator, days: int) -> Log:
    """One who grows by fits and starts: a trend that wanders by itself."""
    trend = rng.normal(0.003, 0.003)
    level, found = np.log(rng.uniform(4, 7)), []
    for _ in range(days):
        trend = 0.985 * trend + rng.normal(0, 0.0006)
        level += trend + rng.normal(0, 0.006)
        found.append(level)
    return _climbing(rng, np.exp(found))


def stepwise(rng: np.random.Generator, days: int) -> Log:
    """One who stands still for weeks and then leaps, forgets in pauses, and takes steps of 4 bpm."""
    level, found, pause = np.log(rng.uniform(4, 7)), [], 0
    leap_every = rng.uniform(8, 25)
    for _ in range(days):
        if pause:
            level -= 0.004
            pause -= 1
        elif rng.random() < 1 / leap_every:
            level += abs(rng.normal(0.05, 0.03))
        elif rng.random() < 0.02:
            pause = int(rng.integers(4, 10))
        found.append(level)
    return _climbing(rng, np.exp(found), step=1.05, takes=(1, 4))


def never_wavering(rng: np.random.Generator, days: int) -> Log:
    """One who comes nearer to a ceiling of his own, ever more slowly."""
    start, ceiling, pace = rng.uniform(4, 7), rng.uniform(1.15, 1.8), rng.uniform(25, 90)
    days_past = rng.uniform(0, 40)
    time = np.arange(days) + days_past
    ability = start * (ceiling - (ceiling - 1) * np.exp(-time / pace))
    return _climbing(rng, ability)


def pausing(rng: np.random.Generator, days: int) -> Log:
    """One who grows slowly, stops for two to six weeks not long ago, and has most of what was lost back in two."""
    past = days - 42
    away = int(rng.integers(14, 43))
    back = past - int(rng.integers(4, 15))
    start = max(7, back - away)
    level = np.log(rng.uniform(4, 7)) + 0.002 * np.arange(days)
    lost = rng.uniform(0.7, 1.3) * (0.10 if away < 30 else 0.15)
    since = np.arange(days) - back
    dropped = np.where(since >= 0, lost * np.exp(-since / rng.uniform(5, 12)), 0.0)
    rests = set(range(start, back))
    able = np.exp(level - dropped)
    return [one for one in _climbing(rng, able, paused=rests) if one[0] not in rests]


def plateau(rng: np.random.Generator, days: int) -> Log:
    """One who grows, and then stands still."""
    turn = rng.uniform(0.2, 0.8) * (days - 42)
    level = np.log(rng.uniform(4, 7)) + 0.006 * np.minimum(np.arange(days), turn)
    return _climbing(rng, np.exp(level))


def weekly(rng: np.random.Generator, days: int) -> Log:
    """One who plays once a week."""
    log = _climbing(rng, np.exp(np.log(rng.uniform(4, 7)) + 0.002 * np.arange(days)), share=1.0)
    return [one for one in log if one[0] % 7 == 3]


def warming_up(rng: np.random.Generator, days: int) -> Log:
    """One who logs a slow, clean warm-up each day, and now and then nothing else that is clean."""
    log = _climbing(rng, np.exp(np.log(rng.uniform(4, 7)) + 0.002 * np.arange(days)))
    share = rng.uniform(0.55, 0.85)
    return sorted([*log, *((day, share * max(nps for own, nps, _ in log if own == day), True) for day, _, _ in log)])


LEARNERS: dict[str, Callable[[np.random.Generator, int], Log]] = {
    "late starter": late_starter,
    "wanderer": wanderer,
    "stepwise": stepwise,
    "never wavering": never_wavering,
    "pausing": pausing,
    "plateau": plateau,
    "weekly": weekly,
    "warming up": warming_up,
}


def logs(name: str, count: int, seed: int) -> Iterator[tuple[np.random.Generator, int, Log]]:
    """Yield so many logs of a learner: two to eight weeks of past and six weeks to come."""
    for number in range(count):
        rng = np.random.default_rng((seed, number))
        past = 7 * int(rng.integers(2, 9))
        yield rng, past, LEARNERS[name](rng, past + 42)
