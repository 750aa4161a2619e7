"""Nothing false is called clean, and what is clean is called so: players of another make, and the whole sentence."""

from collections.abc import Callable, Sequence
from typing import Any

import numpy as np
import pytest

from ripresa.core.drill import Drill, Leg
from ripresa.core.drill.accents import NoAccents
from ripresa.core.drill.click import DropOut
from ripresa.core.drill.hands import ByOrder
from ripresa.core.drill.material import Count, OneNote, ScaleRun
from ripresa.core.exact import Fraction as F
from ripresa.core.reading import Reading, read
from ripresa.core.rhythm import Swing
from ripresa.core.takes import Due, HeardNote, Judged, Limits, due_notes, judge, judge_file, remedies
from ripresa.core.takes.fit import Rows, joint_fit
from ripresa.core.takes.measure import tempo_between
from ripresa.core.takes.places import places, strays
from tests.strategies import legs
from tools import strangers
from tools.strangers import even, notes_at

Player = Callable[[Due, int], list[HeardNote]]
KNOWN = (0.0, 0.002)


def scale(*divisions: int, **drill: Any) -> Reading:
    return read(Drill(material=ScaleRun(octaves=2), legs=legs(*divisions), accents=NoAccents(), **drill))


SCALE, THREES, PIANO = scale(4), scale(3), scale(4, instrument="piano")
ONE_IN_THREES = read(Drill(material=OneNote(beats=8), legs=legs(3), accents=NoAccents()))
CHANGES = read(Drill(material=ScaleRun(octaves=1), legs=legs(2, 3, 4, 5), accents=NoAccents()))
ALTERNATING = read(Drill(material=OneNote(beats=8), legs=(Leg(F(6), (F(5),)),), accents=NoAccents()))


def due_of(reading: Reading, turns: int = 4, bpm: int = 92) -> Due:
    return due_notes(reading, F(bpm), 0.0, turns * float(reading.loop_beats * 60 / bpm))


def said(player: Player, reading: Reading = SCALE, turns: int = 4, seed: int = 1, latency: Any = KNOWN) -> Judged:
    due = due_of(reading, turns)
    return judge(due, player(due, seed), Limits(), "midi", latency)


def marks(player: Player, reading: Reading = SCALE, turns: int = 4, count: int = 12) -> set[str]:
    return {said(player, reading, turns, seed).verdict.mark for seed in range(count)}


@pytest.mark.parametrize("share", [0.43, 0.67, 0.9])
def test_one_note_a_turn_late_is_its_place(share: float) -> None:
    found = said(strangers.late_once_a_turn(share))
    late = round(share * 163)
    value = found.figures.places[0].offset.value * 1000
    assert value == pytest.approx(late, abs=8)
    assert found.verdict.reasons[0] == (
        f"Bar 2, beat 1, e: {value:.0f} ± {found.figures.places[0].offset.half_width * 1000:.0f} ms late, "
        "4 times of 4 (limit 33)."
    )
    assert marks(strangers.late_once_a_turn(share)) == {"shaky"}


def test_the_reason_of_a_place_is_what_the_hand_does_there() -> None:
    def player(due: Due, seed: int) -> list[HeardNote]:
        at = even(due, seed)
        at[due.index == 3] += 0.11
        return notes_at(due, at)

    found = said(player, PIANO)
    assert found.verdict.reasons[0].startswith("Bar 1, beat 1, a: 1")
    assert found.verdict.reasons[0].endswith(" ms late, 4 times of 4, where the thumb goes under (limit 33).")
    loop = remedies(PIANO, F(92), found.verdict.faults[0])[0]
    assert (loop.name, loop.part.beat) == ("Loop the place at 61", 0)


@pytest.mark.parametrize(
    ("instrument", "event", "reason"),
    [
        ("piano", 12, ""),
        ("piano", 3, "where the thumb goes under"),
        ("piano", 19, "where the hand goes over the thumb"),
        ("guitar", 2, "where the string changes"),
        ("clarinet", 6, "over the break"),
    ],
)
def test_reasons_come_from_the_reading(instrument: str, event: int, reason: str) -> None:
    due = due_of(scale(4, instrument=instrument))
    at = even(due, 1, 0.002)
    at[due.index == event] += 0.08
    found = judge(due, notes_at(due, at), Limits(), "midi", KNOWN).figures.places
    assert [(one.event, one.reason) for one in found[:1]] == [(event, reason)]


