"""The gate and the word: what is refused and why, what is clean, shaky or near, and which fault comes first."""

from collections.abc import Sequence
from dataclasses import replace
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ripresa.core.drill import Drill
from ripresa.core.drill.accents import EveryNth, NoAccents
from ripresa.core.drill.hands import ByOrder
from ripresa.core.drill.material import OneNote, ScaleRun
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.reading import Reading, read
from ripresa.core.shelf import SHELF
from ripresa.core.takes import (
    FAULT_NAMES,
    LIMITS,
    STAND_INS,
    But,
    HeardNote,
    Judged,
    Limits,
    StandIn,
    asked,
    asked_in_short,
    due_notes,
    judge,
    play,
)
from ripresa.core.takes.fault import state_of
from ripresa.core.takes.gate import refusal
from ripresa.core.takes.interval import Interval
from ripresa.core.takes.match import match_take
from ripresa.core.takes.measure import fitted_take, measure
from ripresa.core.takes.slips import slip_bounds
from tests.strategies import drills, legs
from tools.truth import FOREIGN, PLAYERS, UNPITCHED, bare, due_of, foreign

KNOWN = (0.0, 0.002)
USUAL = Limits()
RUN = read(Drill(material=ScaleRun(octaves=2), legs=legs(4), hands=ByOrder(cycle=("R", "L")), accents=EveryNth(size=4)))
STEPS = read(
    Drill(material=ScaleRun(octaves=2), legs=legs(2, 3, 4), hands=ByOrder(cycle=("R", "L")), accents=EveryNth(size=5))
)
PLAIN = read(Drill(material=OneNote(beats=16), legs=legs(4), accents=NoAccents()))


def said(
    player: StandIn, reading: Reading = RUN, turns: int = 5, latency: tuple[float, float] | None = KNOWN, **more: object
) -> Judged:
    due = due_notes(reading, F(84), 0.0, turns * float(reading.loop_beats * 60 / 84))
    limits = more.pop("limits", Limits())
    return judge(due, play(player, due).notes, limits, "stand_in", latency, **more)  # type: ignore[arg-type]


def of(offsets: Sequence[float], *, source: str = "stand_in", limits: Limits = USUAL, bpm: F = F(60)) -> Judged:
    due = due_notes(PLAIN, bpm, 0.0, 2 * float(PLAIN.loop_beats * 60 / bpm))
    heard = [HeardNote(float(at) + offsets[index % len(offsets)]) for index, at in enumerate(due.at)]
    return judge(due, heard, limits, source, KNOWN)  # type: ignore[arg-type]


@pytest.mark.parametrize("kind", FOREIGN)
def test_what_is_not_the_drill_gets_no_verdict(kind: str) -> None:
    fit = {"triplets for fours": 4, "fours for threes": 3}.get(kind)
    readings = [one for one in UNPITCHED if fit is None or any(leg.enters == fit for leg in one.legs)]
    for seed in range(6):
        due = due_of(seed, readings)
        found = judge(due, foreign(due, kind, seed), Limits(), "midi", KNOWN).verdict
        assert found.mark == "none", (seed, found.reasons)
        assert found.offers


@pytest.mark.parametrize("name", ["stand-in, ordinary", "follower", "follower, hesitates"])
def test_what_is_the_drill_is_never_refused(name: str) -> None:
    for seed in range(8):
        due = due_of(seed, UNPITCHED)
        assert judge(due, bare(PLAYERS[name](due, seed)).notes, Limits(), "midi", KNOWN).verdict.mark != "none"


def test_the_reasons_of_a_refusal_name_what_fits_and_offer_it() -> None:
    due = due_of(0, UNPITCHED)
    threes = judge(due, foreign(due, "triplets for fours", 1), Limits(), "midi", KNOWN).verdict
    assert threes.reasons[0].startswith("This fits threes better than the fours of the drill")
    assert [(offer.kind, offer.division) for offer in threes.offers] == [("division", 3), ("by_ear", None)]
    slow = judge(due, foreign(due, "10 % slow", 1), Limits(), "midi", KNOWN).verdict
    assert slow.reasons[0].startswith("This was played at 65, not at 72")
    assert slow.offers[0].bpm == 65
    late = judge(due, foreign(due, "a slot late", 1), Limits(), "midi", KNOWN).verdict
    assert late.reasons[0] == "Out by one slot, late: was the first note on the count?"


def test_other_pitches_are_another_drill() -> None:
    due = due_notes(RUN, F(84), 0.0, 2 * float(RUN.loop_beats * 60 / 84))
    pitches = np.random.default_rng(1).permutation([RUN.heard(event)[0] for event in due.events])
    heard = [HeardNote(float(at), pitch=int(pitch)) for at, pitch in zip(due.at, pitches, strict=True)]
    found = judge(due, heard, Limits(), "midi", KNOWN).verdict
    assert (found.mark, found.refused) == ("none", "pitches")


