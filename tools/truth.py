"""How true the measuring is, on players whose truth is known: ``make truth`` prints the table of decisions/0016.

Two makes of player: the stand-in of the app, and a follower who shares no line with it and that nothing was tuned on.
"""

import argparse
import time
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace

import numpy as np

from ripresa.core.drill import Drill, Leg
from ripresa.core.drill.accents import EveryNth, NoAccents
from ripresa.core.drill.hands import ByOrder
from ripresa.core.drill.material import OneNote, ScaleRun
from ripresa.core.exact import Fraction as F
from ripresa.core.reading import Reading, read
from ripresa.core.takes import (
    Due,
    HeardNote,
    Interval,
    Judged,
    Limits,
    Performed,
    StandIn,
    due_notes,
    judge,
    match_take,
    play,
)
from tools import strangers
from tools.follower import Follower, follow

Strange = Callable[[Due, int], list[HeardNote]]
KNOWN = (0.0, 0.002)
LIMITS = Limits()


def legs(*divisions: int) -> tuple[Leg, ...]:
    return tuple(Leg(F(division)) for division in divisions)


READINGS: tuple[Reading, ...] = tuple(
    read(drill)
    for drill in (
        Drill(material=ScaleRun(octaves=2), legs=legs(4)),
        Drill(material=ScaleRun(octaves=2), legs=legs(2, 3, 4), hands=ByOrder(cycle=("R", "L"))),
        Drill(material=ScaleRun(octaves=2, tonic="F"), legs=legs(5, 6), accents=EveryNth(size=5)),
        Drill(material=ScaleRun(octaves=1, tonic="D"), legs=legs(3, 4, 3), meter="6/8"),
    )
)
UNPITCHED: tuple[Reading, ...] = tuple(
    read(drill)
    for drill in (
        Drill(material=OneNote(beats=16), legs=legs(4)),
        Drill(material=OneNote(beats=8), legs=legs(2, 3, 4)),
        Drill(material=OneNote(beats=8), legs=legs(5, 6)),
        Drill(material=OneNote(beats=8), legs=legs(3, 4, 3)),
    )
)
TEMPI = (72, 96, 112)


def due_of(seed: int, readings: Sequence[Reading], turns: int = 3) -> Due:
    reading, bpm = readings[seed % len(readings)], F(TEMPI[seed % len(TEMPI)])
    return due_notes(reading, bpm, 0.0, turns * float(reading.loop_beats * 60 / bpm))


def bare(performed: Performed) -> Performed:
    """Return what was played as moments alone."""
    return Performed(tuple(HeardNote(note.at) for note in performed.notes), performed.meant)


def ordinary(seed: int) -> StandIn:
    """Return a learner with a drift, a habit and a bend of his own."""
    random = np.random.default_rng(seed + 10_000)
    return StandIn(
        spread_ms=15,
        alike=float(random.uniform(0, 0.5)),
        miss_percent=5,
        extra_percent=3,
        bias_ms=float(random.normal(0, 12)),
        drift_percent=float(random.normal(0, 0.15)),
        bend_bpm=float(random.normal(0, 0.4)),
        habit_ms=float(random.normal(0, 12)),
        seed=seed,
    )


def hard(seed: int) -> StandIn:
    """Return a player with 25 ms of scatter, many slips, and a stumble at each change."""
    return replace(ordinary(seed), spread_ms=25, miss_percent=8, extra_percent=5, stumble_ms=30)


PLAYERS: dict[str, Callable[[Due, int], Performed]] = {
    "stand-in, ordinary": lambda due, seed: play(ordinary(seed), due),
    "stand-in, hard": lambda due, seed: play(hard(seed), due),
    "stand-in, a lost beat": lambda due, seed: play(replace(ordinary(seed), lost_beats=1 + seed % 2), due),
    "follower": lambda due, seed: follow(Follower(), due, seed),
    "follower, uneven": lambda due, seed: follow(Follower(clock=12, hand=9, unevenness=14, misses=0.05), due, seed),
    "follower, hesitates": lambda due, seed: follow(Follower(hesitates=70), due, seed),
    "follower, a lost beat": lambda due, seed: follow(Follower(lost=1), due, seed),
    "no click heard, 2 % fast": lambda due, seed: follow(Follower(hears=False, speeds_up=2), due, seed),
}


def rightly(due: Due, performed: Performed, latency: float | None) -> tuple[int, int]:
    """Return how many played notes were matched to what they were meant as, and how many were meant."""
    found = match_take(due, performed.notes, latency)
    right = sum(performed.meant[heard] == wanted for wanted, heard in found.pairs)
    return right, sum(one is not None for one in performed.meant)