def test_the_first_note_after_each_change_is_never_clean() -> None:
    player = strangers.late_at_changes(0.6)
    found = said(player, CHANGES, 2)
    assert found.verdict.reasons[0].startswith("Even, but not at the change: the first note 1")
    assert {seam.name for seam in found.figures.seams if seam.note and seam.note.value > 0.05} == {
        "2 → 3",
        "3 → 4",
        "4 → 5",
        "5 → 2",
    }
    assert marks(player, CHANGES, 2) == {"shaky"}


def test_changes_inside_a_leg_are_judged_by_kind() -> None:
    player = strangers.late_at_changes(0.6)
    found = said(player, ALTERNATING, 2)
    inside = [seam for seam in found.figures.seams if seam.kind == "inside"]
    assert {one.name for one in inside} == {"6 → 5", "5 → 6"}
    assert all(one.note and one.note.value > 0.04 for one in inside)
    assert marks(player, ALTERNATING, 2, 4) == {"shaky"}
    assert marks(lambda due, seed: notes_at(due, even(due, seed)), ALTERNATING, 2, 4) == {"clean"}


@pytest.mark.parametrize(
    ("player", "turns", "side", "place"),
    [
        (strangers.wandering(lambda part: -1.6 * part * (1 - part)), 4, "ahead of", "bar 1, beat 1 of pass 3"),
        (strangers.wandering(lambda part: 0.4 * part * (1 - part)), 4, "behind", "bar 2, beat 3 of pass 2"),
        (strangers.slow_run_away(0.8), 20, "ahead of", "bar 2, beat 3 of pass 20"),
    ],
    ids=["arch", "arch of 100 ms", "slow run-away"],
)
def test_with_the_click_is_told_all_the_way(player: Player, turns: int, side: str, place: str) -> None:
    found = said(player, turns=turns)
    first = found.verdict.reasons[0]
    assert f" ms {side} the click at {place} (limit 57)." in first
    assert marks(player, turns=turns, count=4) == {"shaky"}
    # Who does not know how late the devices are is held to where it began.
    unknown = said(player, turns=turns, latency=None)
    assert f" ms {side} where it began at " in unknown.verdict.reasons[0]


def test_while_the_click_is_silent_one_may_leave_it_as_far_as_the_tempo_allows() -> None:
    silent = scale(4, click=DropOut(2, 2))
    due = due_of(silent)
    at = even(due, 1, 0.003) + np.where((due.at > 6.0) & (due.at < 10.4), 0.010 * (due.at - 6.0), 0.0)
    found = judge(due, notes_at(due, at), Limits(), "midi", KNOWN).figures.furthest
    assert found is not None
    assert 0 <= found.silence < 5.3


@pytest.mark.parametrize(("percent", "way", "side"), [(4, "Runs ahead", "faster"), (-4, "Falls behind", "slower")])
@pytest.mark.parametrize("bare", [False, True])
def test_a_tempo_that_turns_at_once_has_a_corner(percent: int, way: str, side: str, bare: bool) -> None:
    due = due_of(SCALE, 6)
    turns = 0.75 * float(due.at[-1])
    share = percent / 100
    at = even(due, 1) - np.where(due.at > turns, (due.at - turns) * share / (1 + share), 0.0)
    notes = [HeardNote(one.at) if bare else one for one in notes_at(due, at)]
    found = judge(due, notes, Limits(), "midi", KNOWN)
    assert found.verdict.reasons[0] == (
        f"{way} from bar 1, beat 4 of pass 5 on: 3.9 ± 0.1 % {side} than asked (limit 1 %)."
    )
    corner = found.figures.corner
    assert corner is not None
    assert corner.before.value == pytest.approx(0, abs=0.1)
    assert corner.after.value == pytest.approx(percent, abs=0.2)
    assert (found.figures.bend, found.figures.lost, found.figures.missed) == (None, (), 0)
    assert found.figures.spread is not None
    assert found.figures.spread.value < 0.009


