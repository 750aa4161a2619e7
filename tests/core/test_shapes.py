"""Shapes: the grips of chords, from the table, by rule, or typed; each one can be held and sounds as its chord."""

import pytest

from ripresa.core.drill import Drill
from ripresa.core.drill.material import Picked, Strum
from ripresa.core.errors import RipresaError
from ripresa.core.pitch import INSTRUMENTS, SPAN, Chord, Instrument, Shape, parse_chord, shape_of, voiced
from ripresa.core.pitch.chord_symbol import QUALITIES
from ripresa.core.pitch.shapes import _MOVABLE, _OPEN
from ripresa.core.reading import read
from ripresa.core.reports import warnings

GUITAR = INSTRUMENTS["guitar"]
STRINGED = [one for one in INSTRUMENTS.values() if one.strings]


def grip(symbol: str, instrument: str = "guitar") -> str:
    return shape_of(parse_chord(symbol), INSTRUMENTS[instrument]).text


@pytest.mark.parametrize(
    ("symbol", "frets", "fingers"),
    [
        pytest.param("C", "x32010", (0, 3, 2, 0, 1, 0), id="open"),
        pytest.param("Am", "x02210", (0, 0, 2, 3, 1, 0), id="open minor"),
        pytest.param("F", "xx3211", (0, 0, 3, 2, 1, 1), id="small F"),
        pytest.param("Bb", "x13331", (0, 1, 2, 3, 4, 1), id="movable, root on string 5"),
        pytest.param("F#m", "244222", (1, 3, 4, 1, 1, 1), id="movable, root on string 6"),
        pytest.param("D/F#", "200232", (1, 0, 0, 2, 4, 3), id="another bass"),
    ],
)
def test_the_usual_shapes_of_the_usual_tuning(symbol: str, frets: str, fingers: tuple[int, ...]) -> None:
    shape = shape_of(parse_chord(symbol), GUITAR)
    assert (shape.text, shape.fingers) == (frets, fingers)


def sounds_as(chord: Chord, shape: Shape, instrument: Instrument) -> set[int]:
    """Return the pitch classes over the root, worked out from strings and frets alone."""
    return {
        (open_note + fret - chord.root.midi) % 12
        for open_note, fret in zip(instrument.strings, shape.frets, strict=True)
        if fret is not None
    }


@pytest.mark.parametrize("row", [*_OPEN, *(f"{root}{kind}" for kind in _MOVABLE for root in ("Bb", "F#", "Db"))])
def test_every_row_of_the_table_sounds_as_its_chord(row: str) -> None:
    chord = parse_chord(row)
    shape = shape_of(chord, GUITAR)
    tones = {semitones for _, semitones in chord.tones.up}
    bass = {(chord.bass.midi - chord.root.midi) % 12} if chord.bass else set()
    # Of a seventh chord the fifth may be missing, as it is in the open C7.
    assert tones - ({7} if len(tones) > 3 else set()) <= sounds_as(chord, shape, GUITAR) <= tones | bass
    low = next(
        open_note + fret for open_note, fret in zip(GUITAR.strings, shape.frets, strict=True) if fret is not None
    )
    assert low % 12 == (chord.bass or chord.root).midi % 12
    assert [bool(fret) for fret in shape.frets] == [bool(finger) for finger in shape.fingers]


@pytest.mark.parametrize("instrument", STRINGED, ids=lambda one: one.name)
@pytest.mark.parametrize("quality", QUALITIES)
def test_a_shape_is_found_for_every_chord_that_a_hand_can_hold(instrument: Instrument, quality: str) -> None:
    for root in ("C", "F#", "Bb"):
        chord = parse_chord(root + quality)
        shape = shape_of(chord, instrument)
        tones = {semitones for _, semitones in chord.tones.up}
        assert shape.stretch <= SPAN
        assert max(shape.fingers) <= 4
        # The fifth is what may be left out where there are more tones than strings to spare.
        assert tones - {7} <= sounds_as(chord, shape, instrument) <= tones
        sounding = [
            open_note + fret
            for open_note, fret in zip(instrument.strings, shape.frets, strict=True)
            if fret is not None
        ]
        if list(instrument.strings) == sorted(instrument.strings):
            assert min(sounding) % 12 == chord.root.midi % 12


def test_a_finger_that_lies_across_damps_no_open_string() -> None:
    for instrument in STRINGED:
        for symbol in ("Eb7", "Abaug", "C9", "Gdim7"):
            shape = shape_of(parse_chord(symbol), instrument)
            for finger in range(1, 5):
                at = [index for index, one in enumerate(shape.fingers) if one == finger]
                across = len({shape.frets[index] for index in at}) == 1 and len(at) > 1
                assert not across or 0 not in shape.frets[at[0] : at[-1]]


def test_a_shape_is_typed_after_its_chord_or_alone() -> None:
    assert grip("C=x35553") == "x35553"
    assert [tone.name for tone in voiced(parse_chord("C=x35553"), GUITAR).tones] == ["C4", "G4", "C5", "E5", "G5"]
    alone = parse_chord("x32010")
    assert (alone.shown, alone.root.name, grip("x32010")) == ("x32010", "C4", "x32010")
    assert grip("A=x-x-14-14-14-12") == "x-x-14-14-14-12"


@pytest.mark.parametrize(
    ("chords", "instrument", "says"),
    [
        ("C=x3201", "guitar", "“C” grips 5 strings, and guitar has 6."),
        ("C=xxxxxx", "guitar", "no string sounds"),
        ("C=x32018", "guitar", "spans 8 frets, from 1 to 8, and a hand reaches 4, 6 at the most"),
        ("C=0003", "guitar", "“C” grips 4 strings, and guitar has 6."),
        ("C=x-x-x-14", "ukulele", "“C” asks for fret 14, and ukulele has 12."),
        ("C=x32y10", "guitar", "is not a chord"),
        ("x-x-30-30-30-30", "guitar", "necks end at 24"),
    ],
)
def test_a_shape_that_cannot_be_held_is_refused(chords: str, instrument: str, says: str) -> None:
    with pytest.raises(RipresaError) as refused:
        read(Drill(material=Strum(chords), instrument=instrument))
    assert says in refused.value.message
    assert refused.value.field == "material.chords"


def test_a_wide_shape_is_told_with_a_caution() -> None:
    (warning,) = warnings(read(Drill(material=Picked("C=x32015", "p i m"), instrument="guitar")))
    assert warning.startswith("C (x32015) spans 5 frets, and a hand lies over 4: it is a stretch.")


def test_the_reading_knows_each_shape_once() -> None:
    shapes = read(Drill(material=Strum("C | Am | C"), instrument="guitar")).shapes
    assert [shape.symbol for shape in shapes] == ["C", "Am"]
    assert read(Drill(material=Strum("C | Am"), instrument="piano")).shapes == ()
