"""Count words: numbers, syllables and own words; places are named by number whatever is said."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ripresa.core.drill import Drill
from ripresa.core.drill.accents import EveryNth
from ripresa.core.drill.material import Count, OneNote
from ripresa.core.errors import Unreadable
from ripresa.core.exact import Fraction as F
from ripresa.core.reading import read
from ripresa.core.rhythm import Counting
from ripresa.core.rhythm.counting import SYLLABLES, System
from tests.strategies import legs


def said(counting: Counting, division: int) -> str:
    reading = read(Drill(material=OneNote(beats=2), legs=legs(division), counting=counting, seam="straight_on"))
    return " ".join(event.count for event in reading.events if event.beat <= 2)


def test_every_division_has_as_many_syllables_as_slots() -> None:
    assert {division: len(words) for division, words in SYLLABLES.items()} == {number: number for number in range(1, 9)}


@pytest.mark.parametrize(
    ("system", "own", "division", "expected"),
    [
        ("numbers", "", 4, "1 e & a 2 e & a"),
        ("numbers", "", 5, "1 2 3 4 5 2 2 3 4 5"),
        ("syllables", "", 2, "ta di ta di"),
        ("syllables", "", 5, "ta ka di mi ti ta ka di mi ti"),
        ("own", "2: # und; 3: # o la", 2, "1 und 2 und"),
        ("own", "2: # und; 3: # o la", 3, "1 o la 2 o la"),
        ("own", "2: # und; 3: # o la", 4, "1 e & a 2 e & a"),
    ],
)
def test_what_is_said(system: System, own: str, division: int, expected: str) -> None:
    assert said(Counting(system, own), division) == expected


@pytest.mark.parametrize(
    ("own", "sentence"),
    [
        ("und", "Part 1 of the count words, “und”, does not begin with its division"),
        ("2: # und; 3: # o", "Part 2 of the count words, “3: # o”, has 2 words for 3 slots"),
        ("2: # und; 2: # and", "Part 2 of the count words, “2: # and”, is the second one for 2 a beat"),
        (" ; ", "Own count words name a division and its words"),
    ],
)
def test_own_words_that_cannot_be_read_are_refused_at_their_place(own: str, sentence: str) -> None:
    with pytest.raises(Unreadable, match=sentence.replace("(", r"\(")) as refused:
        Counting("own", own)
    assert refused.value.field == "counting.own"


def test_places_are_named_by_number_whatever_is_said() -> None:
    reading = read(Drill(material=Count("1 & a"), legs=legs(1), counting=Counting("syllables")))
    assert [(event.count, event.place_name) for event in reading.notes[1:2]] == [("di", "bar 1, beat 1, &")]


def test_the_second_stream_counts_inside_the_group() -> None:
    reading = read(Drill(material=OneNote(beats=4), legs=legs(4, 3), accents=EveryNth(size=5)))
    first = [event.in_group for event in reading.notes if event.leg == 0]
    assert first == [1, 2, 3, 4, 5] * 3 + [1]
    assert reading.notes[16].in_group == 1


@given(st.integers(1, 8), st.integers(1, 12), st.sampled_from(["numbers", "syllables"]))
def test_every_slot_has_one_word(division: int, beat: int, system: System) -> None:
    words = [Counting(system).word(F(division), beat, slot) for slot in range(division)]
    assert all(word and " " not in word for word in words)
