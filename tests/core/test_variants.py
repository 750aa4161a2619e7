"""Assignments and variants: what differs is said, none is forgotten, and what cannot be is told."""

import pytest
from hypothesis import given

from ripresa.core.changes import TURNED, Overrides, Part, Turned, overridden, practised, told_overrides, variant_set
from ripresa.core.drill import Drill, Leg
from ripresa.core.drill.click import NamedClick
from ripresa.core.drill.hands import Articulated, ByOrder
from ripresa.core.drill.material import OneNote, ScaleRun
from ripresa.core.errors import OutOfRange, RipresaError
from ripresa.core.exact import Fraction as F
from ripresa.core.reading import read
from ripresa.core.rhythm import Counting
from tests.strategies import drills, so_many

RUN = Drill(
    title="Stairs",
    material=ScaleRun(tonic="D", octaves=1),
    legs=(Leg(F(3)), Leg(F(4))),
    hands=ByOrder(("R", "L", "R", "R")),
    instrument="piano",
)


@pytest.mark.parametrize(
    ("by", "says"),
    [
        (Overrides(), ()),
        (Overrides(octaves=2), ("2 octaves",)),
        (Overrides(octaves=1), ()),
        (Overrides(key="Eb"), ("in E♭",)),
        (Overrides(key="D"), ()),
        (Overrides(other_lead=True), ("L first",)),
        (Overrides(letter=1), ("beginning with L",)),
        (Overrides(station=2), ("the accent on &",)),
        (Overrides(counting=Counting("syllables")), ("counted in syllables",)),
        (Overrides(click=NamedClick(plan="two_and_four")), ("the click 2 and 4",)),
        (Overrides(foot="left"), ("left foot",)),
        (Overrides(articulation="all_slurred"), ("all slurred",)),
    ],
)
def test_what_differs_is_said_and_played(by: Overrides, says: tuple[str, ...]) -> None:
    assert told_overrides(RUN, by) == says
    same = overridden(RUN, by) == RUN
    assert same is (not says)


def test_overrides_lie_over_a_later_version_too() -> None:
    later = Drill(**{**{name: getattr(RUN, name) for name in RUN.__dataclass_fields__}, "bpm": F(99)})
    assert overridden(later, Overrides(key="Eb")).bpm == 99


@pytest.mark.parametrize(
    ("turned", "names"),
    [
        ("stations", ["the accent on 1", "the accent on e", "the accent on &", "the accent on a"]),
        ("leads", ["as it is written", "L first"]),
        ("hand_letters", ["as it is written", "beginning with L", "beginning with R", "beginning with R"]),
        ("feet", ["left foot", "right foot"]),
    ],
)
def test_a_set_has_every_one_of_its_list_in_order(turned: Turned, names: list[str]) -> None:
    found = variant_set(RUN, turned, F(60))
    assert [one.name for one in found.variants] == names
    assert found.left_out == ()


def test_the_keys_go_round_by_fifths_from_its_own() -> None:
    found = variant_set(RUN, "keys", F(60))
    keys = [one.overrides.key for one in found.variants]
    assert keys == ["D", "A", "E", "B", "F#", "Db", "Ab", "Eb", "Bb", "F", "C", "G"]


def test_the_time_of_a_circuit_is_that_of_its_turns() -> None:
    found = variant_set(RUN, "leads", F(60))
    assert found.seconds == 2 * read(RUN).loop_beats


def test_the_accent_of_a_station_falls_on_its_slot_and_nowhere_else() -> None:
    reading = read(overridden(RUN, Overrides(station=2)))
    accented = {(event.division, event.slot) for event in reading.notes if event.accent == "accent"}
    assert accented == {(3, 2), (4, 2)}


def test_articulations_change_the_tongue_and_not_the_notes() -> None:
    found = variant_set(RUN, "articulations", F(60))
    assert len(found.variants) >= 8
    for one in found.variants:
        drill = overridden(RUN, one.overrides)
        assert isinstance(drill.hands, Articulated)
        assert [event.pitch for event in read(drill).notes] == [event.pitch for event in read(RUN).notes]


def test_each_letter_comes_first_forwards_and_then_backwards() -> None:
    drill = Drill(material=OneNote(beats=7, say="forward"), legs=(Leg(F(1)),))
    found = variant_set(drill, "letters", F(60))
    assert [one.name for one in found.variants] == [
        f"{letter} {way}" for way in ("forwards", "backwards") for letter in "ABCDEFG"
    ]
    said = ["".join(note.count for note in read(overridden(drill, one.overrides)).notes) for one in found.variants]
    assert (said[0], said[3], said[7], said[13]) == ("ABCDEFG", "DEFGABC", "AGFEDCB", "GFEDCBA")
    assert found.seconds == 14 * read(drill).loop_beats
    feet = [one.name for one in variant_set(drill, "letters_feet", F(60)).variants]
    assert (len(feet), feet[:2]) == (28, ["A forwards, left foot", "A forwards, right foot"])


@pytest.mark.parametrize("turned", ["letters", "letters_feet"])
def test_letters_of_notes_are_said_on_one_note_alone(turned: Turned) -> None:
    with pytest.raises(OutOfRange, match="Letters of notes are said on one note"):
        variant_set(RUN, turned, F(60))
    with pytest.raises(OutOfRange, match="“H” is not a letter of a note") as refused:
        Overrides(said_first="H")
    assert refused.value.field == "overrides.said_first"


@pytest.mark.parametrize(
    ("turned", "says"),
    [("keys", "no key of its own"), ("hand_letters", "only one of it"), ("leads", "No hands are written")],
)
def test_a_set_that_cannot_be_says_why(turned: Turned, says: str) -> None:
    bare = Drill(material=OneNote(beats=4), legs=(Leg(F(4)),))
    with pytest.raises(OutOfRange, match=says):
        variant_set(bare, turned, F(60))


@so_many(20, 80)
@given(drills)
def test_whatever_is_turned_can_be_read_or_is_refused(drill: Drill) -> None:
    for turned in TURNED:
        try:
            found = variant_set(drill, turned, F(60))
        except RipresaError:
            continue
        for one in found.variants:
            read(overridden(drill, one.overrides))


def test_a_burst_sounds_to_the_note_it_arrives_on_and_rests_as_long() -> None:
    drill = Drill(material=OneNote(beats=8), legs=(Leg(F(4)),))
    reading = read(practised(drill, Part(burst=2)))
    sounding = [event.onset for event in reading.notes]
    whole = [event.onset for event in read(drill).notes]
    assert sounding == [onset for onset in whole if onset % 4 <= 2]
    assert reading.loop_beats == read(drill).loop_beats


def test_all_in_one_division_keeps_the_material() -> None:
    reading = read(practised(RUN, Part(only=F(5))))
    assert {event.division for event in reading.notes} == {5}
