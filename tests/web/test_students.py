"""Students: details, plan, put away and deleted; their page, their assignments, their variants."""

import io
from datetime import date
from typing import Any

import pytest
from flask.testing import FlaskClient

from ripresa.store.tables import database
from ripresa.web.blueprint import Api
from tests.conftest import NOW, Clock, Studio
from tests.web.test_places import PLAN
from tests.web.test_takes import send, take

DETAILS: dict[str, Any] = {
    "name": "Mira Sund",
    "instrument": "clarinet",
    "lesson_weekday": 2,
    "lesson_time": "15:30",
    "leading_hand": "left",
    "level": "some_years",
    "lowest": "E3",
    "highest": "C6",
    "breath": "11",
    "counting": {"system": "own", "own": "2: # und", "runs": "bar"},
    "guardian": {"most_minutes": 30, "most_bpm": "120", "recordings": False},
    "hurts": "the left wrist",
    "evenness": "easy",
    "stand": {"sound": '{"click":0.5}', "foot_switch": "F9", "sound_first": True},
}
PRACTICE = {
    "start": "2026-05-04",
    "weeks": 2,
    "days_a_week": 5,
    "minutes": 12,
    "most_a_day": 18,
    "off": ["sunday"],
    "lessons": [],
    "until": None,
    "most_more": 10,
}


def page(client: FlaskClient, student_id: int, query: str = "") -> dict[str, Any]:
    found = client.get(f"/api/students/{student_id}{query}").get_json()
    assert isinstance(found, dict)
    return found


def changed(client: FlaskClient, studio: Studio, **more: Any) -> Any:
    body = {"details": {**DETAILS, **more}, "based_on": studio.student.revision}
    return client.put(f"/api/students/{studio.student.id}", json=body)


def test_everything_that_is_written_down_comes_back(client: FlaskClient, studio: Studio) -> None:
    kept = changed(client, studio)
    assert kept.status_code == 200
    again = page(client, studio.student.id)["student"]
    assert {name: again["details"][name] for name in DETAILS} == DETAILS
    assert again["revision"] == 2
    assert again["lesson_words"] == "Wednesdays 15:30"


@pytest.mark.parametrize(
    ("more", "field", "says"),
    [
        ({"lowest": "C6", "highest": "E3"}, "lowest", "lower note first"),
        ({"lowest": "H2"}, None, "not a note"),
        ({"breath": "100"}, "breath", "up to 60 seconds"),
        ({"lesson_dates": ["soon"]}, None, "is no day"),
        ({"lesson_from": "2026-02-30"}, None, "is no day"),
        ({"guardian": {"most_minutes": 0}}, "guardian.most_minutes", "1 to 600"),
        ({"guardian": {"most_bpm": "0"}}, "guardian.most_bpm", "cannot be played"),
        ({"hurts": "x" * 2001}, "hurts", "2000"),
        ({"nonsense": 1}, None, "nonsense"),
    ],
)
def test_details_that_cannot_be_are_refused(
    client: FlaskClient, studio: Studio, more: dict[str, Any], field: str | None, says: str
) -> None:
    refused = changed(client, studio, **more)
    assert refused.status_code == 422
    assert says in refused.get_json()["message"]
    if field:
        assert refused.get_json()["field"].endswith(field)


def test_lessons_every_two_weeks_and_on_single_days_are_on_the_desk(
    client: FlaskClient, studio: Studio, clock: Clock
) -> None:
    changed(client, studio, lesson_weekday=None, lesson_from="2026-05-06", lesson_dates=["2026-05-08"])
    days = []
    for _ in range(16):
        if client.get("/api/desk").get_json()["lessons"]:
            days.append(clock.moment.date().day)
        clock.forward(days=1)
    assert days == [6, 8, 20]