def test_silence_too_few_and_half_of_it_say_how_to_go_on() -> None:
    due = due_notes(PLAIN, F(60), 0.0, 32.0)
    silent, few, half = (
        judge(due, [HeardNote(float(at)) for at in due.at[:count]], Limits(), "taps").verdict for count in (0, 12, 40)
    )
    assert "Tap J or F" in silent.reasons[0]
    assert few.mark == half.mark == "none"
    assert half.reasons[0] == (
        "Stopped after bar 3, beat 2 of pass 1 of 2. The figures are those of what was played, without a mark."
    )


def test_a_limit_that_a_source_cannot_resolve_is_not_judged_by_it() -> None:
    strict = Limits("strict")
    taps = of([0.0], source="taps", limits=strict, bpm=F(120)).verdict
    assert (taps.mark, taps.refused) == ("none", "resolution")
    assert "A limit of 9 ms cannot be judged with taps" in taps.reasons[0]
    assert taps.offers[0].kind == "evenness"
    assert of([0.0], source="midi", limits=strict, bpm=F(120)).verdict.refused == ""
    assert of([0.0], source="taps", bpm=F(120)).verdict.mark == "clean"


@pytest.mark.parametrize(
    ("player", "kind", "starts"),
    [
        pytest.param(StandIn(spread_ms=30), "spread", "Uneven at 4 a beat: spread 3", id="uneven"),
        pytest.param(StandIn(spread_ms=6, habit_ms=50), "habit", "“a” of 4 a beat comes 3", id="a habit"),
        pytest.param(StandIn(spread_ms=6, crowd_percent=50), "crowding", "Crowded: the last note of 4", id="crowds"),
        pytest.param(StandIn(spread_ms=6, drift_percent=3), "tempo", "Runs ahead: 3.0 ± 0.1 % faster", id="runs away"),
        pytest.param(StandIn(spread_ms=6, bias_ms=80), "click", "Beside the click: ", id="late throughout"),
        pytest.param(StandIn(spread_ms=6, miss_percent=12), "slips", "", id="holes"),
        pytest.param(StandIn(spread_ms=6, lost_beats=1), "lost_beat", "A beat lost at", id="a lost beat"),
        pytest.param(StandIn(spread_ms=5, weak_ms=30), "hand", "L is the uneven one", id="a weak hand"),
        pytest.param(StandIn(spread_ms=6, accent_db=0.5), "accent", "Flat: accents stand 0.", id="flat"),
    ],
)
def test_the_first_line_names_the_fault_with_its_numbers(player: StandIn, kind: str, starts: str) -> None:
    found = said(replace(player, seed=4)).verdict
    assert found.mark == "shaky"
    assert found.faults[0].kind == kind
    assert found.reasons[0].startswith(starts)
    assert "±" in found.reasons[0] or kind in {"lost_beat", "slips"}


def test_a_stumble_is_told_as_a_change_and_the_evenness_beside_it() -> None:
    found = said(StandIn(spread_ms=6, stumble_ms=90, seed=2), STEPS, 3).verdict
    assert found.mark == "shaky"
    assert found.faults[0].kind == "seam"
    assert found.reasons[0].startswith("Even, but not at the change: ")
    assert "times of 3 (limit " in found.reasons[0]
    assert any(reason.startswith("Even: spread 6 ±") for reason in found.reasons)


def test_a_steady_player_is_clean_and_every_ready_player_is_what_his_name_says() -> None:
    assert said(STAND_INS["steady"][1]).verdict.mark == "clean"
    said_of = {key: said(player, STEPS, 3).verdict.mark for key, (_, player) in STAND_INS.items()}
    assert said_of == {
        "steady": "clean",
        "promising": said_of["promising"],
        **dict.fromkeys(
            ["learner", "hurrying", "crowding", "stumbling", "losing", "one_handed", "flat", "lost"], "shaky"
        ),
    }


def test_an_eighth_early_is_never_clean() -> None:
    due = due_of(1, UNPITCHED)
    heard = [HeardNote(float(at) - due.beat / 2) for at in due.at]
    assert judge(due, heard, Limits(), "midi", KNOWN).verdict.mark == "none"


def test_bias_counts_only_where_the_latency_is_measured() -> None:
    late = StandIn(spread_ms=6, bias_ms=70, seed=3)
    assert said(late).verdict.faults[0].kind == "click"
    assert said(late, latency=None).verdict.mark == "clean"
    assert said(late, latency=(0.070, 0.002)).verdict.mark == "clean"


