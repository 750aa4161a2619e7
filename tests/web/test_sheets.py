"""Hand-outs through the API: seen before they are printed, kept as they were issued, compared with what stands now."""

from typing import Any

import pytest
from flask.testing import FlaskClient

from tests.conftest import Studio


def json_of(answer: Any, status: int = 200) -> Any:
    assert answer.status_code == status, answer.text
    return answer.json


def test_a_sheet_is_seen_as_it_is_before_it_is_issued(client: FlaskClient, studio: Studio) -> None:
    body = {"climb_id": studio.climb.id, "note": "Left wrist straight.", "shows": "both"}
    seen = json_of(client.post("/api/sheets/preview", json=body))
    assert all(page.startswith("data:image/png;base64,") for page in seen["pages"])
    assert f"for {studio.student.details.name}" in seen["text"]
    assert "Left wrist straight." in seen["text"]
    assert "sheet 1 ·" in seen["text"]
    assert "you are here" in seen["text"]


def test_what_was_issued_stays_as_it_was(client: FlaskClient, studio: Studio) -> None:
    body = {"climb_id": studio.climb.id, "key": "press-0001"}
    first = json_of(client.post("/api/sheets", json=body), 201)
    # The same press twice is one sheet.
    assert json_of(client.post("/api/sheets", json=body), 201) == first
    before = json_of(client.get(f"/api/sheets/{first['id']}"))
    listed = json_of(client.get(f"/api/sheets?climb_id={studio.climb.id}"))
    assert ([one["number"] for one in listed["sheets"]], listed["differs"]) == ([1], "")
    stricter = {"limits": {"evenness": "strict"}, "based_on": 1}
    json_of(client.put(f"/api/climbs/{studio.climb.id}/limits", json=stricter))
    again = json_of(client.get(f"/api/sheets?climb_id={studio.climb.id}"))
    assert again["differs"] == "It differs from sheet 1: the drill or the plan was changed since."
    assert json_of(client.get(f"/api/sheets/{first['id']}")) == before
    second = json_of(client.post("/api/sheets", json={**body, "key": "press-0002"}), 201)
    assert second["number"] == 2
    assert json_of(client.get(f"/api/sheets?climb_id={studio.climb.id}"))["differs"] == ""


def test_a_sheet_is_fetched_as_pdf_under_a_name_of_its_own(client: FlaskClient, studio: Studio) -> None:
    sheet = json_of(client.post("/api/sheets", json={"drill_id": studio.drill.id}), 201)
    answer = client.get(f"/api/sheets/{sheet['id']}/file.pdf")
    assert answer.data.startswith(b"%PDF")
    assert "sheet-1.pdf" in answer.headers["Content-Disposition"]


def test_sheets_go_with_their_student(client: FlaskClient, studio: Studio) -> None:
    sheet = json_of(client.post("/api/sheets", json={"climb_id": studio.climb.id}), 201)
    assert client.delete(f"/api/students/{studio.student.id}").status_code in {200, 204}
    assert client.get(f"/api/sheets/{sheet['id']}").status_code == 404


@pytest.mark.parametrize(
    ("body", "status", "says"),
    [
        ({}, 422, "Name a climb or a drill"),
        ({"climb_id": 999}, 404, "This climb does not exist."),
        ({"drill_id": 1, "note": "x" * 1001}, 422, ""),
        ({"drill_id": 1, "paper": "A3"}, 422, ""),
    ],
)
def test_what_cannot_be_printed_is_refused(
    client: FlaskClient, studio: Studio, body: dict[str, Any], status: int, says: str
) -> None:
    assert studio.drill.id == 1
    answer = client.post("/api/sheets/preview", json=body)
    assert answer.status_code == status
    assert answer.json
    assert says in answer.json["message"]
