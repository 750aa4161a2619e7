"""Backing: chords and bass from the progression or the tonic, a groove in every meter, over every turn."""

import pytest
from hypothesis import given

from ripresa.core.drill import Drill
from ripresa.core.drill.material import Count, OneNote, ScaleRun, Strum
from ripresa.core.exact import Fraction as F
from ripresa.core.playing import ACCOMPANIMENTS, in_turn, score
from ripresa.core.playing.backing import backing
from ripresa.core.reading import read
from tests.strategies import drills, legs

STRUM = Drill(material=Strum(chords="C | Am G", pattern="1 2 3 4"), legs=legs(1))


def test_chords_follow_the_progression_bar_by_bar() -> None:
    found = backing(read(STRUM), ["chords"])
    assert [(note.at, note.beats) for note in found] == [(0, 4), (4, 2), (6, 2)]
    assert [note.midis[0] % 12 for note in found] == [0, 9, 7]


def test_the_bass_plays_the_root_on_every_other_beat() -> None:
    found = backing(read(STRUM), ["bass"])
    assert [(note.at, note.midis) for note in found] == [(0, (36,)), (2, (36,)), (4, (45,)), (6, (43,))]


def test_a_scale_is_backed_by_the_chord_of_its_tonic() -> None:
    for scale, third in (("major", 4), ("dorian", 3)):
        reading = read(Drill(material=ScaleRun(tonic="D", scale=scale, octaves=1), legs=legs(2)))
        midis = backing(reading, ["chords"])[0].midis
        assert {(midi - midis[0]) % 12 for midi in midis} == {0, third, 7}


def test_without_chords_or_a_tonic_only_the_groove_is_left() -> None:
    reading = read(Drill(material=OneNote(beats=4), legs=legs(2)))
    assert backing(reading, ["chords", "bass"]) == ()
    drums = [(note.at, note.drum) for note in backing(reading, ["groove"]) if note.drum != "hat"]
    assert drums == [(0, "kick"), (1, "snare"), (2, "kick"), (3, "snare")]


def test_uneven_beats_have_their_halves_where_they_lie() -> None:
    reading = read(Drill(material=Count("1 2 3"), legs=legs(1), meter="7/8 (2+2+3)"))
    hats = [note.at for note in backing(reading, ["groove"]) if note.drum == "hat"]
    assert hats == [0, F(1, 2), 1, F(3, 2), 2, F(11, 4)]


@pytest.mark.parametrize(
    ("instrument", "tonic"), [("piano", 0), ("guitar", 0), ("clarinet", 10), ("alto_saxophone", 3)]
)
def test_the_backing_sounds_in_concert_pitch(instrument: str, tonic: int) -> None:
    # Written C is B flat on a clarinet and E flat on an alto saxophone; a guitar sounds an octave lower, still C.
    reading = read(Drill(material=ScaleRun(), legs=legs(1), instrument=instrument))
    chord, bass = (next(iter(backing(reading, [part]))) for part in ("chords", "bass"))
    assert {chord.midis[0] % 12, bass.midis[0] % 12} == {tonic}


def test_in_turn_the_backing_goes_on() -> None:
    whole = score(read(STRUM), F(60), back=["bass"])
    assert len(in_turn(whole, 1).backing) == 2 * len(whole.backing)


@given(drills)
def test_the_backing_fills_the_turn_and_nothing_more(drill: Drill) -> None:
    reading = read(drill)
    found = backing(reading, ACCOMPANIMENTS)
    onsets = [note.at for note in found]
    assert onsets == sorted(onsets)
    assert all(0 <= note.at < reading.loop_beats for note in found)
    assert all(note.at + note.beats <= reading.loop_beats for note in found if note.midis)