def test_a_bend_is_no_corner() -> None:
    due = due_of(SCALE, 6)
    at = even(due, 1) + 0.0005 * due.at**2
    found = judge(due, notes_at(due, at), Limits(), "midi", KNOWN).figures
    assert found.corner is None
    assert found.bend is not None
    assert found.bend.value < -3


def test_two_keys_that_run_ahead_have_lost_no_beat() -> None:
    reading = read(Drill(material=OneNote(beats=8), legs=legs(4), hands=ByOrder(cycle=("R", "L")), accents=NoAccents()))
    due = due_of(reading, 6)
    at = even(due, 1) - due.at * 0.02 / 1.02
    keys = ["f" if event.stroke == "L" else "j" for event in due.events]
    heard = [HeardNote(float(moment), key=key) for moment, key in zip(at, keys, strict=True)]
    found = judge(due, heard, Limits(), "taps", KNOWN)
    assert found.verdict.reasons[0] == "Runs ahead: 2.0 ± 0.1 % faster than asked (limit 1 %)."
    assert found.figures.lost == ()


@pytest.mark.parametrize("sounds", ["plain", "knock", "talk after", "tuning", "talk before"])
@pytest.mark.parametrize("has_pitch", [False, True])
def test_sounds_around_the_take_of_a_file_are_nobodys(sounds: str, has_pitch: bool) -> None:
    around: dict[str, Player] = {
        "plain": lambda due, seed: notes_at(due, even(due, seed)),
        "knock": strangers.with_sounds(3.0, after=True),
        "talk after": strangers.with_sounds(*(0.9 + 0.37 * number for number in range(9)), after=True),
        "tuning": strangers.with_sounds(*(1 + 0.3 * number for number in range(14)), after=False),
        "talk before": strangers.with_sounds(0.7, 1.5, 1.6, 2.2, 2.9, 3.0, 3.4, 4.1, 4.4, 4.6, 5.0, after=False),
    }
    due = due_of(SCALE, 3)
    heard = around[sounds](due, 1)
    notes = [HeardNote(one.at + 7.3, pitch=one.pitch if has_pitch else None, level=20.0) for one in heard]
    found = judge_file(SCALE, F(92), notes, Limits(), "midi" if has_pitch else "file")
    assert found.judged.verdict.mark == "clean", found.judged.verdict.reasons
    assert found.begun.at == pytest.approx(7.3, abs=0.01)
    assert found.begun.end == pytest.approx(due.end)
    assert (found.judged.figures.matched, found.judged.figures.missed, found.judged.figures.extra) == (len(due), 0, 0)


@pytest.mark.parametrize("shares", [(0.25, 0.25, 0.5), (0.26, 0.26, 0.48)])
@pytest.mark.parametrize("bare", [False, True])
@pytest.mark.parametrize("reading", [THREES, ONE_IN_THREES], ids=["a scale", "one note"])
def test_threes_that_crowd_are_crowded(reading: Reading, shares: tuple[float, float, float], bare: bool) -> None:
    due = due_of(reading)
    heard = strangers.crowding(shares)(due, 1)
    notes = [HeardNote(one.at) for one in heard] if bare else heard
    found = judge(due, notes, Limits(), "taps" if bare else "midi", KNOWN).verdict
    longer = 100 * (shares[2] / shares[0] - 1)
    assert found.reasons[0].startswith("Crowded: the last note of 3 a beat is held ")
    assert float(found.reasons[0].split(" held ")[1].split(" ±")[0]) == pytest.approx(0.75 * longer, abs=6)


EIGHTHS, SWUNG = scale(2), scale(2, swing=Swing(F(2)))
SIXTEENTHS, SWUNG_16 = scale(4), scale(4, swing=Swing(F(2), 4))
HALVES = scale(4, swing=Swing(F(2)))


