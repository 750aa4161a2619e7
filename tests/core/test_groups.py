import pytest
from hypothesis import given
from hypothesis import strategies as st

from ripresa.core.drill import Drill, Leg
from ripresa.core.drill.accents import EveryNth, NoAccents
from ripresa.core.drill.material import Count, Line, OneNote, ScaleRun, Strum
from ripresa.core.exact import Fraction as F
from ripresa.core.exact import parse_exact
from ripresa.core.grid import Restart
from ripresa.core.reading import read
from ripresa.core.reports import Groups, accents_added, groups, starts_told
from ripresa.core.reports.told.groups import beats_hit_told, groups_told
from ripresa.core.rhythm import Meter
from tests.strategies import legs, meters, whole_divisions

sizes = st.integers(2, 16)


def grouped(size: int, *divisions: int | str, meter: str = "4/4", restart: Restart = "leg", beats: int = 8) -> Groups:
    mixed = Leg(parse_exact(divisions[0]), tuple(parse_exact(one) for one in divisions[1:]))
    drill = Drill(material=OneNote(beats=beats), legs=(mixed,), meter=meter, accents=EveryNth(size, restart))
    (found,) = groups(read(drill))
    return found


@pytest.mark.parametrize(
    ("size", "divisions", "meter", "on_beat", "on_bar"),
    [
        pytest.param(5, (4,), "4/4", (20, 5), (80, 5, 16), id="5 on 4"),
        pytest.param(7, (4,), "4/4", (28, 7), (112, 7, 16), id="7 on 4"),
        pytest.param(5, (3,), "4/4", (15, 5), (60, 5, 12), id="5 on 3"),
        pytest.param(4, (3,), "4/4", (12, 4), (12, 1, 3), id="4 on 3"),
        pytest.param(3, (4,), "3/4", (12, 3), (12, 1, 4), id="3 on 4 in 3/4"),
        pytest.param(3, (2, 2, 3), "7/8 (2+2+3)", (9, 4), (21, 3, 7), id="threes on the eighths of 7/8"),
        pytest.param(5, (4, 4, 5), "3/4 +1/16", (30, 7), (65, 5, 13), id="fives on the sixteenths of 13/16"),
        pytest.param(4, (6, 5), "4/4", (28, 5), (44, 2, 11), id="fours on 6+5"),
    ],
)
def test_when_groups_come_home(
    size: int, divisions: tuple[int, ...], meter: str, on_beat: tuple[int, int], on_bar: tuple[int, int, int]
) -> None:
    found = grouped(size, *divisions, meter=meter)
    assert found.beat_home
    assert (found.beat_home.notes, found.beat_home.beats) == on_beat
    assert found.bar_home
    assert (found.bar_home.notes, found.bar_home.bars, found.bar_home.groups) == on_bar


@pytest.mark.parametrize(("beats", "reaches"), [(19, False), (20, True), (21, True)])
def test_a_leg_that_ends_where_its_groups_are_home_comes_home(beats: int, reaches: bool) -> None:
    assert grouped(5, 4, beats=beats).reaches_home is reaches


def test_a_leg_is_said_to_have_the_notes_that_it_plays() -> None:
    """The closing tonic, which the seam needs, is one of them."""
    reading = read(Drill(material=ScaleRun(), legs=legs(2, 3), accents=EveryNth(size=5)))
    (first, _) = groups(reading)
    assert first.leg.notes == sum(note.leg == 0 for note in reading.notes) == 29
    (told,) = groups_told(first, reading)
    assert told.sentences[-2] == "This leg has 29 notes: it does not come home."
    assert told.sentences[-1] == "The beats hit notes 1, 3, 5, 2, 4, 1 … of the group."


def test_where_fives_on_fours_start() -> None:
    told = starts_told(grouped(5, 4).starts)
    assert told == "1, 2e, 3&, 4a | 2, 3e, 4& | 1a, 3, 4e | 1&, 2a, 4 | 1e, 2&, 3a"


def test_the_heard_accent_of_fives_on_fours_walks_backwards() -> None:
    assert grouped(5, 4).beats_hit == (1, 5, 4, 3, 2, 1)


@pytest.mark.parametrize(
    ("size", "division", "told"),
    [
        (3, 4, "The beats hit notes 1, 2, 3, 1 … of the group."),
        # Sixteen numbers and the first again are all told; what is longer says how far it goes.
        (16, 5, "The beats hit notes 1, 6, 11, 16, 5, 10, 15, 4, 9, 14, 3, 8, 13, 2, 7, 12, 1 … of the group."),
        (
            17,
            5,
            "The beats hit notes 1, 6, 11, 16, 4, 9, 14, 2, 7, 12, 17, 5, 10, 15, 3, 8, 13 … of the group "
            "(the first again on beat 18).",
        ),
        # Every beat hits the first, or not every beat has a note.
        (4, 8, ""),
        (2, "1/2", ""),
        (3, "3/2", ""),
    ],
)
def test_which_notes_the_beats_hit_is_told(size: int, division: str | int, told: str) -> None:
    assert beats_hit_told(grouped(size, division)) == told