def test_a_student_is_put_away_and_taken_back(client: FlaskClient, studio: Studio) -> None:
    address = f"/api/students/{studio.student.id}/put-away"
    assert client.put(address, json={"put_away": True}).get_json()["is_put_away"]

    def names(query: str = "") -> list[str]:
        return [one["name"] for one in client.get(f"/api/students{query}").get_json()["students"]]

    assert (names(), names("?put_away=true")) == (["Oskar Vane"], ["Mira Sund"])
    assert client.get("/api/desk").get_json()["lessons"] == []
    assert page(client, studio.student.id)["student"]["is_put_away"]
    client.put(address, json={"put_away": False})
    assert names() == ["Mira Sund", "Oskar Vane"]


def test_a_student_is_deleted_with_everything_and_nothing_of_others(
    app: Api, client: FlaskClient, studio: Studio
) -> None:
    send(client, take(studio))
    client.post(f"/api/climbs/{studio.climb.id}/moves", json={"decision": "up", "from_rung": 1})
    other = client.post("/api/climbs", json={"student_id": studio.other.id, "drill_id": 1, "plan": PLAN}).get_json()
    assert client.delete(f"/api/students/{studio.student.id}").get_json() == {"name": "Mira Sund"}
    assert client.get(f"/api/students/{studio.student.id}").status_code == 404
    assert [one["id"] for one in client.get("/api/climbs").get_json()["climbs"]] == [other["id"]]
    with app.at_studio():
        left = {
            table: database.execute_sql(f"SELECT count(*) FROM {table}").fetchone()[0]
            for table in ("take", "move", "climb", "student", "drill")
        }
    assert left == {"take": 0, "move": 0, "climb": 1, "student": 1, "drill": 1}
    assert client.delete(f"/api/students/{studio.student.id}").status_code == 404


def planned(client: FlaskClient, studio: Studio, **more: Any) -> Any:
    body = {"plan": {**PRACTICE, **more}, "based_on": page(client, studio.student.id)["student"]["revision"]}
    return client.put(f"/api/students/{studio.student.id}/plan", json=body)


def test_a_plan_is_kept_and_its_weeks_say_what_was_played(client: FlaskClient, studio: Studio) -> None:
    assert planned(client, studio).status_code == 200
    send(client, take(studio, end=300.0))
    found = page(client, studio.student.id)
    assert found["plan"]["asked"] == "120"
    assert found["plan"]["done"] == "5"
    days = {day["date"]: day for week in found["weeks"] for day in week["days"]}
    assert (days["2026-05-06"]["minutes"], days["2026-05-06"]["is_today"]) == ("5", True)
    assert days["2026-05-10"]["kind"] == "off"
    assert days["2026-05-13"]["lesson"]
    assert days["2026-05-07"]["planned"]
    assert [task["kind"] for task in found["tasks"]][:1] == ["warm_up"]
    assert sum(task["minutes"] for task in found["tasks"]) == int(days["2026-05-06"]["planned"])
    taken = client.put(
        f"/api/students/{studio.student.id}/plan", json={"plan": None, "based_on": found["student"]["revision"]}
    )
    assert taken.status_code == 200
    assert page(client, studio.student.id)["plan"] is None


def test_too_steep_a_plan_offers_the_date_that_fits(client: FlaskClient, studio: Studio, clock: Clock) -> None:
    planned(client, studio)
    clock.forward(days=10)
    found = page(client, studio.student.id)["plan"]
    assert found["unplaced"]
    assert date.fromisoformat(found["fits_date"]) > date(2026, 5, 17)
    planned(client, studio, until=found["fits_date"])
    assert page(client, studio.student.id)["plan"]["unplaced"] == ""


@pytest.mark.parametrize(
    ("more", "says"),
    [
        ({"weeks": 0}, "1 to 104 weeks"),
        ({"off": ["someday"]}, "is no day"),
        ({"start": "soon"}, ""),
        ({"minutes": 40}, "guardian of Mira Sund allows 30 minutes"),
        ({"typo": 1}, "typo"),
    ],
)
def test_a_plan_of_practice_that_cannot_be_is_refused(
    client: FlaskClient, studio: Studio, more: dict[str, Any], says: str
) -> None:
    changed(client, studio)
    refused = planned(client, studio, **more)
    assert refused.status_code == 422
    assert says in refused.get_json()["message"]


