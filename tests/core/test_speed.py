"""How fast a drill is: read off the gaps of the loop."""

import pytest

from ripresa.core.drill import Drill, Leg, Seam
from ripresa.core.drill.hands import ByOrder, ByPlace
from ripresa.core.drill.material import Cells, Count, Line, Material, OneNote, ScaleRun, Strum
from ripresa.core.exact import Fraction as F
from ripresa.core.exact import decimal
from ripresa.core.reading import read
from ripresa.core.reports import motions, peak_of, peak_of_drill, speeds, sums
from ripresa.core.reports.speed import leg_speeds
from ripresa.core.reports.told.rhythm import bar_told, cells_told
from ripresa.core.rhythm import Swing
from tests.strategies import legs


@pytest.mark.parametrize(
    ("material", "peak", "average"),
    [
        pytest.param(Count("1 & 2 & 3 e & a 4/8 .2 .3 .4 .5 .6 .7 .8"), "12.27", "6.13", id="mixed in a bar"),
        pytest.param(Count("1 (e) (&) a (2) (e) & (a) 3 4"), "3.07", "1.92", id="no two slots that follow both sound"),
        pytest.param(Count("1 (&) (2) (3) & (4)"), "1.02", "0.77", id="closest across the repeat"),
        pytest.param(Strum("C", pattern="1 (&) (2) (3) & (4)"), "1.02", "0.77", id="the same strummed"),
        pytest.param(OneNote(beats=1), "0.38", "0.38", id="a lone note has the whole turn"),
        pytest.param(Line("1*3/4 2*1/4 3*3", rhythm="own"), "6.13", "1.15", id="a line in its own rhythm"),
    ],
)
def test_peak_is_the_smallest_gap_of_the_loop_and_average_is_notes_over_seconds(
    material: Material, peak: str, average: str
) -> None:
    found = speeds(read(Drill(material=material, legs=legs(1))), F(92))
    assert (decimal(found.peak_nps, 2), decimal(found.average_nps, 2)) == (peak, average)


def test_mixed_divisions_at_76() -> None:
    drill = Drill(material=OneNote(beats=4), legs=(Leg(F(2), (F(2), F(4), F(8))),))
    found = speeds(read(drill), F(76))
    assert (decimal(found.peak_nps, 2), decimal(found.average_nps, 2)) == ("10.13", "5.07")


def test_thirteen_sixteenths_of_three_quarters_are_all_sixteenths() -> None:
    drill = Drill(material=OneNote(beats=3), legs=(Leg(F(4), (F(4), F(5))),), meter="3/4 +1/16")
    reading = read(drill)
    found = sums(reading, F(92))
    assert (decimal(found.speeds.peak_nps, 2), decimal(found.legs[0].gap_seconds * 1000, 1)) == ("6.13", "163.0")
    assert [event.count for event in reading.events if event.beat == 3][:5] == ["3", "e", "&", "a", "+"]
    assert dict(found.twins)[F(4)] == 92
    assert peak_of_drill(drill) == 4


def test_a_swung_pair_is_as_fast_as_its_short_gap_and_its_leg_as_fast_as_it_is_written() -> None:
    reading = read(Drill(material=OneNote(beats=4), legs=legs(2), swing=Swing(F(2))))
    (leg,) = sums(reading, F(60)).legs
    assert (peak_of(reading), leg.nps, leg.gaps) == (3, 2, (F(2, 3), F(1, 3)))


def test_the_arm_moves_there_and_back() -> None:
    strum = read(Drill(material=Strum("C", pattern="1 (&) (2) (3) & (4)"), hands=ByPlace(), legs=legs(1)))
    found = motions(strum, F(60))
    assert found
    assert (found.motions_nps, found.strikes_nps, found.peak_nps) == (2, F(1, 2), 2)
    # Two strokes one way take a way back between them.
    doubled = motions(read(Drill(material=OneNote(beats=4), legs=legs(2), hands=ByOrder(("D", "D", "U", "U")))), F(60))
    assert doubled
    assert (doubled.motions_nps, doubled.strikes_nps, doubled.peak_nps) == (3, 2, 4)
    assert motions(read(Drill(material=OneNote(), hands=ByOrder(("R", "L")))), F(60)) is None


@pytest.mark.parametrize("seam", ["hold", "bar_rest"])
@pytest.mark.parametrize("text", ["1 & 2 & | 1 &", "1 (&) 2 & 3", "1 & 2 & | 1 & (2)"])
def test_an_arm_that_swings_goes_on_through_what_a_seam_fills(text: str, seam: Seam) -> None:
    reading = read(Drill(material=Count(text), legs=legs(1, 1), seam=seam, hands=ByPlace()))
    found = motions(reading, F(60))
    assert found is not None
    assert (found.motions_nps, found.peak_nps) == (2, 2)
    strokes = [event.stroke for event in reading.events]
    assert strokes == ["D", "U"] * int(reading.beats)


def test_straight_on_a_pass_takes_as_long_as_its_loop() -> None:
    reading = read(Drill(material=ScaleRun(octaves="match"), legs=legs(2, 3, 4), seam="straight_on"))
    assert (reading.beats, reading.loop_beats) == (44, 44)
    first, second, last = (row.fit for row in sums(reading, F(92)).legs)
    assert (first.plays_closing, last.plays_closing, reading.notes[-1].place_name) == (False, True, "bar 11, beat 3")
    assert first.sentence.endswith("The closing tonic is the first note of what follows.")
    assert (second.closing, second.missing_beats) == ("bar 8, beat 1", 0)


@pytest.mark.parametrize(
    ("meter", "division", "gaps", "told"),
    [
        (
            "7/8 (2+2+3)",
            2,
            [F(3, 4), F(1, 2)],
            ["With 2 a beat the notes are 250.0 ms apart in a beat of 1 and 375.0 ms apart in a beat of 1½."],
        ),
        (
            "5/8 (2+3)",
            1,
            [F(3, 2), F(1)],
            ["With 1 a beat the notes are 500.0 ms apart in a beat of 1 and 750.0 ms apart in a beat of 1½."],
        ),
        ("4/4 | 3/4", 2, [F(1, 2)], []),
        ("4/4", 4, [F(1, 4)], []),
    ],
)
def test_notes_of_unequal_beats_are_told_in_each_length(
    meter: str, division: int, gaps: list[F], told: list[str]
) -> None:
    reading = read(Drill(material=OneNote(beats=8), legs=legs(division), meter=meter))
    (found,) = leg_speeds(reading)
    assert (found.gap, list(found.gaps)) == (gaps[-1], gaps)
    said = [
        sentence for one in bar_told(reading, F(120)) for sentence in one.sentences if "a beat the notes" in sentence
    ]
    assert said == told


def test_a_swung_pair_in_unequal_beats_has_its_two_gaps_in_each() -> None:
    drill = Drill(material=OneNote(beats=7), legs=legs(2), meter="7/8 (2+2+3)", swing=Swing(F(2), 2))
    (found,) = leg_speeds(read(drill))
    assert found.gap == F(1, 2)
    assert set(found.gaps) == {F(2, 3), F(1, 3), F(1), F(1, 2)}


def test_the_cells_stand_under_a_heading_of_their_own() -> None:
    (told,) = cells_told(read(Drill(material=Cells("1 &; 1 e & a", mix="all"), legs=legs(1))))
    assert (told.title, told.starts_title) == ("Cells over 16 bars", "The cells, bar by bar")
    assert told.starts.startswith("A A A A | A A A B | ")
    assert len(told.starts.split(" | ")) == 16