@pytest.mark.parametrize(
    ("asked", "played", "sentence"),
    [
        (EIGHTHS, SWUNG, "Swung, 2.0 ± 0.1 to 1 at 2 a beat, where straight is asked (limit 1.5 to 1)."),
        (EIGHTHS, scale(2, swing=Swing(F(3))), "Swung, 3.0 ± 0.1 to 1 at 2 a beat, where straight is asked"),
        (SWUNG, EIGHTHS, "Straight, 1.0 ± 0.1 to 1 at 2 a beat, where a swing of 2:1 is asked (limit 1.3 to 1)."),
        (scale(2, swing=Swing(F(3))), SWUNG, None),
        (SIXTEENTHS, SWUNG_16, "Swung, 2.0 ± 0.1 to 1 at 4 a beat, where straight is asked (limit 1.5 to 1)."),
        (SWUNG_16, SIXTEENTHS, "Straight, 1.0 ± 0.1 to 1 at 4 a beat, where a swing of 2:1 is asked (limit 1.3 to 1)."),
        (SIXTEENTHS, HALVES, "Swung, 2.0 ± 0.1 to 1 at 4 a beat, where straight is asked (limit 1.2 to 1)."),
    ],
)
@pytest.mark.parametrize("bare", [False, True])
def test_another_swing_than_asked_is_told_as_swing(
    asked: Reading, played: Reading, sentence: str | None, bare: bool
) -> None:
    due = due_of(asked, bpm=60)
    heard = notes_at(due, even(due_of(played, bpm=60), 2))
    notes = [HeardNote(one.at) for one in heard] if bare else heard
    found = judge(due, notes, Limits(), "taps" if bare else "midi", KNOWN)
    kinds = {one.kind for one in found.verdict.faults}
    assert found.verdict.mark == ("shaky" if sentence else "clean"), found.verdict.reasons
    assert found.verdict.reasons[0].startswith(sentence or "Even")
    assert not kinds & {"habit", "crowding", "place", "spread"}


@pytest.mark.parametrize(
    ("player", "sentence"),
    [
        (strangers.goes_back(4), "Went back to bar 2, beat 1 of pass 2, and played 3.25 beats once more."),
        (strangers.goes_back(1.5, 2.0), "Went back to bar 2, beat 3 of pass 2, and played 0.75 beats once more."),
        (strangers.leaves_out(4), "4 beats left out at bar 1, beat 1 of pass 3."),
        (strangers.leaves_out(4, waits=True), "4 beats left out at bar 1, beat 1 of pass 3."),
    ],
    ids=["back a bar", "back a little", "left out", "left out in silence"],
)
def test_who_goes_back_or_leaves_something_out_did_that(player: Player, sentence: str) -> None:
    found = said(player)
    assert found.verdict.reasons[0] == sentence
    assert found.verdict.mark == "shaky"
    # The rest is matched from there.
    assert found.figures.spread is not None
    assert found.figures.spread.value < 0.009
    assert len(found.figures.lost) == 1
    assert len(found.match.wrong) == 0


def test_who_goes_back_twice_goes_back_twice() -> None:
    told = [[one.kind for one in said(strangers.goes_back_twice, seed=seed).figures.lost] for seed in range(20)]
    assert sum(kinds == ["back", "back"] for kinds in told) >= 19


def test_what_was_met_missed_extra_and_nobodys_adds_up() -> None:
    for player in (strangers.goes_back(4), strangers.leaves_out(4), strangers.with_sounds(1.0, 3.0, after=True)):
        due = due_of(SCALE)
        heard = player(due, 2)
        figures = judge(due, heard, Limits(), "midi", KNOWN).figures
        assert figures.matched + figures.missed == len(due)
        assert figures.matched + figures.extra + figures.outside + figures.again == len(heard)


@pytest.mark.parametrize(
    ("player", "refused", "sentence"),
    [
        (
            strangers.stops(0.45),
            "stopped",
            "Stopped after bar 2, beat 2 of pass 2 of 4. The figures are those of what was played, without a mark.",
        ),
        (strangers.transposed(12), "pitches", "This was played an octave higher than the drill."),
        (strangers.transposed(-24), "pitches", "This was played 2 octaves lower than the drill."),
        (
            strangers.transposed(2),
            "pitches",
            "This was played 2 semitones higher than the drill: another key, or an instrument that transposes.",
        ),
        (strangers.at_speed(0.5), "tempo", "This was played at 46, not at 92: half as fast."),
    ],
    ids=["stops", "an octave up", "two octaves down", "another key", "half as fast"],
)
def test_a_reason_is_the_right_reason(player: Player, refused: str, sentence: str) -> None:
    found = said(player)
    assert (found.verdict.mark, found.verdict.refused, found.verdict.reasons[0]) == ("none", refused, sentence)


