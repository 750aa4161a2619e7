"""What Bench, climb and stand are given of two hands, of strings and of a breath."""

from flask.testing import FlaskClient

from ripresa.core.drill import Drill
from ripresa.core.drill.hands import Articulated
from ripresa.core.drill.material import Picked, ScaleRun
from ripresa.core.drill.second import Contrary, SecondHand
from ripresa.core.exact import Fraction as F
from ripresa.core.reading import read
from ripresa.formats.drill_file import plain
from ripresa.web.shapes.reading import reading_shape
from tests.conftest import Studio
from tests.strategies import legs


def test_both_hands_stand_in_one_row_under_shared_beats() -> None:
    drill = Drill(
        material=ScaleRun(octaves=1), legs=legs(3), second=SecondHand(Contrary(), legs(2)), instrument="piano"
    )
    reading = read(drill)
    rows = reading_shape(reading, F(60)).rows
    assert [round(event.x, 3) for event in rows[0].events[:4]] == [0, 0.333, 0.667, 1]
    assert [event.x for event in rows[0].other[:3]] == [0, 0.5, 1]
    # The numbers of the left hand go on where those of the right one end: a dot of a take finds its peg by them.
    numbers = [row.other_first + place for row in rows for place in range(len(row.other))]
    assert numbers == list(range(len(reading.events), len(reading.every)))


def test_each_grip_is_drawn_once_with_its_fingers() -> None:
    shape = reading_shape(
        read(Drill(material=Picked("C | Am | C", "p i m a"), legs=legs(2), instrument="guitar")), F(60)
    )
    assert [grip.symbol for grip in shape.shapes] == ["C", "Am"]
    assert shape.shapes[0].frets == [None, 3, 2, 0, 1, 0]
    assert [(one.string, one.fret, one.finger) for one in shape.rows[0].events[0].strings] == [(5, 3, "p")]


def test_a_climb_says_the_breaths_of_each_rung(client: FlaskClient, studio: Studio) -> None:
    drill = Drill(
        material=ScaleRun(tonic="C", octaves=2),
        legs=legs(4),
        hands=Articulated("slur_two_tongue_two"),
        breath=F(3),
        instrument="clarinet",
    )
    kept = client.post("/api/drills", json={"drill": plain(drill)}).json
    assert kept
    plan = {"start": "60", "target": {"kind": "bpm", "bpm": "150"}, "rule": {"kind": "even", "step": "10"}}
    body = {"student_id": studio.student.id, "drill_id": kept["id"], "plan": plan}
    climb = client.post("/api/climbs", json=body).json
    assert climb
    breaths = {tread["bpm"]: tread["breaths"] for tread in climb["treads"]}
    assert [bpm for bpm, told in breaths.items() if told.startswith("1")] == ["140", "150"]
    assert breaths["60"] == "3, up to 3.0 s"
