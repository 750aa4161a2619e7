"""Hands by order and by place, air strokes, and what the motions come to."""

from dataclasses import replace
from typing import Literal

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ripresa.core.drill import Drill, Leg, Reduce
from ripresa.core.drill.accents import NoAccents
from ripresa.core.drill.hands import ByOrder, ByPlace, Economy, Hands
from ripresa.core.drill.material import Count, LongNotes, Material, OneNote, Strum
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.reading import Reading, read
from ripresa.core.reports import brief, motions, paragraphs, sums
from ripresa.core.reports.motion import beat_starts, flips, loads, same_way
from tests.strategies import legs


def strummed(text: str, hands: Hands) -> Reading:
    return read(Drill(material=Count(text), legs=legs(1), hands=hands, accents=NoAccents()))


def rhythm(division: int, hands: Hands, beats: int = 4) -> Reading:
    return read(Drill(material=OneNote(beats=beats), legs=legs(division), hands=hands))


def sounded(reading: Reading) -> str:
    return "".join(event.stroke or "." for event in reading.notes)


@pytest.mark.parametrize(
    ("division", "strokes"),
    [(1, "DDDD"), (2, "DUDUDUDU"), (3, "DUDUDUDUDUDU"), (4, "DUDU" * 4), (5, "DUDUD" + "UDUDU" + "DUDUD" + "UDUDU")],
)
def test_by_place_the_slot_says_which_way(division: int, strokes: str) -> None:
    assert sounded(rhythm(division, ByPlace())) == strokes


def test_threes_may_restart_on_each_beat() -> None:
    assert sounded(rhythm(3, ByPlace(odd="restart"))) == "DUD" * 4


def test_the_other_way_round() -> None:
    assert sounded(rhythm(2, ByPlace(lead="up"))) == "UDUDUDUD"


def test_slots_that_do_not_sound_are_air_strokes() -> None:
    events = strummed("1 & a 2 (3) & 4", ByPlace()).events
    shown = " ".join(f"{event.kind}{event.stroke or ''}" for event in events[:12])
    assert shown == ("noteD holdU noteD noteU noteD holdU holdD holdU airD airU noteD holdU")


@pytest.mark.parametrize(
    ("text", "lead", "told"),
    [
        ("1 & 2 & 3 e & 4 &", "down", "bar 1, beat 3, e the arm goes four to the beat, and every & turns round: down"),
        ("1 & 2 & 3 & 4 a", "up", "bar 1, beat 4, a the arm goes four to the beat, and every & turns round: up"),
        ("1 & 2 & 3 & 4 &", "down", None),
        ("1 e & a 2 e & a", "down", None),
        ("1 2 3 e 4", "down", None),
    ],
)
@pytest.mark.parametrize("of", ["count", "strum"])
def test_what_turns_every_and_round_is_told_where_it_stands(
    text: str, lead: Literal["down", "up"], told: str | None, of: str
) -> None:
    material = Count(text) if of == "count" else Strum(chords="C", pattern=text)
    reading = read(Drill(material=material, legs=legs(1), hands=ByPlace(lead=lead)))
    hands = next(one for one in paragraphs(reading, sums(reading, F(60)), F(60)) if one.title == "Hands")
    said = [one for one in hands.sentences if "turns round" in one]
    other = "up" if lead == "down" else "down"
    assert said == ([f"For the sake of {told}, where it goes {other} with two to the beat."] if told else [])


@pytest.mark.parametrize(
    ("hands", "instrument", "material"),
    [
        (ByPlace(), "flute", OneNote(beats=4)),
        (ByPlace(lead="up"), "guitar", LongNotes()),
        (Economy(), "guitar", LongNotes()),
    ],
)
def test_no_arm_swings_on_a_wind_or_in_long_notes_and_it_comes_back(
    hands: Hands, instrument: str, material: Material
) -> None:
    guitar = Drill(material=OneNote(beats=4), legs=legs(2), hands=hands, instrument="guitar")
    with_arm = brief(read(guitar))
    without = replace(guitar, instrument=instrument, material=material)
    for changed in (without, replace(without, reduce=Reduce("hand", "D"))):
        reading = read(changed)
        assert reading.notes
        assert {event.stroke for event in reading.events} == {None}
        assert motions(reading, F(60)) is None
        assert "arm" not in brief(reading)
        assert "conomy" not in brief(reading)
        assert changed.hands == hands
    assert brief(read(replace(without, instrument="guitar", material=guitar.material))) == with_arm
    assert {event.stroke for event in read(guitar).events} == {"D", "U"}


def test_taking_a_note_away_changes_nothing_by_place_and_everything_after_it_by_order() -> None:
    whole, less = "1 & 2 & 3 & 4 &", "1 & 2 3 & 4 &"
    by_place = [{event.onset: event.stroke for event in strummed(text, ByPlace()).notes} for text in (whole, less)]
    assert all(by_place[0][onset] == stroke for onset, stroke in by_place[1].items())
    by_order = [{event.onset: event.stroke for event in strummed(text, ByOrder()).notes} for text in (whole, less)]
    assert all(by_order[0][onset] != stroke for onset, stroke in by_order[1].items() if onset > 1)


