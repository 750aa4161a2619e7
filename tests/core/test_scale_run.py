from dataclasses import replace
from itertools import pairwise

import pytest
from hypothesis import given

from ripresa.core.drill.material import Arpeggio, ScaleRun
from ripresa.core.drill.material.run import Octaves, Shape, Top, octaves_for
from ripresa.core.errors import OutOfRange, Unreadable
from ripresa.core.exact import Fraction as F
from ripresa.core.pitch import CHORDS, INSTRUMENTS, SCALES
from ripresa.core.rhythm import METERS
from tests.materials import scale_runs
from tests.strategies import divisions

ANY = INSTRUMENTS["any"]
FOUR = METERS["4/4"]


def names(run: ScaleRun, division: int = 2) -> list[str]:
    found = run.pass_for([F(division)], ANY, FOUR)
    return [pitch.name for pitch in (*found.notes, found.closing) if pitch]


def letters(scale: str, tonic: str, shape: Shape = "up") -> str:
    return " ".join(
        name.rstrip("0123456789") for name in names(ScaleRun(tonic=tonic, scale=scale, shape=shape, octaves=1))
    )


@pytest.mark.parametrize(
    ("scale", "tonic", "spelled"),
    [
        ("major", "Eb", "Eb F G Ab Bb C D Eb"),
        ("major", "F#", "F# G# A# B C# D# E# F#"),
        ("major", "Cb", "Cb Db Eb Fb Gb Ab Bb Cb"),
        ("natural_minor", "C", "C D Eb F G Ab Bb C"),
        ("harmonic_minor", "G#", "G# A# B C# D# E F## G#"),
        ("melodic_minor", "D", "D E F G A B C# D"),
        ("dorian", "D", "D E F G A B C D"),
        ("mixolydian", "G", "G A B C D E F G"),
        ("major_pentatonic", "A", "A B C# E F# A"),
        ("minor_pentatonic", "E", "E G A B D E"),
        ("blues", "Bb", "Bb Db Eb Fb F Ab Bb"),
        ("chromatic", "C", "C C# D D# E F F# G G# A A# B C"),
    ],
)
def test_scales_are_spelled_right(scale: str, tonic: str, spelled: str) -> None:
    assert letters(scale, tonic) == spelled


#: Every scale on C, note by note, as a book of scales prints it; where it comes down otherwise, that after a bar line.
ON_C = {
    "major": "C D E F G A B",
    "natural_minor": "C D Eb F G Ab Bb",
    "harmonic_minor": "C D Eb F G Ab B",
    "melodic_minor": "C D Eb F G A B | C Bb Ab G F Eb D",
    "major_pentatonic": "C D E G A",
    "minor_pentatonic": "C Eb F G Bb",
    "blues": "C Eb F Gb G Bb",
    "dorian": "C D Eb F G A Bb",
    "phrygian": "C Db Eb F G Ab Bb",
    "lydian": "C D E F# G A B",
    "mixolydian": "C D E F G A Bb",
    "locrian": "C Db Eb F Gb Ab Bb",
    "lydian_dominant": "C D E F# G A Bb",
    "mixolydian_b6": "C D E F G Ab Bb",
    "altered": "C Db Eb Fb Gb Ab Bb",
    "phrygian_dominant": "C Db E F G Ab Bb",
    "dorian_s4": "C D Eb F# G A Bb",
    "harmonic_major": "C D E F G Ab B",
    "double_harmonic": "C Db E F G Ab B",
    "hungarian_minor": "C D Eb F# G Ab B",
    "major_blues": "C D Eb E G A",
    "mixed_blues": "C D Eb E F Gb G A Bb",
    "major_minor_pentatonic": "C D Eb E F G A Bb",
    "dominant_bebop": "C D E F G A Bb B",
    "major_bebop": "C D E F G G# A B",
    "dorian_bebop": "C D Eb E F G A Bb",
    "whole_tone": "C D E F# G# Bb",
    "diminished": "C D Eb F Gb Ab A B",
    "dominant_diminished": "C Db Eb E F# G A Bb",
    "chromatic": "C C# D D# E F F# G G# A A# B | C B Bb A Ab G Gb F E Eb D Db",
}


@pytest.mark.parametrize("scale", SCALES)
def test_every_scale_has_the_notes_that_a_book_prints(scale: str) -> None:
    up, _, other = ON_C[scale].partition(" | ")
    down = other or " ".join(["C", *reversed(up.split()[1:])])
    assert letters(scale, "C") == f"{up} C"
    assert letters(scale, "C", "down") == f"{down} C"


