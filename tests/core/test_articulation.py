"""Tonguing and slurring: the patterns of method books, in turn as a circuit, and where they cross the beat."""

from dataclasses import replace

import pytest

from ripresa.core.changes import Where, changed
from ripresa.core.drill import Drill
from ripresa.core.drill.hands import ARTICULATION_PATTERNS, CIRCUITS, Articulated
from ripresa.core.drill.material import Count, Line, OneNote, ScaleRun
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.reading import Reading, read
from ripresa.core.reports import lead_homes, loads, paragraphs, sums
from tests.strategies import legs


def blown(pattern: str, division: int = 4, beats: int = 2, **rest: object) -> Reading:
    hands = Articulated(pattern, **rest)  # type: ignore[arg-type]
    return read(Drill(material=OneNote(beats=beats), legs=legs(division), hands=hands, instrument="clarinet"))


def row(reading: Reading) -> str:
    """Return the notes as they are written under a staff: T and K, and ``-`` for what is slurred."""
    return "".join(event.stroke or "-" if not event.slurred else "-" for event in reading.notes)


@pytest.mark.parametrize(
    ("pattern", "division", "written"),
    [
        ("all_tongued", 4, "TTTTTTTT"),
        ("all_slurred", 4, "T-------"),
        ("slur_pairs", 4, "T-T-T-T-"),
        ("slur_two_tongue_two", 4, "T-TTT-TT"),
        ("tongue_two_slur_two", 4, "TTT-TTT-"),
        ("slur_three_tongue_one", 4, "T--TT--T"),
        ("tongue_one_slur_three", 4, "TT--TT--"),
        ("tongue_one_slur_two_tongue_one", 4, "TT-TTT-T"),
        ("slur_two_tongue_one", 3, "T-TT-T"),
        ("tongue_one_slur_two", 3, "TT-TT-"),
        ("slur_three", 3, "T--T--"),
        ("slur_three", 6, "T--T--T--T--"),
        # In fives it crosses the beat until it is home.
        ("slur_two_tongue_two", 5, "T-TTT-TTT-"),
        ("double_on_t", 3, "TKTTKT"),
        ("double_on_t", 4, "TKTKTKTT"),
        ("triple_on_t", 3, "TTKTTT"),
        ("triple_on_t", 6, "TTKTTKTTKTTT"),
    ],
)
def test_each_pattern_over_two_beats(pattern: str, division: int, written: str) -> None:
    assert row(blown(pattern, division)) == written


def test_a_slur_counts_as_one_stroke_of_the_tongue() -> None:
    (tongue,) = loads(blown("slur_three_tongue_one"), F(60))
    assert (tongue.symbol, tongue.strikes) == ("T", 4)
    # T - - T T: the closest two are neighbours, four a second.
    assert tongue.peak_nps == 4


def test_the_syllable_that_limits_is_told() -> None:
    found = loads(blown("triple_on_t", 3, beats=4), F(60))
    assert (found[0].symbol, found[0].peak_nps) == ("T", 3)


def test_what_follows_a_silence_is_tongued_whatever_the_pattern() -> None:
    drill = Drill(material=Line("C5 D5 r E5 F5 G5"), legs=legs(4), instrument="flute", hands=Articulated("all_slurred"))
    assert row(read(drill)) == "T-T--"
    cut = replace(drill, hands=Articulated("slur_pairs"), material=Line("C5 r D5 E5"))
    # The slur would be on what is silent's other side: T, a rest, then the second of the pair is tongued.
    assert row(read(cut)) == "TTT"


def test_double_tonguing_lands_on_t_before_each_silence() -> None:
    drill = Drill(material=Count("1 e & a (2) 3 e & (4)"), instrument="flute", hands=Articulated("double_on_t"))
    assert row(read(replace(drill, legs=legs(1)))) == "TKTT" + "TKT"


@pytest.mark.parametrize(("circuit", "division", "count"), [("fours", 4, 8), ("threes", 3, 5)])
def test_a_circuit_has_a_leg_for_each_pattern_and_tells_its_time(circuit: str, division: int, count: int) -> None:
    drill = Drill(material=OneNote(beats=4), legs=legs(division), instrument="clarinet", bpm=F(60))
    made = changed(drill, "circuit", Where())
    assert made.hands == Articulated(circuit)
    assert len(made.legs) == count == len(CIRCUITS[circuit][0])  # type: ignore[index]
    reading = read(made)
    first = [row(read(replace(drill, hands=Articulated(one)))) for one in CIRCUITS[circuit][0]]  # type: ignore[index]
    of_legs = ["".join(one) for one in by_leg(reading)]
    assert of_legs == first
    (told,) = [one for one in paragraphs(reading, sums(reading, F(60)), F(60)) if one.title == "Circuit"]
    assert told.sentences[0] == "1. all tongued: 4 beats, 4.0 s."
    assert told.sentences[-1] == f"All of it lasts {4 * count}.0 s."


def by_leg(reading: Reading) -> list[str]:
    found: dict[int, str] = {}
    for event, sign in zip(reading.notes, row(reading), strict=True):
        found[event.leg] = found.get(event.leg, "") + sign
    return list(found.values())


@pytest.mark.parametrize(("division", "beats"), [(4, 1), (5, 4), (7, 4), (6, 1), (3, 4)])
def test_where_a_pattern_of_four_crosses_the_beat_and_is_home(division: int, beats: int) -> None:
    (home,) = lead_homes(blown("slur_two_tongue_two", division, beats=16))
    assert home.beats == beats


def test_a_circuit_is_for_what_is_blown() -> None:
    with pytest.raises(OutOfRange, match=r"guitar is not\. Choose a wind instrument"):
        changed(Drill(instrument="guitar"), "circuit", Where())


def test_an_unknown_pattern_is_refused() -> None:
    with pytest.raises(OutOfRange) as refused:
        Articulated("flutter")
    assert refused.value.field == "hands.pattern"
    assert all(name in refused.value.message for name in ARTICULATION_PATTERNS)


def test_a_scale_is_slurred_over_its_turn() -> None:
    drill = Drill(material=ScaleRun(octaves=1), legs=legs(4), instrument="clarinet", hands=Articulated("slur_pairs"))
    assert row(read(drill)) == "T-" * 7 + "T"
