import io
import json
from pathlib import Path
from typing import Any

import mido
import pytest
from flask.testing import FlaskClient
from werkzeug.http import parse_options_header

from ripresa.cli import main
from ripresa.core.drill import Drill
from ripresa.core.drill.material import OneNote
from ripresa.formats.drill_file import FORMAT, plain
from ripresa.formats.exports import EXPORTS, Export
from ripresa.web.answers import file_name
from tests.conftest import Studio
from tests.strategies import legs
from tests.web.unpacked import unpacked


def body(**parts: object) -> dict[str, object]:
    return {"drill": {**plain(Drill()), **parts}}


def test_a_new_drill_may_leave_everything_to_the_server(client: FlaskClient) -> None:
    made = client.post("/api/drills", json={"drill": {"title": "New drill"}})
    assert made.status_code == 201
    assert made.json is not None
    assert made.json["drill"]["legs"] == [{"division": str(division), "following": []} for division in (2, 3, 4)]


def test_each_change_is_a_version_and_old_ones_are_found(client: FlaskClient, studio: Studio) -> None:
    address = f"/api/drills/{studio.drill.id}"
    changed = client.put(address, json={**body(title="Second"), "based_on": 1})
    assert changed.json is not None
    assert changed.json["version"] == 2
    assert client.get(f"{address}?version=1").json["drill"]["title"] == "Slip steps"  # type: ignore[index]
    client.put(address, json={**body(title="Second", bpm="80", meter="3/4"), "based_on": 2})
    versions: Any = client.get(f"{address}/versions").json
    assert [one["version"] for one in versions["versions"]] == [3, 2, 1]
    assert versions["versions"][0]["changed"] == ["tempo 72 → 80", "meter 4/4 → 3/4"]
    assert versions["versions"][1]["changed"][0] == "title “Slip steps” → “Second”"
    assert versions["versions"][2]["changed"] == []


def test_a_change_from_an_old_version_is_a_conflict(client: FlaskClient, studio: Studio) -> None:
    address = f"/api/drills/{studio.drill.id}"
    client.put(address, json={**body(title="Theirs"), "based_on": 1})
    refused = client.put(address, json={**body(title="Mine"), "based_on": 1})
    assert refused.status_code == 409
    assert refused.json is not None
    assert refused.json["field"] == "based_on"


@pytest.mark.parametrize(
    ("part", "says", "field"),
    [
        ({"accents": {"kind": "every_nth", "size": 99}}, "2 to 64 notes, not 99", "accents.size"),
        ({"bpm": "84.5"}, "not an exact number", "drill.bpm"),
        ({"legs": []}, "at least one division", "legs"),
        ({"speed": 5}, "not a part of this", "drill.speed"),
    ],
    ids=lambda value: next(iter(value)) if isinstance(value, dict) else "",
)
def test_a_refusal_has_a_sentence_and_a_field(
    client: FlaskClient, part: dict[str, object], says: str, field: str
) -> None:
    refused = client.post("/api/reading", json=body(**part))
    assert refused.status_code == 422
    assert refused.json is not None
    assert says in refused.json["message"]
    assert refused.json["field"].endswith(field.rsplit(".", maxsplit=1)[-1])


