"""The recap of a lesson: what was played today, what stands and comes next, and words in the teacher's own."""

from typing import Any

import pytest
from flask.testing import FlaskClient

from ripresa.core.errors import Unreadable
from ripresa.core.studio import LONGEST_GLOSSARY, Meaning, StudioSettings, parse_glossary, words_used
from tests.conftest import Studio
from tests.web.test_practice_file import results, send


def json_of(answer: Any, status: int = 200) -> Any:
    assert answer.status_code == status, answer.text
    return answer.json


def test_a_recap_says_what_was_played_what_stands_and_what_comes_next(client: FlaskClient, studio: Studio) -> None:
    # The clock of the tests stands on this day.
    today = json_of(client.get(f"/api/students/{studio.student.id}/recap"))["title"]
    assert today.startswith("Mira Sund, ")
    assert json_of(send(client, results(client, studio, played_at=_today(client), mark="clean")))["kept"] == 1
    found = json_of(client.get(f"/api/students/{studio.student.id}/recap"))
    sections = {one["title"]: one["lines"] for one in found["sections"]}
    assert sections["Played"] == ["Slip steps: 1 take at ♩ = 84, 1 clean."]
    assert sections["Written"] == ["Asked: “Is the & late?”"]
    assert sections["What stands"][0].startswith("Slip steps: rung 1 of 5, ♩ = 84; last clean at 84")
    assert any(line.startswith("Next lesson ") for line in sections["Next"])
    assert "clean: no note left out, none too many, and easy enough to talk meanwhile" in sections["Words"]
    assert "rung: one tempo of the way up" in sections["Words"]
    assert not any(line.startswith("ghost") for line in sections["Words"])
    assert found["text"].startswith(f"{found['title']}\n\nPlayed\n- Slip steps: 1 take")


def _today(client: FlaskClient) -> str:
    clock = client.application.config["CLOCK"]
    return str(clock().isoformat())


def test_the_words_are_the_teachers_own(client: FlaskClient, studio: Studio) -> None:
    settings = json_of(client.get("/api/settings"))["settings"]
    own = {**settings, "glossary": "rung: eine Stufe\n\nlesson: Stunde: Mittwoch"}
    json_of(client.put("/api/settings", json={"settings": own}))
    found = json_of(client.get(f"/api/students/{studio.student.id}/recap"))
    words = next(one["lines"] for one in found["sections"] if one["title"] == "Words")
    assert words == ["rung: eine Stufe", "lesson: Stunde: Mittwoch"]
    wrong = client.put("/api/settings", json={"settings": {**settings, "glossary": "rung\n"}})
    assert json_of(wrong, 422)["message"].startswith("Line 1, “rung”, should be a word")
    assert json_of(client.get("/api/settings"))["settings"]["glossary"] == own["glossary"]


def test_a_word_is_found_alone_and_in_the_plural() -> None:
    glossary = parse_glossary("leg: a stretch\nhit: a note\nC++: a word of signs")
    assert [one.word for one in words_used("Two LEGS, a white C++.", glossary)] == ["leg", "C++"]


@pytest.mark.parametrize("text", ["seam", ": what", "seam:", "x" * 50 + ": y", "a: b\n" * LONGEST_GLOSSARY])
def test_a_line_that_is_none_is_refused(text: str) -> None:
    with pytest.raises(Unreadable) as refused:
        parse_glossary(text)
    assert refused.value.field == "glossary"


def test_the_usual_words_are_well_formed() -> None:
    usual = parse_glossary(StudioSettings().glossary)
    assert Meaning("seam", "the change from one stretch to the next") in usual
    assert [one.word for one in usual] == sorted(one.word for one in usual)
