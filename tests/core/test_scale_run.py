import pytest
from hypothesis import given

from ripresa.core.drill.material import ScaleRun
from ripresa.core.drill.material.run import Octaves, Shape
from ripresa.core.errors import OutOfRange, Unreadable
from ripresa.core.exact import Fraction as F
from ripresa.core.pitch import INSTRUMENTS, SCALES
from ripresa.core.rhythm import METERS
from tests.strategies import divisions, scale_runs

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
    octaves, times = run.span(division)
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
    assert ScaleRun(octaves=octaves).span(division) == span


@given(scale_runs, divisions)
def test_a_run_starts_on_its_tonic_and_closes_on_it(run: ScaleRun, division: F) -> None:
    found = run.pass_for([division], ANY, FOUR)
    first, last = found.notes[0], found.closing or found.notes[-1]
    assert first is not None
    assert last is not None
    assert first.name.rstrip("0123456789-") == run.tonic
    assert (last.midi - first.midi) % 12 == 0


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
