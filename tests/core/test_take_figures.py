"""The figures of a take, held to sums that were done by hand, and to players whose truth is known.

By hand the offsets alternate so that they lie square to a level, a slope and a bend: what is put in besides comes back
exactly, and what is left over is known.
"""

from collections.abc import Sequence
from dataclasses import replace
from math import exp, log10, sqrt
from typing import Any

import numpy as np
import pytest

from ripresa.core.drill import Drill
from ripresa.core.drill.accents import EveryNth, NoAccents, Walk
from ripresa.core.drill.click import DropOut
from ripresa.core.drill.hands import ByOrder
from ripresa.core.drill.material import OneNote, ScaleRun, Strum
from ripresa.core.exact import Fraction as F
from ripresa.core.reading import Reading, read
from ripresa.core.takes import Figures, HeardNote, Limits, StandIn, due_notes, judge, play
from ripresa.core.takes.due import changes
from ripresa.core.takes.interval import Interval, interval_of, student
from ripresa.core.takes.landing import pooled
from tests.strategies import legs
from tools.truth import Told
from tools.truth import figures as figures_of_takes

BPM = F(60)
PLAIN = read(Drill(material=OneNote(beats=16), legs=legs(4), accents=NoAccents()))
STEPS = read(Drill(material=OneNote(beats=8), legs=legs(2, 3, 4), accents=NoAccents()))
ACCENTED = read(
    Drill(
        material=ScaleRun(octaves=2), legs=legs(4), hands=ByOrder(cycle=("R", "L")), accents=EveryNth(size=3), bpm=BPM
    )
)
KNOWN = (0.0, 0.0)
near: Any = pytest.approx
#: Over four slots and two beats: square to a level, and to each slot.
SQUARE = (1, -1, -1, 1, -1, 1, 1, -1)


def figures_of(
    offsets: Sequence[float], reading: Reading = PLAIN, latency: tuple[float, float] | None = KNOWN, turns: int = 1
) -> Figures:
    """Return the figures of notes that fall so many seconds late, the offsets said again until the end."""
    due = due_notes(reading, BPM, 0.0, turns * float(reading.loop_beats))
    late = [offsets[index % len(offsets)] for index in range(len(due))]
    heard = [HeardNote(float(at) + by) for at, by in zip(due.at, late, strict=True)]
    return judge(due, heard, Limits(), "stand_in", latency).figures


def played(player: StandIn, reading: Reading, turns: int = 4, bpm: F = F(84)) -> Figures:
    due = due_notes(reading, bpm, 0.0, turns * float(reading.loop_beats * 60 / bpm))
    return judge(due, play(player, due).notes, Limits(), "stand_in", KNOWN).figures


def test_start_and_spread_come_back_as_they_were_put_in() -> None:
    found = figures_of([0.02 + 0.008 * sign for sign in SQUARE])
    assert found.bias
    assert found.bias.value == near(0.02, abs=0.0005)
    assert found.spread
    # 64 notes, less level, line, bend and three slots.
    assert found.spread.value == near(0.008 * sqrt(64 / 58), rel=0.01)


def test_the_half_width_of_a_spread_is_that_of_a_factor() -> None:
    found = figures_of([0.008 * sign for sign in SQUARE]).spread
    assert found
    freedom = 58.0
    assert found.half_width == near(found.value * (exp(student(0.95, freedom) / sqrt(2 * freedom)) - 1), rel=0.03)


def test_tempo_and_bend_with_their_signs() -> None:
    due = due_notes(PLAIN, BPM, 0.0, 16.0)
    middle = float(due.at[-1]) / 2
    faster = [at * (1 / 1.02 - 1) for at in due.at.tolist()]
    assert figures_of(faster).tempo_percent == Interval(near(2.0), near(0, abs=1e-6), 64)
    bend = 0.0005
    bent = figures_of([bend * (at - middle) ** 2 for at in due.at.tolist()])
    # Ever later: the tempo falls by 2 · bend of itself each second.
    assert bent.bend
    assert bent.bend.value == near(-2 * bend * 60 * 60)
    assert bent.tempo_percent
    assert bent.tempo_percent.value == near(0.0, abs=1e-9)