def test_twice_as_fast_is_twice_as_fast() -> None:
    found = said(strangers.at_speed(2)).verdict
    assert found.refused == "tempo"
    assert found.reasons[0].startswith("This was played twice as fast: at about 18")
    assert (found.offers[0].label, found.offers[0].bpm) == ("Go to 184", 184)
    # Without pitches nobody knows whether it is the drill: it is told as what was heard.
    due = due_of(SCALE)
    bare = [HeardNote(one.at) for one in strangers.at_speed(2)(due, 1)]
    told = judge(due, bare, Limits(), "taps", KNOWN).verdict
    assert told.reasons[0] == "This fits eights better than the fours of the drill."


@pytest.mark.parametrize(
    "player",
    [
        strangers.with_sounds(3.0, after=True),
        strangers.with_sounds(0.4, 0.9, 1.1, 4.0, after=True),
        strangers.with_sounds(*(1.0 + 0.3 * number for number in range(14)), after=False),
    ],
    ids=["a knock", "talk", "tuning"],
)
def test_sounds_around_a_take_belong_to_nobody(player: Player) -> None:
    found = said(player)
    assert found.verdict.mark == "clean"
    assert found.figures.outside > 0
    assert (found.figures.missed, found.figures.extra) == (0, 0)


@pytest.mark.parametrize(("beats", "turns", "least"), [(4, 1, 85), (8, 1, 95), (8, 2, 98), (8, 4, 99)])
def test_an_even_player_is_clean_however_short_the_take(beats: int, turns: int, least: int) -> None:
    reading = read(Drill(material=OneNote(beats=beats), legs=legs(4), accents=NoAccents()))
    due = due_of(reading, turns)
    clean = 0
    for seed in range(100):
        at = due.at + np.random.default_rng(seed).normal(0, 0.05, len(due)) * due.even_gap
        clean += judge(due, notes_at(due, at), Limits(), "midi", KNOWN).verdict.mark == "clean"
    assert clean >= least


def test_nothing_is_said_to_be_surer_than_it_is_shown() -> None:
    reasons = said(lambda due, _: notes_at(due, due.at.copy())).verdict.reasons
    assert "On tempo, ± 0.1 % (limit 1 %)." in reasons
    assert "On the click, ± 2 ms (limit 33)." in reasons
    assert not any("± 0.0" in one for one in reasons)


def test_too_little_has_no_places() -> None:
    due = due_of(SCALE)
    row = np.arange(3)
    assert places(due, row, np.zeros(3), None) == () == strays(due, row, np.zeros(3), None)


def test_a_typed_rhythm_is_judged_where_it_changes() -> None:
    typed = read(Drill(material=Count(text="1 & 2 & 3 4 | 1 & 2 & 3 4"), legs=(Leg(F(1)),), accents=NoAccents()))
    found = said(lambda due, seed: notes_at(due, even(due, seed)), typed, 6)
    assert _names(found.figures.seams) == {"2 → 1", "1 → 2"}


def _names(seams: Sequence[Any]) -> set[str]:
    return {seam.name for seam in seams if seam.kind == "inside"}


@pytest.mark.parametrize("count", [4, 30, 200])
@pytest.mark.parametrize("at", [0.0, 3.0])
def test_who_strikes_everything_at_once_is_refused(count: int, at: float) -> None:
    for reading in (SCALE, ONE_IN_THREES, CHANGES):
        due = due_of(reading, 2)
        found = judge(due, [HeardNote(at)] * count, Limits(), "taps", KNOWN)
        assert (found.verdict.mark, len(found.verdict.reasons) > 0) == ("none", True)


@pytest.mark.parametrize("slope", [-1.0, -1.3, -0.999])
def test_all_at_once_or_backwards_is_faster_than_anything(slope: float) -> None:
    at = np.linspace(0.0, 9.75, 40)
    ones = np.zeros(40, dtype=np.int64)
    fit = joint_fit(Rows(at, np.asarray(slope * at, dtype=np.float64), ones, ones, (), ones == 0))
    assert fit is not None
    assert tempo_between(fit, 0.0, 10.0).value == pytest.approx(1900, rel=0.01)
