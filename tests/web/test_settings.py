"""Settings of the studio: what new work begins with, and instruments of one's own."""

from flask.testing import FlaskClient


def test_an_instrument_of_ones_own_is_offered_and_comes_with_a_drill(client: FlaskClient) -> None:
    def offered() -> dict[str, dict[str, object]]:
        return {one["value"]: one for one in client.get("/api/choices").get_json()["instruments"]}

    whistle = "whistle in D: wind, D4 to B5, sounds +12, breath 8"
    settings = client.get("/api/settings").get_json()["settings"]
    client.put("/api/settings", json={"settings": {**settings, "instruments": f"{whistle}\n"}})
    assert (offered()[whistle]["label"], offered()[whistle]["breathes"], offered()[whistle]["breath"]) == (
        "whistle in D",
        True,
        8,
    )
    student = client.post("/api/students", json={"details": {"name": "Ada Fog", "instrument": whistle}})
    assert student.get_json()["instrument_name"] == "whistle in D"
    lyre = "lyre: strings C3 G3 C4, frets 5"
    drill = client.post("/api/drills", json={"drill": {"title": "New", "instrument": lyre}})
    assert drill.status_code == 201
    assert offered()[lyre]["strings"] == 3
    refused = client.put("/api/settings", json={"settings": {**settings, "instruments": "lyre: strings"}})
    assert (refused.status_code, refused.get_json()["field"]) == (422, "instruments")
    assert "write 3 to 10 strings" in refused.get_json()["message"]
    assert lyre in offered()


def test_settings_are_what_new_work_begins_with(client: FlaskClient) -> None:
    settings = client.get("/api/settings").get_json()["settings"]
    wanted = {
        **settings,
        "metronome": "halves",
        "evenness": "strict",
        "moving": "staircase",
        "middle_rate": "100",
        "counting": {"system": "syllables", "own": "", "runs": "bar"},
        "sound_first": True,
    }
    kept = client.put("/api/settings", json={"settings": wanted})
    assert kept.get_json()["settings"] == wanted
    choices = client.get("/api/choices").get_json()
    assert (choices["plan"]["settings"], choices["plan"]["moving"]) == ("halves", "staircase")
    drill = client.post("/api/drills", json={"drill": {"title": "New"}}).get_json()["drill"]
    assert drill["counting"]["system"] == "syllables"
    query = "bpm=88&division=4&nps=8&size=5&meter=4/4&beats=14&click=every_beat"
    assert client.get(f"/api/sums?{query}").get_json()["pulse"] == "Count the beat inside: 88 a minute."
    refused = client.put("/api/settings", json={"settings": {**wanted, "middle_rate": "10"}})
    assert refused.status_code == 422
    assert "40 to 300" in refused.get_json()["message"]
