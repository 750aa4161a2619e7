"""Rhythms typed as a count, and written as one."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ripresa.core.drill import Drill, Hits, Leg
from ripresa.core.drill.accents import EachBeat, NoAccents
from ripresa.core.drill.hands import ByOrder, Letters
from ripresa.core.drill.material import Count, OneNote
from ripresa.core.errors import OutOfRange, RipresaError, Unreadable
from ripresa.core.exact import Fraction as F
from ripresa.core.exact import parse_amount
from ripresa.core.reading import Reading, count_text, read
from ripresa.core.reports import peak_of_drill
from ripresa.core.reports.motion import on_numbers
from tests.strategies import legs


def counted(text: str, meter: str = "4/4") -> Reading:
    return read(Drill(material=Count(text), legs=legs(1), meter=meter, accents=NoAccents()))


def onsets(text: str) -> list[str]:
    return [str(event.onset) for event in counted(text).notes]


@pytest.mark.parametrize(
    ("text", "at"),
    [
        ("1 2 3 4", "0 1 2 3"),
        ("1 & a 2 e & (3) 4 &", "0 1/2 3/4 1 5/4 3/2 3 7/2"),
        ("1 trip let (2) trip let", "0 1/3 2/3 4/3 5/3"),
        ("1/5 .2 .3 .4 .5", "0 1/5 2/5 3/5 4/5"),
        ("1/7 .4", "0 3/7"),
        ("1 3 | 1 3", "0 2 4 6"),
        ("1 4 1", "0 3 4"),
        ("(1) & | (1) a", "1/2 19/4"),
        ("1 | | 1", "0 8"),
        ("1 + 2 and", "0 1/2 1 3/2"),
    ],
)
def test_where_the_notes_of_a_count_fall(text: str, at: str) -> None:
    assert " ".join(onsets(text)) == at


def test_what_is_not_said_is_held_and_brackets_are_silence() -> None:
    sounding = [(str(event.onset), str(length)) for event, length in counted("1 & a 2 (3) 4").sounding()]
    assert sounding == [("0", "1/2"), ("1/2", "1/4"), ("3/4", "1/4"), ("1", "1"), ("3", "1")]


def test_accents_and_ghosts_are_said() -> None:
    levels = [event.accent for event in counted(">1 & ~2 &").notes]
    assert levels == ["accent", "plain", "ghost", "plain"]


def test_what_the_count_says_of_an_accent_stands_over_the_rule() -> None:
    reading = read(Drill(material=Count("~1 & >2 &"), legs=legs(1), accents=EachBeat()))
    assert [event.accent for event in reading.notes] == ["ghost", "plain", "accent", "plain"]


def test_halves_and_quarters_share_one_grid() -> None:
    assert {event.division for event in counted("1 & 2 e & a 3 trip let").notes} == {F(4), F(3)}


def test_a_count_brings_its_own_divisions() -> None:
    assert Count("1 & 2 e & a 3").own_division == 4
    assert peak_of_drill(Drill(material=Count("1 & 2 e & a 3"), legs=legs(8))) == 4


def test_each_leg_plays_the_count_again() -> None:
    reading = read(Drill(material=Count("1 2 &"), legs=legs(1, 1), accents=NoAccents()))
    assert [event.onset for event in reading.notes] == [0, 1, F(3, 2), 4, 5, F(11, 2)]


PHRASE = "1 a -2 & 3 & -4 &"


def slots(count: Count) -> list[int]:
    reading = read(Drill(material=count, legs=legs(1), accents=NoAccents()))
    return [int(event.onset * 4) for event in reading.notes]


@pytest.mark.parametrize(
    ("count", "found"),
    [
        pytest.param(Count(PHRASE), [0, 3, 6, 8, 10, 14], id="as it is"),
        pytest.param(Count(PHRASE, shift=2, around=False), [2, 5, 8, 10, 12, 16], id="over the bar line"),
        pytest.param(Count(PHRASE, shift=2), [0, 2, 5, 8, 10, 12], id="an eighth later, wrapped"),
        pytest.param(Count(PHRASE, shift=-1), [2, 5, 7, 9, 13, 15], id="a sixteenth earlier, wrapped"),
        pytest.param(Count(PHRASE, shift=-2, around=False), [14, 17, 20, 22, 24, 28], id="as a pickup of an eighth"),
    ],
)
def test_a_phrase_is_moved_by_slots(count: Count, found: list[int]) -> None:
    assert slots(count) == found


@pytest.mark.parametrize(("shift", "on"), [(0, 2), (2, 3), (1, 1)])
def test_how_many_fall_on_the_numbers(shift: int, on: int) -> None:
    reading = read(Drill(material=Count(PHRASE, shift=shift, around=False), legs=legs(1)))
    assert on_numbers(reading) == (on, 6)


@given(st.integers(-40, 40))
def test_moving_there_and_back_is_where_it_was(shift: int) -> None:
    moved = read(Drill(material=Count(PHRASE, shift=shift), legs=legs(1), accents=NoAccents()))
    written = count_text(moved.events)
    assert written is not None
    assert slots(Count(written, shift=-shift)) == slots(Count(PHRASE))


def test_thirds_beside_quarters_have_no_one_grid() -> None:
    with pytest.raises(OutOfRange, match="3 and 4 a beat has no one grid") as refused:
        slots(Count("1 e 2 trip let", shift=1))
    assert refused.value.field == "material.shift"


def test_a_shift_has_an_end() -> None:
    with pytest.raises(OutOfRange, match="up to 64 slots"):
        Count(PHRASE, shift=65)


words = st.sampled_from(["", "&", "e & a", "e", "a", "& a", "trip let", "let"])
fillings = st.sampled_from(["{}", "({})", ">{}", "~{}"])


@st.composite
def counts(draw: st.DrawFn) -> str:
    bars = []
    for _ in range(draw(st.integers(1, 3))):
        beats = []
        for beat in range(1, 5):
            said = [str(beat), *draw(words).split()]
            beats.append(" ".join(draw(fillings).format(word) for word in said))
        bars.append(" ".join(beats))
    return " | ".join(bars)


@settings(max_examples=120)
@given(counts())
def test_a_count_comes_back_from_its_reading_with_every_onset(text: str) -> None:
    reading = counted(text)
    written = count_text(reading.events)
    assert written is not None
    again = counted(written)
    assert [(event.onset, event.accent) for event in again.notes] == [
        (event.onset, event.accent) for event in reading.notes
    ]


@given(st.integers(1, 8), st.integers(1, 8))
def test_every_plain_rhythm_is_shown_as_a_count_that_can_be_typed(division: int, beats: int) -> None:
    reading = read(Drill(material=OneNote(beats=beats), legs=legs(division)))
    written = count_text(reading.events)
    assert written is not None
    assert [event.onset for event in counted(written).notes] == [event.onset for event in reading.notes]


@pytest.mark.parametrize("text", ["1 & 2 &", "1 trip let 2", "1 e & a 2", "1/5 .2 .3 .4 .5"])
def test_a_count_is_written_in_the_words_in_which_it_is_said(text: str) -> None:
    assert count_text(counted(text).events) == text


def test_slots_that_span_beats_cannot_be_typed_and_say_so() -> None:
    assert count_text(read(Drill(material=OneNote(beats=2), legs=(Leg(F(3, 2)),))).events) is None


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("", "at least one beat"),
        ("| |", "at least one beat"),
        ("& 1", "Word 1 of the count, “&”, has no beat before it"),
        ("1 & | & 2", "Word 4 of the count, “&”, has no beat before it"),
        ("1 2 3 2 4", "Word 4 of the count, “2”, comes after beat 3. Write 4, or 1 for the next bar"),
        ("1 boom", "Word 2 of the count, “boom”, is not a word of a count"),
        ("1 (2", "Word 2 of the count, “(2”, is not a word of a count"),
        ("1 trip &", "Word 3 of the count, “&”, does not go with trip in beat 1"),
        ("1 e trip", "Word 3 of the count, “trip”, does not go with e in beat 1"),
        ("1 a e", "Word 3 of the count, “e”, comes too late in beat 1"),
        ("1 & &", "Word 3 of the count, “&”, comes too late"),
        ("1 .2", "needs the division at its beat: 1/5 .2 .3"),
        ("1/5 .6", "is not a slot of 5 a beat. Use .2 to .5"),
        ("1/99", "asks for more slots than a beat has"),
        ("1/2 e", "Word 2 of the count, “e”, is not a slot of 2 a beat"),
        ("1/3 &", "Word 2 of the count, “&”, is not a slot of 3 a beat"),
        ("1 e & a + +", "Word 6 of the count, “+”, comes too late in beat 1"),
        ("0 &", "is not a beat"),
    ],
)
def test_what_cannot_be_read_is_refused_at_its_place(text: str, says: str) -> None:
    with pytest.raises(RipresaError) as refused:
        Count(text)
    assert says in refused.value.message
    assert refused.value.field == "material.text"


def test_a_beat_that_is_a_quarter_longer_is_counted_on_to_its_fifth() -> None:
    reading = counted("1 2 3 e & a + | 1 2 (3) e a +", meter="13/16 (4+4+5)")
    assert [str(event.onset) for event in reading.notes[2:7]] == ["2", "9/4", "5/2", "11/4", "3"]
    assert [event.count for event in reading.notes[2:7]] == ["3", "e", "&", "a", "+"]
    assert [str(event.onset) for event in reading.notes[9:]] == ["11/2", "6", "25/4"]
    with pytest.raises(OutOfRange, match="beat 2 of bar 1 of the count lasts 1 beat"):
        counted("1 2 e & a + 3", meter="13/16 (4+4+5)")


def test_a_bar_with_more_beats_than_the_meter_is_refused() -> None:
    with pytest.raises(OutOfRange, match="Bar 2 of the count has a beat 4, and the meter has 3 beats a bar"):
        counted("1 2 3 1 2 3 4", meter="3/4")


@pytest.mark.parametrize(
    ("typed", "meter", "same"),
    [
        ("1&2&", "4/4", "1 & 2 &"),
        ("1e&a 2 (3)&>4~a", "4/4", "1 e & a 2 (3) & >4 ~a"),
        ("1trip let|2and", "4/4", "1 trip let | 2 &"),
        ("1/5.3.5", "4/4", "1/5 .3 .5"),
        ("& of 1", "4/4", "(1) &"),
        ("the & of 3, 1 and 2", "4/4", "(1) & (2) & (3) &"),
        ("1 2 | >a of 4", "4/4", "1 2 | (4) >a"),
        ("every &", "3/4", "(1) & (2) & (3) &"),
        ("on every ~a | 1", "2/4", "(1) ~a (2) ~a | 1"),
        ("every &", "4/4 | 3/4", "(1) & (2) & (3) & (4) &"),
        ("| (1) 2", "4/4", "(1/1) | (1) 2"),
    ],
)
def test_a_count_is_typed_as_people_type(typed: str, meter: str, same: str) -> None:
    drills = [Drill(material=Count(text), legs=(Leg(F(1)),), meter=meter) for text in (typed, same)]
    notes = [[(note.onset, note.accent) for note in read(drill).notes] for drill in drills]
    assert notes[0] == notes[1]
    if meter == "4/4":
        laid = [
            read(Drill(material=OneNote(beats=16), legs=legs(4), hits=Hits(text), meter=meter))
            for text in (typed, same)
        ]
        assert laid[0].hits == laid[1].hits


def test_a_number_that_may_be_two_names_both_meanings() -> None:
    with pytest.raises(OutOfRange) as refused:
        read(Drill(material=Count("12"), legs=legs(1)))
    assert refused.value.message == (
        "Bar 1 of the count has a beat 12, and the meter has 4 beats a bar. For beats 1 and 2 write 1 2."
    )


@pytest.mark.parametrize("text", ["1ex", "every", "every 2", "& of", "of 1", "& of 1 or 2"])
def test_what_is_no_word_is_still_refused(text: str) -> None:
    with pytest.raises(Unreadable, match=r"Word \d of the count"):
        Count(text)


@pytest.mark.parametrize(
    ("typed", "cycle"),
    [
        (("RLRRLL",), "R L R R L L"),
        (("rlrr",), "R L R R"),
        (("DU", "D"), "D U D"),
        (("T-TT",), "T - T T"),
        (("pimami",), "p i m a m i"),
        (("1231234",), "1 2 3 1 2 3 4"),
        (("p+i", "m"), "p+i m"),
        (("Re",), "Re"),
        (("d",), "d"),
    ],
)
def test_hands_are_typed_without_spaces(typed: tuple[str, ...], cycle: str) -> None:
    assert ByOrder(typed).cycle == tuple(cycle.split())
    assert Letters(pattern=typed).pattern == tuple(cycle.split())


@pytest.mark.parametrize(
    ("typed", "value"), [("0.5", F(1, 2)), (".5", F(1, 2)), ("half", F(1, 2)), ("A third", F(1, 3))]
)
def test_a_half_is_typed_as_people_type(typed: str, value: F) -> None:
    assert parse_amount(typed) == value