@pytest.mark.parametrize(
    ("value", "half", "state"),
    [(10, 2, "inside"), (19, 2, "near"), (21, 2, "near"), (23, 2, "outside"), (-23, 2, "outside"), (-10, 2, "inside")],
)
def test_inside_near_and_outside_by_the_90_per_cent_interval(value: float, half: float, state: str) -> None:
    # 2 at 95 % are 1.68 at 90 %.
    assert state_of(Interval(value, half, 50), 20.0) == state


def test_of_many_slots_one_has_to_lie_farther_out() -> None:
    assert state_of(Interval(22, 2, 50), 20.0) == "outside"
    assert state_of(Interval(22, 2, 50), 20.0, family=8) == "near"


@pytest.mark.parametrize(("due", "clean"), [(16, 0), (33, 0), (34, 1), (99, 2), (100, 3), (1000, 30)])
def test_a_clean_take_may_have_its_share_of_slips_rounded_down(due: int, clean: int) -> None:
    assert slip_bounds(due, 0.03) == clean


def test_few_notes_without_a_slip_are_clean_and_earlier_takes_are_not_mixed_in() -> None:
    short = said(StandIn(spread_ms=5, seed=1), turns=1)
    assert (short.verdict.mark, short.figures.due) == ("clean", 29)
    assert "No slip in 29 notes (limit 3 %)." in short.verdict.reasons
    holes = replace(short.figures, missed=9)
    assert said(StandIn(spread_ms=5, seed=2), turns=1, earlier=[holes] * 3).verdict.mark == "clean"


def test_seams_are_pooled_over_takes_of_a_rung() -> None:
    player = StandIn(spread_ms=9, stumble_ms=38, seed=6)
    alone = said(player, STEPS, 2)
    earlier = [said(replace(player, seed=seed), STEPS, 2).figures for seed in (7, 8, 9)]
    pooled = said(player, STEPS, 2, earlier=earlier)
    assert (alone.verdict.mark, pooled.verdict.mark) == ("near", "clean")


def test_a_stumble_of_this_take_is_not_made_good_by_clean_ones_before() -> None:
    steady = [said(StandIn(spread_ms=7, seed=seed), STEPS, 2).figures for seed in (7, 8, 9)]
    found = said(StandIn(spread_ms=7, stumble_ms=90, seed=6), STEPS, 2, earlier=steady).verdict
    assert found.mark == "shaky"
    assert {fault.kind for fault in found.faults} == {"seam"}
    # A steady take is not made shaky by stumbles before.
    stumbles = [said(StandIn(spread_ms=7, stumble_ms=90, seed=seed), STEPS, 2).figures for seed in (7, 8, 9)]
    assert said(StandIn(spread_ms=5, seed=6), STEPS, 2, earlier=stumbles).verdict.mark == "clean"


def test_the_schools_are_a_table_and_one_figure_may_have_another() -> None:
    assert [limit.at(0.15) for limit in LIMITS["seam"][2].values()] == pytest.approx([0.045, 0.03, 0.021])
    assert [limit.at(0.05) for limit in LIMITS["spread"][2].values()] == [0.015, 0.010, 0.008]
    held = Limits("working", (But("seam", "easy"),))
    assert held.words == "evenness working, but changes, landings and places easy"
    assert held.of("seam").at(0.15) == pytest.approx(0.045)
    assert held.of("habit").at(0.15) == pytest.approx(0.015)
    every = asked(held, {"2": 0.3, "4": 0.15})
    assert [(one.name, one.words) for one in every[5:8]] == [
        ("changes, landings and places", "90 ms at 2 a beat, 45 ms at 4 a beat"),
        ("first note of a change", "84 ms at 2 a beat, 42 ms at 4 a beat"),
        ("slips", "3 % of the notes"),
    ]
    # Drawn on a beat it is a share of the gap; a floor is a larger share where the notes are close.
    assert [round(band.share, 3) for band in every[5].bands] == [0.3, 0.3]
    assert [round(band.share, 3) for band in asked(Limits(), {"8": 0.05})[0].bands] == [0.2]
    assert every[7].bands == ()
    assert asked_in_short(held, {"2": 0.3, "4": 0.15}) == (
        "Even within 15 ms at 4 a beat; changes within 45 ms; up to 3 slips in 100 notes."
    )
    assert asked_in_short(Limits("strict"), {"4": 0.15}) == "Even within 10 ms at 4 a beat; up to 1 slip in 100 notes."
    with pytest.raises(OutOfRange, match="one school"):
        Limits("working", (But("seam", "easy"), But("seam", "strict")))


def test_an_easier_school_for_seams_lets_a_stumble_through() -> None:
    player = StandIn(spread_ms=6, stumble_ms=55, seed=3)
    assert said(player, STEPS, 3).verdict.mark == "shaky"
    assert said(player, STEPS, 3, limits=Limits("working", (But("seam", "easy"),))).verdict.mark != "shaky"


