"""Scales with own steps and from any degree, arpeggios, sequences."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ripresa.core.drill.material import Arpeggio, Material, ScaleRun, Sequence
from ripresa.core.errors import OutOfRange, Unreadable
from ripresa.core.exact import Fraction as F
from ripresa.core.pitch import INSTRUMENTS, SCALES, parse_degrees
from ripresa.core.rhythm import METERS

ANY = INSTRUMENTS["any"]
FOUR = METERS["4/4"]


def played(material: Material) -> str:
    found = material.pass_for([F(2)], ANY, FOUR)
    return " ".join(pitch.name for pitch in (*found.notes, found.closing) if pitch)


@pytest.mark.parametrize(
    ("material", "notes"),
    [
        pytest.param(
            ScaleRun(scale="own", own="1 b2 3 #4 5 6 b7", octaves=1, shape="up"),
            "C3 Db3 E3 F#3 G3 A3 Bb3 C4",
            id="own steps",
        ),
        pytest.param(
            ScaleRun(scale="lydian", tonic="F", octaves=1, shape="up"), "F3 G3 A3 B3 C4 D4 E4 F4", id="lydian"
        ),
        pytest.param(ScaleRun(scale="whole_tone", octaves=1, shape="up"), "C3 D3 E3 F#3 G#3 Bb3 C4", id="whole tone"),
        pytest.param(ScaleRun(octaves=1, shape="up", start=3), "E3 F3 G3 A3 B3 C4 D4 E4", id="up from the third"),
        pytest.param(
            ScaleRun(octaves=1, start=6), "A3 B3 C4 B3 A3 G3 F3 E3 D3 C3 D3 E3 F3 G3 A3", id="a circle from the sixth"
        ),
        pytest.param(
            Arpeggio(tonic="Eb", chord="minor_seventh", octaves=1), "Eb3 Gb3 Bb3 Db4 Eb4 Db4 Bb3 Gb3 Eb3", id="arpeggio"
        ),
        pytest.param(Sequence(way="up"), "C3 E3 D3 F3 E3 G3 F3 A3 G3 B3 A3 C4", id="thirds up"),
        pytest.param(Sequence(way="down"), "C4 A3 B3 G3 A3 F3 G3 E3 F3 D3 E3 C3", id="thirds down"),
        pytest.param(
            Sequence(scale="major_triad", figure=(0, 2, 1), octaves=1, way="up"),
            "C3 G3 E3 E3 C4 G3",
            id="a broken chord",
        ),
    ],
)
def test_what_is_played(material: Material, notes: str) -> None:
    assert played(material) == notes


@given(st.sampled_from(list(SCALES)), st.integers(1, 3), st.integers(2, 5))
def test_a_group_of_n_over_r_tones_starts_r_minus_n_plus_one_times(scale: str, octaves: int, size: int) -> None:
    sequence = Sequence(scale=scale, octaves=octaves, figure=tuple(range(size)), way="up")
    tones = SCALES[scale].degrees * octaves + 1
    assert len(sequence.pass_for([F(4)], ANY, FOUR).notes) == (tones - size + 1) * size


@given(st.integers(1, 7), st.sampled_from(["there_and_back", "back_and_there"]))
def test_a_circle_has_the_same_notes_wherever_it_starts(start: int, shape: str) -> None:
    def notes(degree: int) -> list[int]:
        run = ScaleRun(octaves=2, start=degree, shape=shape)  # type: ignore[arg-type]
        return sorted(pitch.midi for pitch in run.pass_for([F(2)], ANY, FOUR).notes if pitch)

    assert notes(start) == notes(1)


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("1 2 x 4", "Step 3, “x”, is not a degree"),
        ("1 3 2", "Step 3, “2”, is not above"),
        ("2 3 4", "start on 1"),
        ("1", "at least one more"),
        ("1 8", "Step 2, “8”, is not a degree"),
        ("1 ##7", "under the octave"),
    ],
)
def test_own_steps_that_cannot_be_read_are_refused_at_their_place(text: str, says: str) -> None:
    with pytest.raises(Unreadable, match=says) as refused:
        ScaleRun(scale="own", own=text)
    assert refused.value.field == "material.own"


def test_degrees_are_read_as_letters_and_semitones() -> None:
    assert parse_degrees("1 b3 ##4 bb7") == ((0, 0), (2, 3), (3, 7), (6, 9))


@pytest.mark.parametrize(
    ("make", "field"),
    [
        (lambda: ScaleRun(start=8), "material.start"),
        (lambda: ScaleRun(scale="major_pentatonic", start=6), "material.start"),
        (lambda: Arpeggio(chord="power"), "material.chord"),
        (lambda: Arpeggio(octaves=9), "material.octaves"),
        (lambda: Sequence(octaves=5), "material.octaves"),
        (lambda: Sequence(figure=(0,)), "material.figure"),
        (lambda: Sequence(figure=(0, 15)), "material.figure"),
        (lambda: Sequence(figure=(0, 9)), "material.figure"),
        (lambda: Sequence(scale="kazoo"), "material.scale"),
    ],
)
def test_material_that_cannot_be_is_refused(make: object, field: str) -> None:
    with pytest.raises(OutOfRange) as refused:
        make()  # type: ignore[operator]
    assert refused.value.field == field
