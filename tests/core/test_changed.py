from dataclasses import fields, replace
from typing import Any

import pytest
from hypothesis import given, settings

from ripresa.core.drill import Drill, Enters, FootLayer, Hits, Leg
from ripresa.core.drill.accents import EveryNth, NoAccents
from ripresa.core.drill.click import NamedClick
from ripresa.core.drill.hands import ByPlace
from ripresa.core.drill.material import Line, OneNote
from ripresa.core.exact import Fraction as F
from ripresa.core.reports import changed_told
from ripresa.core.reports.told.changed import _FIELDS
from ripresa.core.rhythm import Swing
from tests.strategies import drills, legs

BEFORE = Drill(title="Slip steps", material=OneNote(beats=4), legs=legs(2), instrument="guitar")


@pytest.mark.parametrize(
    ("changed", "told"),
    [
        ({"bpm": F(80)}, ["tempo 72 → 80"]),
        ({"bpm": F(145, 2)}, ["tempo 72 → 72½"]),
        ({"title": "Slip stairs"}, ["title “Slip steps” → “Slip stairs”"]),
        ({"legs": legs(2, 4)}, ["divisions 2 → 4 instead of 2"]),
        ({"legs": (Leg(F(4)),)}, ["divisions 2 → 4"]),
        ({"material": OneNote(beats=8)}, ["material one note for 4 beats → one note for 8 beats"]),
        ({"accents": NoAccents()}, ["accents each beat → nothing"]),
        ({"accents": EveryNth(size=3)}, ["accents each beat → the first of every 3 notes"]),
        ({"hands": ByPlace()}, ["hands any hand → the arm swings down on the beat"]),
        ({"swing": Swing(F(2), 2)}, ["swing straight → 2:1 on eighths"]),
        ({"click": NamedClick("two_and_four")}, ["click every beat → 2 and 4"]),
        ({"meter": "3/4"}, ["meter 4/4 → 3/4"]),
        ({"breath": F(1)}, ["breath none → 1 s"]),
        ({"register": 1}, ["register as written → +1"]),
        ({"foot": FootLayer("left")}, ["foot no foot → the left foot every beat"]),
        ({"enters": Enters(foot=1, hands=3)}, ["entries all from bar 1 → the hands from bar 3"]),
        ({"hits": Hits(text="1")}, ["hits none → hits on 1, all between them filled"]),
        ({"tags": ("warm up",)}, ["tags none → warm up"]),
        ({"bpm": F(80), "title": "Quicker"}, ["title “Slip steps” → “Quicker”", "tempo 72 → 80"]),
        ({}, []),
    ],
)
def test_what_changed_is_told_in_a_few_words(changed: dict[str, Any], told: list[str]) -> None:
    assert list(changed_told(BEFORE, replace(BEFORE, **changed))) == told


def test_what_is_too_long_for_two_is_told_as_it_is_now_and_what_is_longer_by_its_name() -> None:
    long, longer = (Line(text=" ".join(["1 2 3 4 5 6 7 8"] * often)) for often in (3, 20))
    from_long = changed_told(replace(BEFORE, material=long), replace(BEFORE, material=OneNote(beats=4)))
    assert from_long == ("material now one note for 4 beats",)
    assert changed_told(BEFORE, replace(BEFORE, material=longer)) == ("material",)


@settings(max_examples=60)
@given(drills, drills)
def test_each_field_that_changed_is_told_once_and_no_other(one: Drill, other: Drill) -> None:
    told = changed_told(one, other)
    names = [_FIELDS[each.name][0] for each in fields(Drill) if getattr(one, each.name) != getattr(other, each.name)]
    assert len(told) == len(names)
    assert all(said.startswith(name) for said, name in zip(told, names, strict=True))


def test_every_field_of_a_drill_has_its_words() -> None:
    assert list(_FIELDS) == [one.name for one in fields(Drill)]


@pytest.mark.parametrize(
    ("before", "after", "told"),
    [
        (46, 94, f"title “{'b' * 46}” → “{'a' * 94}”"),
        (47, 94, f"title now “{'a' * 94}”"),
        (46, 95, "title"),
    ],
)
def test_how_long_a_value_may_be_to_be_told(before: int, after: int, told: str) -> None:
    drills = (replace(BEFORE, title=sign * count) for sign, count in (("b", before), ("a", after)))
    assert changed_told(*drills) == (told,)
