"""Registers: the break of an instrument, its range by level, and what is heard of what is written."""

from dataclasses import replace

import pytest

from ripresa.core.changes import Where, changed
from ripresa.core.drill import Drill
from ripresa.core.drill.material import Line, LongNotes, OneNote, ScaleRun
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.pitch import INSTRUMENTS, parse_pitch
from ripresa.core.reading import read
from ripresa.core.reports import breaks, breath_plan, brief, paragraphs, sounding_key, sounding_pitch, sums, warnings
from ripresa.core.shelf import SHELF
from tests.strategies import legs

CLARINET = Drill(material=ScaleRun(tonic="F", octaves=2), legs=legs(2), instrument="clarinet")


@pytest.mark.parametrize(
    ("instrument", "below", "above"),
    [
        ("clarinet", "Bb4", "B4"),
        ("clarinet_a", "Bb4", "B4"),
        ("flute", "C#5", "D5"),
        ("alto_saxophone", "C#5", "D5"),
        ("recorder", "Eb5", "E5"),
    ],
)
def test_the_break_of_each_instrument(instrument: str, below: str, above: str) -> None:
    ((low, high),) = INSTRUMENTS[instrument].breaks
    assert (low, high) == (parse_pitch(below).midi, parse_pitch(above).midi)


def test_crossings_are_counted_in_a_pass() -> None:
    (found,) = breaks(read(CLARINET))
    # F3 to F5 and back: once up, once down.
    assert (found.below.shown, found.above.shown, found.crossings) == ("B♭4", "B4", 2)
    trill = Drill(material=Line("A4 B4 A4 B4"), legs=legs(2), instrument="clarinet")
    assert breaks(read(trill))[0].crossings == 3
    assert breaks(read(replace(CLARINET, material=ScaleRun(tonic="F", octaves=1)))) == ()
    assert breaks(read(replace(CLARINET, instrument="trumpet"))) == ()


def test_a_drill_is_made_of_the_crossing() -> None:
    made = changed(CLARINET, "crossing", Where())
    assert isinstance(made.material, Line)
    assert made.material.text.split()[:4] == ["A4", "Bb4", "C5", "D5"]
    assert breaks(read(made))[0].crossings == 6
    assert made.title == "New drill, the crossing"
    with pytest.raises(OutOfRange, match="no break between registers that is known"):
        changed(replace(CLARINET, instrument="trumpet"), "crossing", Where())
    with pytest.raises(OutOfRange, match="this material has none"):
        changed(replace(CLARINET, material=OneNote()), "crossing", Where())


@pytest.mark.parametrize(
    ("instrument", "written", "heard"),
    [
        ("clarinet", "C5", "Bb4"),
        ("clarinet", "F#4", "E4"),
        ("clarinet_a", "C5", "A4"),
        ("alto_saxophone", "C5", "Eb4"),
        ("tenor_saxophone", "C5", "Bb3"),
        ("trumpet", "D5", "C5"),
        ("guitar", "E4", "E3"),
    ],
)
def test_what_is_heard_of_what_is_written(instrument: str, written: str, heard: str) -> None:
    reading = read(Drill(instrument=instrument))
    found = sounding_pitch(reading, parse_pitch(written))
    assert found.name == heard
    assert found.midi == parse_pitch(written).midi + INSTRUMENTS[instrument].sounds


def test_a_transposed_key_is_told_written_and_sounding() -> None:
    assert sounding_key(read(replace(CLARINET, material=ScaleRun(tonic="C", octaves=1)))) == ("C", "B♭")
    assert sounding_key(read(replace(CLARINET, material=ScaleRun(tonic="G"), instrument="alto_saxophone"))) == (
        "G",
        "B♭",
    )
    assert sounding_key(read(replace(CLARINET, instrument="flute"))) is None
    told = [line for one in paragraphs(read(CLARINET), sums(read(CLARINET), F(60)), F(60)) for line in one.sentences]
    assert "Written F is heard as E♭ on clarinet in B♭." in told


def test_a_first_year_has_a_range_of_its_own() -> None:
    high = replace(CLARINET, instrument="trumpet", material=ScaleRun(tonic="C", octaves=2))
    assert warnings(read(high)) == ()
    (warning,) = warnings(read(replace(high, level="first_year")))
    assert warning.startswith("Out of range for trumpet in B♭")
    # A fifth over the octave is beyond a first year, and folded into it if that is asked for.
    folded = read(replace(high, level="first_year", folded=True))
    assert {event.pitch.midi <= 72 for event in folded.notes if event.pitch} == {True}


def test_long_notes_are_counted_inside_with_a_breath_for_each() -> None:
    drill = Drill(material=LongNotes(beats=6, rest=2), legs=legs(1), instrument="flute", breath=F(8), bpm=F(60))
    reading = read(drill)
    assert [event.count for event in reading.events[:6]] == ["1", "2", "3", "4", "5", "6"]
    assert [event.kind for event in reading.events[:8]] == ["note", *["hold"] * 5, "rest", "rest"]
    plan = breath_plan(reading, F(60))
    assert [(one.notes, one.seconds, one.why) for one in plan[:2]] == [(1, 6, "start"), (1, 6, "rest")]
    assert len(plan) == 8


@pytest.mark.parametrize("octaves", [-1, 1, 2])
def test_strings_and_frets_go_along_with_the_register(octaves: int) -> None:
    """In every register a note sounds as it lies: no TAB is an octave from its notes."""
    for one in SHELF:
        reading = read(replace(one.drill, register=octaves, folded=True))
        for event in reading.every:
            places = [(pluck.string, pluck.fret) for pluck in event.how.plucks]
            if event.touch and event.touch.string is not None and event.touch.fret is not None:
                places.append((event.touch.string, event.touch.fret))
            if event.kind == "note" and event.tones:
                lying = {reading.instrument.fretted(string, fret) for string, fret in places}
                assert lying <= {tone.midi for tone in event.tones}, (one.key, event.place_name)


def test_a_finger_exercise_goes_twelve_frets_up_and_open_strings_stay() -> None:
    drills = {one.key: one.drill for one in SHELF}
    walk = read(replace(drills["crab-walk"], register=1))
    first = walk.events[0]
    assert (first.touch and first.touch.shown, first.pitch and first.pitch.name) == ("6·13", "F4")
    picked = read(drills["lamps-on-the-quay"])
    moved = read(replace(drills["lamps-on-the-quay"], register=1))
    assert [event.pitch for event in moved.events] == [event.pitch for event in picked.events]
    assert "An octave higher, but on its strings as written." in brief(moved)
