"""Sentences of teachers and the drills that they mean; and what is answered where none can be meant."""

from dataclasses import replace
from typing import Any

import pytest

from ripresa.core.drill import Drill
from ripresa.core.drill.material import OneNote, ScaleRun
from ripresa.core.exact import Fraction as F
from ripresa.core.reading import read
from ripresa.core.reports import brief
from ripresa.core.say import say, words_for
from ripresa.core.shelf import SHELF

SCALE = "Play the scale of "
#: What is said → the brief of the drill that it means.
SENTENCES = {
    "D dorian, two octaves, triplets then sixteenths, groups of five, eighty-four": (
        f"{SCALE}D dorian there and back, 2 octaves, in 4/4, stepping through triplets → sixteenths. "
        "Accent the first of every 5 notes. Click every beat at ♩ = 84."
    ),
    "A minor pentatonic two octaves triplets there and back 92 for guitar, fifth position": (
        f"{SCALE}A minor pentatonic there and back, 2 octaves, in 4/4, in triplets. In one position, at fret 5. "
        "Click every beat at ♩ = 92, for guitar."
    ),
    "sixteenths on one string, accent walking every 2 bars": (
        "Play one note for 4 beats, in 4/4, in sixteenths. Accent a walking slot, moving every 2 bars. "
        "Click every beat at ♩ = 72."
    ),
    "G D Em C strum 1 2 & & 4 & at 76": (
        "Play the chords G | D | Em | C as 1 2 & (3) & 4 &, in 4/4. Click every beat at ♩ = 76."
    ),
    "sixes against fives, R L R R L L": (
        "Play one note for 4 beats, in 4/4, stepping through sixes → fives. Your own cycle R L R R L L. "
        "Click every beat at ♩ = 72."
    ),
    "paradiddle sixteenths 100": (
        "Play one note for 4 beats, in 4/4, in sixteenths. Your own cycle R L R R L R L L. Click every beat at ♩ = 100."
    ),
    "b flat major arpeggio 2 octaves quavers clarinet 60": (
        "Play the arpeggio of B♭ major there and back, 2 octaves, in 4/4, in eighths. "
        "Click every beat at ♩ = 60, for clarinet in B♭."
    ),
    "f sharp harmonic minor one octave": (
        f"{SCALE}F♯ harmonic minor there and back, 1 octave, in 4/4, in eighths. Click every beat at ♩ = 72."
    ),
    "a minor seventh arpeggio triplets": (
        "Play the arpeggio of A minor seventh there and back, 2 octaves, in 4/4, in triplets. "
        "Click every beat at ♩ = 72."
    ),
    "G7 arpeggio sixteenths": (
        "Play the arpeggio of G dominant seventh there and back, 2 octaves, in 4/4, in sixteenths. "
        "Click every beat at ♩ = 72."
    ),
    "C major both hands eighths 60": (
        f"{SCALE}C major there and back, 2 octaves, in 4/4, in eighths. The left hand plays the same an octave lower, "
        "in the same rhythm. Click every beat at ♩ = 60."
    ),
    "E minor swing 8ths click on 2 and 4": (
        f"{SCALE}E natural minor there and back, 2 octaves, in 4/4, in eighths, with a swing of 2:1 on eighths. "
        "Click 2 and 4 at ♩ = 72."
    ),
    # In 6/8 eighths are three a beat.
    "6/8 eighths one note 50": ("Play one note for 4 beats, in 6/8, in eighths. Click every beat at ♩. = 50."),
    "three quarter time quarters": "Play one note for 4 beats, in 3/4, in quarters. Click every beat at ♩ = 72.",
    "p i m a over Am F C G at 60": (
        "Play a picked pattern over Am | F | C | G: p i m a that begins again each bar, the thumb on root and fifth in "
        "turn, in 4/4, in eighths. Click every beat at ♩ = 60, for guitar."
    ),
    "chromatic whole range triplets flute 66": (
        f"{SCALE}C chromatic there and back, the whole range, in 4/4, in triplets. "
        "Click every beat at ♩ = 66, for flute."
    ),
    "F major first inversion arpeggio": (
        "Play the arpeggio of F major there and back, 2 octaves, starting on tone 2, in 4/4, in eighths. "
        "Click every beat at ♩ = 72."
    ),
    "long tones in Bb trumpet": (
        "Play long notes in B♭ major, 1 octave up, each 6 beats long, then 2 of silence, in 4/4. "
        "Click every beat at ♩ = 72, for trumpet in B♭."
    ),
    "G major descending 3 octaves straight on quints click off": (
        f"{SCALE}G major down, 3 octaves, in 4/4, in fives, straight on. Click never at ♩ = 72."
    ),
    "a minor": f"{SCALE}A natural minor there and back, 2 octaves, in 4/4, in eighths. Click every beat at ♩ = 72.",
    "economy picking G major 3 notes per string 16ths": (
        f"{SCALE}G major there and back, 2 octaves, in 4/4, in sixteenths. Economy picking down on the beat, "
        "three notes a string. Click every beat at ♩ = 72, for guitar."
    ),
    # In haste: a letter wrong, no commas, small letters.
    "pentatnic in e trombon": (
        f"{SCALE}E minor pentatonic there and back, 2 octaves, in 4/4, in eighths. "
        "Click every beat at ♩ = 72, for trombone."
    ),
    "eb mixolidian sixtenths 4 octves": (
        f"{SCALE}E♭ mixolydian there and back, 4 octaves, in 4/4, in sixteenths. Click every beat at ♩ = 72."
    ),
    "tripplets then sextuplits": (
        "Play one note for 4 beats, in 4/4, stepping through triplets → sixes. Click every beat at ♩ = 72."
    ),
    "4 a beat then six per beat 60 bpm": (
        "Play one note for 4 beats, in 4/4, stepping through sixteenths → sixes. Click every beat at ♩ = 60."
    ),
}


