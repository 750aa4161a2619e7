"""The spoken words that ship with Ripresa, one after the other in one file; any word as a sound."""

import json
from functools import lru_cache
from pathlib import Path

import numpy as np
import soundfile

from ripresa.core.errors import RipresaError
from ripresa.formats import speaker
from ripresa.formats.sounds import RATE, Samples

SOUND = Path(__file__).with_suffix(".flac")
INDEX = Path(__file__).with_suffix(".json")
#: What is said where a word has no sound of its own.
INSTEAD = "ta"


@lru_cache(maxsize=1)
def index() -> dict[str, tuple[int, int]]:
    """Return (first sample, length) in the file of each word that ships."""
    return {word: (start, length) for word, (start, length) in json.loads(INDEX.read_text("utf-8")).items()}


@lru_cache(maxsize=256)
def word_sound(word: str, language: str = speaker.LANGUAGE) -> Samples:
    """Return a word at 44,100 samples a second, its vowel at ``speaker.ANCHOR``; “ta” where it has no sound.

    Args:
        language: In which a word of the teacher's own is spoken.
    """
    known = index().get(word)
    if known is None:
        try:
            return _twice(speaker.own_word(word, speaker.in_language(language)))
        except RipresaError:
            return word_sound(INSTEAD)
    start, length = known
    found: Samples = soundfile.read(SOUND, start=start, frames=length)[0]
    return _twice(found)


def _twice(sound: Samples) -> Samples:
    """Return a sound with twice as many samples a second, nothing added above what it has."""
    assert 2 * speaker.RATE == RATE
    spectrum = np.fft.rfft(sound)
    return np.fft.irfft(np.concatenate([spectrum, np.zeros(len(sound) - len(spectrum) + 1)]), 2 * len(sound)) * 2
