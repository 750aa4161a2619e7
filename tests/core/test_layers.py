"""Layers: what is left out keeps its time, the body moves at its own rate, a second count lies under the first."""

from dataclasses import replace

import pytest
from hypothesis import assume, given

from ripresa.core.changes import mirrored
from ripresa.core.drill import SCHOOLS, Body, Drill, FootLayer, Reduce, reduce_of
from ripresa.core.drill.accents import EveryNth, NoAccents
from ripresa.core.drill.hands import ByOrder, ByPlace, Hands, NoHands
from ripresa.core.drill.material import SAYS, Count, OneNote, ScaleRun
from ripresa.core.drill.reduce import Reduction
from ripresa.core.drill.way_in import leading
from ripresa.core.errors import OutOfRange, RipresaError, Unreadable
from ripresa.core.exact import Fraction as F
from ripresa.core.playing import perform
from ripresa.core.reading import Reading, read
from tests.strategies import drills, legs

HANDS = ByOrder(cycle=("R", "L"))
FOUR = Drill(material=OneNote(beats=4), legs=legs(4), hands=HANDS, accents=EveryNth(size=4))


def onsets(reading: Reading) -> list[F]:
    return [event.onset for event in reading.notes]


@pytest.mark.parametrize(
    ("part", "meter", "bars"),
    [
        # Ten beats: of three bars of 4/4 the first two, of the five bars that take turns the first three.
        ("first_bars", "4/4", [1, 2, 4, 5]),
        ("second_bars", "4/4", [3, 6]),
        ("first_bars", "2/4", [1, 2, 3, 6, 7, 8]),
        ("second_bars", "2/4", [4, 5, 9, 10]),
        ("first_bars", "4/4 | 3/4", [1, 2, 4, 5]),
        ("second_bars", "4/4 | 3/4", [3, 6]),
    ],
)
def test_half_of_the_bars_of_each_leg(part: Reduction, meter: str, bars: list[int]) -> None:
    drill = Drill(material=OneNote(beats=10), legs=legs(2, 3), meter=meter, closing="shared", reduce=Reduce(part))
    found = read(drill)
    assert list(dict.fromkeys(note.bar for note in found.notes)) == bars
    assert found.beats == read(replace(drill, reduce=Reduce())).beats


@pytest.mark.parametrize(
    ("reduce", "expected"),
    [
        pytest.param(Reduce("hits"), [F(n) for n in range(4)], id="the hits"),
        pytest.param(Reduce("between"), [F(n, 4) for n in range(16) if n % 4], id="between them"),
        pytest.param(Reduce("first_half"), [F(n, 4) for n in range(8)], id="first half"),
        pytest.param(Reduce("second_half"), [F(n, 4) for n in range(8, 16)], id="second half"),
        pytest.param(Reduce("first_bars"), [F(n, 4) for n in range(16)], id="the one bar that there is"),
        pytest.param(Reduce("hand", "L"), [F(n, 4) for n in range(1, 16, 2)], id="the left hand"),
    ],
)
def test_what_is_left_out_keeps_its_time(reduce: Reduce, expected: list[F]) -> None:
    reading = read(replace(FOUR, reduce=reduce))
    assert onsets(reading) == expected
    assert reading.beats == read(FOUR).beats
    assert [event.onset for event in reading.events] == [event.onset for event in read(FOUR).events]
    assert reading.legs[0].notes == len(expected)


def test_what_was_held_is_silent_with_its_note() -> None:
    drill = Drill(material=Count(">1 & 2 3"), legs=legs(1), accents=NoAccents(), reduce=Reduce("hits"))
    assert [(event.onset, length) for event, length in read(drill).sounding()] == [(0, F(1, 2))]


def test_nothing_left_is_refused_with_what_would_be_right() -> None:
    with pytest.raises(OutOfRange, match="Nothing is left to play of one hand alone, “X”") as refused:
        read(replace(FOUR, reduce=Reduce("hand", "X")))
    assert refused.value.field == "reduce"
    with pytest.raises(OutOfRange, match="Say which hand"):
        Reduce("hand")


@given(drills)
def test_the_hits_and_what_is_between_make_the_whole(drill: Drill) -> None:
    whole = read(replace(drill, reduce=Reduce()))
    parts: list[F] = []
    for part in ("hits", "between"):
        try:
            parts += onsets(read(replace(drill, reduce=Reduce(part))))
        except RipresaError:
            assume(len(parts) in {0, len(whole.notes)})
    assert sorted(parts) == onsets(whole)