#: Every chord on C, as it is spelled.
CHORDS_ON_C = {
    "major_triad": "C E G",
    "minor_triad": "C Eb G",
    "diminished_triad": "C Eb Gb",
    "augmented_triad": "C E G#",
    "dominant_seventh": "C E G Bb",
    "major_seventh": "C E G B",
    "minor_seventh": "C Eb G Bb",
    "half_diminished": "C Eb Gb Bb",
    "diminished_seventh": "C Eb Gb Bbb",
    "fifth": "C G",
    "suspended_second": "C D G",
    "suspended_fourth": "C F G",
    "sixth": "C E G A",
    "minor_sixth": "C Eb G A",
    "added_ninth": "C D E G",
    "dominant_ninth": "C D E G Bb",
    "major_ninth": "C D E G B",
    "minor_ninth": "C D Eb G Bb",
    "thirteenth": "C D E G A Bb",
    "suspended_seventh": "C F G Bb",
    "sharp_ninth": "C D# E G Bb",
    "flat_ninth": "C Db E G Bb",
}


@pytest.mark.parametrize("chord", CHORDS)
def test_every_chord_has_the_notes_that_a_book_prints(chord: str) -> None:
    found = Arpeggio(tonic="C", chord=chord, shape="up", octaves=1).pass_for([F(2)], ANY, FOUR)
    assert " ".join(pitch.name.rstrip("0123456789") for pitch in found.notes if pitch) == CHORDS_ON_C[chord]


def test_melodic_minor_comes_down_as_natural_minor() -> None:
    assert letters("melodic_minor", "A", "down") == "A G F E D C B A"


@pytest.mark.parametrize(
    ("shape", "played"),
    [
        ("up", "C3 D3 E3 F3 G3 A3 B3 C4"),
        ("down", "C4 B3 A3 G3 F3 E3 D3 C3"),
        ("there_and_back", "C3 D3 E3 F3 G3 A3 B3 C4 B3 A3 G3 F3 E3 D3 C3"),
        ("back_and_there", "C4 B3 A3 G3 F3 E3 D3 C3 D3 E3 F3 G3 A3 B3 C4"),
    ],
)
def test_shapes(shape: Shape, played: str) -> None:
    assert " ".join(names(ScaleRun(shape=shape, octaves=1))) == played


def test_the_turning_note_twice() -> None:
    assert " ".join(names(ScaleRun(octaves=1, top="twice"))) == ("C3 D3 E3 F3 G3 A3 B3 C4 C4 B3 A3 G3 F3 E3 D3 C3")


@given(scale_runs, divisions)
def test_counts_follow_the_formula(run: ScaleRun, division: F) -> None:
    octaves, times = octaves_for(run.octaves, [division])
    steps = SCALES[run.scale].degrees * octaves
    found = run.pass_for([division], ANY, FOUR)
    both_ways = 2 * steps + (2 if run.top == "twice" else 0)
    expected = steps if run.shape in {"up", "down"} else both_ways
    assert len(found.notes) == expected * times


@pytest.mark.parametrize(
    ("octaves", "division", "span"),
    [("match", F(4), (4, 1)), ("match", F(1, 2), (1, 1)), ("one_repeated", F(4), (1, 4)), (2, F(7), (2, 1))],
)
def test_how_many_octaves(octaves: Octaves, division: F, span: tuple[int, int]) -> None:
    assert octaves_for(octaves, [division]) == span


@given(scale_runs, divisions)
def test_a_run_starts_on_its_tonic_and_closes_on_it(run: ScaleRun, division: F) -> None:
    found = run.pass_for([division], ANY, FOUR)
    first, last = found.notes[0], found.closing or found.notes[-1]
    assert first is not None
    assert last is not None
    assert first.name.rstrip("0123456789-") == run.tonic
    assert (last.midi - first.midi) % 12 == 0


@pytest.mark.parametrize(
    ("shape", "start", "begins"),
    [
        ("back_and_there", 1, "C5 B4 A4 G4"),
        ("back_and_there", 2, "D4 C4 B3 A3"),
        ("back_and_there", 5, "G4 F4 E4 D4"),
        ("back_and_there", 7, "B4 A4 G4 F4"),
        ("there_and_back", 1, "C3 D3 E3 F3"),
        ("there_and_back", 5, "G3 A3 B3 C4"),
        ("up", 5, "G3 A3 B3 C4"),
        ("down", 5, "G5 F5 E5 D5"),
    ],
)
@pytest.mark.parametrize("top", ["once", "twice"])
def test_a_run_starts_on_the_degree_that_is_asked_and_closes_there(
    shape: Shape, start: int, begins: str, top: Top
) -> None:
    found = ScaleRun(octaves=2, shape=shape, start=start, top=top).pass_for([F(4)], ANY, FOUR)
    names = [note.name for note in found.notes if note]
    assert names[:4] == begins.split()
    last = found.closing.name if found.closing else names[-1]
    one_way = {"up": "G5", "down": "G3"}.get(shape, names[0])
    assert last == one_way


