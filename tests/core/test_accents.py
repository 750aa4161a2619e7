from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ripresa.core.drill import Drill, Leg
from ripresa.core.drill.accents import TypedAccents, Walk
from ripresa.core.drill.hands import ByOrder
from ripresa.core.drill.material import OneNote
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.reading import Reading, read
from ripresa.core.reports import sums, walk_homes
from ripresa.core.rhythm import span_seconds
from tests.strategies import legs


def walked(walk: Walk, division: int = 4, bars: int = 9) -> Reading:
    material = OneNote(beats=4 * bars)
    return read(Drill(material=material, legs=legs(division), accents=walk, hands=ByOrder(cycle=("R", "L")), bpm=F(84)))


def accented(reading: Reading, bar: int) -> str:
    return " ".join(event.count for event in reading.notes if event.bar == bar and event.accent == "accent")


@pytest.mark.parametrize(
    ("bar", "words"),
    [(1, "1 2 3 4"), (2, "1 2 3 4"), (3, "e e e e"), (5, "& & & &"), (8, "a a a a"), (9, "1 2 3 4")],
)
def test_an_accent_walks_one_slot_later_every_two_bars(bar: int, words: str) -> None:
    assert accented(walked(Walk(width=1, bars=2)), bar) == words


def test_the_walk_on_four_is_eight_bars_and_22_9_seconds_at_84() -> None:
    (found,) = sums(walked(Walk()), F(84)).walks
    assert (found.bars, found.notes, round(float(span_seconds(found.beats, F(84))), 1)) == (8, 128, 22.9)
    assert found.stations == (("1", ("R",)), ("e", ("L",)), ("&", ("R",)), ("a", ("L",)))
    assert (found.gap, found.home_gap) == (5, 1)


def test_on_triplets_the_hand_of_a_station_alternates() -> None:
    (found,) = sums(walked(Walk(), division=3), F(84)).walks
    assert found.stations[1] == ("trip", ("L", "R"))


def test_a_pair_that_straddles_the_beat_takes_the_one_of_what_follows() -> None:
    reading = walked(Walk(width=2, bars=1), bars=5)
    # The first 1 of the straddling station has no a before it and stays plain.
    assert accented(reading, 4) == "a 2 a 3 a 4 a"
    assert accented(reading, 5) == "1 e 2 e 3 e 4 e"
    # Of three, the group before (& a 1) leaves its last to the next bar.
    assert accented(walked(Walk(width=3, bars=1), bars=5), 4) == "1 a 2 e a 3 e a 4 e a"


@given(st.integers(1, 8), st.integers(1, 3), st.integers(1, 4))
def test_a_walk_comes_home_after_as_many_stations_as_slots(division: int, width: int, bars: int) -> None:
    walk = Walk(width=width, bars=bars)
    (found,) = walk_homes(walked(walk, division, bars=1))
    assert (found.bars, len(found.stations)) == (division * bars, division)
    assert [walk.station(F(division), bar) for bar in range(0, found.bars, bars)] == list(range(division))


def test_each_leg_walks_on_its_own_division_and_mixed_ones_until_all_are_home() -> None:
    drill = Drill(material=OneNote(beats=4), legs=(Leg(F(3)), Leg(F(2), (F(3),))), accents=Walk(bars=1))
    first, mixed = walk_homes(read(drill))
    assert (first.bars, first.notes) == (3, 36)
    # Two and three stations meet after six bars, of ten notes each.
    assert (mixed.bars, mixed.notes, len(mixed.stations)) == (6, 60, 6)
    assert mixed.stations[1][0] == "&/trip"


def test_the_gap_between_stations_is_one_more_than_the_division() -> None:
    reading = walked(Walk(width=1, bars=1), bars=5)
    numbers = [index for index, event in enumerate(reading.notes) if event.accent == "accent"]
    between = [after - before for before, after in pairwise(numbers)]
    (found,) = walk_homes(reading)
    assert (found.gap, found.home_gap) == (5, 1)
    assert [gap for gap in between if gap != 4] == [5, 5, 5, 1]


def test_typed_accents_go_round_over_the_notes() -> None:
    typed = TypedAccents(cycle=("accent", "plain", "ghost"), restart="bar")
    reading = read(Drill(material=OneNote(beats=8), legs=legs(2), accents=typed))
    levels = [event.accent for event in reading.notes]
    assert levels[:4] == ["accent", "plain", "ghost", "accent"]
    assert levels[8:11] == ["accent", "plain", "ghost"]


@pytest.mark.parametrize(
    ("make", "field"),
    [
        (lambda: Walk(width=0), "accents.width"),
        (lambda: Walk(bars=17), "accents.bars"),
        (lambda: TypedAccents(cycle=()), "accents.cycle"),
    ],
    ids=["width", "bars", "cycle"],
)
def test_accents_that_cannot_be_are_refused(make: object, field: str) -> None:
    with pytest.raises(OutOfRange) as refused:
        make()  # type: ignore[operator]
    assert refused.value.field == field
