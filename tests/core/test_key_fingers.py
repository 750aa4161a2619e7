"""Fingers on keys against what is printed: C.-L. Hanon, Le pianiste virtuose, 1873, nos. 39 to 42, and DOMAIN §16."""

from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ripresa.core.drill import Drill
from ripresa.core.drill.material import Arpeggio, Line, Material, ScaleRun, Sequence
from ripresa.core.drill.second import Contrary, Parallel, SecondHand
from ripresa.core.pitch import SCALES
from ripresa.core.reading import Reading, read
from tests.strategies import legs

BLACK = {1, 3, 6, 8, 10}
TONICS = ["C", "Db", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"]
MODES = ["major", "dorian", "phrygian", "lydian", "mixolydian", "natural_minor", "locrian"]


def fingered(material: Material, hand: str) -> Reading:
    return read(Drill(material=material, legs=legs(4), instrument=f"piano_{hand}", fingering="usual", closing="own"))


def fingers(material: Material, hand: str) -> str:
    return "".join(str(event.touch.finger) for event in fingered(material, hand).notes if event.touch)


# Two octaves up: right, left.
MAJORS = {
    "C": ("123123412312345", "543213214321321"),
    "G": ("123123412312345", "543213214321321"),
    "D": ("123123412312345", "543213214321321"),
    "A": ("123123412312345", "543213214321321"),
    "E": ("123123412312345", "543213214321321"),
    "B": ("123123412312345", "432143213214321"),
    "F#": ("234123123412312", "432132143213214"),
    "Gb": ("234123123412312", "432132143213214"),
    "Db": ("231234123123412", "321432132143213"),
    "C#": ("231234123123412", "321432132143213"),
    "Ab": ("341231234123123", "321432132143213"),
    "Eb": ("312341231234123", "321432132143213"),
    "Bb": ("212312341231234", "321432132143213"),
    "F": ("123412312341234", "543213214321321"),
}
PLAIN = ("123123412312345", "543213214321321")
MINORS = {
    **dict.fromkeys(("A", "E", "D", "G", "C"), PLAIN),
    "B": ("123123412312345", "432143213214321"),
    "F#": ("341231234123123", "432132143213214"),
    "C#": ("341231234123123", "321432132143213"),
    "G#": ("341231234123123", "321432132143213"),
    "Eb": ("312341231234123", "214321321432132"),
    "D#": ("312341231234123", "214321321432132"),
    "Bb": ("212312341231234", "213214321321432"),
    "F": ("123412312341234", "543213214321321"),
}


@pytest.mark.parametrize("tonic", MAJORS)
def test_majors(tonic: str) -> None:
    run = ScaleRun(tonic=tonic, shape="up", octaves=2)
    assert (fingers(run, "right"), fingers(run, "left")) == MAJORS[tonic]


@pytest.mark.parametrize("tonic", MINORS)
@pytest.mark.parametrize("form", ["natural_minor", "harmonic_minor", "melodic_minor"])
def test_minors_of_all_three_forms(tonic: str, form: str) -> None:
    run = ScaleRun(tonic=tonic, scale=form, shape="up", octaves=2)
    right, left = MINORS[tonic]
    if form == "melodic_minor" and tonic in {"F#", "C#"}:
        # Their raised seventh is a white key, and the thumb takes it.
        right = "231234123123412"
    if form == "natural_minor" and tonic == "G#":
        # Its seventh is black: the thumb goes over to the sixth.
        left = "321321432132143"
    assert (fingers(run, "right"), fingers(run, "left")) == (right, left)


@pytest.mark.parametrize(
    ("tonic", "hand", "down"),
    [("F#", "right", "32132143"), ("C#", "right", "32132143"), ("G#", "right", "32132143"), ("G#", "left", "34123123")],
)
def test_a_melodic_minor_goes_down_with_the_fingers_of_the_natural_one(tonic: str, hand: str, down: str) -> None:
    both = fingers(ScaleRun(tonic=tonic, scale="melodic_minor", octaves=1), hand)
    assert both[7:] == down


@pytest.mark.parametrize(
    ("tonic", "right", "left"),
    [
        ("C", "1313123131312", "1313213131321"),
        ("F", "1313131231312", "1313132131321"),
        ("E", "1231313123131", "2131313213132"),
        ("F#", "3131312313123", "3131321313213"),
    ],
)
def test_chromatic_scales_have_the_third_finger_on_black_keys(tonic: str, right: str, left: str) -> None:
    run = ScaleRun(tonic=tonic, scale="chromatic", shape="up", octaves=1)
    assert (fingers(run, "right"), fingers(run, "left")) == (right, left)


@pytest.mark.parametrize(
    ("tonic", "mode", "right", "left"),
    [
        *((tonic, mode, *PLAIN) for tonic, mode in zip("DEGABF", [*MODES[1:3], *MODES[4:], "lydian"], strict=True)),
        ("C", "lydian", "123412312341234", "543213214321321"),
        ("F", "mixolydian", "123412312341234", "543213214321321"),
        ("Bb", "dorian", "212312341231234", "214321321432132"),
        ("Db", "mixolydian", "231234123123412", "321432132143213"),
        ("F#", "locrian", "212312341231234", "214321321432132"),
    ],
)
def test_modes_as_c_major_where_the_thumb_stays_on_white_keys_else_as_their_major(
    tonic: str, mode: str, right: str, left: str
) -> None:
    run = ScaleRun(tonic=tonic, scale=mode, shape="up", octaves=2)
    assert (fingers(run, "right"), fingers(run, "left")) == (right, left)


# Root position, first and second inversion over two octaves: right, left.
TRIADS = {
    ("C", "major_triad"): (("1231235", "5421421"), ("1241245", "5421421"), ("1241245", "5321321")),
    ("D", "major_triad"): (("1231235", "5321321"), ("4124124", "2132132"), ("1241245", "5321321")),
    ("A", "minor_triad"): (("1231235", "5421421"), ("1241245", "5421421"), ("1241245", "5321321")),
    ("F", "major_triad"): (("1231235", "5421421"), ("1241245", "5421421"), ("1241245", "5321321")),
    ("Eb", "major_triad"): (("4124124", "2142142"), ("1241245", "5421421"), ("2412412", "4214214")),
    ("Bb", "major_triad"): (("4124124", "3213213"), ("1241245", "5421421"), ("1241245", "5321321")),
    ("Bb", "minor_triad"): (("2312312", "3213213"), ("3123123", "2132132"), ("1241245", "5321321")),
    ("F#", "major_triad"): (("1231235", "5321321"), ("1241245", "5421421"), ("1241245", "5321321")),
}


@pytest.mark.parametrize(("tonic", "chord"), TRIADS)
@pytest.mark.parametrize("inversion", [0, 1, 2])
def test_triads_and_their_inversions(tonic: str, chord: str, inversion: int) -> None:
    run = Arpeggio(tonic=tonic, chord=chord, shape="up", octaves=2, start=inversion + 1)
    assert (fingers(run, "right"), fingers(run, "left")) == TRIADS[tonic, chord][inversion]


@pytest.mark.parametrize("chord", ["dominant_seventh", "major_seventh", "minor_seventh", "diminished_seventh"])
@pytest.mark.parametrize("start", [1, 2, 3, 4])
def test_sevenths_take_a_finger_for_each_tone_and_the_thumb_a_white_key(chord: str, start: int) -> None:
    for tonic in ("C", "D", "F", "G"):
        run = Arpeggio(tonic=tonic, chord=chord, shape="up", octaves=2, start=start)
        first = fingered(run, "right").notes[0].pitch
        assert first
        if first.midi % 12 in BLACK:
            assert "1234" in fingers(run, "right")[1:]
        else:
            assert (fingers(run, "right"), fingers(run, "left")) == ("123412345", "543214321")
    black = Arpeggio(tonic="Bb", chord="dominant_seventh", shape="up", octaves=2)
    assert (fingers(black, "right"), fingers(black, "left")) == ("412341234", "214321432")


@pytest.mark.parametrize(
    ("figure", "right", "left"),
    [
        ((0, 1, 2), "135125135", "531531521"),
        ((0, 2, 1), "153152153", "513513512"),
        ((0, 1, 2, 3), "123512451245", None),
    ],
)
def test_broken_triads_have_the_fingers_of_their_inversion(
    figure: tuple[int, ...], right: str, left: str | None
) -> None:
    broken = Sequence(scale="major_triad", figure=figure, way="up", octaves=2)
    assert fingers(broken, "right")[: len(right)] == right
    assert left is None or fingers(broken, "left")[: len(left)] == left


def test_five_neighbours_take_five_fingers_typed_or_as_a_figure() -> None:
    typed = Line("1 2 3 4 5 4 3 2 1", tonic="E")
    assert (fingers(typed, "right"), fingers(typed, "left")) == ("123454321", "543212345")
    figure = Sequence(figure=(0, 1, 2, 3, 4), way="up")
    assert fingers(figure, "right") == "12345" * 4


def test_contrary_motion_gives_each_hand_its_own_scale() -> None:
    one = Drill(
        material=ScaleRun(octaves=1, shape="up"),
        legs=legs(4),
        instrument="piano",
        fingering="usual",
        second=SecondHand(Contrary()),
        closing="own",
    )
    for row in read(one).hands:
        assert "".join(str(event.touch.finger) for event in row if event.touch) == "12312345"


@pytest.mark.parametrize(
    ("interval", "right", "left"),
    [
        ("third", "C4", "A3"),
        ("third_from_left", "E4", "C4"),
        ("sixth", "C4", "E3"),
        ("sixth_from_left", "A3", "C3"),
        ("tenth", "C4", "A2"),
        ("tenth_from_left", "E4", "C3"),
        ("octave", "C4", "C3"),
    ],
)
def test_the_keynote_lies_in_either_hand(interval: str, right: str, left: str) -> None:
    second = SecondHand(Parallel(interval))  # type: ignore[arg-type]
    both = read(Drill(material=ScaleRun(octaves=1), legs=legs(4), instrument="piano", second=second))
    assert [row[0].pitch.name for row in both.hands if row[0].pitch] == [right, left]


@given(st.sampled_from(list(SCALES)), st.sampled_from(TONICS), st.sampled_from(["right", "left"]))
def test_every_octave_of_a_scale_is_fingered_like_the_first(scale: str, tonic: str, hand: str) -> None:
    degrees = SCALES[scale].degrees
    played = fingers(ScaleRun(tonic=tonic, scale=scale, shape="up", octaves=3), hand)
    inner = played[1:-1]
    assert inner[: 2 * degrees - 1] == inner[degrees : 3 * degrees - 1] or inner[degrees:].startswith(
        inner[: len(inner) - degrees]
    )
    assert all(before != after for before, after in pairwise(played))


@given(st.sampled_from([*MODES, "harmonic_minor", "melodic_minor"]), st.sampled_from(TONICS))
def test_no_thumb_lies_on_a_black_key_of_a_scale(scale: str, tonic: str) -> None:
    for hand in ("right", "left"):
        run = ScaleRun(tonic=tonic, scale=scale, octaves=2)
        for event in fingered(run, hand).notes:
            assert event.touch
            assert event.pitch
            assert event.touch.finger != 1 or event.pitch.midi % 12 not in BLACK


@pytest.mark.parametrize("figure", [(0, 2), (0, 1, 2), (0, 3), (0, 2, 1)])
def test_figures_of_a_scale_recur_with_the_same_fingers_an_octave_further(figure: tuple[int, ...]) -> None:
    size = len(figure) * 7
    for hand in ("right", "left"):
        played = fingers(Sequence(figure=figure, octaves=3, way="up"), hand)
        assert played[:size] == played[size : 2 * size]
