"""Matching: on sums by hand, on the stand-in, and on a player of another make that nothing was tuned on."""

from collections.abc import Sequence

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ripresa.core.drill import Drill
from ripresa.core.drill.hands import ByOrder
from ripresa.core.drill.material import OneNote, ScaleRun, Strum
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.reading import Reading, read
from ripresa.core.takes import HeardNote, Match, StandIn, due_notes, match_take, match_times, play
from ripresa.core.takes.align import EXTRA, MISS, Costs, align
from ripresa.core.takes.due import Due, nearest
from ripresa.core.takes.heard import named_strokes
from tests.strategies import legs
from tools.follower import Follower, follow
from tools.truth import READINGS, UNPITCHED, bare, rightly

BPM = F(96)
SIXTEENTHS = read(Drill(material=OneNote(beats=16), legs=legs(4)))
RUN = read(Drill(material=ScaleRun(octaves=2), legs=legs(4)))
HANDS = read(Drill(material=OneNote(beats=16), legs=legs(4), hands=ByOrder(cycle=("R", "L", "L"))))


def due_of(reading: Reading = SIXTEENTHS, turns: int = 2, bpm: F = BPM) -> Due:
    return due_notes(reading, bpm, 0.0, turns * float(reading.loop_beats * 60 / bpm))


def notes(at: Sequence[float], pitches: Sequence[int | None] | None = None) -> list[HeardNote]:
    given_pitches = pitches or [None] * len(at)
    return [HeardNote(float(one), pitch=pitch) for one, pitch in zip(at, given_pitches, strict=True)]


def test_an_alignment_is_the_cheapest_one_by_hand() -> None:
    wanted, heard = np.array([0.0, 1.0, 2.0]), np.array([0.01, 1.5, 2.02])
    costs = Costs(np.zeros(3), np.full(3, 0.02), np.full(3, 0.7), np.full(3, EXTRA))
    found = align(wanted, heard, costs)
    assert list(zip(found.due.tolist(), found.strike.tolist(), strict=True)) == [(0, 0), (2, 2)]
    # ½ · (½ scale)², ½ · (1 scale)², and the one between that is far from everything.
    assert found.cost == pytest.approx(0.125 + 0.5 + MISS + EXTRA)


def test_a_late_note_of_the_right_pitch_is_late_and_not_missed() -> None:
    due = due_of(RUN)
    pitches = [RUN.heard(event)[0] for event in due.events]
    at = due.at.copy()
    at[20] += 0.05
    found = match_take(due, notes(at.tolist(), pitches))
    assert (len(found.pairs), found.missed, found.extra) == (len(due), (), ())


@pytest.mark.parametrize("latency", [None, 0.0, 0.04])
def test_misses_extras_and_wrong_notes_are_told_apart(latency: float | None) -> None:
    due = due_of(RUN)
    late = latency or 0.0
    pitches = [RUN.heard(event)[0] for event in due.events]
    pitches[30] += 2
    kept = [index for index in range(len(due)) if index not in {5, 6, 40}]
    heard = [HeardNote(float(due.at[index]) + late, pitch=pitches[index]) for index in kept]
    heard.append(HeardNote(float(due.at[11]) + late + 0.05, pitch=pitches[11]))
    heard.sort(key=lambda note: note.at)
    found = match_take(due, heard, latency)
    assert found.missed == (5, 6, 40)
    assert found.wrong == (30,)
    assert [heard[index].at for index in found.extra] == pytest.approx([float(due.at[11]) + late + 0.05])


@settings(max_examples=20)
@given(st.integers(0, 2**20), st.sampled_from(range(4)))
def test_matching_goes_in_order_and_uses_nothing_twice(seed: int, which: int) -> None:
    due = due_of(UNPITCHED[which], 1)
    player = StandIn(spread_ms=30, miss_percent=10, extra_percent=10, seed=seed)
    found = match_take(due, bare(play(player, due)).notes)
    assert [pair[0] for pair in found.pairs] == sorted({pair[0] for pair in found.pairs})
    assert [pair[1] for pair in found.pairs] == sorted({pair[1] for pair in found.pairs})
    assert len(found.pairs) + len(found.missed) == len(due)


def share(readings: Sequence[Reading], player: object, *, pitch: bool, latency: float | None, takes: int = 8) -> float:
    right = meant = 0
    for seed in range(takes):
        due = due_of(readings[seed % len(readings)], 3, F((72, 96, 112)[seed % 3]))
        performed = follow(player, due, seed) if isinstance(player, Follower) else play(player, due)  # type: ignore[arg-type]
        one, of = rightly(due, performed if pitch else bare(performed), latency)
        right, meant = right + one, meant + of
    return right / meant