def matching(count: int) -> None:
    print(f"\nNotes matched rightly, {count} takes a row")
    print(f"{'':>28} {'pitch':>8} {'onsets, latency known':>23} {'onsets alone':>14}")
    for name, player in PLAYERS.items():
        told = []
        for readings, latency, strip in ((READINGS, None, False), (UNPITCHED, 0.0, True), (UNPITCHED, None, True)):
            right = meant = 0
            for seed in range(count):
                due = due_of(seed, readings)
                performed = player(due, seed)
                one, of = rightly(due, bare(performed) if strip else performed, latency)
                right, meant = right + one, meant + of
            told.append(100 * right / meant)
        print(f"{name:>28} {told[0]:>7.2f} % {told[1]:>21.2f} % {told[2]:>12.2f} %")


@dataclass
class Told:
    """Errors of a figure, and how often its interval held the truth."""

    errors: list[float]
    held: list[bool]

    def add(self, figure: Interval | None, truth: float, scale: float = 1.0) -> None:
        if figure is not None:
            self.errors.append(abs(figure.value * scale - truth))
            self.held.append(abs(figure.value * scale - truth) <= figure.half_width * scale)


def figures(count: int) -> dict[str, Told]:
    """Return how figures of ordinary takes err, in ms, per cent and bpm a minute."""
    told = {name: Told([], []) for name in ("spread", "tempo", "bend", "habit", "start", "seam")}
    for seed in range(count):
        due = due_of(seed, READINGS, 5)
        player = replace(ordinary(seed), stumble_ms=float(20 * (seed % 3)))
        found = judge(due, play(player, due).notes, LIMITS, "stand_in", KNOWN).figures
        middle = float(due.at[0] + due.at[-1]) / 2
        curve = player.bend_bpm / (120 * float(due.bpm))
        slope = 1 / (1 + player.drift_percent / 100) - 1 - 2 * curve * middle
        told["spread"].add(found.spread, player.spread_ms, 1000)
        told["bend"].add(found.bend, player.bend_bpm)
        told["tempo"].add(found.tempo_percent, 100 * (1 / (1 + slope) - 1))
        for leg in found.legs:
            last, size = leg.division.numerator - 1, leg.division.numerator
            for slot in leg.slots:
                truth = player.habit_ms * ((1 if slot.slot == last else 0) - 1 / size)
                told["habit"].add(slot.habit, truth, 1000)
        # All divisions have the habit on their last slot; its mean is part of the start.
        mean = float(np.mean([player.habit_ms / division.numerator for division, _ in due.place]))
        told["start"].add(found.with_click, player.bias_ms + mean, 1000)
        for seam in found.seams:
            first = (due.since_change >= 0) & (due.since_change < 1 - 1e-6)
            fading = float(np.mean(1 - due.since_change[first] / 2)) if first.any() else 0.0
            told["seam"].add(seam.first, player.stumble_ms * fading, 1000)
    return told


def foreign(due: Due, kind: str, seed: int) -> Sequence[HeardNote]:
    """Return notes that are not the drill."""
    random = np.random.default_rng(seed)
    at = due.at
    if kind == "triplets for fours":
        at = _other(due, 4, 3)
    elif kind == "fours for threes":
        at = _other(due, 3, 4)
    elif kind in {"10 % fast", "10 % slow"}:
        at = at * (0.9 if "fast" in kind else 1.1)
    elif kind == "random taps":
        at = np.sort(random.uniform(0, due.end, len(due)))
        return [HeardNote(float(one)) for one in at]
    elif kind == "twice as many":
        at = np.sort(np.concatenate([at, at + due.near_gap / 2]))
    elif kind == "half as many":
        at = at[::2]
    elif kind in {"a slot late", "a slot early"}:
        at = at + (1 if "late" in kind else -1) * due.near_gap[0]
    elif kind == "a beat late":
        at = at + due.beat
    elif kind == "another drill":
        others = [one for one in UNPITCHED if one is not due.reading]
        other = due_notes(others[seed % len(others)], due.bpm, 0.0, due.end)
        at = other.at
    kept = random.random(len(at)) > 0.02
    return [HeardNote(float(one)) for one in np.sort(at + random.normal(0, 0.011, len(at)))[kept]]


def _other(due: Due, here: int, there: int) -> np.ndarray[tuple[int, ...], np.dtype[np.float64]]:
    beats = {
        round(float(due.at[index] - event.slot * due.even_gap[index]), 6)
        for index, event in enumerate(due.events)
        if event.division == here
    }
    rest = [float(at) for at, event in zip(due.at, due.events, strict=True) if event.division != here]
    return np.sort(np.array([*rest, *(beat + due.beat * slot / there for beat in beats for slot in range(there))]))


FOREIGN = (
    "triplets for fours",
    "fours for threes",
    "10 % fast",
    "10 % slow",
    "random taps",
    "twice as many",
    "half as many",
    "a slot late",
    "a slot early",
    "a beat late",
    "another drill",
)