def test_two_pages_cannot_overwrite_each_other(client: FlaskClient, studio: Studio) -> None:
    assert changed(client, studio).status_code == 200
    assert changed(client, studio, hurts="nothing any more").status_code == 409
    stand = {"sound": "", "foot_switch": "F8", "sound_first": None}
    # How the stand is set is no change of the details: it comes from a slider, and is no conflict.
    assert client.put(f"/api/students/{studio.student.id}/stand", json={"stand": stand}).status_code == 200
    again = page(client, studio.student.id)["student"]
    assert (again["revision"], again["details"]["stand"], again["details"]["hurts"]) == (2, stand, "the left wrist")


def test_the_page_says_what_stood_what_broke_and_what_was_asked(client: FlaskClient, studio: Studio) -> None:
    send(client, take(studio, 1))
    said = take(studio, 2) | {"source": "by_ear", "notes": [], "ear": {"mark": "shaky", "by": "student"}}
    send(client, said | {"note": "May I breathe at bar 4?"})
    lesson = page(client, studio.student.id)["lesson"]
    assert lesson["stood"] == "Slip steps: 1 clean take at 84 today."
    assert "1 shaky take of the last ten" in lesson["broke"]
    assert [(one["note"], one["by"]) for one in lesson["asked"]] == [("May I breathe at bar 4?", "student")]
    (on_desk,) = client.get("/api/desk").get_json()["lessons"]
    assert on_desk["words"] == lesson


def test_where_it_is_going_is_silent_at_first_and_a_range_later(
    client: FlaskClient, studio: Studio, clock: Clock
) -> None:
    assert page(client, studio.student.id)["going"] is None
    for number in range(10):
        clock.forward(days=1)
        send(client, take(studio, number) | {"played_at": clock.moment.isoformat()})
        if number == 2:
            assert "From 8 on 4 days" in page(client, studio.student.id)["going"]["sentence"]
    going = page(client, studio.student.id)["going"]
    assert [week["week"] for week in going["weeks"]] == [2, 3, 4, 5, 6]
    assert going["is_silent"] is False
    silent = client.get(f"/api/students/{studio.student.id}/what-if?climb_id={studio.climb.id}").get_json()
    assert "can be replayed" in silent["silent"]


def test_a_log_is_replayed_under_other_rules(client: FlaskClient, studio: Studio, clock: Clock) -> None:
    for number in range(20):
        clock.forward(hours=12)
        ear = {"mark": "shaky" if number % 4 == 3 else "clean"}
        body = take(studio, number) | {"source": "by_ear", "notes": [], "ear": ear}
        send(client, body | {"played_at": clock.moment.isoformat()})
    found = client.get(f"/api/students/{studio.student.id}/what-if?climb_id={studio.climb.id}").get_json()
    assert found["silent"] == ""
    assert "20 takes, replayed 400 times" in found["sentence"]
    assert "not a promise" in found["sentence"]
    assert [row["is_now"] for row in found["rows"]] == [True, False, False, False]


def begun(client: FlaskClient, studio: Studio, **more: Any) -> Any:
    return client.post("/api/climbs", json={"student_id": studio.other.id, "drill_id": 1, "plan": PLAN, **more})


def test_an_assignment_says_what_differs_and_is_played_so(client: FlaskClient, studio: Studio) -> None:
    overrides = {"other_lead": True, "counting": {"system": "syllables", "own": "", "runs": "bar"}}
    climb = begun(client, studio, overrides=overrides).get_json()
    assert climb["differs"] == ["U first", "counted in syllables"]
    assert climb["title"] == "Slip steps, U first, counted in syllables"
    drill = client.get(f"/api/climbs/{climb['id']}/drill").get_json()["drill"]
    assert drill["hands"]["cycle"] == ["U", "D"]
    body = take(studio) | {"student_id": studio.other.id, "climb_id": climb["id"]}
    assert send(client, body)["take"]["climb_id"] == climb["id"]
    refused = begun(client, studio, overrides={"octaves": 2})
    assert refused.status_code == 422
    assert "No octaves are counted" in refused.get_json()["message"]


