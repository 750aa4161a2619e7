import json
from pathlib import Path

import jsonschema
import pytest
from hypothesis import given, settings

from ripresa.core.drill import Drill
from ripresa.core.errors import RipresaError
from ripresa.core.reading import read
from ripresa.formats.drill_file import FORMAT, read_drill, schema, write_drill
from tests.strategies import drills

CHECK = jsonschema.Draft202012Validator(schema())
DOCS = Path(__file__).parents[2] / "docs"


@settings(max_examples=50)
@given(drills)
def test_a_drill_comes_back_from_its_file_as_it_was(drill: Drill) -> None:
    again = read_drill(write_drill(drill))
    assert again == drill
    assert [event.onset for event in read(again).events] == [event.onset for event in read(drill).events]


@settings(max_examples=40)
@given(drills)
def test_every_file_fits_the_schema(drill: Drill) -> None:
    CHECK.validate(json.loads(write_drill(drill)))


def test_what_is_left_out_takes_its_default() -> None:
    assert read_drill(json.dumps({"format": FORMAT})) == Drill()


def test_the_example_in_the_documentation_is_a_drill_file() -> None:
    text = (DOCS / "drill-format.md").read_text()
    example = text.split("```json")[1].split("```")[0]
    assert read_drill(example).title == "Ferry stairs"


@pytest.mark.parametrize(
    ("text", "says", "field"),
    [
        pytest.param("not json", "not JSON at line 1, column 1", "file", id="no JSON"),
        pytest.param("[1]", "no “format”", "format", id="no drill file"),
        pytest.param('{"format": "ripresa.drill/9"}', "does not know", "format", id="a later version"),
        pytest.param('{"format": "F", "bpm"', "not JSON", "file", id="cut off"),
        pytest.param("[" * 100_000, "not JSON", "file", id="nested without end"),
        pytest.param(" " * 1_000_001, "over 1 MB", "file", id="too large"),
    ],
)
def test_a_broken_file_gets_a_sentence(text: str, says: str, field: str) -> None:
    with pytest.raises(RipresaError, match=says) as refused:
        read_drill(text)
    assert refused.value.field == field


@pytest.mark.parametrize(
    ("part", "says", "field"),
    [
        ({"bpm": 0.1}, "bpm", "bpm"),
        ({"bpm": True}, "bpm", "bpm"),
        ({"bpm": "0"}, "cannot be played", "bpm"),
        ({"tempo": "84"}, "not a part of this", "tempo"),
        ({"material": {"kind": "opera"}}, "“opera” is not a kind that Ripresa knows", "material.kind"),
        ({"material": {"tonic": "D"}}, "does not say its kind", "material.kind"),
        ({"legs": [{"division": "17"}]}, "not a division", "legs.division"),
        ({"legs": "2 3 4"}, "should be a list", "legs"),
        ({"seam": "glue"}, "Use 'hold', 'straight_on'", "seam"),
        ({"accents": {"kind": "every_nth", "size": "five"}}, "should be a whole number", "accents.size"),
        ({"title": 5}, "should be a text", "title"),
    ],
    ids=lambda value: next(iter(value)) if isinstance(value, dict) else "",
)
def test_a_bad_part_is_named(part: dict[str, object], says: str, field: str) -> None:
    with pytest.raises(RipresaError, match=says) as refused:
        read_drill(json.dumps({"format": FORMAT, **part}))
    assert refused.value.field == field