@pytest.mark.parametrize(
    ("player", "least"),
    [
        pytest.param(StandIn(spread_ms=15, miss_percent=5, extra_percent=3), 0.997, id="a learner"),
        pytest.param(StandIn(spread_ms=12, lost_beats=2), 0.997, id="two lost beats"),
        pytest.param(StandIn(spread_ms=12, drift_percent=4), 0.997, id="4 % fast"),
        pytest.param(StandIn(spread_ms=10, habit_ms=50), 0.997, id="a habit of 50 ms"),
        pytest.param(Follower(), 0.997, id="another make"),
        pytest.param(Follower(hesitates=70, misses=0.05), 0.99, id="another make that hesitates"),
        pytest.param(Follower(lost=1), 0.997, id="another make that loses a beat"),
    ],
)
def test_with_pitch_nearly_every_note_is_right_without_any_latency(player: object, least: float) -> None:
    assert share(READINGS, player, pitch=True, latency=None) >= least


@pytest.mark.parametrize(
    "player",
    [
        pytest.param(StandIn(spread_ms=12, miss_percent=3, extra_percent=2), id="a learner"),
        pytest.param(StandIn(spread_ms=10, drift_percent=2), id="2 % fast"),
        pytest.param(StandIn(spread_ms=10, bias_ms=40), id="late"),
        pytest.param(Follower(), id="another make"),
    ],
)
def test_by_moments_alone_they_are_right_where_the_latency_is_known(player: object) -> None:
    assert share(UNPITCHED, player, pitch=False, latency=0.0) >= 0.995


def test_two_tap_keys_that_stand_for_hands_tell_where_a_group_slipped() -> None:
    due = due_of(HANDS, 1)
    at = due.at.copy()
    at[24:] += due.even_gap[0]
    keys = {"R": "j", "L": "f"}
    heard = [HeardNote(float(one), keys[str(event.stroke)]) for one, event in zip(at, due.events, strict=True)]
    found = match_take(due, heard, 0.0)
    assert found.is_symbolic
    assert found.pairs == tuple((index, index) for index in range(len(due)))


def test_keys_that_mean_nothing_are_left_aside() -> None:
    due = due_of(HANDS, 1)
    heard = [HeardNote(float(one), "jf"[index % 2]) for index, one in enumerate(due.at)]
    found = match_take(due, heard, 0.0)
    assert not found.is_symbolic
    assert len(found.pairs) == len(due)


def test_the_keys_of_a_chord_within_40_ms_are_one_note() -> None:
    reading = read(Drill(material=Strum(), instrument="guitar"))
    due = due_of(reading, 1)
    heard = [
        HeardNote(float(at) + 0.008 * number, pitch=pitch)
        for at, event in zip(due.at, due.events, strict=True)
        for number, pitch in enumerate(reading.heard(event))
    ]
    found = match_take(due, heard)
    assert (len(found.pairs), found.missed, found.extra) == (len(due), (), ())


def test_what_comes_after_the_end_is_nobodys_extra() -> None:
    due = due_of()
    beyond = [*due.at, due.end, due.end + 0.3]
    assert match_take(due, notes(beyond), 0.0).extra == ()
    inside = sorted([*due.at, float(due.at[7]) + 0.05])
    assert match_take(due, notes(inside), 0.0).extra == (8,)


def test_nothing_played_is_all_missed() -> None:
    due = due_of()
    assert match_take(due, []).missed == tuple(range(len(due)))
    assert match_times([], [0.3]) == Match((), (), (0,))
    assert match_times([0.0, 1.0], []).missed == (0, 1)


@pytest.mark.parametrize(
    "wrong",
    [{"at": float("nan")}, {"at": 1e9}, {"at": 0, "pitch": 128}, {"at": 1, "until": 0.5}, {"at": 0, "level": 1e9}],
)
def test_a_note_that_no_source_can_mean_is_refused(wrong: dict[str, float]) -> None:
    with pytest.raises(OutOfRange):
        HeardNote(**wrong)  # type: ignore[arg-type]


def test_the_nearest_of_two_moments_is_the_nearer_and_the_first_where_they_are_as_near() -> None:
    among = np.array([0.0, 1.0, 3.0])
    assert nearest(among, np.array([-5.0, 0.4, 0.5, 0.6, 2.0, 2.1, 9.0])).tolist() == [0, 0, 0, 1, 1, 2, 2]
    assert nearest(np.array([2.0]), np.array([0.0, 5.0])).tolist() == [0, 0]


@pytest.mark.parametrize(
    ("keys", "strokes", "named"),
    [
        (["f", "j", "f"], ["L", "R", "L"], {"f": "L", "j": "R"}),
        (["D", "U"], ["D", "U"], {"D": "D", "U": "U"}),
        # One key alone, or one that lies under a hand that has nothing to do, says nothing of hands.
        (["f", "f"], ["L", "R"], {}),
        (["f", "x"], ["L", "R"], {}),
        (["f", "j"], ["L", "L"], {}),
    ],
)
def test_keys_stand_for_strokes_by_their_names_or_not_at_all(
    keys: list[str], strokes: list[str], named: dict[str, str]
) -> None:
    assert named_strokes(keys, strokes) == named
