"""What the server lets in, and the one shape of its refusals."""

from pathlib import Path

import pytest
from flask.testing import FlaskClient
from flask_openapi import OpenAPI


@pytest.mark.parametrize("host", ["ripresa.example", "192.168.0.7:8765", "localhost.example"])
def test_only_this_computer_is_answered(client: FlaskClient, host: str) -> None:
    assert client.get("/api/choices", headers={"Host": host}).status_code == 403


@pytest.mark.parametrize("host", ["localhost:8765", "127.0.0.1:8765", "[::1]:8765"])
def test_this_computer_is_answered_by_each_of_its_names(client: FlaskClient, host: str) -> None:
    assert client.get("/api/choices", headers={"Host": host}).status_code == 200


def test_a_page_from_elsewhere_may_not_write(client: FlaskClient) -> None:
    headers = {"Origin": "https://elsewhere.example"}
    assert client.post("/api/students", json={"details": {"name": "Eve"}}, headers=headers).status_code == 403
    assert client.get("/api/students").json == {"students": []}


def test_scripts_come_from_here_only(client: FlaskClient) -> None:
    policy = client.get("/api/choices").headers["Content-Security-Policy"]
    assert "default-src 'none'" in policy
    assert "script-src 'self';" in policy
    assert "unsafe" not in policy


@pytest.mark.parametrize(
    ("method", "address", "status"),
    [("get", "/api/nothing", 404), ("delete", "/api/drills", 405), ("post", "/api/drills", 422)],
)
def test_every_refusal_has_one_shape(client: FlaskClient, method: str, address: str, status: int) -> None:
    refused = getattr(client, method)(address)
    assert refused.status_code == status
    assert set(refused.json) == {"message", "field"}


def test_too_much_is_refused(client: FlaskClient) -> None:
    refused = client.post("/api/drills/file", data=b" " * 8_000_001, content_type="application/json")
    assert refused.status_code == 413


def test_a_bug_of_ours_is_said_without_a_trace(app: OpenAPI) -> None:
    @app.get("/api/broken")
    def broken() -> str:
        raise ZeroDivisionError

    answer = app.test_client().get("/api/broken")
    assert answer.status_code == 500
    assert answer.json is not None
    assert "What was kept is safe" in answer.json["message"]


def test_the_description_of_the_api_is_there(client: FlaskClient) -> None:
    described = client.get("/api/openapi.json").json
    assert described is not None
    assert described["openapi"] == "3.1.0"
    assert "/api/takes" in described["paths"]


def test_without_a_front_end_it_says_how_to_make_one(client: FlaskClient) -> None:
    missing = client.get("/")
    assert missing.status_code == 503
    assert "make build" in missing.text


def test_every_other_address_is_the_one_page(client: FlaskClient, tmp_path: Path) -> None:
    (tmp_path / "static").mkdir()
    (tmp_path / "static" / "index.html").write_text("the page")
    with client.get("/bench/7") as page:
        assert page.get_data(as_text=True) == "the page"
