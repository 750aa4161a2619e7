"""Pressing places on the rail changes the typed count, and nothing else."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ripresa.core.changes import click_pressed, gridded, pressed
from ripresa.core.drill import Drill
from ripresa.core.drill.click import DropOut, NamedClick, OfTheSlots, Thinned, TypedClick
from ripresa.core.drill.hands import ByPlace
from ripresa.core.drill.material import Count, OneNote, ScaleRun, Strum
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.reading import read
from tests.strategies import drills, legs, so_many


def counted(text: str, **parts: object) -> Drill:
    return Drill(material=Count(text, **parts), legs=legs(1, 1), hands=ByPlace())  # type: ignore[arg-type]


def text_of(drill: Drill) -> str:
    return drill.material.pattern if isinstance(drill.material, Strum) else drill.material.text  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("text", "event", "expected"),
    [
        pytest.param("1 & 2 & 3 & 4 &", 3, "1 & 2 (&) 3 & 4 &", id="a note falls silent"),
        pytest.param("1 & 2 (&) 3 & 4 &", 3, "1 & 2 & 3 & 4 &", id="a silence sounds"),
        pytest.param("1 & 2 3 4", 3, "1 & 2 & 3 4", id="what was held is struck"),
        pytest.param("1 & 2 & 3 & 4 &", 8 + 3, "1 & 2 (&) 3 & 4 &", id="in the second time it is the same place"),
        pytest.param(">1 & ~2 & 3 4", 1, ">1 (&) ~2 & 3 4", id="accents that are typed stay"),
        pytest.param("1 & 2 & | 1 2", 8, "1 & 2 & | (1) 2", id="in the second bar"),
    ],
)
def test_a_place_is_pressed(text: str, event: int, expected: str) -> None:
    assert text_of(pressed(counted(text), event)) == expected


def test_accents_of_the_drill_are_not_written_into_the_count() -> None:
    assert ">" not in text_of(pressed(counted("1 & 2 & 3 4"), 1))


def test_a_moved_rhythm_is_written_where_it_stands() -> None:
    changed = pressed(counted("1 & 2 & 3 & 4", shift=1), 2)
    assert changed.material == Count("(1) & (2) & 3 & 4 &")


def test_in_another_bar_of_the_progression_it_is_the_same_place_of_the_pattern() -> None:
    drill = Drill(material=Strum(chords="C | G", pattern="1 & 2 & 3 & 4 &"), legs=legs(1))
    assert text_of(pressed(drill, 8)) == "(1) & 2 & 3 & 4 &"


def test_a_finer_grid_opens_places_between() -> None:
    drill = gridded(counted("1 2 3 4"), 4)
    assert len(read(drill).events) == 2 * 16
    assert text_of(pressed(drill, 3)) == "1 a 2 3 4"
    assert {event.division for event in read(gridded(counted("1 2 3 4"), 3)).events} == {F(3)}


def test_one_note_has_to_stay() -> None:
    with pytest.raises(OutOfRange, match="One note has to stay"):
        pressed(counted("1 (2)"), 0)


def test_other_material_is_not_pressed() -> None:
    with pytest.raises(OutOfRange, match="typed as a count"):
        pressed(Drill(material=OneNote()), 0)
    with pytest.raises(OutOfRange, match="no such place"):
        pressed(counted("1 2"), 99)


CLICKED = Drill(material=OneNote(beats=8), legs=legs(4))


@pytest.mark.parametrize(
    ("click", "event", "expected"),
    [
        pytest.param(NamedClick(), 4, TypedClick(text=">1 3 4"), id="a beat falls silent"),
        pytest.param(NamedClick(), 5, TypedClick(text=">1 2 e 3 4"), id="an e is clicked"),
        pytest.param(NamedClick(plan="two_and_four"), 16 + 2, TypedClick(text="(1) & 2 4"), id="in any bar"),
        pytest.param(TypedClick(text="2"), 4, NamedClick(plan="none"), id="the last click leaves none"),
        pytest.param(NamedClick(plan="every_2_bars"), 0, TypedClick(text="(1) | (1)"), id="two bars stay two bars"),
        pytest.param(TypedClick(text="(1) | (1)"), 16, TypedClick(text="(1) | 1"), id="and are pressed again"),
        pytest.param(NamedClick(plan="none"), 3, TypedClick(text="(1) a"), id="the first one"),
        pytest.param(NamedClick(plan="every_2_bars"), 20, TypedClick(text=">1 | 2"), id="over two bars"),
        pytest.param(TypedClick(text="a of 1, 3"), 3, TypedClick(text="(3) a"), id="what was typed in words"),
    ],
)
def test_a_click_is_pressed(click: NamedClick | TypedClick, event: int, expected: object) -> None:
    changed = click_pressed(replace(CLICKED, click=click), event)
    assert changed.click == expected
    assert changed.material == CLICKED.material


def test_a_click_is_pressed_in_fives_and_in_unequal_beats() -> None:
    fives = click_pressed(replace(CLICKED, legs=legs(5)), 3)
    assert fives.click == TypedClick(text=">1/5 .4 2 3 4")
    seven = click_pressed(Drill(material=OneNote(beats=3), legs=legs(2), meter="7/8 (2+2+3)"), 5)
    assert seven.click == TypedClick(text=">1 2 3 &")


@pytest.mark.parametrize(
    ("click", "message"),
    [
        (DropOut(8, 8), "comes round after 16 bars"),
        (Thinned(F(1), F(1, 17)), "lies on no place that can be written"),
    ],
)
def test_a_click_that_cannot_be_written_is_refused(click: DropOut | Thinned, message: str) -> None:
    with pytest.raises(OutOfRange, match=message) as refused:
        click_pressed(replace(CLICKED, click=click), 1)
    assert refused.value.field == "click"


def test_a_click_that_ends_between_meters_begins_anew_with_the_pass() -> None:
    """Three bars of two meters: where the drill begins again, the click begins with its first bar again."""
    three_bars = Drill(
        material=ScaleRun(octaves=1), legs=legs(2), meter="3/4 | 7/8 (2+2+3)", click=OfTheSlots(which="all")
    )
    assert read(three_bars).bars == 3
    silenced = click_pressed(three_bars, 0)
    assert silenced.click == TypedClick(text="(1) & 2 & 3 & | >1 & 2 & 3 & | >1 & 2 & 3")
    before, after = read(three_bars).click_cycle, read(silenced).click_cycle
    assert after.length == before.length
    assert [at for at, _ in after.clicks] == [at for at, _ in before.clicks][1:]
    pressed = click_pressed(replace(three_bars, click=NamedClick()), 0)
    assert pressed.click == TypedClick(text="2 3 | >1 2 3 | >1 2 3")


@so_many(120, 600)
@given(drills, st.data())
def test_pressing_twice_leaves_the_click_where_it_was(drill: Drill, data: st.DataObject) -> None:
    reading = read(drill)
    number = data.draw(st.integers(0, len(reading.events) - 1))
    try:
        twice = click_pressed(click_pressed(drill, number), number)
    except OutOfRange:
        return
    length = 8 * reading.meter.cycle_beats
    before = [at for at, _ in reading.click_cycle.within(length)]
    assert [at for at, _ in read(twice).click_cycle.within(length)] == before
