"""Takes of two hands: each is matched and measured by itself, by its key or its pitches, and held against the other."""

from dataclasses import replace

import numpy as np
import pytest

from ripresa.core.drill import Drill, Reduce
from ripresa.core.drill.hands import Articulated
from ripresa.core.drill.material import OneNote, ScaleRun
from ripresa.core.drill.second import Balance, Contrary, OneKey, Parallel, SecondHand
from ripresa.core.exact import Fraction as F
from ripresa.core.grid import Event
from ripresa.core.reading import read
from ripresa.core.takes import Due, HeardNote, Judged, Limits, StandIn, due_notes, judge, play
from tests.strategies import legs

SCALES = Drill(
    material=ScaleRun(octaves=2), legs=legs(2, 3), second=SecondHand(Parallel()), instrument="piano", bpm=F(60)
)
MIRROR = replace(SCALES, second=SecondHand(Contrary()))
THREE_TWO = Drill(
    material=OneNote(beats=16), legs=legs(3), second=SecondHand(OneKey("", "repeated"), legs(2)), bpm=F(60)
)
DRILLS = {"parallel": SCALES, "contrary from one key": MIRROR, "three against two": THREE_TWO}


def due_of(drill: Drill, passes: int = 4) -> Due:
    reading = read(drill)
    return due_notes(reading, drill.bpm, 0.0, passes * float(reading.beats))


def by_keys(notes: tuple[HeardNote, ...]) -> list[HeardNote]:
    return [replace(note, pitch=None, level=None, key={"R": "j", "L": "f"}[note.key or ""]) for note in notes]


def by_pitch(notes: tuple[HeardNote, ...]) -> list[HeardNote]:
    return [replace(note, key=None) for note in notes]


def heard(due: Due, notes: list[HeardNote], source: str = "stand_in") -> Judged:
    return judge(due, notes, Limits(), source, (0.0, 0.0))  # type: ignore[arg-type]


def alike(one: Event, other: Event) -> bool:
    """Return whether two notes are of one hand, or on one key at one time, where nobody can tell them apart."""
    return one.hand == other.hand or (one.pitch == other.pitch and one.onset == other.onset)


@pytest.mark.parametrize("name", DRILLS)
@pytest.mark.parametrize("tell", [by_keys, by_pitch], ids=["two tap keys", "pitches"])
def test_hands_played_together_are_clean_and_told_apart(name: str, tell: object) -> None:
    due = due_of(DRILLS[name])
    if tell is by_pitch and name == "three against two":
        pytest.skip("taps have no pitch")
    performed = play(StandIn(spread_ms=6), due)
    found = heard(due, tell(performed.notes))  # type: ignore[operator]
    assert found.verdict.mark == "clean", found.verdict.reasons
    meant = ((due.events[one], performed.meant[other]) for one, other in found.match.pairs)
    right = sum(number is not None and alike(event, due.events[number]) for event, number in meant)
    assert right >= 0.997 * len(due)
    assert found.figures.together
    assert abs(found.figures.together.apart.value) < 0.004
    assert [hand.symbol for hand in found.figures.hands] == ["R", "L"]
    assert all(hand.spread and 0.004 < hand.spread.value < 0.009 for hand in found.figures.hands)


@pytest.mark.parametrize("name", DRILLS)
@pytest.mark.parametrize("apart", [-45, 45])
def test_hands_that_do_not_meet_are_the_fault_that_is_told(name: str, apart: int) -> None:
    due = due_of(DRILLS[name])
    found = heard(due, by_keys(play(StandIn(spread_ms=6, apart_ms=apart), due).notes))
    assert found.figures.together
    assert found.figures.together.apart.value * 1000 == pytest.approx(apart, abs=3)
    assert (found.verdict.mark, found.verdict.faults[0].kind) == ("shaky", "together")
    first, second = ("left", "right") if apart > 0 else ("right", "left")
    assert f"the {first} comes 4" in found.verdict.reasons[0]
    assert f"after the {second}" in found.verdict.reasons[0]


