"""Transposing: lines, chords and parts; the circle of keys; the backing under what is played."""

import pytest

from ripresa.core.changes import Overrides, Where, changed, overridden, variant_set
from ripresa.core.changes.transposed import moved_chords
from ripresa.core.drill import Drill
from ripresa.core.drill.material import Arpeggio, Line, Material, Picked, ScaleRun, Strum
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.pitch import SCALES
from ripresa.core.playing.backing import backing
from ripresa.core.reading import read
from tests.strategies import legs


def circle(material: Material) -> list[str]:
    found = variant_set(Drill(material=material, legs=legs(2)), "keys", F(60)).variants
    return [one.overrides.key for one in found]


def test_the_circle_of_keys_goes_by_the_signs_of_major_or_of_minor() -> None:
    assert " ".join(circle(ScaleRun("C"))) == "C G D A E B F# Db Ab Eb Bb F"
    assert " ".join(circle(ScaleRun("A", "harmonic_minor"))) == "A E B F# C# G# Eb Bb F C G D"
    assert " ".join(circle(Arpeggio("A", "minor_seventh"))) == "A E B F# C# G# Eb Bb F C G D"
    assert " ".join(circle(Line("A4 C5 E5", tonic="A"))) == "A E B F# C# G# Eb Bb F C G D"
    assert " ".join(circle(Line("A4 C#5 E5", tonic="A"))) == "A E B F# Db Ab Eb Bb F C G D"


def test_a_line_in_all_keys_is_twelve_lines() -> None:
    drill = Drill(material=Line("A4 C5 >E5*2 | (B4) r", tonic="A", through="Am | E7"), legs=legs(2))
    every = variant_set(drill, "keys", F(60)).variants
    heard = {
        tuple(event.pitch.midi for event in read(overridden(drill, one.overrides)).notes if event.pitch)
        for one in every
    }
    assert len(heard) == 12
    moved = overridden(drill, Overrides(key="C")).material
    assert isinstance(moved, Line)
    assert (moved.text, moved.through, moved.tonic) == ("C5 Eb5 >G5*2 | (D5) r", "Cm | G7", "C")


@pytest.mark.parametrize(
    ("chords", "steps", "semitones", "found"),
    [
        ("C | F*3 G7*1", 1, 2, "D | G*3 A7*1"),
        ("Am/G | N.C. | -", 2, 3, "Cm/Bb | N.C. | -"),
        ("C=x32010", 4, 7, "G"),
        ("x32010", 4, 7, "x32010"),
    ],
)
def test_chords_are_moved_and_their_bars_stay(chords: str, steps: int, semitones: int, found: str) -> None:
    assert moved_chords(chords, steps, semitones) == found


@pytest.mark.parametrize(
    ("instrument", "source", "text", "found"),
    [
        ("alto_saxophone", "", "C4 E4 G4", "A4 C#5 E5"),
        ("clarinet", "", "C4 E4", "D4 F#4"),
        ("clarinet", "alto_saxophone", "A4 C#5", "D4 F#4"),
        ("horn", "", "C4", "G4"),
        ("flute", "trumpet", "D4 F#4", "C4 E4"),
    ],
)
def test_a_line_is_written_for_the_instrument_of_the_student(
    instrument: str, source: str, text: str, found: str
) -> None:
    drill = Drill(material=Line(text), legs=legs(2), instrument=instrument)
    made = changed(drill, "part", Where(source=source)).material
    assert isinstance(made, Line)
    assert made.text == found


def test_a_scale_is_written_for_it_in_the_key_with_fewer_signs() -> None:
    made = changed(Drill(material=ScaleRun("E"), instrument="alto_saxophone"), "part", Where()).material
    assert isinstance(made, ScaleRun)
    assert made.tonic == "Db"
    with pytest.raises(OutOfRange, match="flute reads it as it stands"):
        changed(Drill(material=ScaleRun("E"), instrument="flute"), "part", Where())


@pytest.mark.parametrize(
    ("material", "classes"),
    [
        (Arpeggio("A", "minor_triad"), {9, 0, 4}),
        (Arpeggio("G", "dominant_seventh"), {7, 11, 2, 5}),
        (ScaleRun("A", "natural_minor"), {9, 0, 4}),
        (ScaleRun("B", "locrian"), {11, 2, 5}),
        (ScaleRun("C", "lydian"), {0, 4, 7}),
        (ScaleRun("C", "whole_tone"), {0, 4, 8}),
        (ScaleRun("A", "minor_pentatonic"), {9, 0, 4}),
        (ScaleRun("D", "dorian"), {2, 5, 9}),
        (Picked("Am", "p i m a"), {9, 0, 4}),
        (Strum("G7"), {7, 11, 2, 5}),
    ],
)
def test_the_backing_has_the_quality_of_the_material(material: Material, classes: set[int]) -> None:
    instrument = "guitar" if isinstance(material, Picked) else "any"
    notes = backing(read(Drill(material=material, legs=legs(2), instrument=instrument)), ["chords"])
    concert = {midi % 12 for note in notes for midi in note.midis}
    assert concert == classes


def test_nothing_is_held_under_no_chord() -> None:
    notes = backing(read(Drill(material=Strum("C | N.C. | G"), instrument="guitar")), ["chords", "bass"])
    assert not [note for note in notes if 4 <= note.at < 8]


@pytest.mark.parametrize(
    ("tonic", "up", "down"),
    [
        ("C", "C C# D D# E F F# G G# A A# B C", "C B Bb A Ab G Gb F E Eb D Db C"),
        ("E", "E F F# G G# A A# B C C# D D# E", "E D# D C# C B Bb A G# G F# F E"),
        ("F", "F F# G G# A Bb B C C# D D# E F", "F E Eb D Db C B Bb A Ab G Gb F"),
        ("F#", "F# G G# A A# B C C# D D# E E# F#", None),
        ("Db", "Db D Eb E F Gb G Ab A Bb B C Db", None),
    ],
)
def test_a_chromatic_scale_is_spelt_in_its_key(tonic: str, up: str, down: str | None) -> None:
    for shape, expected in (("up", up), ("down", down)):
        run = ScaleRun(tonic, "chromatic", shape, 1)  # type: ignore[arg-type]
        notes = read(Drill(material=run, legs=legs(3), closing="own")).notes
        found = " ".join(event.pitch.name.rstrip("0123456789") for event in notes if event.pitch)
        assert expected is None or found == expected


def test_no_chromatic_scale_has_a_double_sign() -> None:
    assert SCALES["chromatic"].degrees == 12
    for tonic in ("C#", "D#", "G#", "A#", "Cb", "Gb"):
        notes = read(Drill(material=ScaleRun(tonic, "chromatic"), legs=legs(3))).notes
        assert all(abs(event.pitch.alter) < 2 for event in notes if event.pitch)
