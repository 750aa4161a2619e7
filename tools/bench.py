"""Time against size, as ratios in one run; and how well matching does on simulated players."""

import time
from collections.abc import Callable
from fractions import Fraction as F

import numpy as np

from ripresa.core.climbs import BpmTarget, ClimbPlan, EvenSteps, rungs
from ripresa.core.drill import Drill, Leg
from ripresa.core.drill.accents import EveryNth
from ripresa.core.drill.hands import ByOrder
from ripresa.core.drill.material import OneNote, ScaleRun
from ripresa.core.playing import expected_onsets, perform
from ripresa.core.reading import read
from ripresa.core.takes import StandIn, match_onsets, play
from ripresa.web.shapes.reading import reading_shape
from tools import load


def seconds(work: Callable[[], object], times: int = 3) -> float:
    """Return the shortest of a few runs, in seconds."""
    found = []
    for _ in range(times):
        began = time.perf_counter()
        work()
        found.append(time.perf_counter() - began)
    return min(found)


def table(title: str, unit: str, sizes: list[int], work: Callable[[int], Callable[[], object]]) -> None:
    """Print a row a size: how much larger than the first, and how much longer it took."""
    print(f"\n{title}")
    print(f"{unit:>12} {'seconds':>9} {'size ×':>8} {'time ×':>8} {'time/size':>10}")
    base = 0.0
    for size in sizes:
        took = seconds(work(size))
        base = base or took
        ratio, growth = size / sizes[0], took / base
        print(f"{size:>12} {took:>9.4f} {ratio:>8.1f} {growth:>8.1f} {growth / ratio:>10.2f}")


def steps(count: int) -> Drill:
    legs = tuple(Leg(F(2 + index % 5)) for index in range(count))
    return Drill(material=ScaleRun(octaves=2), legs=legs, hands=ByOrder(), accents=EveryNth(size=5))


def matching(count: int) -> Callable[[], object]:
    reading = read(Drill(material=OneNote(beats=16), legs=(Leg(F(4)),)))
    due = [at for at, _ in expected_onsets(reading, F(90), 0.0, count * 60 / 90 / 4)]
    played = play(StandIn(spread_ms=12, miss_percent=2, extra_percent=1), due)
    return lambda: match_onsets(due, played)


def climb(count: int) -> Callable[[], object]:
    plan = ClimbPlan(start=F(60), target=BpmTarget(F(60 + count)), rule=EvenSteps(F(1)))
    return lambda: rungs(plan, F(4))


#: Name, turns, spread in seconds, share missed, share extra, drift in per cent, bias and leap in seconds.
PLAYERS = (
    ("12 ms, 2 % missed, 1 % extra", 3, 0.012, 0.02, 0.01, 0.1, 0.01, 0.0),
    ("25 ms, 10 % missed, 5 % extra", 3, 0.025, 0.10, 0.05, 0.1, 0.0, 0.0),
    ("late by 60 ms, unknown", 3, 0.010, 0.02, 0.01, 0.05, 0.06, 0.0),
    ("0.5 % too fast, a minute", 6, 0.010, 0.02, 0.01, 0.5, 0.0, 0.0),
    ("2 % too fast", 2, 0.010, 0.02, 0.01, 2.0, 0.0, 0.0),
    ("a beat lost in the middle", 3, 0.010, 0.01, 0.01, 0.0, 0.0, 0.6),
)


def rightly_matched(seed: int, turns: int, spread: float, miss: float, extra: float, drift: float, *moved: float) -> F:
    """Return the share of a simulated player's notes that matching puts in the right place."""
    bias, leap = moved
    random = np.random.default_rng(seed)
    even = Drill(material=OneNote(beats=16), legs=(Leg(F(4)),))
    stepping = Drill(material=OneNote(beats=8), legs=(Leg(F(2)), Leg(F(3)), Leg(F(4))))
    reading = read(stepping if seed % 2 else even)
    bpm = F((72, 96, 120)[seed % 3])
    end = turns * float(reading.loop_beats * 60 / bpm)
    due = np.array([at for at, _ in expected_onsets(reading, bpm, 0.0, end)])
    wander = np.cumsum(random.normal(0, spread * 0.08, len(due)))
    onsets = due * (1 + (drift if seed % 4 < 2 else -drift) / 100) + (bias if seed % 3 else -bias)
    onsets = onsets + random.normal(0, spread, len(due)) + wander - wander.mean()
    if leap:
        onsets[random.integers(len(due) // 3, 2 * len(due) // 3) :] += leap
    truth = np.arange(len(due))[random.random(len(due)) >= miss]
    onsets = onsets[truth]
    doubled = random.random(len(onsets)) < extra
    onsets = np.concatenate([onsets, onsets[doubled] + random.uniform(0.03, 0.06, doubled.sum())])
    truth = np.concatenate([truth, np.full(doubled.sum(), -1)])
    order = np.argsort(onsets)
    onsets, truth = onsets[order], truth[order]
    found = match_onsets(due.tolist(), onsets.tolist())
    return F(sum(bool(truth[played] == wanted) for wanted, played in found.pairs), int((truth >= 0).sum()))


def main() -> None:
    table("Reading a drill", "legs", [3, 30, 300], lambda count: lambda: read(steps(count)))
    readings = {count: read(steps(count)) for count in (3, 30, 300)}
    table("Rail and sums of a reading", "legs", [3, 30, 300], lambda n: lambda: reading_shape(readings[n], F(84)))
    table("A reading in seconds", "legs", [3, 30, 300], lambda n: lambda: perform(readings[n], F(84)))
    table("The rungs of a climb", "rungs", [10, 50, 190], climb)
    table("Matching a take", "onsets", [500, 2000, 10_000], matching)
    print("\nNotes matched rightly, over 30 seeded takes")
    for name, *player in PLAYERS:
        shares = [rightly_matched(seed, *player) for seed in range(30)]  # type: ignore[arg-type]
        print(f"{name:>32} {float(sum(shares) / len(shares)):.3f}, worst take {float(min(shares)):.3f}")
    load.main([1_000, 10_000, 100_000])


if __name__ == "__main__":
    main()