def test_a_set_of_variants_is_made_in_one_press(client: FlaskClient, studio: Studio) -> None:
    body = {"student_id": studio.other.id, "drill_id": 1, "plan": PLAN, "turned": "stations"}
    look = client.post("/api/climbs/set/look", json=body).get_json()
    assert look["names"] == ["the accent on 1", "the accent on e", "the accent on &", "the accent on a"]
    assert look["sentence"].startswith("4 variants, once through in")
    made = [client.post("/api/climbs/set", json={**body, "key": "press-0001"}).get_json() for _ in range(2)]
    assert made[0] == made[1]
    climbs = made[0]["climbs"]
    assert [one["set_place"] for one in climbs] == [0, 1, 2, 3]
    again = client.get(f"/api/climbs/set/{climbs[0]['set_key']}").get_json()["climbs"]
    assert [one["id"] for one in again] == [one["id"] for one in climbs]
    refused = client.post("/api/climbs/set/look", json={**body, "turned": "keys"})
    assert refused.status_code == 422
    assert "no key of its own" in refused.get_json()["message"]


def test_a_guardian_limits_the_target(client: FlaskClient, studio: Studio) -> None:
    changed(client, studio, guardian={"most_minutes": None, "most_bpm": "110", "recordings": False})
    body = {"student_id": studio.student.id, "drill_id": 1, "plan": PLAN}
    refused = client.post("/api/climbs", json=body)
    assert refused.status_code == 422
    assert "allows 110 bpm at most, and this leads to 120" in refused.get_json()["message"]


def test_a_group_hands_one_drill_to_all_each_from_an_own_start(client: FlaskClient, studio: Studio) -> None:
    members = [
        {"student_id": studio.student.id, "part": {"reduce": {"part": "hits", "hand": "", "beats": 1}}},
        {"student_id": studio.other.id, "part": {}},
    ]
    made = client.post("/api/groups", json={"details": {"name": "Saturday band", "members": members}})
    assert made.status_code == 201
    group = made.get_json()
    assert [one["part_words"] for one in group["members"]] == ["the hits alone", "all of it"]
    body = {"drill_id": 1, "plan": PLAN, "starts": [{"student_id": studio.other.id, "start": "60"}], "key": "all-0001"}
    handed = [client.post(f"/api/groups/{group['id']}/climbs", json=body).get_json() for _ in range(2)]
    assert [one["bpm_label"] for one in handed[0]["climbs"]] == ["84", "60"]
    assert [one["id"] for one in handed[0]["climbs"]] == [one["id"] for one in handed[1]["climbs"]]
    steep = {**body, "key": "all-0002", "starts": [{"student_id": studio.other.id, "start": "300"}]}
    refused = client.post(f"/api/groups/{group['id']}/climbs", json=steep)
    assert refused.get_json()["message"].startswith("Oskar Vane: ")
    # All or none.
    assert len(client.get("/api/climbs").get_json()["climbs"]) == 3
    twice = {"name": "Band", "members": [members[0], members[0]]}
    assert client.put(f"/api/groups/{group['id']}", json={"details": twice, "based_on": 1}).status_code == 422
    client.delete(f"/api/students/{studio.student.id}")
    left = client.get(f"/api/groups/{group['id']}").get_json()["members"]
    assert [one["student"]["name"] for one in left] == ["Oskar Vane"]
    assert client.delete(f"/api/groups/{group['id']}").get_json() == {"name": "Saturday band"}
    assert client.get("/api/groups").get_json() == {"groups": []}