def test_every_fault_has_a_name_to_tick() -> None:
    assert all(name and why.endswith(".") for name, why in FAULT_NAMES.values())


@settings(max_examples=60)
@given(drills, st.integers(0, 1000))
def test_any_drill_that_can_be_written_can_be_judged(drill: Drill, seed: int) -> None:
    reading = read(drill)
    turn = float(reading.loop_beats * 60 / 84)
    due = due_notes(reading, F(84), 0.0, turn * max(1, min(3, int(60 / turn))))
    if len(due) > 1500:
        return
    performed = play(StandIn(spread_ms=4, seed=seed), due)
    found = judge(due, performed.notes, Limits(), "stand_in", KNOWN)
    right = sum(performed.meant[heard] == wanted for wanted, heard in found.match.pairs)
    assert right >= 0.97 * len(due) - 1
    # Steady playing is never called shaky but where its notes lie closer than a hand can be steady.
    if found.verdict.mark == "shaky" and found.figures.gap_seconds > 0.08:
        assert found.verdict.faults[0].kind in {"accent", "landing"}, found.verdict.reasons


@pytest.mark.parametrize("drill", [one.drill for one in SHELF], ids=[one.key for one in SHELF])
def test_every_ready_drill_is_clean_when_it_is_played_well(drill: Drill) -> None:
    reading = read(drill)
    turn = float(reading.loop_beats * 60 / drill.bpm)
    due = due_notes(reading, drill.bpm, 0.0, turn * 6)
    found = judge(due, play(StandIn(spread_ms=3, seed=3), due).notes, Limits("easy"), "stand_in", KNOWN)
    assert found.verdict.mark in {"clean", "near"}, found.verdict.reasons
    assert not found.match.missed


@pytest.mark.parametrize("told_by", ["moments alone", "pitches"])
@pytest.mark.parametrize(("by", "side"), [(1, "late"), (-1, "early")])
def test_who_is_out_by_a_slot_is_told_on_which_side(by: float, side: str, told_by: str) -> None:
    due = due_of(0, UNPITCHED)
    if told_by == "pitches":
        due = due_notes(RUN, F(84), 0.0, 3 * float(RUN.loop_beats * 60 / 84))
    slot = float(due.near_gap[0])
    pitches = [RUN.heard(event)[0] if told_by == "pitches" else None for event in due.events]
    heard = [HeardNote(float(at) + by * slot, pitch=pitch) for at, pitch in zip(due.at, pitches, strict=True)]
    found = judge(due, heard, Limits(), "midi", KNOWN).verdict
    assert (found.mark, found.refused) == ("none", "shift")
    assert found.reasons[0] == f"Out by one slot, {side}: was the first note on the count?"
    assert [offer.kind for offer in found.offers] == ["first_note", "by_ear"]


def gated(notes: int | None = None, **figures: Any) -> str:
    """Return the kind of refusal of a take that is played exactly, some of its figures put in place; empty for none."""
    due = due_notes(PLAIN, F(60), 0.0, 2 * float(PLAIN.loop_beats))
    heard = [HeardNote(float(at)) for at in due.at[:notes]]
    take = fitted_take(due, match_take(due, heard, 0.0), heard)
    found = refusal(take, replace(measure(take, KNOWN), **figures), Limits(), "midi", KNOWN)
    return found.kind if found else ""


@pytest.mark.parametrize(
    ("value", "half", "kind"),
    [
        # Six per cent are another rung; half of it may be chance.
        (6.3, 0.1, "tempo"),
        (-6.3, 0.1, "tempo"),
        (6.3, 0.5, ""),
        (-6.3, 0.5, ""),
        (5.9, 0.01, ""),
    ],
)
def test_another_tempo_has_to_be_told_from_chance(value: float, half: float, kind: str) -> None:
    assert gated(tempo_percent=Interval(value, half, 128)) == kind


@pytest.mark.parametrize(("notes", "kind"), [(64, "stopped"), (120, "stopped"), (121, ""), (128, "")])
def test_who_stops_two_beats_before_the_end_has_stopped(notes: int, kind: str) -> None:
    assert gated(notes=notes) == kind


@pytest.mark.parametrize(
    ("figures", "kind"),
    [
        ({"wrong": 38}, ""),
        ({"wrong": 39}, "pitches"),
        ({"missed": 42}, ""),
        ({"missed": 43}, "slips"),
        ({"extra": 64}, ""),
        ({"extra": 65}, "slips"),
    ],
)
def test_how_much_may_be_missed_extra_or_wrong_in_what_is_still_the_drill(figures: dict[str, Any], kind: str) -> None:
    # Of 128 notes: three in ten of another pitch, a third missed, half as many again.
    assert gated(**figures) == kind
