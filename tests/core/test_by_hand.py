"""What a teacher writes over the notes by hand: his own fingers and phrases, and other grips by press."""

from dataclasses import replace

import pytest

from ripresa.core.changes import Where, changed
from ripresa.core.drill import Drill, parse_fingers, parse_phrases, write_fingers
from ripresa.core.drill.material import Line, Picked, ScaleRun, Strum
from ripresa.core.drill.second import Parallel, SecondHand
from ripresa.core.errors import OutOfRange, Unreadable
from ripresa.core.reading import read
from tests.strategies import legs

SCALE = Drill(material=ScaleRun(octaves=1), legs=legs(4), instrument="piano", fingering="usual")


def fingers(drill: Drill) -> str:
    return "".join(str(event.touch.finger) if event.touch else "-" for event in read(drill).notes)


def test_own_fingers_stand_over_the_usual_ones_and_stay_in_another_key() -> None:
    own = replace(SCALE, fingers="1 3 - 2")
    assert fingers(own)[:6] == "133223"
    assert fingers(replace(own, material=ScaleRun("D", octaves=1)))[:6] == "133223"
    # Without the usual ones they stand alone.
    assert fingers(replace(own, fingering="none"))[:6] == "13-2--"


def test_each_leg_begins_with_them_again() -> None:
    notes = read(replace(SCALE, legs=legs(2, 4), fingers="2")).notes
    second = next(event for event in notes if event.leg == 1)
    assert [event.touch.finger for event in (notes[0], second) if event.touch] == [2, 2]


def test_a_place_on_a_string_stays_where_the_note_still_lies_there() -> None:
    own = Drill(material=Line("C4 D4"), legs=legs(1), instrument="guitar", fingering="usual", fingers="6:8/2 6:10/4")
    assert [event.touch.shown for event in read(own).notes if event.touch] == ["6·8", "6·10"]
    moved = replace(own, material=Line("D4 E4"))
    assert [event.touch.shown for event in read(moved).notes if event.touch] == ["4·0", "4·2"]


def test_the_left_hand_has_its_own() -> None:
    two = replace(SCALE, second=SecondHand(Parallel(), fingers="4 3"))
    row = read(two).other
    assert [event.touch.finger for event in row if event.touch][:3] == [4, 3, 3]


@pytest.mark.parametrize(
    ("text", "wrong"), [("1 6", "Finger 2, “6”"), ("thumb", "Finger 1, “thumb”"), ("1 5:", "“5:”")]
)
def test_what_is_no_finger_is_refused(text: str, wrong: str) -> None:
    with pytest.raises(Unreadable) as refused:
        replace(SCALE, fingers=text)
    assert wrong in refused.value.message
    assert refused.value.field == "fingers"


def test_fingers_are_written_as_they_are_read() -> None:
    for text in ("1 2 3", "- - 5:3/2", "0 - 1"):
        assert write_fingers(parse_fingers(text)) == text


def test_a_press_gives_the_next_finger_and_after_the_last_none() -> None:
    drill = SCALE
    seen = []
    for _ in range(6):
        drill = changed(drill, "finger", Where(event=2))
        seen.append(drill.fingers)
    assert seen == ["- - 1", "- - 2", "- - 3", "- - 4", "- - 5", ""]
    two = replace(SCALE, second=SecondHand(Parallel()))
    left = changed(two, "finger", Where(event=len(read(two).events)))
    assert (left.second.fingers, left.fingers) == ("1", "")
    with pytest.raises(OutOfRange, match="A finger stands over a note of keys or strings"):
        changed(replace(SCALE, instrument="flute", fingering="none"), "finger", Where(event=0))


def test_a_press_begins_a_phrase_and_another_takes_it_back() -> None:
    drill = changed(Drill(material=ScaleRun(), legs=legs(2)), "phrase", Where(event=9))
    assert drill.phrases == "2:1:2"
    drill = changed(drill, "phrase", Where(event=8))
    assert drill.phrases == "2 2:1:2"
    assert changed(drill, "phrase", Where(event=9)).phrases == "2"


@pytest.mark.parametrize("text", ["x", "0", "3:0", "3:1:0", "3-5"])
def test_what_is_no_bar_begins_no_phrase(text: str) -> None:
    with pytest.raises(Unreadable) as refused:
        Drill(phrases=text)
    assert refused.value.field == "phrases"
    assert [one.text for one in parse_phrases("5, 3:2 3")] == ["3", "3:2", "5"]


def test_a_press_takes_another_grip_and_comes_round_to_the_usual_one() -> None:
    drill = Drill(material=Picked("C | Am*2 C*2", "p i m a"), legs=legs(2), instrument="guitar")
    seen = []
    for _ in range(13):
        drill = changed(drill, "grip", Where(event=0))
        assert isinstance(drill.material, Picked)
        assert drill.material.chords.count("Am*2") == 1
        seen.append(drill.material.chords)
        if drill.material.chords == "C | Am*2 C*2":
            break
    assert seen[-1] == "C | Am*2 C*2"
    assert 3 < len(set(seen)) == len(seen)
    assert all(one.startswith("C=") and one.split("|")[1].split()[1].startswith("C=") for one in seen[:-1])
    with pytest.raises(OutOfRange, match="Grips are chosen for chords on all strings"):
        changed(replace(drill, material=Strum("C", strings="1-3")), "grip", Where(event=0))
    with pytest.raises(OutOfRange, match="There is no grip 9"):
        changed(drill, "grip", Where(event=8))