def test_with_the_click_is_told_only_where_the_latency_is_known_and_carries_its_half_width() -> None:
    offsets = [0.05 + 0.004 * sign for sign in SQUARE]
    assert figures_of(offsets, latency=None).with_click is None
    exact, unsure = figures_of(offsets, latency=(0.03, 0.0)), figures_of(offsets, latency=(0.03, 0.01))
    assert exact.with_click
    assert unsure.with_click
    assert exact.with_click.value == near(0.02, abs=0.0005)
    assert unsure.with_click.half_width == near(sqrt(exact.with_click.half_width**2 + 0.01**2))


def test_habits_shares_and_crowding_by_hand() -> None:
    # The last of four sixteenths (250 ms) comes 40 ms early each time.
    found = figures_of([0.0, 0.0, 0.0, -0.04]).legs[0]
    assert [slot.habit and round(slot.habit.value * 1000) for slot in found.slots] == [10, 10, 10, -30]
    assert [slot.share for slot in found.slots] == near([0.25, 0.25, 0.21, 0.29])
    # 290 ms against a mean of 710 / 3: told in shares of the even gap.
    assert found.crowding
    assert found.crowding.value == near((0.29 - 0.71 / 3) / 0.25)


def test_swing_moves_the_ideal_place_and_is_no_habit() -> None:
    from ripresa.core.rhythm import Swing

    swung = read(Drill(material=OneNote(beats=16), legs=legs(2), accents=NoAccents(), swing=Swing(F(2))))
    found = figures_of([0.0], swung).legs[0]
    assert [slot.habit and round(slot.habit.value, 6) for slot in found.slots] == [0, 0]
    assert found.gap == 0.5
    assert [slot.share for slot in found.slots] == near([2 / 3, 1 / 3])


def test_a_seam_is_told_beat_by_beat_and_pooled_over_takes() -> None:
    one = played(StandIn(spread_ms=5, stumble_ms=80, seed=3), STEPS)
    seam = next(seam for seam in one.seams if seam.name == "2 → 3")
    # 80 ms that fade over two beats: 80, 66⅔ and 53⅓ ms on the three notes of the first.
    assert seam.first.value == near(0.0667, abs=0.006)
    assert len(seam.each) == 4
    assert seam.back_in(0.03) == 2
    both = pooled([one.seams, played(StandIn(spread_ms=5, stumble_ms=80, seed=4), STEPS).seams])
    again = next(seam for seam in both if seam.name == "2 → 3")
    assert len(again.each) == 8
    assert again.first.half_width < seam.first.half_width


def test_changes_of_division_are_left_out_of_the_fit() -> None:
    calm, stumbling = (played(StandIn(spread_ms=6, stumble_ms=by, seed=5), STEPS) for by in (0.0, 120.0))
    assert calm.spread
    assert stumbling.spread
    assert stumbling.spread.value == near(calm.spread.value, abs=0.0008)


def test_the_stations_of_an_accent_walk_are_changes_too() -> None:
    walk = read(Drill(material=OneNote(beats=32), legs=legs(4), accents=Walk(width=1, bars=2)))
    names = {seam.name for seam in played(StandIn(spread_ms=5), walk, 2).seams}
    assert "accent on 1 → e" in names


def test_changes_of_chord_and_of_division_are_told_where_they_are_and_nowhere_else() -> None:
    strummed = read(Drill(material=Strum(chords="C | C | G", pattern="1 2 3 4"), legs=legs(1), instrument="guitar"))
    assert [(seam.kind, seam.name, seam.at) for seam in changes(strummed)] == [
        ("chord", "G → C", 0.0),
        ("chord", "C → G", 8.0),
    ]
    assert [(seam.kind, seam.name, seam.at) for seam in changes(STEPS)] == [
        ("division", "4 → 2", 0.0),
        ("division", "2 → 3", 8.0),
        ("division", "3 → 4", 16.0),
    ]
    assert changes(PLAIN) == ()