fillings = st.lists(
    st.sampled_from(["{0}", "{0} &", "({0}) &", "{0} e a", "({0}) a", "{0} & a"]), min_size=4, max_size=4
)


@settings(max_examples=60)
@given(fillings, st.integers(0, 3))
def test_by_place_strokes_do_not_change_when_a_note_falls_silent(beats: list[str], silent: int) -> None:
    text = [filling.format(number) for number, filling in enumerate(beats, start=1)]
    # One sixteenth somewhere fixes the grid, so that only the note goes.
    full = " ".join([*text, "| 1 e & a"])
    text[silent] = f"({silent + 1})"
    less = " ".join([*text, "| 1 e & a"])
    before = {event.onset: event.stroke for event in strummed(full, ByPlace()).events}
    after = strummed(less, ByPlace()).notes
    assert all(before[event.onset] == event.stroke for event in after)


def test_alternation_halves_the_motion_and_a_double_does_not() -> None:
    alternate = loads(rhythm(4, ByOrder()), F(90))
    assert {load.symbol: (load.strikes, load.peak_nps) for load in alternate} == {"D": (8, 3), "U": (8, 3)}
    doubled = loads(rhythm(4, ByOrder(cycle=("R", "R", "L", "L"))), F(90))
    assert {load.peak_nps for load in doubled} == {6}


def test_a_strum_has_more_motions_than_strikes() -> None:
    down, up = loads(strummed("1 & 2 & (3) & 4", ByPlace()), F(60))
    assert (down.symbol, down.strikes, down.motions) == ("D", 3, 4)
    assert (up.symbol, up.strikes, up.motions) == ("U", 3, 4)


def test_no_hands_no_load() -> None:
    assert loads(read(Drill()), F(60)) == ()


def test_two_strokes_one_way_without_air_between_are_flagged() -> None:
    assert [(before.count, after.count) for before, after in same_way(rhythm(3, ByPlace(odd="restart")))] == [
        ("let", "2"),
        ("let", "3"),
        ("let", "4"),
    ]
    assert same_way(rhythm(3, ByPlace())) == ()
    assert same_way(rhythm(1, ByPlace())) == ()
    assert same_way(strummed("1 & 2 (3) & 4", ByPlace())) == ()


def test_doubling_the_grid_turns_the_and_round() -> None:
    drill = Drill(material=OneNote(beats=4), legs=legs(2, 4), hands=ByPlace())
    assert flips(read(drill)) == ((2, 4),)
    assert flips(read(replace(drill, legs=(Leg(F(2)), Leg(F(3)))))) == ()


def test_which_hand_starts_each_beat() -> None:
    assert beat_starts(rhythm(3, ByOrder())) == ("D", "U", "D", "U")


def test_a_slurred_note_is_not_struck() -> None:
    reading = rhythm(4, ByOrder(cycle=("T", "-", "T", "T")), beats=2)
    assert sounded(reading) == "T.TTT.TT"
    assert [index for index, note in enumerate(reading.notes) if note.slurred] == [1, 5]
    assert [(load.symbol, load.strikes) for load in loads(reading, F(60))] == [("T", 6)]


def test_nothing_is_slurred_out_of_a_silence() -> None:
    hands = ByOrder(cycle=("T", "-"))
    slurred = [event.place_name for event in strummed("1 2 (3) 4", hands).events if event.slurred]
    after_rest = [event.slurred for event in strummed("1 (2) 3 4", hands).notes]
    assert slurred == ["bar 1, beat 2"]
    assert after_rest == [False, False, False]


def test_slurs_alone_are_refused() -> None:
    with pytest.raises(OutOfRange, match="strikes nothing") as caught:
        ByOrder(cycle=("-", "-"))
    assert caught.value.field == "hands.cycle"


def told(drill: Drill) -> list[str]:
    reading = read(drill)
    return [one.title for one in paragraphs(reading, sums(reading, F(60)), F(60))]


def test_what_tells_nothing_of_the_hands_is_not_said() -> None:
    # One symbol on every note: neither its notes nor its lead say more than the notes do.
    alone = Drill(material=OneNote(beats=8), legs=legs(2), hands=ByOrder(("T",)))
    assert "Hands" not in told(alone)
    assert not [title for title in told(alone) if title.startswith("Lead")]
    # An arm that comes down on every beat that has a note leads nothing, rests or not; that it moves is told.
    strum = Drill(material=Count("1 2 & (3) & 4 &"), legs=legs(1), hands=ByPlace())
    assert not [title for title in told(strum) if title.startswith("Lead")]
    assert "Hands" in told(strum)
    # Two hands are told, and a lead that changes.
    two = replace(alone, legs=legs(3), hands=ByOrder(("R", "L")))
    assert {"Hands", "Lead on 3 a beat"} <= set(told(two))
