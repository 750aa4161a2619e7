"""Scores and tools over the API: parts are listed, bars become a drill, tools change one, files come out."""

from base64 import b64encode
from typing import Any

import pytest
from flask.testing import FlaskClient

from ripresa.core.drill import Drill, Leg
from ripresa.core.drill.accents import NoAccents
from ripresa.core.drill.material import Line, Strum
from ripresa.core.exact import Fraction as F
from ripresa.core.reading import read
from ripresa.formats.drill_file import plain
from ripresa.formats.midi import write_midi


def midi() -> str:
    drill = Drill(material=Line("C4*1/2 D4 E4*1 | G4*4", rhythm="own"), accents=NoAccents())
    return b64encode(write_midi(read(drill), drill.bpm, with_click=False)).decode()


def test_a_score_is_opened_by_part_and_bars(client: FlaskClient) -> None:
    parts = client.post("/api/scores/parts", json={"base64": midi()}).get_json()["parts"]
    assert [one["words"] for one in parts] == ["notes: 6 bars in 4/4, 12 notes"]
    body = {"base64": midi(), "part": 0, "first_bar": 1, "last_bar": 2, "title": "Sea lane"}
    answer = client.post("/api/scores/drill", json=body)
    assert answer.status_code == 201
    kept = answer.get_json()["kept"]
    assert kept["drill"]["material"]["text"] == "r*2 C4*1/2 D4 E4*1 | G4*4"
    assert client.get(f"/api/drills/{kept['id']}").get_json()["drill"]["title"] == "Sea lane"


@pytest.mark.parametrize(
    ("change", "field", "sentence"),
    [
        ({"base64": "??"}, "file", "This file did not arrive whole. Choose it again."),
        ({"base64": b64encode(b"hello").decode()}, "file", "This is not MusicXML that can be read"),
        ({"part": 3}, "part", "This file has 1 part with notes"),
        ({"last_bar": 99}, "first_bar", "Choose bars from 1 to 6"),
    ],
)
def test_what_cannot_be_opened_is_told(client: FlaskClient, change: dict[str, Any], field: str, sentence: str) -> None:
    body = {"base64": midi(), "part": 0, "first_bar": 1, "last_bar": 2, "title": "x"} | change
    answer = client.post("/api/scores/drill", json=body)
    assert answer.status_code == 422
    assert answer.get_json()["field"] == field
    assert answer.get_json()["message"].startswith(sentence)


def use(client: FlaskClient, tool: str, drill: Drill, **more: int) -> Any:
    return client.post("/api/tool", json={"tool": tool, "drill": plain(drill), **more}).get_json()


def test_tools_give_the_changed_drill_back(client: FlaskClient) -> None:
    drill = Drill(material=Line("1 2 3"))
    changed = {tool: use(client, tool, drill)["drill"] for tool in ("double", "halve", "backwards", "trim", "lengthen")}
    assert [leg["division"] for leg in changed["double"]["legs"]] == ["4", "6", "8"]
    assert [leg["division"] for leg in changed["halve"]["legs"]] == ["1", "3/2", "2"]
    texts = {tool: changed[tool]["material"]["text"] for tool in ("backwards", "trim", "lengthen")}
    assert texts == {"backwards": "3 2 1", "trim": "1 2 /3", "lengthen": "1 2 3 3"}
    assert use(client, "arrive", drill, bar=2, beat=1)["drill"]["material"]["shift"] == "5"


def test_a_tool_that_does_not_fit_is_told(client: FlaskClient) -> None:
    chords = Drill(material=Strum(), legs=(Leg(F(1)),))
    assert use(client, "trim", chords)["message"].startswith("This is done with notes one after the other.")


def test_sums_of_a_line_name_its_landing(client: FlaskClient) -> None:
    drill = plain(Drill(material=Line("1 2 3 4 5 4 3 2 1 /7", through="")))
    homes = client.post("/api/reading", json={"drill": drill}).get_json()["homes"]
    by_title = {home["title"]: " ".join(home["sentences"]) for home in homes}
    assert "home after 9 bars, 8 statements" in by_title["Landing, 2 a beat"]
    assert by_title["Cut short"].startswith("1 note cut, 9 notes left")


def test_a_drill_is_saved_as_musicxml(client: FlaskClient) -> None:
    kept = client.post("/api/drills", json={"drill": plain(Drill(title="Quay"))}).get_json()
    answer = client.get(f"/api/drills/{kept['id']}/file.musicxml")
    assert answer.headers["Content-Disposition"] == "attachment; filename=quay.musicxml"
    assert b"<score-partwise" in answer.data
