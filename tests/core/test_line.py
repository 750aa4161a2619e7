"""Lines: their words, where they land, when they come home, how they go through chords, and the tools on them."""

from dataclasses import replace

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from ripresa.core.changes import arriving, as_line, backwards, doubled, halved, lengthened, trimmed
from ripresa.core.drill import Drill, Leg
from ripresa.core.drill.material import Line, Strum, own_rhythm, parse_line, write_line
from ripresa.core.errors import OutOfRange, RipresaError, Unreadable
from ripresa.core.exact import Fraction as F
from ripresa.core.reading import Reading, read
from ripresa.core.reports import Ending, landings, statements
from ripresa.core.reports.told.lines import landings_told
from tests.materials import lines
from tests.strategies import drills, legs


def line(text: str, division: int | str = 2, **parts: object) -> Drill:
    return Drill(material=Line(text, **parts), legs=legs(division))  # type: ignore[arg-type]


def names(reading: Reading) -> list[str]:
    return [event.pitch.name if event.pitch else "x" for event in reading.notes]


def claps(count: int) -> str:
    return " ".join(["x"] * count)


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        pytest.param("C4 F#4 Bb3", ["C4", "F#4", "Bb3"], id="note names"),
        pytest.param("1 b3 5 8", ["D3", "F3", "A3", "D4"], id="degrees of the tonic"),
        pytest.param("1' 7, #4", ["D4", "C#3", "G#3"], id="an octave up and down"),
        pytest.param("x r 1", ["x", "D3"], id="claps and rests"),
        pytest.param("1 (2) 3 /4 5", ["D3", "F#3", "A3"], id="silenced and cut"),
    ],
)
def test_words_of_a_line(text: str, expected: list[str]) -> None:
    assert names(read(line(text, tonic="D"))) == expected


@pytest.mark.parametrize(
    ("text", "sentence"),
    [
        ("E4 H4", "Word 2 of the line, “H4”, is not a note of a line. Write E4"),
        ("(E4", "Word 1 of the line, “(E4”"),
        ("1 40", "Word 2 of the line, “40”, is not a degree. Use 1 to 21"),
        ("E4*0", "has a length that cannot be played"),
        ("/E4", "A line needs at least one note"),
        ("", "A line needs at least one note"),
    ],
)
def test_what_cannot_be_read_is_refused_at_its_place(text: str, sentence: str) -> None:
    with pytest.raises(Unreadable, match=sentence.replace("(", r"\(")) as refused:
        Line(text)
    assert refused.value.field == "material.text"


def test_a_length_holds_until_another_is_written() -> None:
    reading = read(line("1*1/2 2 3*1 r*2", rhythm="own"))
    assert [(event.onset, length) for event, length in reading.sounding()] == [(0, F(1, 2)), (F(1, 2), F(1, 2)), (1, 1)]


def test_a_silenced_note_keeps_its_length_and_a_cut_one_does_not() -> None:
    onsets = {text: [event.onset for event in read(line(text)).notes] for text in ("1 2 3", "1 (2) 3", "1 /2 3")}
    assert onsets["1 (2) 3"] == [0, 1]
    assert onsets["1 /2 3"] == [0, F(1, 2)]
    assert onsets["1 2 3"] == [0, F(1, 2), 1]


def test_half_a_slot_is_refused() -> None:
    with pytest.raises(OutOfRange, match="lasts no whole slot"):
        Line("1*1/2")


def test_a_short_first_bar_is_a_pickup_and_a_wrong_bar_is_named() -> None:
    assert read(line("x | x x x x", rhythm="own")).notes[0].place_name == "bar 1, beat 4"
    with pytest.raises(Unreadable, match="Bar 2 of the line has 3 beats, and the meter has 4"):
        read(line("x x x x | x x x | x", rhythm="own"))


@pytest.mark.parametrize(
    ("slots", "division", "expected"),
    [
        pytest.param(6, 2, (1, 4, "4", 2), id="six eighths end on 4"),
        pytest.param(6, 4, (1, 2, "&", 10), id="doubled they end on 2 and, ten missing"),
        pytest.param(16, 4, (2, 1, "1", 0), id="a full bar"),
    ],
)
def test_where_a_line_lands(slots: int, division: int, expected: tuple[int, int, str, int]) -> None:
    (found,) = landings(read(line(claps(slots), division)))
    assert (*place_of(found.ending), found.ending.missing) == expected


