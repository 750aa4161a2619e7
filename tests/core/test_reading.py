import pytest
from hypothesis import given, settings

from ripresa.core.drill import Drill, Leg, Seam
from ripresa.core.drill.accents import EachBeat, EveryNth, NoAccents
from ripresa.core.drill.click import NamedClick
from ripresa.core.drill.hands import ByOrder, ByPlace, Letters
from ripresa.core.drill.material import OneNote, ScaleRun
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.reading import read, unreduced
from ripresa.core.reports import sums, warnings
from ripresa.core.reports.fit import fit
from tests.strategies import drills, legs

MATCHING = ScaleRun(tonic="D", scale="melodic_minor", octaves="match")
STEPPING = Drill(material=MATCHING, legs=legs(2, 3, 4))


def test_octaves_that_match_the_division_always_last_fourteen_beats() -> None:
    reading = read(STEPPING)
    assert [fit(leg, reading.meter).beats for leg in reading.legs] == [14, 14, 14]


@pytest.mark.parametrize(("scale", "beats"), [("major", 14), ("minor_pentatonic", 10), ("chromatic", 24)])
def test_matching_octaves_last_two_beats_a_degree(scale: str, beats: int) -> None:
    reading = read(Drill(material=ScaleRun(scale=scale, octaves="match"), legs=legs(2, 3, 4)))
    assert {leg.pass_beats for leg in reading.legs} == {beats}


def test_one_octave_repeated_lasts_the_same_beats() -> None:
    reading = read(Drill(material=ScaleRun(octaves="one_repeated"), legs=legs(2, 3, 4)))
    assert [leg.pass_beats for leg in reading.legs] == [14, 14, 14]


def test_the_turning_note_twice_spoils_it() -> None:
    reading = read(Drill(material=ScaleRun(octaves="match", top="twice"), legs=legs(2, 3, 4)))
    assert [leg.pass_beats for leg in reading.legs] == [15, F(44, 3), F(29, 2)]


def test_the_fit_report_names_the_closing_tonic_and_what_is_missing() -> None:
    reading = read(STEPPING)
    reports = [fit(leg, reading.meter) for leg in reading.legs]
    assert [(report.missing_beats, report.bars) for report in reports] == [(2, F(7, 2))] * 3
    # Bars are those of the drill, as the rail counts them, in each stage.
    assert [report.closing for report in reports] == ["bar 4, beat 3", "bar 8, beat 3", "bar 12, beat 3"]
    assert [report.last_note for report in reports] == ["bar 4, beat 2, &", "bar 8, beat 2, let", "bar 12, beat 2, a"]


@pytest.mark.parametrize(
    ("seam", "starts", "beats"),
    [
        pytest.param("hold", [0, 16, 32], 48, id="hold: four bars a leg"),
        pytest.param("straight_on", [0, 14, 28], 44, id="straight on, and at last to the bar line"),
        pytest.param("bar_rest", [0, 20, 40], 60, id="a bar’s rest after the hold"),
        pytest.param("breath", [0, 16, 32], 48, id="closing tonic, then a beat to breathe"),
    ],
)
def test_seams(seam: Seam, starts: list[int], beats: int) -> None:
    reading = read(Drill(material=MATCHING, legs=legs(2, 3, 4), seam=seam))
    assert [leg.start for leg in reading.legs] == starts
    assert reading.beats == beats


def test_two_three_four_with_hold_takes_thirty_seconds_at_96() -> None:
    found = sums(read(STEPPING), F(96))
    assert (found.beats, found.seconds, found.bars) == (48, 30, 12)


def test_a_run_that_fits_its_bars_holds_nothing() -> None:
    reading = read(Drill(material=OneNote(beats=8), legs=legs(3)))
    assert {event.kind for event in reading.events} == {"note"}
    assert fit(reading.legs[0], reading.meter).sentence == "24 notes are 8 beats, 2 bars exactly."


def test_counts_of_each_division() -> None:
    def words(division: str) -> list[str]:
        events = read(Drill(material=OneNote(beats=4), legs=legs(division))).events
        return [event.count for event in events if event.beat <= 2]

    assert words("1") == ["1", "2"]
    assert words("2") == ["1", "&", "2", "&"]
    assert words("3") == ["1", "trip", "let", "2", "trip", "let"]
    assert words("4") == ["1", "e", "&", "a", "2", "e", "&", "a"]
    assert words("5") == ["1", "2", "3", "4", "5", "2", "2", "3", "4", "5"]


def test_half_a_note_a_beat_stands_on_every_second_beat() -> None:
    notes = read(Drill(material=OneNote(beats=8), legs=legs("1/2"))).notes
    assert [(note.bar, note.beat) for note in notes] == [(1, 1), (1, 3), (2, 1), (2, 3)]


def test_six_eight_counts_dotted_quarters() -> None:
    reading = read(Drill(material=OneNote(beats=4), legs=legs(3), meter="6/8"))
    assert reading.bars == 2
    assert (reading.events[3].bar, reading.events[3].beat) == (1, 2)