@pytest.mark.parametrize("sentence", SENTENCES)
def test_a_sentence_means_a_drill(sentence: str) -> None:
    said = say(sentence)
    assert (said.unknown, said.refused) == ((), "")
    assert brief(read(said.drill)) == SENTENCES[sentence]


#: What is said of a drill in C, sixteenths at 84 → what is another thing then.
CHANGES: dict[str, dict[str, Any]] = {
    "in A": {"tonic": "A"},
    "in B flat": {"tonic": "Bb"},
    "slower by 10": {"bpm": F(74)},
    "10 faster": {"bpm": F(94)},
    "half the tempo": {"bpm": F(42)},
    "at 96": {"bpm": F(96)},
    "dorian": {"scale": "dorian"},
    "one octave": {"octaves": 1},
    "starting on the third": {"start": 3},
    "swing": {"swing": F(2)},
    "staccato": {"articulation": F(1, 2)},
    "for flute": {"instrument": "flute"},
}


@pytest.mark.parametrize("sentence", CHANGES)
def test_a_sentence_changes_what_it_says_and_nothing_else(sentence: str) -> None:
    drill = say("C major sixteenths 84").drill
    changed = say(sentence, drill).drill
    ((field, value),) = CHANGES[sentence].items()
    if field in {"tonic", "scale", "octaves", "start"}:
        expected = replace(drill, material=replace(drill.material, **{field: value}))
    elif field == "swing":
        expected = replace(drill, swing=replace(drill.swing, ratio=value))
    else:
        expected = replace(drill, **{field: value})
    assert changed == expected


def test_double_time_doubles_the_stages_that_are_said_too() -> None:
    drill = say("C major eighths then triplets").drill
    assert [leg.division for leg in say("double time", drill).drill.legs] == [4, 6]
    assert [leg.division for leg in say("quarters, double time").drill.legs] == [2]


