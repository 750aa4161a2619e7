"""The neck: positions, places, so many notes a string, and what a hand cannot do, against DOMAIN §16."""

from itertools import pairwise

import pytest

from ripresa.core.changes import Overrides, overridden, variant_set
from ripresa.core.drill import Drill, Fingering, NeckPlace, Ornamented
from ripresa.core.drill.material import Arpeggio, Line, Material, ScaleRun
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.pitch import CHORDS, INSTRUMENTS, SCALES, parse_tonic
from ripresa.core.reading import Reading, places, read
from ripresa.core.reports import warnings
from tests.strategies import legs

GUITAR = INSTRUMENTS["guitar"]
STRINGED = [key for key, one in INSTRUMENTS.items() if one.strings]


def fingered(
    material: Material, fingering: Fingering = "position", instrument: str = "guitar", place: NeckPlace | None = None
) -> Reading:
    return read(
        Drill(
            material=material,
            legs=legs(4),
            instrument=instrument,
            fingering=fingering,
            closing="own",
            place=place or NeckPlace(),
        )
    )


def shown(reading: Reading) -> str:
    return " ".join(event.touch.shown for event in reading.notes if event.touch)


def up(tonic: str, scale: str, octaves: int = 2) -> ScaleRun:
    return ScaleRun(tonic=tonic, scale=scale, shape="up", octaves=octaves)


@pytest.mark.parametrize(
    ("tonic", "scale", "position", "lies"),
    [
        ("A", "minor_pentatonic", 5, "6·5 6·8 5·5 5·7 4·5 4·7 3·5 3·7 2·5 2·8 1·5"),
        ("G", "major", 2, "6·3 6·5 5·2 5·3 5·5 4·2 4·4 4·5 3·2 3·4 3·5 2·3 2·5 1·2 1·3"),
        ("C", "major", 7, "6·8 6·10 5·7 5·8 5·10 4·7 4·9 4·10 3·7 3·9 3·10 2·8 2·10 1·7 1·8"),
        ("A", "natural_minor", 5, "6·5 6·7 6·8 5·5 5·7 5·8 4·5 4·7 3·4 3·5 3·7 2·5 2·6 2·8 1·5"),
        ("E", "minor_pentatonic", 1, "6·0 6·3 5·0 5·2 4·0 4·2 3·0 3·2 2·0 2·3 1·0"),
    ],
)
def test_a_scale_lies_in_the_position_that_is_printed(tonic: str, scale: str, position: int, lies: str) -> None:
    reading = fingered(up(tonic, scale))
    assert shown(reading) == lies
    assert {event.touch.position for event in reading.notes if event.touch} == {position}


def test_the_first_position_of_a_ukulele_has_its_open_strings() -> None:
    for fingering in ("usual", "position"):
        reading = fingered(up("C", "major", 1), fingering, "ukulele")
        assert shown(reading) == "3·0 3·2 2·0 2·1 2·3 1·0 1·2 1·3"