def test_every_fifth_note_starts_a_group_and_each_leg_starts_anew() -> None:
    reading = read(Drill(material=OneNote(beats=4), legs=legs(4, 3), accents=EveryNth(size=5)))
    accented = [(event.leg, event.place_name) for event in reading.notes if event.accent == "accent"]
    assert accented[:4] == [
        (0, "bar 1, beat 1"),
        (0, "bar 1, beat 2, e"),
        (0, "bar 1, beat 3, &"),
        (0, "bar 1, beat 4, a"),
    ]
    assert accented[4] == (1, "bar 2, beat 1")


def test_hands_run_on_over_legs_or_start_again() -> None:
    running = Drill(material=OneNote(beats=1), legs=legs(3, 3), seam="straight_on", hands=ByOrder())
    assert [event.stroke for event in read(running).notes] == ["D", "U", "D", "U", "D", "U"]
    again = Drill(material=OneNote(beats=1), legs=legs(3, 3), seam="straight_on", hands=ByOrder(restart="leg"))
    assert [event.stroke for event in read(again).notes] == ["D", "U", "D", "D", "U", "D"]


def test_what_does_not_fit_the_instrument_is_said_with_its_legs() -> None:
    drill = Drill(material=ScaleRun(tonic="E", octaves="match"), legs=legs(2, 3, 4), instrument="guitar")
    (sentence,) = warnings(read(drill))
    assert sentence.startswith("Out of range for guitar: 4 a beat (4 octaves).")
    assert "One octave repeated lasts the same beats" in sentence


def test_a_drill_with_too_many_notes_is_refused() -> None:
    drill = Drill(material=OneNote(beats=256), legs=legs(*[8] * 10))
    with pytest.raises(OutOfRange, match="more than 20000 notes") as refused:
        read(drill)
    assert refused.value.field == "legs"


@pytest.mark.parametrize(
    ("make", "field"),
    [
        (lambda: Drill(title=" "), "title"),
        (lambda: Drill(bpm=F(0)), "bpm"),
        (lambda: Drill(meter="13/17"), "meter"),
        (lambda: Drill(instrument="kazoo"), "instrument"),
        (lambda: Drill(legs=()), "legs"),
        (lambda: Leg(F(17)), "legs.division"),
        (lambda: OneNote(beats=0), "material.beats"),
        (lambda: EveryNth(size=1), "accents.size"),
        (lambda: ByOrder(cycle=()), "hands.cycle"),
        (lambda: ByOrder(cycle=("right",)), "hands.cycle"),
        (lambda: NamedClick(plan="never ever"), "click.plan"),
    ],
    ids=lambda value: value if isinstance(value, str) else "",
)
def test_a_bad_part_cannot_exist(make: object, field: str) -> None:
    with pytest.raises(OutOfRange) as refused:
        make()  # type: ignore[operator]
    assert refused.value.field == field


@settings(max_examples=50)
@given(drills)
def test_events_tile_the_drill_without_gap_or_overlap(drill: Drill) -> None:
    reading = read(drill)
    at = F(0)
    for event in reading.events:
        assert event.onset == at
        assert event.length > 0
        at += event.length
    assert at == reading.beats


@settings(max_examples=50)
@given(drills)
def test_nothing_crosses_a_bar_line_and_places_are_where_the_meter_says(drill: Drill) -> None:
    reading = read(drill)
    for event in reading.events:
        bar, beat, _ = reading.meter.place(event.onset)
        assert (event.bar, event.beat) == (bar, beat)
        assert event.onset + event.length <= bar * reading.meter.cycle_beats


@settings(max_examples=50)
@given(drills)
def test_held_parts_give_back_the_whole_length(drill: Drill) -> None:
    reading = read(drill)
    sounding = list(reading.sounding())
    for events in reading.hands:
        notes = [(event, length) for event, length in sounding if event.hand == events[0].hand]
        silent = sum((event.length for event in events if event.kind in {"rest", "air"}), F(0))
        assert sum((length for _, length in notes), F(0)) + silent == reading.beats
        assert [event for event, _ in notes] == [event for event in events if event.kind == "note"]


@settings(max_examples=50)
@given(drills)
def test_accents_and_hands_stand_on_notes_only(drill: Drill) -> None:
    for event in read(drill).events:
        if event.kind != "note":
            assert event.accent == "plain"
            # Only an arm that swings by place moves where nothing sounds.
            assert event.stroke is None or isinstance(drill.hands, ByPlace | Letters)
            assert event.kind != "rest" or event.stroke is None


@settings(max_examples=50)
@given(drills)
def test_taking_accents_and_hands_away_moves_nothing(drill: Drill) -> None:
    bare = Drill(
        material=drill.material,
        legs=drill.legs,
        meter=drill.meter,
        seam=drill.seam,
        closing=drill.closing,
        instrument=drill.instrument,
        swing=drill.swing,
        accents=NoAccents(),
    )
    without, whole = read(bare), unreduced(read(drill))
    # An arm that swings on has its places in what is held or silent too: notes and ends are the same, holds are finer.
    assert [event.onset for event in without.notes] == [event.onset for event in whole.notes]
    assert {event.onset for event in without.events} <= {event.onset for event in whole.events}
    assert without.beats == whole.beats


def test_an_accent_on_each_beat_is_the_beat() -> None:
    reading = read(Drill(material=OneNote(beats=4), legs=legs(3), accents=EachBeat()))
    assert [event.onset for event in reading.notes if event.accent == "accent"] == [0, 1, 2, 3]