def refused(count: int) -> dict[str, float]:
    """Return the share of takes that get no verdict, by what they are."""
    found = {}
    for kind in FOREIGN:
        with_division = {"triplets for fours": 4, "fours for threes": 3}.get(kind)
        fit = [
            one for one in UNPITCHED if with_division is None or any(leg.enters == with_division for leg in one.legs)
        ]
        marks = [
            judge(due, foreign(due, kind, seed), LIMITS, "midi", KNOWN).verdict.mark
            for seed in range(count)
            for due in [due_of(seed, fit)]
        ]
        found[kind] = sum(mark == "none" for mark in marks) / count
    for name in ("stand-in, ordinary", "follower", "follower, hesitates"):
        for label, readings, strip in (("with pitch", READINGS, False), ("onsets", UNPITCHED, True)):
            marks = []
            for seed in range(count):
                due = due_of(seed, readings)
                performed = PLAYERS[name](due, seed)
                notes = bare(performed).notes if strip else performed.notes
                marks.append(judge(due, notes, LIMITS, "midi", KNOWN).verdict.mark)
            found[f"{name}, {label}"] = sum(mark == "none" for mark in marks) / count
    return found


def _around() -> Iterator[tuple[str, Drill, set[str], Callable[[float, float], StandIn]]]:
    run = Drill(material=ScaleRun(octaves=2), legs=legs(4), hands=ByOrder(cycle=("R", "L")), accents=EveryNth(size=4))
    change = Drill(material=OneNote(beats=8), legs=legs(3, 4))
    yield "spread", run, {"spread", "hand"}, lambda x, gap: StandIn(spread_ms=100 * gap * x)
    yield "habit", run, {"habit"}, lambda x, gap: StandIn(spread_ms=7, habit_slot=2, habit_ms=100 * gap * x * 4 / 3)
    yield "tempo", run, {"tempo"}, lambda x, _: StandIn(spread_ms=7, drift_percent=x)
    yield "click", run, {"click"}, lambda x, gap: StandIn(spread_ms=7, bias_ms=200 * gap * x)
    yield "seam", change, {"seam"}, lambda x, gap: StandIn(spread_ms=7, stumble_ms=200 * gap * x / 0.8125)
    yield "slips", run, {"slips"}, lambda x, _: StandIn(spread_ms=7, miss_percent=3 * x)
    yield "accent", run, {"accent"}, lambda x, _: StandIn(spread_ms=7, accent_db=4 / x)


def around_limits(count: int) -> None:
    print(
        f"\nAround each limit: false clean at 1.2 of it, false shaky at 0.8, near at both; {count} takes each, per cent"
    )
    for name, drill, kinds, make in _around():
        reading, bpm = read(drill), F(84)
        for turns in (1, 3, 9):
            due = due_notes(reading, bpm, 0.0, turns * float(reading.loop_beats * 60 / bpm))
            gap = float(due.even_gap.min())
            wide = [_said(due, make(1.2, gap), seed) for seed in range(count)]
            narrow = [_said(due, make(0.8, gap), seed) for seed in range(count)]
            clean = sum(one.verdict.mark == "clean" for one in wide)
            shaky = sum(
                bool(kinds & {fault.kind for fault in one.verdict.faults}) and one.verdict.mark == "shaky"
                for one in narrow
            )
            near = [sum(one.verdict.mark == "near" for one in takes) for takes in (wide, narrow)]
            told = [round(100 * one / count) for one in (clean, shaky, *near)]
            print(f"{name:>8} {len(due):>5} notes: {told[0]:>3} {told[1]:>3}   near {told[2]:>3} {told[3]:>3}")


def _said(due: Due, player: StandIn, seed: int) -> Judged:
    return judge(due, play(replace(player, seed=seed), due).notes, LIMITS, "stand_in", KNOWN)


