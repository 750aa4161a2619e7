"""What is sent column by column is what was worked out, row by row."""

import json
from typing import Any

import msgspec
from flask.testing import FlaskClient
from hypothesis import given, settings
from jsonschema import Draft202012Validator

from ripresa.core.drill import Drill
from ripresa.core.playing import perform
from ripresa.core.reading import read
from ripresa.core.shelf import SHELF
from ripresa.formats.drill_file import plain as drill_values
from ripresa.web.shapes.performance import score_shape
from ripresa.web.shapes.reading import reading_shape
from ripresa.web.shapes.sent import as_json
from ripresa.web.shapes.table import Table
from tests.strategies import drills
from tests.web.unpacked import unpacked


def plain(rows: Table[Any]) -> list[Any]:
    """Return the rows as they are, one by one, numbers cut at seven places."""

    def cut(value: Any) -> Any:
        return round(value, 7) if isinstance(value, float) else value

    return [{name: cut(value) for name, value in json.loads(msgspec.json.encode(row)).items()} for row in rows]


@given(drills)
@settings(max_examples=60)
def test_every_row_of_every_table_comes_back(drill: Drill) -> None:
    reading = read(drill)
    shape, score = reading_shape(reading, drill.bpm), score_shape(perform(reading, drill.bpm))
    for row, sent in zip(shape.rows, json.loads(as_json(shape))["rows"], strict=True):
        for table, name in (("events", "EventTable"), ("other", "EventTable"), ("groups", "GroupTable")):
            assert unpacked(sent[table], name) == plain(getattr(row, table))
        assert unpacked(sent["clicks"], "ClickTable") == plain(row.clicks)
    sent = json.loads(as_json(score))
    assert unpacked(sent["tones"], "TimedToneTable") == plain(score.tones)
    assert unpacked(sent["bars"], "BarSpanTable") == plain(score.bars)


def test_what_is_sent_is_as_it_is_described(client: FlaskClient) -> None:
    described = client.get("/api/openapi.json").get_json()["components"]
    held = {
        name: Draft202012Validator({**described["schemas"][f"{name.title()}Shape"], "components": described})
        for name in ("reading", "performance", "shelf")
    }
    # Every third: among them are all materials, two hands and every layer.
    for one in SHELF[::3]:
        for name in ("reading", "performance"):
            sent = client.post(f"/api/{name}", json={"drill": drill_values(one.drill)}).get_json()
            assert not list(held[name].iter_errors(sent)), (name, one.key)
    assert not list(held["shelf"].iter_errors(client.get("/api/shelf").get_json()))


def test_the_columns_of_a_plain_drill_are_few(client: FlaskClient) -> None:
    found = client.post("/api/performance", json={"drill": {"legs": [{"division": "4"}]}}).get_json()
    # What is default everywhere is not sent, and what is alike everywhere is sent once.
    tones, events = found["performance"]["tones"], found["reading"]["rows"][0]["events"]
    assert {"loud", "apart", "also", "drum"}.isdisjoint(tones)
    assert events["width"] == [0.25]
    assert {"chord", "strings", "hit"}.isdisjoint(events)
    assert set(tones["level"]) == {"of", "at"}
