"""Remedies: each fault of the table leads to what it says, from the drill itself, at a tempo of its own."""

from dataclasses import replace

import pytest

from ripresa.core.changes import Bars, Part, part_named, practised, window_of
from ripresa.core.drill import Drill, Reduce
from ripresa.core.drill.accents import EveryNth
from ripresa.core.drill.hands import ByOrder
from ripresa.core.drill.material import OneNote, ScaleRun
from ripresa.core.drill.second import Parallel, SecondHand
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.reading import read
from ripresa.core.takes import FAULT_NAMES, Fault, Limits, StandIn, due_notes, heard_fault, judge, play, remedies
from tests.strategies import legs

READING = read(
    Drill(
        title="Harbour sixes",
        material=ScaleRun(octaves=2),
        legs=legs(5, 6),
        hands=ByOrder(cycle=("R", "L")),
        accents=EveryNth(size=5),
        bpm=F(76),
    )
)
TWO_HANDS = read(replace(READING.drill, instrument="piano", second=SecondHand(Parallel())))


def offered(fault: Fault, below: F | None = None) -> list[str]:
    return [one.key for one in remedies(READING, F(76), fault, below)]


@pytest.mark.parametrize(
    ("kind", "keys"),
    [
        ("seam", ["seam_loop", "said_first", "bar_rest"]),
        ("crowding", ["division_alone", "click_on_slot"]),
        ("habit", ["division_alone", "click_on_slot"]),
        ("tempo", ["inner_pulse", "thin_below"]),
        ("click", ["inner_pulse", "thin_below"]),
        ("lost_beat", ["group_count", "one_group"]),
        ("group", ["group_count", "one_group"]),
        ("hand", ["hand_alone", "hand_accented", "other_lead"]),
        ("accent", ["hits_alone", "three_levels"]),
        ("smear", ["shorter"]),
        ("landing", ["hits_alone", "on_and_off"]),
        ("slips", ["rung_down", "half"]),
    ],
)
def test_a_fault_leads_to_the_remedies_of_the_table(kind: str, keys: list[str]) -> None:
    assert offered(heard_fault(READING, kind)) == keys  # type: ignore[arg-type]


def test_every_fault_leads_somewhere_and_every_remedy_can_be_read() -> None:
    for kind in FAULT_NAMES:
        asked = TWO_HANDS if kind == "together" else READING
        found = remedies(asked, F(76), heard_fault(asked, kind))
        assert found
        for one in found:
            reading = read(practised(one.drill, one.part))
            window_of(reading, one.part)
            assert reading.notes


def test_the_loop_of_a_change_goes_at_two_thirds_of_the_tempo() -> None:
    loop = remedies(READING, F(76), heard_fault(READING, "seam"))[0]
    assert (loop.name, loop.bpm, loop.part) == ("Loop the change at 51", 51, Part(seam=0))
    assert part_named(READING, loop.part) == "the change 5 → 6"


def test_a_click_stands_on_the_slot_that_moves() -> None:
    on_slot = remedies(READING, F(76), heard_fault(READING, "habit"))[1]
    assert on_slot.name == "A click on “6” at 57"
    clicks = read(practised(on_slot.drill, on_slot.part)).click_cycle.clicks
    assert [at for at, _ in clicks][:2] == [F(5, 6), F(11, 6)]


def test_one_rung_down_is_the_rung_below_where_there_is_one() -> None:
    slips = heard_fault(READING, "slips")
    assert remedies(READING, F(76), slips, F(72))[0].name == "Down to 72"
    assert remedies(READING, F(76), slips)[0].bpm == 68


def test_the_division_alone_is_spoken_and_the_hand_alone_keeps_its_places() -> None:
    crowd = remedies(READING, F(76), heard_fault(READING, "crowding"))[0]
    assert crowd.spoken.what == "slots"
    alone = read(practised(crowd.drill, crowd.part))
    assert [leg.divisions for leg in alone.legs] == [(F(6),)]
    hand = remedies(READING, F(76), heard_fault(READING, "hand"))[0]
    assert hand.part.reduce == Reduce("hand", "L")
    left = read(practised(hand.drill, hand.part))
    assert {event.stroke for event in left.notes} == {"L"}
    assert left.loop_beats == READING.loop_beats


@pytest.mark.parametrize(
    ("part", "name"),
    [
        (Part(), ""),
        (Part(step="whole"), ""),
        (Part(step="hits"), "the hits"),
        (Part(reduce=Reduce("hand", "R")), "R alone"),
        (Part(reduce=Reduce("first_half")), "the first half of each leg"),
        (Part(division=F(6)), "the 6 a beat alone"),
        (Part(only=F(3)), "all of it in 3 a beat"),
        (Part(burst=1), "bursts of 1 beat"),
        (Part(burst=4), "bursts of 4 beats"),
        (Part(divide="twice"), "twice the division"),
        (Part(divide="half"), "half the division"),
        (Part(articulation=F(1, 2)), "shorter notes"),
        (Part(bars=Bars(2, 2)), "bar 2"),
        (Part(bars=Bars(1, 2)), "bars 1 to 2"),
        (Part(seam=0, reduce=Reduce("hand", "R")), "the change 5 → 6, R alone"),
    ],
)
def test_a_part_has_a_name_of_its_own_in_the_log(part: Part, name: str) -> None:
    assert part_named(READING, part) == name
    assert part.is_all == (name == "")


@pytest.mark.parametrize(
    "part", [Part(seam=0), Part(reduce=Reduce("hand", "R")), Part(reduce=Reduce("first_half")), Part(division=F(6))]
)
def test_a_part_can_be_measured_like_the_whole(part: Part) -> None:
    reading = read(practised(READING.drill, part))
    window = window_of(reading, part)
    beats = window.beats if window else reading.loop_beats
    due = due_notes(reading, F(60), 0.0, float(beats) * (24 if window else 4), window)
    found = judge(due, play(StandIn(spread_ms=5), due).notes, Limits(), "stand_in", (0.0, 0.002))
    assert found.verdict.mark == "clean"
    assert found.figures.due == len(due)


def test_a_division_that_the_drill_does_not_have_is_refused() -> None:
    with pytest.raises(OutOfRange, match="No leg of this drill has 7 a beat"):
        practised(Drill(material=OneNote(beats=8), legs=legs(3)), Part(division=F(7)))
