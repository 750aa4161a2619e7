"""When the lead comes home: read off what starts the beats."""

import pytest

from ripresa.core.drill import Drill, Leg
from ripresa.core.drill.hands import ByOrder, ByPlace, Hands
from ripresa.core.drill.material import Count, OneNote, ScaleRun
from ripresa.core.exact import parse_exact
from ripresa.core.reading import read
from ripresa.core.reports import LeadHome, lead_homes
from tests.strategies import legs


def lead(cycle: str | Hands, *divisions: int | str, meter: str = "4/4") -> LeadHome:
    hands = ByOrder(tuple(cycle.split())) if isinstance(cycle, str) else cycle
    mixed = Leg(parse_exact(divisions[0]), tuple(parse_exact(one) for one in divisions[1:]))
    (found,) = lead_homes(read(Drill(material=OneNote(beats=4), legs=(mixed,), meter=meter, hands=hands)))
    return found


@pytest.mark.parametrize(
    ("cycle", "divisions", "meter", "beats", "bars"),
    [
        ("D U", (1,), "4/4", 2, 1),
        ("D U", (2,), "4/4", 1, 1),
        ("D U", (3,), "4/4", 2, 1),
        ("D U", (5,), "3/4", 2, 2),
        ("D U", ("1/2",), "4/4", 4, 1),
        ("1 2 3 1 2 3 4", (4,), "4/4", 7, 7),
        # A cycle that says the same thing twice is home as soon as one that says it once.
        ("D U D U", (2,), "4/4", 1, 1),
        ("D U", (6, 5), "4/4", 4, 1),
        ("R L", (2, 2, 3), "7/8 (2+2+3)", 6, 2),
    ],
)
def test_the_lead_comes_home(cycle: str, divisions: tuple[int | str, ...], meter: str, beats: int, bars: int) -> None:
    found = lead(cycle, *divisions, meter=meter)
    assert (found.beats, found.bars) == (beats, bars)


def test_a_rhythm_of_its_own_may_start_each_beat_alike() -> None:
    (found,) = lead_homes(read(Drill(material=Count("1 & 2 3 & 4"), hands=ByOrder(("R", "L", "R")))))
    assert (found.beats, found.starts) == (1, ("R",))


@pytest.mark.parametrize("restart", ["never", "leg"])
def test_what_runs_on_leads_each_stage_as_its_notes_say(restart: str) -> None:
    hands = ByOrder(("D", "U"), restart)  # type: ignore[arg-type]
    reading = read(Drill(material=ScaleRun(octaves=1), legs=legs(2, 3, 4), hands=hands, closing="own"))
    for found in lead_homes(reading):
        (first,) = [one for one in reading.events if one.leg == found.leg.index and one.onset == found.leg.start]
        assert found.starts[0] == first.stroke
    # Fifteen notes in eighths come first: the threes begin with an up stroke, unless each stage begins anew.
    assert lead_homes(reading)[1].starts == (("U", "D") if restart == "never" else ("D", "U"))


def test_an_arm_that_swings_through_threes_changes_sides() -> None:
    assert lead(ByPlace(), 3).starts == ("D", "U")
    assert lead(ByPlace(odd="restart"), 3).beats == 1