def place_of(over: Ending) -> tuple[int, int, str]:
    return over.end.bar, over.end.beat, over.end.count


def test_a_line_is_told_as_it_enters_again_and_again_and_twice_as_fast() -> None:
    (nine,) = landings(read(line("1 2 3 4 5 4 3 2 1")))
    assert nine.entries
    assert (nine.entries.bars, nine.entries.statements) == (9, 8)
    assert nine.entries.second.name == "&"
    assert not nine.entries.on_beats
    (six,) = landings(read(line(claps(6), 2)))
    assert six.doubled
    assert (*place_of(six.doubled), six.doubled.missing) == (1, 2, "&", 10)
    (moved,) = landings(read(line(claps(35), 4, shift=F(13))))
    assert moved.entries
    assert place_of(moved.ending) == (4, 1, "1")
    assert (moved.enters.bar, moved.enters.beat, moved.enters.count) == (1, 4, "e")
    assert (moved.entries.second.bar, moved.entries.second.beat) == (4, 1)


def test_at_twice_a_mixed_division_each_of_its_beats_has_twice_as_many() -> None:
    (found,) = landings(read(replace(line(claps(12)), legs=(Leg(F(2), (F(4),)),))))
    assert place_of(found.ending) == (2, 1, "1")
    assert found.doubled
    assert place_of(found.doubled) == (1, 3, "3")


@pytest.mark.parametrize(("shift", "told"), [(0, False), (3, True)])
def test_where_a_line_enters_is_said_where_it_is_not_the_beginning(shift: int, told: bool) -> None:
    (paragraph,) = landings_told(read(line(claps(6), shift=F(shift))))
    assert any(sentence.startswith("It enters on") for sentence in paragraph.sentences) is told


def test_nine_eighths_are_home_after_nine_bars() -> None:
    reading = read(line("1 2 3 4 5 4 3 2 1", after="home"))
    assert (reading.bars, reading.legs[0].described) == (9, "8 statements")
    starts = [event for event in reading.notes if event.pitch and event.pitch.name == "C3"][::2]
    entries = [(event.bar, event.place_name) for event in starts[1:3]]
    assert entries == [(2, "bar 2, beat 1, &"), (3, "bar 3, beat 2")]


def test_a_line_goes_on_to_the_bar_line_and_is_cut_there() -> None:
    assert names(read(line("1 2 3", after="bar"))) == ["C3", "D3", "E3"] * 2 + ["C3", "D3"]


def test_a_line_goes_through_chords_from_root_to_root() -> None:
    reading = read(line("1 3 5", through="C | F"))
    assert names(reading) == ["C3", "E3", "G3", "F3", "A3", "C4"]
    assert reading.notes[3].place_name == "bar 2, beat 1"
    assert [one.on_root for one in statements(reading)] == [True, True]
    assert [one.leads for one in statements(reading)] == [True, None]


def test_a_line_that_does_not_lead_is_told() -> None:
    found = statements(read(line("3 1", through="C | G")))
    assert [(one.on_root, one.leads) for one in found] == [(False, True), (False, None)]
    assert statements(read(line("1 1", through="C | G")))[0].leads is False


def test_a_line_longer_than_its_chord_is_cut_off() -> None:
    found = statements(read(line("1 2 3 4 5", through="C G")))
    assert [one.cut for one in found] == [1, 1]


def test_35_sixteenths_arrive_on_bar_4_when_they_start_on_slot_13() -> None:
    drill = arriving(line(claps(35), 4), bar=4, beat=1)
    assert isinstance(drill.material, Line)
    assert drill.material.shift == 13
    first = read(drill).notes[0]
    assert (first.place_name, first.onset * 4) == ("bar 1, beat 4, e", 13)
    assert read(drill).beats == 12