def test_landings_after_silence_of_the_click_are_told() -> None:
    dropped = read(Drill(material=OneNote(beats=32), legs=legs(4), click=DropOut(1, 1)))
    found = played(StandIn(spread_ms=6, silence_ms=60), dropped)
    late = next(one for one in found.landings if one.kind == "after silence of the click")
    assert late.offset.value == near(0.06, abs=0.01)
    assert late.times >= 4


def test_a_lost_beat_and_a_group_that_slipped_are_told_with_their_place() -> None:
    lost = played(StandIn(spread_ms=8, lost_beats=1, seed=2), ACCENTED)
    assert [(one.kind, round(one.beats)) for one in lost.lost] == [("late", 1)]
    due = due_notes(ACCENTED, F(84), 0.0, 4 * float(ACCENTED.loop_beats * 60 / 84))
    offset = np.zeros(len(due))
    offset[40:48] = due.even_gap[0]
    heard = [
        HeardNote(float(at), pitch=ACCENTED.heard(event)[0])
        for at, event in zip(due.at + offset, due.events, strict=True)
    ]
    group = judge(due, heard, Limits(), "stand_in", KNOWN).figures.lost
    assert [(one.kind, round(one.beats, 2)) for one in group] == [("group", 0.25)]
    assert (group[0].event, group[0].turn) == (int(due.index[40]), int(due.turn[40]))


def test_a_beat_that_was_left_out_is_told_as_silence() -> None:
    due = due_notes(PLAIN, BPM, 0.0, 32.0)
    heard = [HeardNote(float(at)) for index, at in enumerate(due.at) if not 60 <= index < 65]
    assert [(one.kind, one.beats) for one in judge(due, heard, Limits(), "stand_in", KNOWN).figures.lost] == [
        ("silent", 1.25)
    ]


def test_hands_accents_and_articulation_where_they_are_heard() -> None:
    found = played(StandIn(spread_ms=5, weak_ms=20, accent_db=5, sounding_percent=60, seed=6), ACCENTED, 6)
    right, left = found.hands
    assert (right.symbol, left.symbol) == ("R", "L")
    assert right.spread
    assert left.spread
    assert left.spread.value > 2.5 * right.spread.value
    assert found.accents
    assert found.accents.over_plain
    assert found.accents.over_plain.value == near(5, abs=0.4)
    assert {symbol for symbol, _ in found.accents.hands} == {"R", "L"}
    assert found.articulation
    assert found.articulation.value == near(0.6, abs=0.02)


@pytest.mark.parametrize(
    ("instrument", "every", "length", "told"),
    [
        ("piano", 16, 1.4, ["bar 1, beat 1", "bar 2, beat 1", "bar 3, beat 1", "bar 4, beat 1"]),
        ("flute", 64, 1.4, ["bar 1, beat 1"]),
        ("piano", 16, 1.15, []),
        ("piano", 1, 1.3, [""]),
        # A string rings on by itself.
        ("guitar", 16, 1.4, []),
    ],
)
def test_notes_that_sound_into_the_next_are_told_by_their_place(
    instrument: str, every: int, length: float, told: list[str]
) -> None:
    reading = read(replace(PLAIN.drill, instrument=instrument))
    due = due_notes(reading, BPM, 0.0, 4 * float(reading.loop_beats))
    shares = [length if number % every == 0 else 1.0 for number in range(len(due))]
    gaps = [0.005 * SQUARE[number % len(SQUARE)] for number in range(len(due))]
    heard = [
        HeardNote(float(at) + off, until=float(at) + off + share * 0.25)
        for at, off, share in zip(due.at, gaps, shares, strict=True)
    ]
    verdict = judge(due, heard, Limits(), "midi", KNOWN).verdict
    smeared = [fault for fault in verdict.faults if fault.kind == "smear"]
    assert [fault.where for fault in smeared] == told
    assert verdict.mark == ("shaky" if told else "clean")
    if told and told[0]:
        assert verdict.reasons[0] == "Bar 1, beat 1: sounds for 140 % of its length, 4 times of 4 (limit 120 %)."