def test_a_reading_is_ready_to_be_drawn(client: FlaskClient) -> None:
    found = client.post("/api/reading", json=body(accents={"kind": "every_nth", "size": 5})).json
    assert found is not None
    row = found["rows"][0]
    assert (row["leg"], row["bar"], row["first"]) == (0, 1, 0)
    assert [event["x"] for event in unpacked(row["events"])] == [0, 0.5, 1, 1.5, 2, 2.5, 3, 3.5]
    assert row["clicks"]["x"] == [0, 1, 2, 3]
    assert row["groups"] == {"rows": 2, "x": [0, 2.5], "end": [2.5, 4], "number": {"from": 1}}
    assert [event["words"] for event in unpacked(row["events"])][:3] == ["1 C3 accent", "& D3", "2 E3"]
    assert found["legs"][2]["nps"] == "4.8"
    assert found["working"] == "72 bpm = 1.2 beats a second; × 4 = 4.8 notes a second"
    assert [gear["name"] for gear in found["gears"]] == ["2 → 3", "3 → 4"]
    assert [(gear["words"], gear["is_narrow"]) for gear in found["gears"]] == [
        ("half as fast again (+50 %)", False),
        ("a third faster (+33 %)", False),
    ]
    assert [(leg["name"], leg["apart"]) for leg in found["legs"]] == [
        ("eighths", "417 ms"),
        ("triplets", "278 ms"),
        ("sixteenths", "208 ms"),
    ]
    assert (found["division_names"]["5"], found["division_names"]["½"]) == ("fives", "halves")
    # Groups of five on sixteenths: home on a beat after 5 beats, on the bar line after 5 bars.
    fives = found["groups"][2]
    assert (found["group_size"], fives["on"]) == (5, "sixteenths")
    assert (fives["on_beat"], fives["on_bar"]) == ("20 notes, 5 beats", "5 bars, 16 groups")
    assert (fives["starts"][:4], fives["beats"]) == ([0, 1.25, 2.5, 3.75], 20)
    assert fives["stage"] == "not within 29 notes"
    assert fives["also"] == ["The beats hit notes 1, 5, 4, 3, 2, 1 … of the group."]
    assert not any(home["title"].startswith("Groups") for home in found["homes"])


def test_groups_that_begin_anew_are_told_and_are_no_row(client: FlaskClient) -> None:
    accents = {"kind": "every_nth", "size": 5, "restart": "bar"}
    found = client.post("/api/reading", json=body(accents=accents)).get_json()
    assert found["groups"] == []
    assert any(home["title"].startswith("Groups of 5 on") for home in found["homes"])


def test_a_warning_stands_beside_its_line_with_what_it_is_about(client: FlaskClient) -> None:
    run = {"kind": "scale_run", "octaves": 3}
    found = client.post("/api/reading", json=body(material=run, instrument="trumpet")).get_json()
    assert [(one["line"], one["of"]) for one in found["warnings"]] == [("notes", "range")]
    assert found["warnings"][0]["sentence"].startswith("Out of range for trumpet")


def test_a_performance_is_in_seconds(client: FlaskClient) -> None:
    asked = {**body(), "bpm": "96", "click": {"kind": "named", "plan": "none"}, "before": {"listen_bars": 2}}
    found = client.post("/api/performance", json=asked).json
    assert found is not None
    assert found["performance"]["ticks"] == {"rows": 0}
    assert found["performance"]["lead"]["listen_seconds"] == 5.0
    assert found["performance"]["tones"]["at"][1] == pytest.approx(0.3125)
    assert (found["slower"], found["faster"]) == ("92", "100")


def test_a_drill_file_goes_out_and_comes_in(client: FlaskClient, studio: Studio) -> None:
    saved = client.get(f"/api/drills/{studio.drill.id}/file.json")
    assert saved.headers["Content-Disposition"] == "attachment; filename=slip-steps.json"
    assert json.loads(saved.text)["format"] == FORMAT
    opened = client.post("/api/drills/file", json={"text": saved.text})
    assert opened.status_code == 201
    assert opened.json is not None
    assert opened.json["id"] != studio.drill.id
    assert opened.json["drill"]["title"] == "Slip steps"


