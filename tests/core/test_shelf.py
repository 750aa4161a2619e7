import pytest

from ripresa.core.errors import NotFound
from ripresa.core.reading import read
from ripresa.core.reports import warnings
from ripresa.core.shelf import AIMS, SHELF, Shelved, shelved
from ripresa.formats.drill_file import read_drill, write_drill


@pytest.mark.parametrize("one", SHELF, ids=lambda one: one.key)
def test_every_ready_drill_can_be_played_in_range_and_saved(one: Shelved) -> None:
    reading = read(one.drill)
    assert reading.notes
    assert warnings(reading) == ()
    assert read_drill(write_drill(one.drill)) == one.drill
    assert one.drill.purpose


def test_about_forty_under_every_aim_and_none_twice() -> None:
    assert len({one.key for one in SHELF}) == len({one.drill.title for one in SHELF}) == len(SHELF) >= 40
    assert {one.aim for one in SHELF} == set(AIMS)
    assert shelved("lighthouse").drill.title == "Lighthouse"


def test_what_is_not_on_the_shelf_is_not_found() -> None:
    with pytest.raises(NotFound, match="no such drill on the shelf"):
        shelved("flying-dutchman")
