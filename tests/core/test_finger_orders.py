"""The left hand on the neck: finger orders, layouts of a scale, crossings of the pick, slurs without a stroke."""

from dataclasses import replace
from itertools import pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ripresa.core.drill import Drill
from ripresa.core.drill.hands import ByOrder, Economy
from ripresa.core.drill.material import ALL, ORDERS, FingerOrder, ScaleRun
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.pitch import INSTRUMENTS
from ripresa.core.reading import Reading, read
from ripresa.core.reports import Crossings, crossings, paragraphs, sums
from tests.strategies import legs

PICK = ByOrder(cycle=("D", "U"))


def order(**parts: object) -> Reading:
    material = FingerOrder(**parts)  # type: ignore[arg-type]
    return read(Drill(material=material, legs=legs(4), instrument="guitar", hands=PICK))


def touched(reading: Reading) -> list[str]:
    return [f"{event.touch.string}·{event.touch.fret}" for event in reading.notes if event.touch]


def test_there_are_24_orders_and_all_of_them_is_each_once() -> None:
    assert len(set(ORDERS)) == 24
    fingers = [str(event.touch.finger) for event in order(order=ALL).notes if event.touch]
    assert [" ".join(fingers[at : at + 4]) for at in range(0, 96, 4)] == list(ORDERS)


def test_an_order_lies_fret_by_fret_from_its_position() -> None:
    reading = order(order="1 3 2 4", string=2, position=5)
    assert touched(reading) == ["2·5", "2·7", "2·6", "2·8"]
    # The second string is B: its fifth fret is E.
    assert [event.pitch.name for event in reading.notes if event.pitch] == ["E5", "F#5", "F5", "G5"]


@pytest.mark.parametrize(
    ("path", "strings"),
    [
        ("one", [3]),
        ("up", [6, 5, 4, 3, 2, 1]),
        ("down", [1, 2, 3, 4, 5, 6]),
        ("there_and_back", [6, 5, 4, 3, 2, 1, 2, 3, 4, 5, 6]),
        ("skip", [6, 4, 5, 3, 4, 2, 3, 1]),
    ],
)
def test_ways_across_the_strings(path: str, strings: list[int]) -> None:
    reading = order(path=path, string=3)
    assert [event.touch.string for event in reading.notes[::4] if event.touch] == strings


def test_it_moves_on_by_a_fret_each_pass() -> None:
    reading = order(string=1, position=1, shift=1, passes=3)
    assert [event.touch.position for event in reading.notes[::4] if event.touch] == [1, 2, 3]
    with pytest.raises(OutOfRange, match="the neck has positions 1 to 19") as refused:
        order(position=12, shift=4, passes=4)
    assert refused.value.field == "material.passes"


def test_slurred_notes_are_hammered_upwards_and_pulled_downwards_and_take_no_stroke() -> None:
    reading = order(order="1 3 4 2", legato="hammer_pull", slurred=(2, 4))
    assert [event.how.ornament for event in reading.notes] == [None, "hammer", None, "pull"]
    # The pick alternates over what it strikes, and nothing else uses a stroke up.
    assert [event.stroke for event in reading.notes] == ["D", None, "U", None]
    assert [event.slurred for event in reading.notes] == [False, True, False, True]
    assert order(legato="slide").notes[1].how.ornament == "slide"


def test_the_first_note_on_a_string_is_struck_whatever_is_slurred() -> None:
    reading = order(path="up", legato="hammer_pull", slurred=(1, 2, 3, 4))
    assert [event.how.ornament is None for event in reading.notes[:8]] == [True, False, False, False] * 2


SCALE = Drill(material=ScaleRun(tonic="G", octaves=2, shape="up"), legs=legs(3), instrument="guitar", hands=PICK)