def test_a_velocity_counts_as_its_gain_in_db() -> None:
    due = due_notes(ACCENTED, BPM, 0.0, float(ACCENTED.loop_beats))
    heard = [
        HeardNote(float(at), level=120 if event.accent == "accent" else 80)
        for at, event in zip(due.at, due.events, strict=True)
    ]
    accents = judge(due, heard, Limits(), "midi").figures.accents
    assert accents
    assert accents.over_plain == Interval(near(40 * log10(120 / 80)), near(0.0), 10)


def test_what_a_source_does_not_know_is_left_out() -> None:
    found = figures_of([0.0])
    assert (found.accents, found.articulation, found.hands) == (None, None, ())


@pytest.mark.parametrize(("kind", "most"), [("spread", 1.2), ("tempo", 0.04), ("habit", 3.0), ("start", 6.0)])
def test_errors_and_coverage_on_ordinary_takes(kind: str, most: float) -> None:
    told = _told()[kind]
    assert np.mean(told.errors) <= most
    # A small sample of `make truth`: 24 takes hold 95 % to about ± 10.
    assert np.mean(told.held) >= 0.84


def _told(found: dict[str, Told] = {}) -> dict[str, Told]:  # noqa: B006 - worked out once for all of them
    if not found:
        found.update(figures_of_takes(24))
    return found


def test_a_mean_with_its_half_width() -> None:
    found = interval_of([1.0, 2.0, 3.0, 6.0])
    assert found == Interval(3.0, near(3.182 * sqrt(14 / 3) / 2, rel=0.01), 4)
    assert interval_of([1.0]) is None


@pytest.mark.parametrize(("freedom", "value"), [(3, 3.182), (5, 2.571), (10, 2.228), (30, 2.042), (1e6, 1.960)])
def test_students_t_as_printed_in_tables(freedom: float, value: float) -> None:
    assert student(0.95, freedom) == near(value, abs=0.006 if freedom < 4 else 0.001)


def test_a_half_width_for_another_share() -> None:
    assert replace(Interval(1.0, 1.96, 9)).half(0.90) == near(1.645, abs=0.001)


def test_who_parts_from_the_click_all_the_time_has_not_lost_beats() -> None:
    due = due_notes(ACCENTED, F(84), 0.0, 40 * float(ACCENTED.loop_beats * 60 / 84))
    leaps = np.cumsum(np.arange(len(due)) % 20 == 19) * 0.4 * due.beat
    heard = [
        HeardNote(float(at), pitch=ACCENTED.heard(event)[0])
        for at, event in zip(due.at + leaps, due.events, strict=True)
    ]
    found = judge(due, heard, Limits(), "stand_in", KNOWN)
    assert found.verdict.mark in {"none", "shaky"}
    assert sum(one.kind != "silent" for one in found.figures.lost) <= 24


def test_changes_that_fall_now_early_now_late_are_as_uncertain_as_they_are() -> None:
    """The notes beside a change scatter little; the change itself by 60 ms to either side, and that is its error."""
    turns = 4
    due = due_notes(STEPS, BPM, 0.0, turns * float(STEPS.loop_beats))
    names = [event.leg for event in due.events]
    late = [0.0] * len(due)
    turn = -1
    for index in range(1, len(due)):
        if names[index] == 1 and names[index - 1] == 0:
            turn += 1
            late[index : index + 3] = [0.06 * (-1) ** turn] * 3
    heard = [HeardNote(float(at) + by) for at, by in zip(due.at, late, strict=True)]
    seam = next(one for one in judge(due, heard, Limits(), "stand_in", KNOWN).figures.seams if one.name == "2 → 3")
    assert seam.each == near([0.06, -0.06, 0.06, -0.06], abs=0.004)
    assert abs(seam.first.value) < 0.004
    # Four means of ± 60 ms: a deviation of 69.3, an error of 34.6, by Student's t of three 110.
    assert seam.first.half_width == near(0.110, abs=0.01)
