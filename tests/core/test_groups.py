from fractions import Fraction as F

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ripresa.core.drill import Drill
from ripresa.core.drill.accents import EveryNth
from ripresa.core.drill.material import OneNote
from ripresa.core.grid import Restart
from ripresa.core.reading import read
from ripresa.core.reports import landings, note_on_beat, realignment, sums
from ripresa.core.rhythm import METERS, Meter
from tests.strategies import legs, meters, whole_divisions

sizes = st.integers(2, 16)


@pytest.mark.parametrize(
    ("size", "division", "meter", "beat_notes", "bar_notes", "bars", "groups"),
    [
        pytest.param(5, 4, "4/4", 20, 80, 5, 16, id="5 on 4"),
        pytest.param(7, 4, "4/4", 28, 112, 7, 16, id="7 on 4"),
        pytest.param(5, 3, "4/4", 15, 60, 5, 12, id="5 on 3"),
        pytest.param(4, 3, "4/4", 12, 12, 1, 3, id="4 on 3"),
        pytest.param(3, 4, "3/4", 12, 12, 1, 4, id="3 on 4 in 3/4"),
    ],
)
def test_when_groups_come_home(
    size: int, division: int, meter: str, beat_notes: int, bar_notes: int, bars: int, groups: int
) -> None:
    home = realignment(size, F(division), METERS[meter])
    assert (home.beat_notes, home.bar_notes, home.bars, home.groups) == (beat_notes, bar_notes, bars, groups)


def test_where_fives_on_fours_start() -> None:
    found = landings(5, F(4), METERS["4/4"])
    bars = [
        " ".join(f"{one.beat}{'' if one.slot == 0 else one.count}" for one in found if one.bar == bar)
        for bar in range(1, 6)
    ]
    assert bars == ["1 2e 3& 4a", "2 3e 4&", "1a 3 4e", "1& 2a 4", "1e 2& 3a"]


def test_the_heard_accent_of_fives_on_fours_walks_backwards() -> None:
    assert [note_on_beat(beat, 4, 5) for beat in range(6)] == [1, 5, 4, 3, 2, 1]


@given(sizes, whole_divisions, meters)
def test_no_group_before_home_starts_on_a_bar_line(size: int, division: int, meter: Meter) -> None:
    home = realignment(size, F(division), meter)
    found = landings(size, F(division), meter)
    assert len(found) * size == home.bar_notes
    assert (home.bar_notes / F(division)) % len(meter.beats) == 0
    assert [one.group for one in found if one.beat == 1 and one.slot == 0] == [0]


@given(sizes, whole_divisions)
def test_the_note_on_the_beat_is_the_first_one_just_when_groups_are_home(size: int, division: int) -> None:
    home = realignment(size, F(division), METERS["4/4"])
    beats = [beat for beat in range(1, int(home.beat_beats) + 1) if note_on_beat(beat, division, size) == 1]
    assert beats[-1] == home.beat_beats


@pytest.mark.parametrize(
    ("restart", "accented", "groups"),
    [
        # Two legs of six beats on two a beat, each held to its bar line: 12 notes each.
        ("never", [0, 5, 10, 15, 20], [0, 1, 2, 0, 1, 2]),
        ("leg", [0, 5, 10, 12, 17, 22], [0, 1, 2, 0, 1, 2]),
        ("bar", [0, 5, 8, 12, 17, 20], [0, 1, 2, 0, 1, 2]),
        ("beat", list(range(0, 24, 2)), [0, 1, 2, 3, 4, 5] * 2),
    ],
)
def test_groups_run_on_or_start_anew(restart: Restart, accented: list[int], groups: list[int]) -> None:
    accents = EveryNth(size=5, restart=restart)
    notes = read(Drill(material=OneNote(beats=6), legs=legs(2, 2), accents=accents)).notes
    assert [index for index, note in enumerate(notes) if note.accent == "accent"] == accented
    assert list(dict.fromkeys((note.leg, note.group) for note in notes)) == [
        (index // (len(groups) // 2), group) for index, group in enumerate(groups)
    ]


def test_the_sums_say_how_a_bar_cuts_groups_off() -> None:
    drill = Drill(material=OneNote(beats=8), legs=legs(4), accents=EveryNth(size=5, restart="bar"))
    (home,) = sums(read(drill), F(60)).homes
    assert (home.cut, home.groups, home.landings) == ((5, 5, 5, 1), None, ())