@pytest.mark.parametrize(
    ("drill", "told"),
    [
        (Drill(material=Count("1 >& 2 & 3 & 4 >&"), legs=legs(2)), "6 in a pass, 2 of them typed"),
        (Drill(material=Count(">1 & 2 & 3 & 4 &"), legs=legs(2)), "4 in a pass, 1 of them typed"),
        (Drill(material=Strum(chords="C", pattern="1 & 2 & 3 & 4 >&"), legs=legs(2)), "5 in a pass, 1 of them typed"),
        # Nothing is typed, nothing is added, or what is typed is there already.
        (Drill(material=Count("1 & 2 & 3 & 4 &"), legs=legs(2)), ""),
        (Drill(material=Count("1 >& 2 & 3 & 4 >&"), legs=legs(2), accents=NoAccents()), ""),
        (Drill(material=Count(">1 & >2 & >3 & >4 &"), legs=legs(2)), ""),
    ],
)
def test_typed_accents_that_add_to_those_of_the_drill_are_told(drill: Drill, told: str) -> None:
    found = accents_added(read(drill))
    assert told in found
    assert bool(found) == bool(told)


def test_places_of_fives_cannot_be_taken_for_others() -> None:
    assert starts_told(grouped(3, 5, meter="2/4").starts[:4]) == "1, 1 4th, 2 2nd, 2 5th"


def test_silent_slots_use_up_no_note() -> None:
    drill = Drill(material=Count("1 (e) & a 2 e & a 3 e & a 4 e & a"), accents=EveryNth(5), legs=legs(4))
    (found,) = groups(read(drill))
    assert found.bar_home
    assert (found.bar_home.notes, found.bar_home.bars) == (15, 1)
    assert starts_told(found.starts) == "1, 2&, 3a"


def test_three_in_the_time_of_two_in_fours() -> None:
    assert [start.at for start in grouped(4, "3/2").starts] == [0, F(8, 3), F(16, 3)]


def test_a_count_that_runs_on_goes_on_in_the_next_leg_at_its_number() -> None:
    drill = Drill(material=OneNote(beats=4), legs=legs(2, 3), accents=EveryNth(5, "never"))
    reading = read(drill)
    first, second = groups(reading)
    # Eight notes in fives: the second leg begins with note 4.
    assert second.beats_hit[0] == 4
    assert second.starts[0].at == next(
        event.onset for event in reading.notes if event.leg == 1 and event.accent == "accent"
    )
    assert first.leg.index == 0


def test_a_line_that_arrives_starts_and_ends_where_it_stands() -> None:
    drill = Drill(material=Line(" ".join("1" * 35), shift=F(13)), legs=legs(4), accents=EveryNth(5))
    (found,) = groups(read(drill))
    assert starts_told(found.starts) == "4e | 1&, 2a, 4 | 1e, 2&, 3a"
    assert found.end
    assert (found.end.bar, found.end.beat, found.end.name) == (4, 1, "")
    assert found.bar_home is None


@given(sizes, whole_divisions, meters)
def test_no_group_before_home_starts_on_a_bar_line(size: int, division: int, meter: Meter) -> None:
    found = grouped(size, division, meter=meter.name)
    assert found.bar_home
    assert len(found.starts) * size == found.bar_home.notes
    assert [start for start in found.starts if start.beat == 1 and not start.name] == [found.starts[0]]


@pytest.mark.parametrize(
    ("restart", "accented", "numbers"),
    [
        # Two legs of six beats on two a beat, each held to its bar line: 12 notes each.
        ("never", [0, 5, 10, 15, 20], [0, 1, 2, 0, 1, 2]),
        ("leg", [0, 5, 10, 12, 17, 22], [0, 1, 2, 0, 1, 2]),
        ("bar", [0, 5, 8, 12, 17, 20], [0, 1, 2, 0, 1, 2]),
        ("beat", list(range(0, 24, 2)), [0, 1, 2, 3, 4, 5] * 2),
    ],
)
def test_groups_run_on_or_start_anew(restart: Restart, accented: list[int], numbers: list[int]) -> None:
    accents = EveryNth(size=5, restart=restart)
    notes = read(Drill(material=OneNote(beats=6), legs=legs(2, 2), accents=accents)).notes
    assert [index for index, note in enumerate(notes) if note.accent == "accent"] == accented
    assert list(dict.fromkeys((note.leg, note.group) for note in notes)) == [
        (index // (len(numbers) // 2), group) for index, group in enumerate(numbers)
    ]


def test_a_bar_cuts_groups_off() -> None:
    found = grouped(5, 4, restart="bar")
    assert (found.cut, found.bar_home and found.bar_home.bars) == ((5, 5, 5, 1), 1)
    beat = grouped(5, 4, restart="beat")
    assert (beat.cut, beat.beat_home and beat.beat_home.beats) == ((4, 4, 4, 4), 1)


def test_a_home_that_comes_long_after_short_rounds_is_found() -> None:
    """Groups of four that began in the leg before: three notes a bar, and the first start is the third of them."""
    mixed = (Leg(F(1), (F(6),)), Leg(F(2), (F(1),)))
    drill = Drill(material=OneNote(beats=1), legs=mixed, meter="2/2", accents=EveryNth(4, "never"))
    (_, found) = groups(read(drill))
    assert found.starts[0].at == 4
    assert found.bar_home
    assert (found.bar_home.notes, found.bar_home.bars, found.bar_home.groups) == (12, 4, 3)


def test_a_rhythm_in_bars_that_take_turns_goes_on_in_the_bar_that_has_its_turn() -> None:
    drill = Drill(material=Count("1 2 &"), legs=legs(1), meter="3/4 | 2/4", accents=EveryNth(2, "leg"))
    (found,) = groups(read(drill))
    # Three notes a bar, of three beats and of two: the second start on a bar line is that of bar 3.
    assert found.bar_home
    assert (found.bar_home.notes, found.bar_home.beats, found.bar_home.bars) == (6, 5, 2)