def test_a_line_cannot_arrive_before_it_began() -> None:
    with pytest.raises(OutOfRange, match=r"lasts 35 slots, and before bar 2, beat 1 there are 16"):
        arriving(line(claps(35), 4), bar=2, beat=1)
    with pytest.raises(OutOfRange, match="There is no bar 1, beat 5"):
        arriving(line("x"), bar=1, beat=5)


def test_trimming_and_lengthening() -> None:
    six = line("1 2 3 4 5 6")
    five = trimmed(six)
    assert isinstance(five.material, Line)
    assert (five.material.text, five.material.length) == ("1 2 3 4 5 /6", 5)
    assert lengthened(five) == six
    assert isinstance(longer := lengthened(six).material, Line)
    assert longer.text == "1 2 3 4 5 6 6"
    with pytest.raises(OutOfRange, match="One note is left"):
        trimmed(line("1 /2"))


def test_backwards_twice_is_the_identity() -> None:
    drill = line("1*2 2*1 >3 /4 r")
    assert names(read(backwards(drill))) == ["E3", "D3", "C3"]
    assert backwards(backwards(drill)) == drill


def test_doubling_stops_where_a_beat_has_no_more_slots() -> None:
    with pytest.raises(OutOfRange, match="not a division"):
        doubled(line("1", 16))


@given(lines)
def test_a_line_reads_back_as_written(material: Line) -> None:
    assert write_line(parse_line(write_line(parse_line(material.text)))) == write_line(parse_line(material.text))


@given(drills)
@settings(max_examples=60)
def test_doubling_and_halving_is_the_identity(drill: Drill) -> None:
    try:
        twice = doubled(drill)
        fast = read(twice)
    except RipresaError:
        assume(False)
    if isinstance(drill.material, Strum):
        assert [event.onset for event in read(halved(twice)).notes] == [event.onset for event in read(drill).notes]
        return
    # A rhythm that is typed is a line from then on, with the same notes.
    assert halved(twice) == (as_line(drill) if own_rhythm(drill.material) else drill)
    if not isinstance(drill.material, Line) or drill.material.through or drill.material.shift or len(drill.legs) > 1:
        return
    if drill.material.rhythm == "own" and drill.material.after == "open" and drill.swing.ratio == 1:
        slow = read(drill)
        assert [event.onset * 2 for event in fast.notes] == [event.onset for event in slow.notes]


@given(text=st.sampled_from(["1 2 3", "x*2 x*1 r 5"]), shift=st.integers(0, 20), division=st.integers(1, 8))
def test_moving_later_moves_every_note_by_as_many_slots(text: str, shift: int, division: int) -> None:
    still, moved = (read(line(text, division, shift=F(by))) for by in (0, shift))
    assert [event.onset for event in moved.notes] == [event.onset + F(shift, division) for event in still.notes]


@given(shift=st.integers(-40, 40))
def test_wrapping_round_a_bar_is_the_identity(shift: int) -> None:
    bar = [event.onset for event in read(line("1 2 r 4 5*3 6*1", 2, shift=F(shift), around=True)).notes]
    again = [event.onset for event in read(line("1 2 r 4 5*3 6*1", 2, shift=F(shift + 16), around=True)).notes]
    assert bar == again


def test_an_unmixed_leg_keeps_its_division() -> None:
    assert read(Drill(material=Line("1 2 3"), legs=(Leg(F(3)),))).legs[0].divisions == (3,)


def test_a_line_without_pitch_goes_through_chords_and_nothing_is_said_of_them() -> None:
    reading = read(line("x r", through="C | G"))
    assert len(reading.notes) == 2
    assert statements(reading) == ()


@pytest.mark.parametrize(
    ("text", "count", "sentence"),
    [
        pytest.param(" ".join(["x*256", *["r"] * 99]), 1, "lasts 25600 slots, and up to 20,000", id="too long a line"),
        pytest.param(" ".join(["x*256", *["r"] * 9]), 9, "more than 20000 slots", id="too many legs of it"),
    ],
)
def test_silence_takes_its_slots_too(text: str, count: int, sentence: str) -> None:
    with pytest.raises(OutOfRange, match=sentence):
        read(Drill(material=Line(text), legs=legs(*[4] * count)))
