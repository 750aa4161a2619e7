from pathlib import Path

from ripresa.demo import fill_demo_studio
from ripresa.store import climb_lists, students, takes
from tests.conftest import NOW


def test_the_demo_studio_is_whole_and_the_same_each_day(store: Path) -> None:
    assert store.exists()
    fill_demo_studio(NOW)
    roster = students.all_students()
    assert len(roster) == 6
    assert {student.details.lesson_weekday for student in roster} == {NOW.weekday()}
    kept = list(takes.every_take())
    assert {take.mark for take in kept} == {"clean", "shaky", "near"}
    assert all(take.due is not None for take in kept)
    assert all(take.played_at < NOW for take in kept)
    assert sum(climb.rung for climb in climb_lists.all_climbs()) > 12