@pytest.mark.parametrize(("balance", "louder"), [("alike", 0), ("softer", 6), ("louder", -6)])
def test_one_hand_over_the_other_is_heard_in_decibels(balance: Balance, louder: int) -> None:
    """Half as loud is 6 dB less."""
    due = due_of(replace(SCALES, second=SecondHand(Parallel(), balance=balance)))
    found = heard(due, by_pitch(play(StandIn(), due).notes)).figures
    assert found.together
    assert found.together.louder
    assert found.together.louder.value == pytest.approx(louder, abs=0.5)
    right, left = (hand.level for hand in found.hands)
    assert right
    assert left
    assert right.value - left.value == pytest.approx(louder, abs=0.5)
    assert right.value < 0


def test_the_weaker_hand_has_its_own_spread() -> None:
    due = due_of(SCALES)
    random = np.random.default_rng(3)
    notes = [
        replace(note, at=note.at + (random.normal(0, 0.03) if note.key == "L" else 0.0), until=None)
        for note in play(StandIn(spread_ms=5), due).notes
    ]
    found = heard(due, by_keys(tuple(sorted(notes, key=lambda one: one.at))))
    spread = {hand.symbol: hand.spread.value for hand in found.figures.hands if hand.spread}
    assert spread["L"] > 0.022
    assert spread["R"] < 0.008
    assert any("left hand" in reason or reason.startswith("L ") for reason in found.verdict.reasons)


def test_one_key_alone_taps_what_both_strike() -> None:
    due = due_of(THREE_TWO)
    notes = [replace(note, key="j", pitch=None) for note in play(StandIn(spread_ms=6), due).notes]
    found = heard(due, notes)
    assert found.verdict.mark == "clean", found.verdict.reasons
    assert found.figures.together is None
    # Four strokes a beat, where five notes are due.
    assert found.figures.due == 4 * 16 * 4


def test_the_composite_is_a_drill_to_be_tapped() -> None:
    due = due_of(replace(THREE_TWO, reduce=Reduce("composite")))
    assert len(due) == 4 * 16 * 4
    found = heard(due, [HeardNote(float(at)) for at in due.at])
    assert found.verdict.mark == "clean"


def test_a_hand_that_is_left_out_is_no_take_of_both() -> None:
    due = due_of(SCALES)
    right = [note for note in by_keys(play(StandIn(), due).notes) if note.key == "j"]
    some_left = [note for note in by_keys(play(StandIn(), due).notes) if note.key == "f"][:3]
    found = heard(due, [*right, *some_left])
    assert found.verdict.mark == "none"
    assert found.verdict.reasons[0].startswith("Left hand: ")


def test_a_key_that_both_strike_may_be_heard_once() -> None:
    """On a keyboard one key makes one note, whichever hand or both press it."""
    due = due_of(MIRROR)
    performed = by_pitch(play(StandIn(spread_ms=5), due).notes)
    once: list[HeardNote] = []
    for note in performed:
        if not any(one.pitch == note.pitch and note.at - one.at < 0.06 for one in once[-3:]):
            once.append(note)
    assert len(once) < len(performed)
    found = heard(due, once)
    assert found.figures.missed == 0
    assert found.verdict.mark == "clean", found.verdict.reasons


def test_events_of_the_left_hand_are_counted_after_those_of_the_right() -> None:
    due = due_of(THREE_TWO, 1)
    found = heard(due, by_keys(play(StandIn(spread_ms=5), due).notes))
    assert {leg.hand for leg in found.figures.legs} == {"R", "L"}
    first = len(due.reading.events)
    for leg in found.figures.legs:
        events = {dot.event for slot in leg.slots for dot in slot.dots}
        assert events
        assert all((event >= first) == (leg.hand == "L") for event in events)


def test_what_is_slurred_is_due_of_neither_hand_where_only_beginnings_are_heard() -> None:
    drill = replace(SCALES, hands=Articulated("slur_pairs"))
    due = due_of(drill)
    performed = play(StandIn(spread_ms=6), due)
    found = heard(due, by_keys(performed.notes), "microphone")
    slurred = sum(event.slurred for event in due.events)
    assert 0 < slurred < len(due)
    assert found.figures.due == len(due) - slurred
    assert found.figures.matched + found.figures.missed == found.figures.due
    assert "slurred" in found.verdict.reasons[-1]
