"""Shapes: the grips of chords, from the table, by rule, or typed; each one can be held and sounds as its chord."""

import pytest

from ripresa.core.drill import Drill
from ripresa.core.drill.material import Picked, Strum
from ripresa.core.errors import RipresaError
from ripresa.core.pitch import INSTRUMENTS, SPAN, Chord, Instrument, Shape, parse_chord, shape_of, shapes_of, voiced
from ripresa.core.pitch.chord_symbol import QUALITIES
from ripresa.core.pitch.grip_tables import GUITAR_FORMS, GUITAR_OPEN, UKULELE_OPEN
from ripresa.core.reading import read
from ripresa.core.reports import warnings
from tests.strategies import legs

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


@pytest.mark.parametrize(
    ("symbol", "frets"),
    [
        ("E5", "022xxx"),
        ("A5", "x022xx"),
        ("F5", "133xxx"),
        ("C5", "x355xx"),
        ("Amaj7", "x02120"),
        ("Emaj7", "021100"),
        ("Am7b5", "x0101x"),
        ("F9", "131213"),
        ("Cm9", "x3133x"),
        ("Cmaj9", "x3243x"),
        ("G13", "3x345x"),
        ("A7sus4", "x02030"),
        ("E7#9", "x7678x"),
        ("Cadd9", "x32030"),
        ("Bdim", "x2343x"),
        ("Caug", "x32110"),
        ("Bbmaj7", "x13231"),
        ("Fm", "133111"),
        ("B", "x24442"),
    ],
)
def test_grips_are_those_that_teachers_print(symbol: str, frets: str) -> None:
    assert grip(symbol) == frets


@pytest.mark.parametrize(
    ("written", "meant"),
    [
        ("Cmin7", "Cm7"),
        ("C-7", "Cm7"),
        ("Cmi7", "Cm7"),
        ("CM7", "Cmaj7"),
        ("Cma7", "Cmaj7"),
        ("CΔ", "Cmaj7"),
        ("Bø", "Bm7b5"),
        ("B°7", "Bdim7"),
        ("Bo", "Bdim"),
        ("F+", "Faug"),
        ("Gsus", "Gsus4"),
        ("Cmin7/G", "Cm7/G"),
        ("E♭min9", "Ebm9"),
        ("Cmaj", "C"),
    ],
)
def test_a_chord_is_read_however_it_is_written(written: str, meant: str) -> None:
    assert parse_chord(written) == parse_chord(meant)
    assert parse_chord(written).symbol == meant


@pytest.mark.parametrize("symbol", UKULELE_OPEN)
def test_the_grips_of_a_ukulele_sound_as_their_chords(symbol: str) -> None:
    chord, ukulele = parse_chord(symbol), INSTRUMENTS["ukulele"]
    shape = shape_of(chord, ukulele)
    assert shape.text == UKULELE_OPEN[symbol][0]
    tones = {semitones for _, semitones in chord.tones.up}
    assert tones - {7} <= sounds_as(chord, shape, ukulele) <= tones
    assert [bool(fret) for fret in shape.frets] == [bool(finger) for finger in shape.fingers]


@pytest.mark.parametrize("symbol", ["C", "F9", "Ebm7", "D/F#", "G13"])
def test_other_grips_of_a_chord_are_offered_the_usual_one_first(symbol: str) -> None:
    chord = parse_chord(symbol)
    offered = shapes_of(chord, GUITAR)
    assert offered[0] == shape_of(chord, GUITAR)
    assert 3 < len({shape.frets for shape in offered}) == len(offered) <= 12
    for shape in offered:
        assert grip(f"{symbol}={shape.text}") == shape.text
        assert max(shape.fingers) <= 4


def test_no_chord_is_silence_until_the_next() -> None:
    strummed = read(Drill(material=Strum("C N.C. | NC", "1 2 3 4"), legs=legs(1), instrument="guitar"))
    assert [event.kind for event in strummed.events] == ["note", "note", *["rest"] * 6]
    picked = read(Drill(material=Picked("Am | N.C.", "p i m a"), legs=legs(1), instrument="guitar"))
    assert [event.kind for event in picked.events] == ["note"] * 4 + ["rest"] * 4


@pytest.mark.parametrize(
    ("symbol", "strings", "tones"),
    [
        ("C", "all", "C4 E4 G4"),
        ("G7/B", "all", "B3 D4 F4 G4"),
        ("C", "spread", "C4 G4 E5"),
        ("Am7", "spread", "A3 E4 G4 C5"),
        ("C9", "all", "C4 D4 E4 G4 Bb4"),
    ],
)
def test_on_keys_a_chord_lies_under_one_hand_or_is_spread(symbol: str, strings: str, tones: str) -> None:
    found = voiced(parse_chord(symbol), INSTRUMENTS["piano"], strings=strings)
    assert " ".join(tone.name for tone in found.tones) == tones


def sounds_as(chord: Chord, shape: Shape, instrument: Instrument) -> set[int]:
    """Return the pitch classes over the root, worked out from strings and frets alone."""
    return {
        (open_note + fret - chord.root.midi) % 12
        for open_note, fret in zip(instrument.strings, shape.frets, strict=True)
        if fret is not None
    }


MOVED = [f"{root}{kind}" for kind in GUITAR_FORMS for root in ("Bb", "F#", "Db", "Eb", "G", "B")]


@pytest.mark.parametrize("row", [*GUITAR_OPEN, *MOVED])
def test_every_row_of_the_table_sounds_as_its_chord(row: str) -> None:
    chord = parse_chord(row)
    shape = shape_of(chord, GUITAR)
    tones = {semitones for _, semitones in chord.tones.up}
    bass = {(chord.bass.midi - chord.root.midi) % 12} if chord.bass else set()
    # Of a seventh chord the fifth may be missing, as it is in the open C7; of a thirteenth the ninth too.
    spare = {7, 2} if len(tones) > 5 else {7} if len(tones) > 3 else set()
    assert tones - spare <= sounds_as(chord, shape, GUITAR) <= tones | bass
    assert max(shape.fingers) <= 4
    assert shape.stretch <= SPAN
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
        # The fifth is what may be left out where there are more tones than strings to spare, then the ninth; on few
        # strings, or in an odd tuning, the root of five tones goes too.
        spare = {7} if len(tones) < 5 else {7, 2} if instrument == GUITAR else {7, 2, 0}
        assert tones - spare <= sounds_as(chord, shape, instrument) <= tones
        sounding = [
            open_note + fret
            for open_note, fret in zip(instrument.strings, shape.frets, strict=True)
            if fret is not None
        ]
        if list(instrument.strings) == sorted(instrument.strings) and len(tones) < 5:
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