@pytest.mark.parametrize("number", [0, -1, 2**53, -(10**23)])
def test_a_member_is_a_student_by_number(client: FlaskClient, number: int) -> None:
    refused = client.post("/api/groups", json={"details": {"name": "Duo", "members": [{"student_id": number}]}})
    assert refused.status_code == 422
    assert refused.get_json() == {
        "message": "A member is a student of this studio, by the number of that student.",
        "field": "members",
    }


def test_a_csv_goes_out_and_comes_in_once(client: FlaskClient, studio: Studio) -> None:
    send(client, take(studio, 1))
    text = client.get("/api/log.csv").get_data(as_text=True)
    other = text.replace("Mira Sund", "Oskar Vane").replace("2026-05-06", "2026-05-05")
    rows = [*other.strip().splitlines(), other.strip().splitlines()[1].replace("Slip steps", "Unknown"), "nonsense"]
    body = {"student_id": studio.other.id, "text": "\n".join(rows)}
    first, second = (client.post("/api/log.csv", json=body).get_json() for _ in range(2))
    stay = "Figures of 1 take stay in the file: they stand on notes that a log does not hold."
    assert first["sentence"] == f"1 take taken in, 2 rows left out. {stay}"
    assert second["sentence"] == "0 takes taken in, 1 was here already, 2 rows left out."
    assert [row["line"] for row in first["left_out"]] == [3, 4]
    assert "no drill of the title “Unknown”" in first["left_out"][0]["why"]
    log = client.get(f"/api/log?student_id={studio.other.id}").get_json()
    assert (log["takes"], log["entries"][0]["mark"]) == (1, "clean")
    mine = client.post("/api/log.csv", json={"student_id": studio.student.id, "text": "\n".join(rows[:2])}).get_json()
    assert "It is Oskar Vane’s, not Mira Sund’s." in mine["left_out"][0]["why"]
    again = client.post("/api/log.csv", json={"student_id": studio.student.id, "text": text}).get_json()
    assert (again["sentence"], again["left_out"]) == ("0 takes taken in, 1 was here already.", [])


def test_a_log_is_marked_as_utf_8_once(client: FlaskClient, studio: Studio) -> None:
    send(client, take(studio, 1))
    found = client.get("/api/log.csv")
    assert found.content_type == "text/csv; charset=utf-8"
    assert found.data.startswith(b"\xef\xbb\xbfplayed_at,student")


def test_the_log_is_filtered_and_mistakes_are_undone(client: FlaskClient, studio: Studio, clock: Clock) -> None:
    for number in range(3):
        clock.forward(minutes=1)
        ear = {"mark": "clean" if number else "shaky", "by": "student" if number == 2 else "teacher"}
        body = take(studio, number) | {"source": "by_ear", "notes": [], "ear": ear}
        send(client, body | {"played_at": clock.moment.isoformat()})
    clock.forward(minutes=1)
    client.post(f"/api/climbs/{studio.climb.id}/moves", json={"decision": "up", "from_rung": 1})

    def entries(query: str = "") -> list[dict[str, Any]]:
        found = client.get(f"/api/log?student_id={studio.student.id}{query}").get_json()["entries"]
        assert isinstance(found, list)
        return found

    assert [one["kind"] for one in entries()] == ["move", "take", "take", "take"]
    assert [one["mark"] for one in entries("&mark=shaky")] == ["shaky"]
    assert [one["by"] for one in entries("&by=student")] == ["student"]
    assert entries("&since=2026-05-07") == []
    assert len(entries(f"&climb_id={studio.climb.id}")) == 4
    move = entries()[0]
    back = client.delete(f"/api/climbs/{studio.climb.id}/moves/{move['move_id']}").get_json()
    assert back["rung"] == 1
    assert client.delete(f"/api/climbs/{studio.climb.id}/moves/{move['move_id']}").status_code == 404
    taken = entries("&mark=shaky")[0]["take_id"]
    assert client.delete(f"/api/takes/{taken}").get_json() == {"id": taken}
    assert entries("&mark=shaky") == []
    assert client.delete(f"/api/takes/{taken}").status_code == 404