def test_no_stretch_where_a_place_without_one_holds_the_scale() -> None:
    """Of all scales in all keys that some four frets hold, none is stretched."""
    stretched = []
    for scale in ("major", "natural_minor", "minor_pentatonic", "major_pentatonic", "dorian", "blues"):
        for tonic in ("C", "Db", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"):
            reading = fingered(up(tonic, scale))
            touches = [event.touch for event in reading.notes if event.touch]
            midis = {event.pitch.midi for event in reading.notes if event.pitch}
            is_stretched = any(t.fret and not 0 <= t.fret - (t.position or 0) < 4 for t in touches)
            if is_stretched and any(_holds(midis, first) for first in range(1, 19)):
                stretched.append(f"{tonic} {scale}")
    assert not stretched


def _holds(midis: set[int], first: int) -> bool:
    """Whether four frets hold some notes, worked out from the tuning alone."""
    held = {open_note + fret for open_note in GUITAR.strings for fret in range(first, first + 4)}
    return midis <= held


@pytest.mark.parametrize(
    ("tonic", "tones", "frets"),
    [
        ("A", SCALES["minor_pentatonic"], (2, 5, 7, 9, 12)),
        ("G", SCALES["major"], (2, 5, 7, 9, 12)),
        ("C", CHORDS["major_triad"], (2, 5, 7, 9, 12)),
    ],
)
def test_a_scale_has_five_places(tonic: str, tones: object, frets: tuple[int, ...]) -> None:
    assert places(GUITAR, parse_tonic(tonic), tones) == frets


@pytest.mark.parametrize("material", [up("E", "harmonic_minor"), up("D", "dorian"), Arpeggio("A", "minor_seventh")])
def test_the_five_places_are_a_list_to_go_through(material: Material) -> None:
    drill = Drill(material=material, legs=legs(2), instrument="guitar")
    found = variant_set(drill, "places", F(60)).variants
    assert len(found) == 5
    for one in found:
        reading = read(overridden(drill, one.overrides))
        position = one.overrides.place
        strings = {event.touch.string for event in reading.notes if event.touch}
        assert strings == {1, 2, 3, 4, 5, 6}
        assert all(
            position - 1 <= event.touch.fret <= position + 4
            for event in reading.notes
            if event.touch and event.touch.fret
        )


def test_a_place_begins_on_its_lowest_tonic_and_comes_back_to_it() -> None:
    drill = Drill(material=ScaleRun("A", "minor_pentatonic"), legs=legs(2), instrument="guitar")
    reading = read(overridden(drill, Overrides(place=2)))
    names = [event.pitch.name for event in reading.notes if event.pitch]
    assert (names[0], min(names, key=len), shown(reading).split()[0]) == ("A3", "A3", "6·5")
    assert "6·3" in shown(reading)


def test_a_position_is_chosen_by_fret_or_by_the_string_of_the_tonic() -> None:
    one = ScaleRun("C", octaves=1, shape="up")
    assert shown(fingered(one, place=NeckPlace(fret=2))).startswith("5·3 5·5 4·2 4·3")
    assert shown(fingered(one, place=NeckPlace(string=5))).startswith("5·3 5·5 4·2 4·3")
    assert shown(fingered(one, place=NeckPlace(string=6))).startswith("6·8 6·10 5·7 5·8")


@pytest.mark.parametrize("scale", ["minor_pentatonic", "blues"])
def test_three_notes_a_string_are_for_seven_notes(scale: str) -> None:
    with pytest.raises(OutOfRange, match="Three notes a string are for scales of seven notes") as refused:
        Drill(material=ScaleRun("A", scale), instrument="guitar", fingering="three_a_string")
    assert refused.value.field == "fingering"


def test_three_notes_a_string_are_taken_with_the_fingers_of_their_steps() -> None:
    reading = fingered(up("F", "major"), "three_a_string")
    assert shown(reading).startswith("6·1 6·3 6·5 5·1 5·3 5·5 4·2 4·3 4·5")
    assert "".join(str(event.touch.finger) for event in reading.notes if event.touch)[:9] == "124124124"


@pytest.mark.parametrize("fingering", ["usual", "position", "two_a_string", "three_a_string", "four_a_string"])
@pytest.mark.parametrize("instrument", STRINGED)
def test_no_reach_is_impossible_and_no_finger_takes_neighbouring_frets(fingering: Fingering, instrument: str) -> None:
    open_notes = INSTRUMENTS[instrument].strings
    for scale, tones in SCALES.items():
        if (fingering == "three_a_string" and tones.degrees < 7) or tones.degrees > 8:
            continue
        for tonic in ("C", "Eb", "F#", "A"):
            reading = fingered(up(tonic, scale), fingering, instrument)
            touches = [event.touch for event in reading.notes if event.touch]
            for touch, event in zip(touches, [event for event in reading.notes if event.touch], strict=True):
                assert touch.string is not None
                assert touch.fret is not None
                assert event.pitch
                assert open_notes[-touch.string] + touch.fret == event.pitch.midi
                most = 4 if INSTRUMENTS[instrument].frets_a_finger == 1 else 6
                assert not touch.fret or -1 <= touch.fret - (touch.position or 0) <= most
            if INSTRUMENTS[instrument].frets_a_finger > 1:
                continue
            for before, after in pairwise(touches):
                neighbours = abs((before.fret or 0) - (after.fret or 0)) == 1 and before.fret and after.fret
                assert not (before.string == after.string and neighbours and before.finger == after.finger), (
                    f"{tonic} {scale} {fingering} {instrument}: {before.words}, {after.words}"
                )


def test_a_finger_of_the_mandolin_has_two_frets() -> None:
    reading = fingered(up("G", "major", 2), "usual", "mandolin")
    assert shown(reading) == "4·0 4·2 4·4 4·5 3·0 3·2 3·4 3·5 2·0 2·2 2·3 2·5 1·0 1·2 1·3"
    assert "".join(str(event.touch.finger) for event in reading.notes if event.touch) == "0123" * 3 + "012"


def test_a_shift_goes_to_the_nearest_place_and_not_to_the_far_end() -> None:
    touches = [event.touch for event in fingered(up("G", "major", 3), "usual").notes if event.touch]
    assert max(abs((one.position or 0) - (two.position or 0)) for one, two in pairwise(touches)) <= 5
    assert touches[-1].shown == "1·15"


def slurred(text: str, ornament: str) -> list[str]:
    drill = Drill(
        material=Line(text),
        legs=legs(1),
        instrument="guitar",
        fingering="usual",
        ornaments=(Ornamented(1, 2, 0, ornament),),  # type: ignore[arg-type]
    )
    return [one for one in warnings(read(drill)) if one.startswith("Bar 1, beat 2")]


@pytest.mark.parametrize(
    ("text", "ornament", "says"),
    [
        ("G3 A3", "hammer", ""),
        ("A3 G3", "pull", ""),
        ("A3 G3", "hammer", "a hammer cannot fall to a lower note"),
        ("G3 A3", "pull", "a pull cannot rise to a higher note"),
        ("G3 C4", "hammer", "no slur goes from one string to another"),
        ("G3 C4", "slide", "no slur goes from one string to another"),
        ("A3 G3", "slide", ""),
    ],
)
def test_a_slur_that_no_hand_makes_is_told(text: str, ornament: str, says: str) -> None:
    told = slurred(text, ornament)
    assert len(told) == bool(says)
    assert not says or says in told[0]
