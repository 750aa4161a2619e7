"""What the server lets in, and the one shape of its refusals."""

import re
import sqlite3
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient

from ripresa.store.identity import studio_id
from ripresa.web.app import create_app
from ripresa.web.blueprint import Api
from ripresa.web.routes.readings import AmountQuery


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


@pytest.mark.parametrize(
    ("site", "status"), [("same-origin", 200), ("none", 200), ("cross-site", 403), ("same-site", 403)]
)
def test_a_page_from_elsewhere_may_not_even_ask(client: FlaskClient, site: str, status: int) -> None:
    answer = client.get("/api/log.csv", headers={"Sec-Fetch-Site": site})
    assert answer.status_code == status
    assert answer.headers["Cross-Origin-Resource-Policy"] == "same-origin"


def test_a_page_of_another_studio_is_refused(lone_app: Api, tmp_path: Path) -> None:
    client = lone_app.test_client()
    (tmp_path / "static").mkdir()
    (tmp_path / "static" / "index.html").write_text('<html data-studio="">')
    (studio,) = re.findall(r'data-studio="([0-9a-f]{16})"', client.get("/").text)
    assert client.get("/api/desk", headers={"X-Ripresa-Studio": studio}).status_code == 200
    for refused in (
        client.get("/api/desk", headers={"X-Ripresa-Studio": "0" * 16}),
        client.get("/api/log.csv?studio=0000"),
        client.post("/api/students", json={"details": {"name": "Eve"}}, headers={"X-Ripresa-Studio": "other"}),
    ):
        assert (refused.status_code, refused.get_json()["field"]) == (409, "studio")
    assert client.get("/api/students").json == {"students": []}


def test_a_studio_stays_itself_and_another_is_another(tmp_path: Path) -> None:
    def studio_in(folder: str) -> str:
        with create_app(tmp_path / folder / "ripresa.sqlite3").at_studio():
            return studio_id()

    first = studio_in("own")
    assert studio_in("demo") != first
    assert studio_in("own") == first


@pytest.mark.parametrize(
    ("method", "address", "body"),
    [
        pytest.param("get", "/api/drills/99999999999999999999", None, id="a number that no row has"),
        pytest.param("get", f"/api/climbs/{2**63}", None, id="one more than the database holds"),
        pytest.param("get", f"/api/drills/1?version={10**30}", None, id="a version beyond it"),
        pytest.param("post", "/api/drills", '{"drill": {"title": "\\ud800"}}', id="half a sign"),
        pytest.param("post", "/api/drills", '{"drill": {"\\udfff": 1}}', id="half a sign in a name"),
        pytest.param("post", "/api/climbs/ladder", '{"drill_id": 1, "plan": {"start": "\\ud800"}}', id="in a number"),
        pytest.param("post", "/api/reading", '{"drill": ' + "[" * 100_000, id="deep and open"),
        pytest.param("post", "/api/reading", '{"a":' * 3000 + "1" + "}" * 3000, id="deep and whole"),
        pytest.param("post", "/api/reading", '{"drill": {"bpm": ' + "9" * 5000 + "}}", id="5,000 digits"),
        pytest.param("post", "/api/tool", '{"drill": {}, "tool": "cells", "count": 1e999}', id="an endless count"),
        pytest.param("post", "/api/students", b'{"details": {"name": "\xff"}}', id="no UTF-8"),
    ],
)
def test_what_cannot_be_meant_is_refused_with_a_sentence(
    client: FlaskClient, method: str, address: str, body: str | bytes | None
) -> None:
    refused = client.open(address, method=method.upper(), data=body, content_type="application/json")
    assert refused.status_code in {404, 422}
    assert refused.get_json()["message"]


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


def test_a_bug_of_ours_is_said_without_a_trace(lone_app: Api) -> None:
    @lone_app.get("/api/broken")
    def broken() -> str:
        raise ZeroDivisionError

    answer = lone_app.test_client().get("/api/broken")
    assert answer.status_code == 500
    assert answer.json is not None
    assert "What was kept is safe" in answer.json["message"]


def test_the_description_of_the_api_is_there(client: FlaskClient) -> None:
    described = client.get("/api/openapi.json").json
    assert described is not None
    assert described["openapi"] == "3.1.0"
    assert "/api/takes" in described["paths"]
    operations = [one for path in described["paths"].values() for one in path.values()]
    refusals = [one["responses"]["422"]["content"]["application/json"]["schema"] for one in operations]
    assert {schema.get("$ref") for schema in refusals} == {"#/components/schemas/Problem"}


def test_without_a_front_end_it_says_how_to_make_one(client: FlaskClient) -> None:
    missing = client.get("/")
    assert missing.status_code == 503
    assert "make build" in missing.text


def test_every_other_address_is_the_one_page(lone_app: Api, tmp_path: Path) -> None:
    (tmp_path / "static").mkdir()
    (tmp_path / "static" / "index.html").write_text("the page")
    with lone_app.test_client().get("/bench/7") as page:
        assert page.get_data(as_text=True) == "the page"


def test_what_needs_no_data_opens_no_database(client: FlaskClient, monkeypatch: pytest.MonkeyPatch) -> None:
    opened: list[int] = []
    connect = sqlite3.connect

    def noted(*asked: Any, **more: Any) -> sqlite3.Connection:
        opened.append(1)
        made: sqlite3.Connection = connect(*asked, **more)
        return made

    monkeypatch.setattr(sqlite3, "connect", noted)
    assert client.get("/api/amount?text=84½").get_json() == {"exact": "169/2", "label": "84½"}
    assert client.post("/api/reading", json={"drill": {}}).status_code == 200
    assert not opened
    assert client.get("/api/students").status_code == 200
    assert opened


def test_an_address_is_described_once(client: FlaskClient) -> None:
    assert AmountQuery.model_json_schema() is AmountQuery.model_json_schema()
    assert "ref" not in AmountQuery.model_json_schema(ref_template="#/ref/{model}")
    described = client.get("/api/openapi.json").json
    assert described == client.get("/api/openapi.json").json
    assert described
    assert {"text", "what"} == {one["name"] for one in described["paths"]["/api/amount"]["get"]["parameters"]}