@pytest.mark.parametrize(
    ("sentence", "title"),
    [
        (
            "at 84 D dorian, two octaves triplets then sixteenths groups of 5",
            "D dorian, triplets then sixteenths, groups of 5",
        ),
        ("paradiddle sixteenths 100", "Sixteenths, paradiddle"),
        ("96", "96"),
    ],
)
def test_a_drill_is_called_after_what_was_said_of_it(sentence: str, title: str) -> None:
    assert say(sentence).drill.title == title


def test_each_chip_stands_where_its_words_do() -> None:
    text = "In B♭, two octaves at eighty four"
    found = [(text[chip.start : chip.end], chip.sets, chip.says) for chip in say(text).chips]
    assert found == [
        ("B♭", "key", "B♭"),
        ("two octaves", "octaves", "2 octaves"),
        ("eighty four", "tempo", "84 bpm"),
    ]


@pytest.mark.parametrize(
    ("sentence", "word", "near"),
    [
        ("C major bananas", "bananas", ()),
        ("C major sixteeenths quickly", "quickly", ()),
        ("phrygain triplez", "triplez", ("triple", "triplet", "triples")),
        ("7 blue elephants", "7", ()),
    ],
)
def test_what_is_not_understood_stays_with_the_nearest_words(sentence: str, word: str, near: tuple[str, ...]) -> None:
    unknown = {one.text: one for one in say(sentence).unknown}
    assert "phrygain" not in unknown
    assert unknown[word].near == near
    assert sentence[unknown[word].start : unknown[word].end] == word


def test_what_cannot_be_done_is_said_and_the_rest_is() -> None:
    said = say("C major 1 octave three notes a string flute 90")
    assert said.refused.startswith("“three notes a string” is for strings, and flute has none.")
    assert (said.drill.instrument, said.drill.bpm, said.drill.fingering) == ("flute", 90, "none")


@pytest.mark.parametrize("sentence", ["", "   ", "of the and", "🎺", "1 2 3", "|||", "a" * 5000, "♩ ♩ ♩", "0/0 99/99"])
def test_nothing_odd_ends_in_an_error(sentence: str) -> None:
    said = say(sentence)
    assert said.drill.title
    assert read(said.drill).events


def test_a_new_drill_is_one_note_where_nothing_is_said_of_pitch() -> None:
    assert isinstance(say("groups of 7 in sixteenths").drill.material, OneNote)
    assert say("").drill.material == Drill().material


@pytest.mark.parametrize(
    ("wanted", "least"),
    [
        ("paradiddle", 0),
        ("sextuplets", 4),
        ("quintuplets", 4),
        ("single stroke", 2),
        ("strumming", 10),
        ("pentatonic", 5),
        ("swing", 1),
        ("semiquavers", 20),
        ("sax", 2),
        ("hands together", 5),
        ("click on the off-beats", 1),
    ],
)
def test_ready_drills_are_found_by_whatever_one_calls_them(wanted: str, least: int) -> None:
    found = [one for one in SHELF if wanted in words_for(one.drill)]
    assert len(found) >= least
    # And not by what they do not have.
    assert len(found) < len(SHELF) / 2


def test_what_the_shelf_calls_its_drills_is_understood() -> None:
    names = ("dorian", "chromatic", "triplets", "paradiddle", "swing", "long notes")
    assert all(say(name).chips for name in names)
    # Keys, scales and tempi of ready scales, said as their briefs say them.
    runs = [one.drill for one in SHELF if one.drill.material.kind == "scale_run" and one.drill.instrument == "any"]
    assert len(runs) > 5
    for drill in runs:
        assert isinstance(drill.material, ScaleRun)
        said = say(f"{drill.material.title}, at {drill.bpm}").drill
        assert isinstance(said.material, ScaleRun)
        assert (said.material.tonic, said.material.scale) == (drill.material.tonic, drill.material.scale)
        assert said.bpm == drill.bpm
