"""The spoken count: which words, when, and where a voice has to say fewer."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ripresa.core.drill import Drill
from ripresa.core.drill.accents import EveryNth
from ripresa.core.drill.material import Count, OneNote, ScaleRun
from ripresa.core.exact import Fraction as F
from ripresa.core.playing import WHATS, WORDS, Spoken
from ripresa.core.playing.speech import MOST_SYLLABLES, fits, peak_rate, speech
from ripresa.core.reading import read
from ripresa.core.rhythm import Counting
from tests.strategies import bpms, drills, legs


def said(drill: Drill, bpm: F = F(60), what: str = "slots", words: str = "count") -> str:
    return " ".join(word for _, word in speech(read(drill), bpm, Spoken(what, words)).words)  # type: ignore[arg-type]


def one_note(*divisions: int, **more: object) -> Drill:
    return Drill(material=OneNote(beats=4), legs=legs(*divisions), **more)  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("division", "last", "first_too_fast"),
    [
        pytest.param(4, F(201, 2), F(101), id="sixteenths end near 100"),
        pytest.param(3, F(134), F(135), id="triplets near 133"),
        pytest.param(6, F(67), F(68), id="sextuplets at 67"),
    ],
)
def test_a_full_count_ends_where_the_voice_does(division: int, last: F, first_too_fast: F) -> None:
    drill = one_note(division)
    assert len(speech(read(drill), last, Spoken("slots")).words) == 4 * division
    thinned = speech(read(drill), first_too_fast, Spoken("slots"))
    assert [word for _, word in thinned.words] == ["1", "2", "3", "4"]
    assert len(thinned.sentences) == 1


def test_only_the_leg_that_is_too_fast_is_thinned_and_the_app_says_so() -> None:
    found = speech(read(one_note(2, 4)), F(108), Spoken("slots"))
    assert " ".join(word for _, word in found.words) == "1 & 2 & 3 & 4 & 1 2 3 4"
    assert found.sentences == (
        "At 4 a beat and 108 bpm the voice says the beats only: every slot would be 7.2 syllables a second, "
        "and a voice manages about 6.7.",
    )


RHYTHM = Drill(material=Count(text="1 & (2) & 3 e & a (4)"), legs=legs(4))


@pytest.mark.parametrize(
    ("what", "words"),
    [
        ("nothing", ""),
        ("slots", "1 e & a 2 e & a 3 e & a 4 e & a"),
        ("played", "1 & & 3 e & a"),
        ("beats", "1 2 3 4"),
    ],
)
def test_every_slot_what_is_played_or_the_beats(what: str, words: str) -> None:
    assert said(RHYTHM, what=what) == words


def test_beats_without_a_slot_of_their_own_are_counted_too() -> None:
    half = Drill(material=OneNote(beats=4), legs=legs("1/2"))
    assert said(half, what="beats") == "1 2 3 4"


def test_words_are_those_of_the_chosen_system_the_names_or_the_groups() -> None:
    assert said(one_note(3, counting=Counting("syllables"))).startswith("ta ki da ta ki da")
    scale = Drill(material=ScaleRun(tonic="Eb", octaves=1, shape="up"), legs=legs(1), instrument="piano")
    assert said(scale, words="names").startswith("E♭ F G A♭ B♭ C D")
    fives = Drill(material=OneNote(beats=5), legs=legs(4), accents=EveryNth(size=5))
    assert said(fives, words="groups").startswith("1 2 3 4 5 1 2 3 4 5")
    assert said(one_note(4), words="names") == ""


def test_a_sharp_is_a_second_syllable_and_a_lone_word_has_no_rate() -> None:
    assert peak_rate([(F(0), "C"), (F(1), "C♯"), (F(2), "D")], F(60)) == 2
    assert peak_rate([(F(0), "C")], F(60)) == 0


@settings(max_examples=80)
@given(drills, bpms, st.sampled_from(list(WHATS)), st.sampled_from(list(WORDS)))
def test_speech_rises_and_is_no_faster_than_a_voice_within_a_leg(drill: Drill, bpm: F, what: str, words: str) -> None:
    reading = read(drill)
    found = speech(reading, bpm, Spoken(what, words)).words  # type: ignore[arg-type]
    onsets = [at for at, _ in found]
    assert onsets == sorted(set(onsets))
    for leg in reading.legs:
        inside = [(at, word) for at, word in found if leg.start <= at < leg.start + leg.beats]
        on_bars = all(at % reading.meter.cycle_beats == 0 for at, _ in inside)
        assert fits(inside, bpm) or on_bars, (peak_rate(inside, bpm), MOST_SYLLABLES)
