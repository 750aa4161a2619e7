"""Two apps in one process: each keeps and answers from its own studio, whichever was made last."""

from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import pytest

from ripresa.store import students
from ripresa.store.tables import asking, database
from ripresa.web.app import create_app
from ripresa.web.blueprint import Api


@pytest.fixture
def apps(tmp_path: Path) -> tuple[Api, Api]:
    return create_app(tmp_path / "own.sqlite3"), create_app(tmp_path / "other.sqlite3")


def names(app: Api) -> list[str]:
    return [one["name"] for one in app.test_client().get("/api/students").get_json()["students"]]


def add(app: Api, name: str) -> None:
    assert app.test_client().post("/api/students", json={"details": {"name": name}}).status_code == 201


def test_each_app_answers_from_its_own_studio(apps: tuple[Api, Api]) -> None:
    first, second = apps
    add(first, "Mira")
    add(second, "Oskar")
    assert (names(first), names(second)) == (["Mira"], ["Oskar"])
    with first.at_studio():
        assert [one.details.name for one in students.all_students()] == ["Mira"]
        # One asks the other in between, and is itself again after.
        with second.at_studio():
            assert [one.details.name for one in students.all_students()] == ["Oskar"]
        assert [one.details.name for one in students.all_students()] == ["Mira"]


def test_many_at_once_are_not_mixed_up(apps: tuple[Api, Api]) -> None:
    with ThreadPoolExecutor(4) as pool:
        list(pool.map(lambda number: add(apps[number % 2], f"{number % 2}: {number:02}"), range(16)))
        asked = list(pool.map(lambda number: names(apps[number % 2]), range(16)))
    for number, found in enumerate(asked):
        assert found == [f"{number % 2}: {one:02}" for one in range(number % 2, 16, 2)]


def test_what_cannot_be_read_in_one_is_not_told_of_the_other(apps: tuple[Api, Api]) -> None:
    first = apps[0]
    add(first, "Mira")
    with first.at_studio():
        database.execute_sql("UPDATE student SET clicks = '[7]'")
    assert names(first) == []
    told = [app.test_client().get("/api/desk").get_json()["unread"] for app in apps]
    assert told == [["Student 1"], []]


def test_no_studio_is_asked_by_accident(apps: tuple[Api, Api]) -> None:
    with pytest.raises(AttributeError, match="No studio is asked here"):
        students.all_students()
    with asking(apps[0].studio):
        assert students.all_students() == []
        database.close()