def test_another_format_is_one_entry(
    client: FlaskClient, studio: Studio, monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    told = Export("a line of text", "text/plain", lambda reading, asked: f"{reading.drill.title} {asked.bpm}".encode())
    monkeypatch.setitem(EXPORTS, "txt", told)
    offered = client.get("/api/choices").get_json()
    assert {"value": "txt", "label": "a line of text", "why": ""} in offered["exports"]
    assert [one["value"] for one in offered["sounds"]] == ["mp3", "wav", "flac", "ogg"]
    saved = client.get(f"/api/drills/{studio.drill.id}/file.txt?bpm=120")
    assert (saved.text, saved.mimetype) == ("Slip steps 120", "text/plain")
    assert saved.headers["Content-Disposition"] == "attachment; filename=slip-steps.txt"
    source = tmp_path / "drill.json"
    source.write_bytes(client.get(f"/api/drills/{studio.drill.id}/file.json").data)
    assert main(["export", str(source), "--bpm", "90", "--to", str(tmp_path / "drill.txt")]) == 0
    assert (tmp_path / "drill.txt").read_text() == "Slip steps 90"
    refused = client.get(f"/api/drills/{studio.drill.id}/file.doc")
    assert refused.status_code == 404
    assert refused.get_json()["message"] == (
        "A drill is no file of the kind “doc”. Take one of json, mid, musicxml, mxl, txt."
    )


def test_a_broken_file_is_refused_and_nothing_is_kept(client: FlaskClient) -> None:
    refused = client.post("/api/drills/file", json={"text": "{"})
    assert refused.status_code == 422
    assert client.get("/api/drills").json == {"drills": []}


def test_midi_goes_out_at_another_tempo(client: FlaskClient, studio: Studio) -> None:
    saved = client.get(f"/api/drills/{studio.drill.id}/file.mid?bpm=120")
    conductor = mido.MidiFile(file=io.BytesIO(saved.data)).tracks[0]
    assert next(message.tempo for message in conductor if message.type == "set_tempo") == 500_000


@pytest.mark.parametrize(
    "address", ["/api/drills/9", "/api/drills/9/versions", "/api/drills/9/file.json", "/api/drills/9/file.mid"]
)
def test_a_drill_that_does_not_exist(client: FlaskClient, address: str) -> None:
    missing = client.get(address)
    assert missing.status_code == 404
    assert missing.json == {"message": "This drill does not exist.", "field": None}


@pytest.mark.parametrize(("text", "exact", "label"), [("84½", "169/2", "84½"), ("84,25", "337/4", "84¼")])
def test_typed_numbers_are_read_exactly(client: FlaskClient, text: str, exact: str, label: str) -> None:
    assert client.get("/api/amount", query_string={"text": text}).json == {"exact": exact, "label": label}


def test_a_typed_tempo_that_cannot_be_played(client: FlaskClient) -> None:
    refused = client.get("/api/amount", query_string={"text": "5000", "what": "bpm"})
    assert refused.json == {
        "message": "A tempo of 5000 bpm cannot be played. Use 1 to 1000 bpm.",
        "field": "bpm",
    }


def test_a_ready_drill_is_taken_as_a_start_and_the_shelf_stays(client: FlaskClient) -> None:
    shelf = client.get("/api/shelf").json
    assert shelf is not None
    line = next(one for one in shelf["drills"] if one["key"] == "lighthouse")
    assert (line["aim"], line["divisions"], line["length"]) == ("accents", "4 a beat", "8 bars")
    assert (line["what"], line["family"], line["level"]) == (
        "One note, sixteenths, the accent walks",
        "any instrument",
        "further on",
    )
    places = next(one for one in shelf["drills"] if one["key"] == "five-places-2")
    assert (places["what"], places["family"], places["level"]) == (
        "A minor pentatonic, the whole range, at fret 5, eighths",
        "strings",
        "first year",
    )
    assert (shelf["levels"], shelf["families"][1]) == (["first year", "on the way", "further on"], "keys")
    heard = client.get("/api/shelf/lighthouse").get_json()["drill"]
    assert (heard["title"], heard["bpm"]) == ("Lighthouse", "84")
    assert client.get("/api/shelf/nothing").status_code == 404
    made = client.post("/api/shelf/lighthouse", json={})
    assert made.status_code == 201
    assert made.json is not None
    assert made.json["drill"]["accents"] == {"kind": "walk", "width": 1, "bars": 2}
    assert len(client.get("/api/drills").json["drills"]) == 1  # type: ignore[index]
    assert client.post("/api/shelf/nothing", json={}).status_code == 404


def test_a_drill_is_put_away_and_taken_back(client: FlaskClient, studio: Studio) -> None:
    def titles(address: str) -> list[str]:
        found = client.get(address).json
        assert found is not None
        return [line["title"] for line in found["drills"]]

    address = f"/api/drills/{studio.drill.id}/archived"
    assert client.put(address, json={"archived": True}).status_code == 200
    assert (titles("/api/drills"), titles("/api/drills?archived=true")) == ([], ["Slip steps"])
    client.put(address, json={"archived": False})
    assert titles("/api/drills") == ["Slip steps"]
    assert client.put("/api/drills/99/archived", json={"archived": True}).status_code == 404


def performed(client: FlaskClient, **body: object) -> Any:
    drill = plain(Drill(material=OneNote(beats=4), legs=legs(2, 3)))
    return client.post("/api/performance", json={"drill": drill, **body}).get_json()


def test_a_part_goes_round_and_is_practice(client: FlaskClient) -> None:
    whole = performed(client)
    assert (whole["is_practice"], whole["bars"], whole["seams"]) == (False, 2, ["the seam 1 to 2"])
    for loop in ({"bars": {"first": 2, "last": 2}}, {"seam": 0}):
        part = performed(client, part=loop)
        assert part["is_practice"] is True
        assert part["performance"]["loop_seconds"] < whole["performance"]["loop_seconds"]
    assert performed(client, turns=1)["performance"]["yours_from"] == whole["performance"]["loop_seconds"]
    assert performed(client, part={"step": "hits"})["reading"]["notes"] == 8
    assert performed(client, part={"unmoved": True})["is_measured"] is True


def test_a_part_that_is_not_there_is_refused(client: FlaskClient) -> None:
    assert performed(client, part={"seam": 1})["message"].startswith("This drill has 1 seam")
    assert performed(client, part={"bars": {"first": 1, "last": 3}})["field"] == "loop"


def test_half_the_tempo_with_twice_the_notes_keeps_the_speed(client: FlaskClient) -> None:
    whole = performed(client, bpm="120")
    half = performed(client, bpm=whole["half"], part={"divide": "twice"})
    assert (whole["half"], whole["double"]) == ("60", "240")
    assert half["reading"]["peak_nps"] == whole["reading"]["peak_nps"]
    assert half["is_practice"] is True


def test_a_tempo_is_tapped_in(client: FlaskClient) -> None:
    assert client.post("/api/tempo/tapped", json={"taps": [0, 0.5, 1]}).get_json()["exact"] == "120"
    assert client.post("/api/tempo/tapped", json={"taps": [0]}).get_json()["field"] == "taps"


def test_the_rail_shows_the_click_that_is_heard(client: FlaskClient) -> None:
    other = performed(client, click={"kind": "typed", "text": "2 4"})
    assert other["reading"]["rows"][0]["clicks"]["x"] == [1.0, 3.0]
    assert other["is_practice"] is False


@pytest.mark.parametrize(
    "title", ["Ćwiczenie pięć", "Σκάλα σε σολ", "五連符の練習", "Slip “steps”; 2/3", "♩♩♩", "a\nb"]
)
@pytest.mark.parametrize("kind", ["json", "mid?bpm=224/3", "musicxml"])
def test_a_title_in_any_script_is_a_name_to_save_under(client: FlaskClient, title: str, kind: str) -> None:
    kept = client.post("/api/drills", json={"drill": {"title": title}}).get_json()
    with client.get(f"/api/drills/{kept['id']}/file.{kind}") as file:
        assert file.status_code == 200
        name = parse_options_header(file.headers["Content-Disposition"])[1]["filename"]
        assert name == f"{file_name(title)}.{kind.partition('?')[0]}"


def test_midi_slower_than_it_can_hold_is_refused(client: FlaskClient, studio: Studio) -> None:
    refused = client.get(f"/api/drills/{studio.drill.id}/file.mid?bpm=2")
    assert (refused.status_code, refused.get_json()["field"]) == (422, "bpm")
    assert refused.get_json()["message"].startswith("MIDI cannot hold 2 quarters a minute")