def test_the_body_moves_at_its_own_rate() -> None:
    reading = read(replace(FOUR, body=Body("sway", F(2))))
    assert reading.body == ((0, "→"), (2, "←"))
    with pytest.raises(OutOfRange, match="The body moves every"):
        Body("tap", F(0))


def test_a_second_count_lies_under_the_first_and_begins_again() -> None:
    drill = Drill(material=Count("1 & 2 & 3 & 4 & | 1 2 3 4", under="1 (2) & 3"), legs=legs(1))
    reading = read(drill)
    assert reading.second == (0, F(3, 2), 2, 4, F(11, 2), 6)
    second = [tone for tone in perform(reading, F(60)).tones if tone.midi == 41]
    assert [tone.at for tone in second] == [0, 1.5, 2, 4, 5.5, 6]
    assert [reading.events[tone.event].onset for tone in second[:2]] == [0, F(3, 2)]


@pytest.mark.parametrize(
    ("under", "error", "sentence"),
    [
        ("1 q", Unreadable, "Word 2 of the second layer, “q”"),
        ("1 5", OutOfRange, "Bar 1 of the second layer has a beat 5, and the meter has 4 beats a bar"),
    ],
)
def test_a_second_count_that_does_not_fit_is_refused(under: str, error: type[RipresaError], sentence: str) -> None:
    with pytest.raises(error, match=sentence) as refused:
        read(Drill(material=Count(under=under), legs=legs(1)))
    assert refused.value.field == "material.under"


def test_each_step_of_a_way_in_says_what_is_played() -> None:
    steps = SCHOOLS["skeleton"][2]
    assert [reduce_of(step, HANDS).part for step in steps] == [
        "everything",
        "everything",
        "hits",
        "first_half",
        "second_half",
        "everything",
    ]
    assert reduce_of("hand", HANDS) == Reduce("hand", "R")
    assert reduce_of("hand", NoHands()) == Reduce()
    assert leading(ByPlace(lead="up")) == "U"


@pytest.mark.parametrize(
    ("parts", "field"),
    [({"tags": ("x" * 31,)}, "tags"), ({"tags": ("x",) * 13}, "tags"), ({"way_in": ("listen",) * 17}, "way_in")],
)
def test_too_many_or_long_words_are_refused(parts: dict[str, tuple[str, ...]], field: str) -> None:
    with pytest.raises(OutOfRange) as refused:
        Drill(**parts)  # type: ignore[arg-type]
    assert refused.value.field == field


def test_letters_are_said_forward_and_backward_from_any_start() -> None:
    said = {
        say: " ".join(event.count for event in read(Drill(material=OneNote(2, say=say, first="F"), legs=legs(4))).notes)
        for say in SAYS
    }
    assert said["forward"] == "F G A B C D E F"
    assert said["backward"] == "F E D C B A G F"
    assert said["count"] == "1 e & a 2 e & a"
    with pytest.raises(OutOfRange, match="“H” is not a letter of a note"):
        OneNote(first="H")


def test_another_register_keeps_every_onset() -> None:
    low = read(Drill(material=ScaleRun(), legs=legs(3), instrument="piano"))
    high = read(Drill(material=ScaleRun(), legs=legs(3), instrument="piano", register=2))
    assert onsets(low) == onsets(high)
    assert {b.pitch.midi - a.pitch.midi for a, b in zip(low.notes, high.notes, strict=True) if a.pitch and b.pitch} == {
        24
    }


@pytest.mark.parametrize(
    ("hands", "turned"),
    [
        (ByOrder(cycle=("R", "L", "L")), ByOrder(cycle=("L", "R", "R"))),
        (ByPlace(), ByPlace(lead="up")),
    ],
)
def test_the_other_hand_leads_and_back(hands: Hands, turned: Hands) -> None:
    drill = replace(FOUR, hands=hands)
    assert mirrored(drill).hands == turned
    assert mirrored(mirrored(drill)) == drill
    # Right and left change places with the feet too; up and down do not.
    feet = [mirrored(replace(drill, foot=foot)).foot for foot in (FootLayer("right"), FootLayer("left"), FootLayer())]
    other = [FootLayer("left"), FootLayer("right"), FootLayer()]
    assert feet == (other if isinstance(turned, ByOrder) else [other[1], other[0], other[2]])


def test_a_tongue_has_no_other_side() -> None:
    with pytest.raises(OutOfRange, match="No hands are written that could be turned over"):
        mirrored(replace(FOUR, hands=ByOrder(cycle=("T", "K"))))