def test_the_data_is_told_and_copied_whole(client: FlaskClient, studio: Studio) -> None:
    data = client.get("/api/settings").get_json()["data"]
    assert (data["students"], data["drills"], data["climbs"], data["takes"]) == (2, 1, 1, 0)
    copy = client.get("/api/settings/backup.sqlite3")
    assert copy.status_code == 200
    body = io.BytesIO(copy.get_data()).getvalue()
    assert body.startswith(b"SQLite format 3")
    assert f"ripresa-{NOW.date()}.sqlite3" in copy.headers["Content-Disposition"]
    assert studio.student.details.name.encode() in body
    copy.close()


def test_a_group_with_a_lesson_today_is_on_the_desk(client: FlaskClient, studio: Studio) -> None:
    members = [{"student_id": studio.student.id, "part": {}}]
    for name, weekday, time in (("Late", 2, "18:00"), ("Early", 2, "9:00"), ("Another day", 3, "9:00")):
        details = {"name": name, "members": members, "lesson_weekday": weekday, "lesson_time": time}
        client.post("/api/groups", json={"details": details})
    groups = client.get("/api/desk").get_json()["groups"]
    assert [(one["name"], one["members"]) for one in groups] == [("Early", 1), ("Late", 1)]


def test_the_day_ends_with_a_recap(client: FlaskClient, studio: Studio) -> None:
    send(client, take(studio, 1))
    recap = page(client, studio.student.id)["lesson"]["recap"]
    assert recap == "1 take of Slip steps, 1 clean, up to 84; now on rung 1, 1 clean take at 84 to go up."


def test_a_climb_says_where_it_goes_beyond_its_student(client: FlaskClient, studio: Studio) -> None:
    run = {"title": "High", "material": {"kind": "scale_run", "octaves": 2}, "instrument": "clarinet", "breath": "12"}
    drill = client.post("/api/drills", json={"drill": run}).get_json()
    changed(client, studio, guardian={}, lowest="D4", highest="C5", breath="9")
    body = {"student_id": studio.student.id, "drill_id": drill["id"], "plan": PLAN}
    climb = client.get(f"/api/climbs/{client.post('/api/climbs', json=body).get_json()['id']}").get_json()
    assert any(line.startswith("It goes up to") and "reaches C5" in line for line in climb["cautions"])
    assert any("a breath of 12 s; Mira Sund has 9 s" in line for line in climb["cautions"])
    assert client.get(f"/api/climbs/{studio.climb.id}").get_json()["cautions"] == []


def test_climbs_are_found_by_student_and_by_drill(client: FlaskClient, studio: Studio) -> None:
    begun(client, studio)
    names = {
        words: [one["student"]["name"] for one in client.get(f"/api/climbs?words={words}").get_json()["climbs"]]
        for words in ("", "mira", "SLIP", "nobody")
    }
    assert names == {
        "": ["Oskar Vane", "Mira Sund"],
        "mira": ["Mira Sund"],
        "SLIP": ["Oskar Vane", "Mira Sund"],
        "nobody": [],
    }
    some = client.get("/api/climbs?most=1").get_json()
    assert (len(some["climbs"]), some["count"]) == (1, 2)


def test_the_limit_of_more_notes_is_the_studios_where_no_plan_says_one(client: FlaskClient, studio: Studio) -> None:
    by_ear = {"source": "by_ear", "ear": "clean", "onsets": []}
    send(client, take(studio, 1, end=30.0) | by_ear | {"played_at": "2026-04-29T15:00:00+00:00"})
    send(client, take(studio, 2, end=36.0) | by_ear)
    assert page(client, studio.student.id)["is_too_much"]
    settings = client.get("/api/settings").get_json()["settings"]
    client.put("/api/settings", json={"settings": {**settings, "most_more": 100}})
    assert not page(client, studio.student.id)["is_too_much"]