_CHANGES = read(Drill(material=ScaleRun(octaves=1), legs=legs(2, 3, 4, 5)))
_INSIDE = read(Drill(material=OneNote(beats=8), legs=(Leg(F(6), (F(5),)),)))
_THREES = read(Drill(material=ScaleRun(octaves=2), legs=legs(3)))
#: What is played → by whom, of what, how many passes, and what is right to say of it: a mark that it never has, or
#: words that its first sentence holds.
_STRANGERS: dict[str, tuple[Strange, Reading, int, str]] = {
    "a note a turn 40 % late": (strangers.late_once_a_turn(0.4), READINGS[0], 4, "never clean"),
    "first note of a change 60 % late": (strangers.late_at_changes(0.6), _CHANGES, 2, "never clean"),
    "the same inside a leg": (strangers.late_at_changes(0.6), _INSIDE, 2, "never clean"),
    "100 ms away in the middle": (strangers.wandering(lambda x: -0.4 * x * (1 - x)), READINGS[0], 4, "never clean"),
    "0.8 % fast for 20 turns": (strangers.slow_run_away(0.8), READINGS[0], 20, "never clean"),
    "threes at 25/25/50": (strangers.crowding((0.25, 0.25, 0.5)), _THREES, 4, "Crowded"),
    "goes back a bar": (strangers.goes_back(4), READINGS[0], 4, "Went back to"),
    "goes back twice, anywhere": (strangers.goes_back_twice, READINGS[0], 4, "Went back to"),
    "leaves out a bar": (strangers.leaves_out(4), READINGS[0], 4, "left out at"),
    "stops half-way": (strangers.stops(0.45), READINGS[0], 4, "Stopped after"),
    "an octave higher": (strangers.transposed(12), READINGS[0], 4, "an octave higher"),
    "twice as fast": (strangers.at_speed(2), READINGS[0], 4, "twice as fast"),
    "a knock 3 s after": (strangers.with_sounds(3.0, after=True), READINGS[0], 4, "Even"),
    "tuning before": (strangers.with_sounds(*(1 + 0.3 * n for n in range(14)), after=False), READINGS[0], 4, "Even"),
}


def nothing_false(count: int) -> None:
    print(f"\nPlayers of another make: per cent of {count} takes of which the right thing is said")
    for name, (player, reading, turns, right) in _STRANGERS.items():
        told = 0
        for seed in range(count):
            bpm = F(TEMPI[seed % len(TEMPI)])
            due = due_notes(reading, bpm, 0.0, turns * float(reading.loop_beats * 60 / bpm))
            word = judge(due, player(due, seed), LIMITS, "midi", KNOWN).verdict
            told += word.mark != "clean" if right == "never clean" else right in word.reasons[0]
        print(f"{name:>34}: {100 * told / count:5.1f}  {right}")
    print("\nAn even player, half the limit of spread, without a slip: per cent clean")
    for beats, turns in ((4, 1), (8, 1), (8, 2), (8, 4)):
        even = read(Drill(material=OneNote(beats=beats), legs=legs(4), accents=NoAccents()))
        due = due_notes(even, F(92), 0.0, turns * float(even.loop_beats * 60 / 92))
        clean = 0
        for seed in range(count):
            at = due.at + np.random.default_rng(seed).normal(0, 0.05, len(due)) * due.even_gap
            clean += judge(due, strangers.notes_at(due, at), LIMITS, "midi", KNOWN).verdict.mark == "clean"
        print(f"{len(due):>28} notes: {100 * clean / count:5.1f}")
    print("\nUnder 1/f timing: how often the 95 % interval held the truth")
    held: dict[str, list[bool]] = {"start": [], "tempo": [], "bend": []}
    for seed in range(count):
        due = due_of(seed, READINGS[:1], 8)
        found = judge(due, strangers.pink(0.012)(due, seed), LIMITS, "midi", KNOWN).figures
        for name, figure in (("start", found.with_click), ("tempo", found.tempo_percent), ("bend", found.bend)):
            if figure is not None:
                held[name].append(abs(figure.value) <= figure.half_width)
    for name, hits in held.items():
        print(f"{name:>34}: {100 * np.mean(hits):5.1f}")


def times() -> None:
    print("\nProcessor time of a judged take")
    reading = READINGS[1]
    for size in (2_000, 10_000):
        turns = size / len(reading.notes)
        due = due_notes(reading, F(96), 0.0, turns * float(reading.loop_beats * 60 / 96))
        performed = play(replace(ordinary(3), seed=3), due)
        for name, notes in (("with pitch", performed.notes), ("onsets", bare(performed).notes)):
            began = time.process_time()
            judge(due, notes, LIMITS, "midi", KNOWN)
            print(f"{len(due):>8} notes, {name:>10}: {time.process_time() - began:.3f} s")


def main() -> None:
    asked = argparse.ArgumentParser(description=__doc__)
    asked.add_argument("--takes", type=int, default=100, help="takes a row")
    asked.add_argument("--others", action="store_true", help="the players of another make alone")
    told = asked.parse_args()
    count = told.takes
    if told.others:
        nothing_false(count)
        return
    matching(count)
    print(f"\nFigures of {count} ordinary takes: mean error, and how often the 95 % interval held the truth")
    for name, one in figures(count).items():
        print(f"{name:>8}: {np.mean(one.errors):6.3f}, {100 * np.mean(one.held):5.1f} % of {len(one.held)}")
    print(f"\nNo verdict, per cent of {count} takes")
    for kind, share in refused(count).items():
        print(f"{kind:>34}: {100 * share:5.1f}")
    around_limits(count)
    nothing_false(count)
    times()


if __name__ == "__main__":
    main()
