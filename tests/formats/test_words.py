"""The spoken words: every word that a count needs ships, its vowel at the known place."""

import io

import numpy as np
import pytest
import soundfile

from ripresa.core.drill import DIVISIONS
from ripresa.core.errors import NotFound, Unreadable
from ripresa.core.rhythm import SYLLABLES, Counting
from ripresa.formats.sounds import RATE
from ripresa.formats.speaker import ANCHOR, _listed, espeak, languages, own_word
from ripresa.formats.speaker import RATE as SPOKEN_RATE
from ripresa.formats.words import INSTEAD, index, word_sound


def test_every_count_word_letter_and_note_name_ships() -> None:
    numbers = Counting()
    counted = {
        numbers.word(division, beat, slot)
        for division in DIVISIONS
        for beat in range(1, 13)
        for slot in range(division.numerator)
    }
    syllables = {word for words in SYLLABLES.values() for word in words}
    names = {letter + sign for letter in "ABCDEFG" for sign in ("", "♯", "♭")}
    assert {*counted, *syllables, *names, "ready", "go"} <= index().keys()
    assert "und" not in index()


@pytest.mark.parametrize("word", [*index()])
def test_the_vowel_sets_in_where_the_beat_is(word: str) -> None:
    sound = word_sound(word)
    at, width = round(ANCHOR * RATE), round(0.03 * RATE)

    def strength(begin: int) -> float:
        return float(np.sqrt(np.mean(sound[begin : begin + width] ** 2)))

    after, before = strength(at), strength(at - 2 * width)
    assert after > 0.05
    # An s before a vowel may be as loud as the vowel; whatever else comes before is softer.
    assert before < after or word in {"6", "7", "16", "C", "C♯", "C♭", "G", "G♯", "G♭", "set", "trip"}
    assert len(sound) < 0.75 * RATE


def faked(hertz: float, silence: float, seconds: float) -> bytes:
    """Return a hum that sets in after a silence, as a synthesiser would send it."""
    tone = 0.3 * np.sin(2 * np.pi * hertz * np.arange(int(seconds * SPOKEN_RATE)) / SPOKEN_RATE)
    target = io.BytesIO()
    quiet = np.zeros(int(silence * SPOKEN_RATE))
    soundfile.write(target, np.concatenate([quiet, tone, quiet]), SPOKEN_RATE, format="WAV")
    return target.getvalue()


def test_an_own_word_loses_the_silence_around_it_and_is_as_loud_as_the_others() -> None:
    sound = own_word("und", lambda _: faked(500, 0.3, 0.15))
    loud = np.flatnonzero(np.abs(sound) > 0.3)
    assert loud[0] / SPOKEN_RATE == pytest.approx(ANCHOR, abs=0.01)
    assert len(sound) / SPOKEN_RATE == pytest.approx(ANCHOR + 0.15, abs=0.02)
    assert np.abs(sound).max() == pytest.approx(0.9, abs=0.05)


@pytest.mark.parametrize("word", ["", "[[i:]]", "-v", "two words", "x" * 25, "a;b"])
def test_what_is_no_word_never_reaches_the_synthesiser(word: str) -> None:
    def fail(_: str) -> bytes:
        raise AssertionError("asked")

    with pytest.raises(Unreadable, match="up to 24 letters"):
        own_word(word, fail)


def test_what_cannot_be_said_is_said_as_ta() -> None:
    assert word_sound("1½") is word_sound(INSTEAD)


def test_a_synthesiser_that_does_not_work_is_told_and_stops_nothing(monkeypatch: pytest.MonkeyPatch) -> None:
    """As where it dies of a limit that the server has: the choices still come, and a word says why it does not."""
    _listed.cache_clear()
    monkeypatch.setattr("ripresa.formats.speaker.shutil.which", lambda _name: "/bin/false")
    assert languages() == {}
    with pytest.raises(NotFound, match="The speech synthesiser of this computer does not work"):
        espeak("hoppla")
    monkeypatch.setattr("ripresa.formats.speaker.shutil.which", lambda _name: None)
    with pytest.raises(NotFound, match="Install espeak-ng to hear them"):
        espeak("hoppla")
