"""``ripresa sums``: all numbers that are told of a drill, as the issue of independent arithmetic found them right."""

import io
import json
import sys
from typing import Any

import jsonschema
import pytest

from ripresa.cli import main

Found = dict[str, Any]
ONE = {"kind": "one_note", "beats": 8}


def mixed(*divisions: int | str) -> list[Found]:
    first, *rest = (str(one) for one in divisions)
    return [{"division": first, "following": rest}]


@pytest.fixture
def sums(monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]) -> Any:
    def told(bpm: int = 92, **drill: Any) -> Found:
        text = json.dumps({"format": "ripresa.drill/1", "material": ONE, "legs": mixed(4), **drill})
        monkeypatch.setattr(sys, "stdin", io.TextIOWrapper(io.BytesIO(text.encode())))
        assert main(["sums", "-", "--bpm", str(bpm)]) == 0
        found: Found = json.loads(capsys.readouterr().out)
        return found

    return told


def test_what_it_prints_fits_its_schema(sums: Any, capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["sums-schema"]) == 0
    schema = json.loads(capsys.readouterr().out)
    found = sums(
        accents={"kind": "walk"},
        hands={"kind": "by_order", "cycle": ["R", "L"]},
        breath="4",
        click={"kind": "named", "plan": "off_beats"},
    )
    jsonschema.validate(found, schema)
    jsonschema.validate(sums(accents={"kind": "every_nth", "size": 5}, material={"kind": "line"}), schema)
    keys = "legs peak_nps average_nps limiting motions_nps strikes_nps gears fit groups lead walk landing click breath"
    assert {*keys.split(), "twins", "seconds"} <= set(found)
    assert (found["walk"][0]["home_bars"], found["walk"][0]["gap"]) == (8, 5)
    assert (found["lead"]["home_beats"], found["lead"]["load"][0]["strikes"]) == (1, 16)
    assert found["breath"][0]["needed_bpm"] == 120
    assert found["click"]["off_beat"][0] == "the & of beat 1"


def test_groups_and_landings_of_a_line_that_arrives(sums: Any) -> None:
    line = {"kind": "line", "text": " ".join("1" * 35), "shift": "13"}
    found = sums(material=line, accents={"kind": "every_nth", "size": 5})
    starts = [(one["bar"], one["beat"], one["count"]) for one in found["groups"][0]["starts"]]
    assert starts[:2] == [(1, 4, "e"), (2, 1, "&")]
    end = found["landing"][0]["end"]
    assert (end["bar"], end["beat"], found["landing"][0]["missing_slots"]) == (4, 1, 0)


def test_a_line_through_chords_enters_where_it_enters(sums: Any) -> None:
    line = {"kind": "line", "text": "1 3 5", "through": "C | F"}
    second = sums(material=line)["landing"][0]["second"]
    assert (second["bar"], second["beat"]) == (2, 1)


@pytest.mark.parametrize(
    ("plan", "per_minute", "gap", "drift"),
    [
        ("every_beat", 108, 0.56, 6),
        ("two_and_four", 54, 1.11, 11),
        ("every_bar", 27, 2.22, 22),
        ("every_2_bars", 13.5, 4.44, 44),
        ("every_4_bars", 6.75, 8.89, 89),
    ],
)
def test_a_click_in_figures(sums: Any, plan: str, per_minute: float, gap: float, drift: int) -> None:
    click = sums(108, click={"kind": "named", "plan": plan})["click"]
    assert (click["per_minute"], round(click["gap"], 2), round(click["drift_1_percent"])) == (per_minute, gap, drift)
    if plan == "every_4_bars":
        assert click["dial"].startswith("6.75 clicks a minute")


def test_half_a_note_a_beat_at_66_is_said_to_the_hundredth(sums: Any) -> None:
    assert sums(66, legs=mixed("1/2"))["peak_nps"] == 0.55


def test_groups_that_begin_again_at_each_beat_come_home_every_beat(sums: Any) -> None:
    (group,) = sums(accents={"kind": "every_nth", "size": 3, "restart": "beat"})["told"]
    assert group["sentences"][-1] == "They begin again at each beat, so they come home every beat."


def test_a_place_in_fives_cannot_be_misread(sums: Any) -> None:
    found = sums(legs=mixed(5), accents={"kind": "every_nth", "size": 4})["groups"][0]["starts"]
    assert [one["name"] for one in found[:3]] == ["", "5th of five", "4th of five"]


def scale(octaves: int = 2, **drill: Any) -> Found:
    return {"material": {"kind": "scale_run", "tonic": "C", "octaves": octaves}, **drill}


def test_two_hands_are_told_as_one_counts_them(sums: Any, capsys: pytest.CaptureFixture[str]) -> None:
    left = {"plays": {"kind": "parallel"}, "legs": mixed(2)}
    found = sums(60, **scale(second=left, legs=mixed(3), instrument="piano", fingering="usual"))
    (cycle,) = found["against"]
    assert (cycle["strokes"], cycle["together"]) == (["0", "1/3", "1/2", "2/3"], ["0"])
    assert (cycle["gap_cycle"], round(cycle["gap_ms"], 1)) == ("1/6", 166.7)
    assert [cycle[f"{hand}_nps"] for hand in ("right", "left", "both")] == [3, 2, 4]
    # C major up and down: the right thumb passes before F and C, the left one after G and C (five fingers, then three).
    assert found["thumbs"]["right"][:3] == [4, 8, 11]
    assert found["thumbs"]["left"][:3] == [6, 9, 13]
    main(["sums-schema"])
    jsonschema.validate(found, json.loads(capsys.readouterr().out))


def test_a_picked_pattern_is_told_with_its_shapes(sums: Any) -> None:
    picked = {"kind": "picked", "chords": "C | G", "pattern": "p i m a"}
    found = sums(60, material=picked, legs=mixed(2), instrument="guitar")["strings"]
    assert [shape["frets"] for shape in found["shapes"]] == ["x32010", "320003"]
    # Strings 5321 6321 6321 4321, from one to the next: 211 5 311 5 311 3 111.
    assert found["crossed"] == 2 + 1 + 1 + 5 + 3 + 1 + 1 + 5 + 3 + 1 + 1 + 3 + 1 + 1 + 1
    assert found["twice"] == []


def test_a_breath_of_each_rung_is_printed(
    sums: Any, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    drill = scale(hands={"kind": "articulated"}, breath="3", instrument="clarinet")
    found = sums(60, **drill)
    # Seven beats up and down in sixteenths: 7 · 60 / 3.
    assert found["one_breath_bpm"] == 140
    assert found["breaks"] == [{"below": "Bb4", "above": "B4", "crossings": 2}]
    assert found["sounding_key"] == "B♭"
    assert found["circuit"][0]["cycle"] == ["T", "-", "T", "T"]
    text = json.dumps({"format": "ripresa.drill/1", "legs": mixed(4), **drill})
    monkeypatch.setattr(sys, "stdin", io.TextIOWrapper(io.BytesIO(text.encode())))
    assert main(["breath", "-", "--from", "60", "--to", "150", "--rule", "even", "--step", "10"]) == 0
    rungs = json.loads(capsys.readouterr().out)
    assert [rung["bpm"] for rung in rungs if rung["breaths"] == 1] == [140, 150]
    assert all(breath["seconds"] <= 3 and breath["fits"] for rung in rungs for breath in rung["plan"])
    assert all(sum(breath["notes"] for breath in rung["plan"]) == 29 for rung in rungs)
