"""A drill said in one line, by the API."""

from flask.testing import FlaskClient

from ripresa.core.drill import Drill
from ripresa.formats.drill_file import plain


def test_a_sentence_is_understood_with_its_places(client: FlaskClient) -> None:
    said = client.post("/api/say", json={"text": "in A, groups of 7, 96 banana"}).get_json()
    assert [(one["start"], one["end"], one["sets"], one["says"]) for one in said["chips"]] == [
        (3, 4, "key", "A"),
        (6, 17, "accents", "groups of 7"),
        (19, 21, "tempo", "96 bpm"),
    ]
    assert said["unknown"] == [{"text": "banana", "start": 22, "end": 28, "near": []}]
    assert said["told"][0].startswith("Play the scale of A major")


def test_a_sentence_on_a_drill_says_what_changes(client: FlaskClient) -> None:
    said = client.post("/api/say", json={"text": "96", "drill": plain(Drill())}).get_json()
    assert (said["told"], said["drill"]["bpm"]) == (["tempo 72 → 96"], "96")
    assert client.post("/api/say", json={"text": "x" * 500}).status_code == 422