@pytest.mark.parametrize(
    ("shape", "start", "played"),
    [
        ("there_and_back", 2, "E3 G3 C4 E4 G4 C5 E5 C5 G4 E4 C4 G3 E3"),
        ("there_and_back", 3, "G3 C4 E4 G4 C5 E5 G5 E5 C5 G4 E4 C4 G3"),
        ("back_and_there", 3, "G5 E5 C5 G4 E4 C4 G3 C4 E4 G4 C5 E5 G5"),
        ("up", 2, "E3 G3 C4 E4 G4 C5 E5"),
    ],
)
def test_an_inversion_goes_from_its_tone_to_the_same_tone_and_back(shape: Shape, start: int, played: str) -> None:
    found = Arpeggio(octaves=2, shape=shape, start=start).pass_for([F(4)], ANY, FOUR)
    assert " ".join(note.name for note in found.sounded if note) == played


@pytest.mark.parametrize(
    ("shape", "start", "turns"),
    [
        ("there_and_back", 1, ["C4", "F6", "C4"]),
        ("there_and_back", 5, ["G4", "F6", "C4", "G4"]),
        ("back_and_there", 5, ["G4", "C4", "F6", "G4"]),
        ("up", 1, ["C4", "F6"]),
        ("down", 1, ["F6", "C4"]),
    ],
)
def test_a_run_through_the_whole_range_ends_where_the_instrument_does(
    shape: Shape, start: int, turns: list[str]
) -> None:
    flute = replace(INSTRUMENTS["flute"], highest=90)
    found = ScaleRun(octaves="range", shape=shape, start=start).pass_for([F(4)], flute, FOUR)
    played = [note for note in found.sounded if note]
    turned = [
        now.name
        for before, now, after in zip([None, *played], played, [*played[1:], None], strict=False)
        if before is None or after is None or (now.midi - before.midi) * (after.midi - now.midi) < 0
    ]
    assert turned == turns
    assert {abs(after.midi - now.midi) for now, after in pairwise(played)} == {1, 2}


@pytest.mark.parametrize(
    ("instrument", "tonic", "begins"),
    [
        ("piano_right", "C", "C4"),
        ("piano_right", "Bb", "Bb3"),
        ("piano_right", "F", "F4"),
        ("piano", "C", "C4"),
        ("piano_left", "C", "C3"),
        ("piano_left", "Bb", "Bb2"),
        ("piano_left", "F#", "F#3"),
        ("piano_left", "G", "G2"),
    ],
)
def test_a_hand_begins_where_it_sits(instrument: str, tonic: str, begins: str) -> None:
    found = ScaleRun(tonic=tonic, octaves=2).pass_for([F(4)], INSTRUMENTS[instrument], FOUR)
    assert found.notes[0]
    assert found.notes[0].name == begins


@pytest.mark.parametrize("tonic", ["H", "c", "Ebb", "", "E flat"])
def test_a_tonic_that_is_none_is_refused(tonic: str) -> None:
    with pytest.raises(Unreadable, match="Write a letter A to G") as refused:
        ScaleRun(tonic=tonic)
    assert refused.value.field == "material.tonic"


@pytest.mark.parametrize("octaves", [0, 9])
def test_octaves_out_of_range_are_refused(octaves: int) -> None:
    with pytest.raises(OutOfRange, match="1 to 8 octaves") as refused:
        ScaleRun(octaves=octaves)
    assert refused.value.field == "material.octaves"


def test_an_unknown_scale_is_refused_with_those_that_are_known() -> None:
    with pytest.raises(OutOfRange, match="Use one of major"):
        ScaleRun(scale="lydian dominant of the moon")


def test_a_run_moves_down_an_octave_when_its_top_does_not_fit() -> None:
    piano = INSTRUMENTS["piano"]
    found = [ScaleRun(tonic="D", octaves=octaves).pass_for([F(2)], piano, FOUR).notes[0] for octaves in (4, 5)]
    assert [pitch.name for pitch in found if pitch] == ["D3", "D2"]