@pytest.mark.parametrize(("fingering", "count"), [("two_a_string", 2), ("three_a_string", 3), ("four_a_string", 4)])
def test_so_many_notes_a_string(fingering: str, count: int) -> None:
    one = ScaleRun(tonic="A", scale="minor_pentatonic" if count == 2 else "major", octaves=1, shape="up")
    reading = read(replace(SCALE, material=one, fingering=fingering))  # type: ignore[arg-type]
    strings = [event.touch.string for event in reading.notes if event.touch]
    assert strings == [6 - at // count for at in range(len(strings))]
    assert f"{count} notes a string." in neck(reading)


def neck(reading: Reading) -> list[str]:
    told = paragraphs(reading, sums(reading, F(60)), F(60))
    return [line for one in told if one.title == "On the neck" for line in one.sentences]


def test_a_layout_that_the_neck_has_not_is_told() -> None:
    # Seven notes two a string: the seventh degree lies under the open third string.
    one = ScaleRun(tonic="G", octaves=1, shape="up")
    assert neck(read(replace(SCALE, material=one, fingering="two_a_string")))[1].startswith(
        "2 notes a string do not fit here. By least movement"
    )


def test_three_a_string_covers_two_octaves_of_g() -> None:
    reading = read(replace(SCALE, fingering="three_a_string"))
    assert touched(reading)[:9] == ["6·3", "6·5", "6·7", "5·3", "5·5", "5·7", "4·4", "4·5", "4·7"]


def test_a_position_holds_all_of_it_or_the_hand_moves() -> None:
    held = read(replace(SCALE, fingering="position"))
    assert len({event.touch.position for event in held.notes if event.touch}) == 1
    assert all(
        event.touch.position <= event.touch.fret <= event.touch.position + 4  # type: ignore[operator]
        for event in held.notes
        if event.touch
    )
    wide = read(replace(SCALE, material=ScaleRun(tonic="E", octaves=3, shape="up"), fingering="position"))
    assert len({event.touch.position for event in wide.notes if event.touch}) > 1


@pytest.mark.parametrize("fingering", ["position", "three_a_string"])
def test_layouts_are_for_strings(fingering: str) -> None:
    with pytest.raises(OutOfRange, match="is for strings") as refused:
        Drill(instrument="piano", fingering=fingering)  # type: ignore[arg-type]
    assert refused.value.field == "fingering"


@settings(max_examples=60)
@given(
    st.sampled_from(["usual", "position", "two_a_string", "three_a_string", "four_a_string"]),
    st.sampled_from(["C", "Eb", "F#", "A"]),
    st.integers(1, 3),
    st.sampled_from(["guitar", "ukulele", "guitar_bass", "guitar_drop_d"]),
)
def test_every_fret_sounds_its_note(fingering: str, tonic: str, octaves: int, name: str) -> None:
    strings = INSTRUMENTS[name].strings[::-1]
    material = ScaleRun(tonic=tonic, octaves=octaves)
    reading = read(Drill(material=material, legs=legs(2), instrument=name, fingering=fingering))  # type: ignore[arg-type]
    for event in reading.notes:
        if event.touch and event.pitch:
            assert strings[event.touch.string - 1] + event.touch.fret == event.pitch.midi  # type: ignore[operator]


def by_hand(reading: Reading) -> tuple[int, int, int]:
    """Return outside, inside and swept changes from where the pick has to be: another way to count.

    Strings stand at whole numbers towards the floor, the thickest first. A down stroke begins half a string over its
    own, an up stroke half a string under it. What begins between the two strings is inside.
    """
    found = [0, 0, 0]
    known = [(event.stroke, 6 - event.touch.string) for event in reading.notes if event.touch and event.touch.string]
    for (stroke, here), (after, there) in pairwise(known):
        begins = there + (-0.5 if after == "D" else 0.5)
        if here != there and stroke == after:
            found[2] += 1
        elif here != there:
            found[min(here, there) < begins < max(here, there)] += 1
    return found[0], found[1], found[2]


@pytest.mark.parametrize("hands", [PICK, ByOrder(cycle=("U", "D")), ByOrder(cycle=("D", "U", "U")), Economy()])
@pytest.mark.parametrize("tonic", ["G", "A", "Bb"])
def test_crossings_are_counted_as_the_pick_stands(hands: ByOrder | Economy, tonic: str) -> None:
    for fingering in ("usual", "three_a_string", "two_a_string"):
        one = replace(SCALE, material=ScaleRun(tonic=tonic), hands=hands, fingering=fingering)
        found = crossings(read(one))
        assert found
        assert (found.outside, found.inside, found.swept) == by_hand(read(one))


def test_down_on_the_thick_and_up_on_the_thin_string_goes_round_both() -> None:
    two = FingerOrder(order="1 2 3 4", path="up", position=5)
    even = crossings(read(Drill(material=two, legs=legs(4), instrument="guitar", hands=PICK)))
    # Four notes a string: the last is up, the next one down, so the pick stays between. Back to the first string the
    # hand goes by itself.
    assert even
    assert (even.outside, even.inside, even.swept) == (0, 5, 0)
    turned = crossings(read(Drill(material=two, legs=legs(4), instrument="guitar", hands=ByOrder(cycle=("U", "D")))))
    assert turned
    assert (turned.outside, turned.inside) == (5, 0)


def test_economy_saves_a_turn_at_each_change_that_goes_its_way() -> None:
    one = replace(SCALE, material=ScaleRun(tonic="G"), fingering="three_a_string")
    strict, economy = crossings(read(one)), crossings(read(replace(one, hands=Economy())))
    assert strict
    assert economy
    assert (strict.swept, strict.all_of_them) == (0, 8)
    assert Crossings(outside=5, inside=3, swept=2, skipped=1).all_of_them == 10
    assert economy.swept == 7


def test_a_skipped_string_is_told() -> None:
    found = crossings(order(path="skip"))
    assert found
    # 6 4 5 3 4 2 3 1: four skips; from 1 back to 6 is no jump of the tune.
    assert found.skipped == 4


@pytest.mark.parametrize(
    ("parts", "field"),
    [
        ({"order": "1 1 2 3"}, "material.order"),
        ({"slurred": (5,)}, "material.slurred"),
        ({"string": 7}, "material.string"),
    ],
)
def test_an_order_that_is_none_is_refused(parts: dict[str, object], field: str) -> None:
    with pytest.raises(OutOfRange) as refused:
        FingerOrder(**parts)  # type: ignore[arg-type]
    assert refused.value.field == field


def test_an_instrument_without_that_string_is_told() -> None:
    with pytest.raises(OutOfRange, match="ukulele has 4 strings, and no string 6"):
        read(Drill(material=FingerOrder(string=6), legs=legs(4), instrument="ukulele"))
