"""The speaker: makes the sound of a word with a general-purpose speech synthesiser, its vowel at a known place.

The words that a count needs are made once, by ``tools/words.py``, and ship with
Ripresa. Only a teacher's own words are made while it runs, where the
synthesiser (``espeak-ng``) is installed.
"""

import io
import re
import shutil
import subprocess
from collections.abc import Callable
from functools import lru_cache, partial

import numpy as np
import soundfile

from ripresa.core.errors import NotFound, Unreadable
from ripresa.formats.sounds import Samples

#: Samples a second of a spoken word.
RATE = 22_050
#: Where in the sound of a word its vowel sets in, in seconds: what comes before is its consonant, or silence.
ANCHOR = 0.12
_SYNTHESISER = "espeak-ng"
#: That of the words that ship.
LANGUAGE = "en-us"
#: Quick and rather high: short words that stand out over an instrument. Words a minute, and its own scale of pitch.
_SPEED, _PITCH = 290, 58
#: Vowels have their first resonance here; the noise of an s lies above it, the hum of a d below. In hertz.
_VOWEL_BAND = (280.0, 1100.0)
_SMOOTH, _QUIET, _FADE = 0.008, 0.02, 0.006
_PEAK = 0.9
_SAYABLE = re.compile(r"^[^\W\d_](?:[^\W\d_]|['’-]){0,23}$")

#: Makes a sound file of a text; ours by default, a fake in tests.
Synthesiser = Callable[[str], bytes]


def languages() -> dict[str, str]:
    """Return the languages that the synthesiser of this computer speaks: code → name; none where there is none."""
    try:
        return _listed()
    except NotFound:
        return {}


@lru_cache(maxsize=1)
def _listed() -> dict[str, str]:
    rows = (line.split() for line in _asked("--voices").decode().splitlines()[1:])
    found = {row[1]: row[3].replace("_", " ") for row in rows if len(row) > 3}
    return dict(sorted(found.items(), key=lambda pair: pair[1].lower()))


def _asked(*words: str) -> bytes:
    """Return what the synthesiser answers.

    Raises:
        NotFound: It is not installed, or does not work.
    """
    program = shutil.which(_SYNTHESISER)
    if program is None:
        raise NotFound("This computer has no speech synthesiser for own words. Install espeak-ng to hear them.")
    try:
        return subprocess.run([program, *words], capture_output=True, check=True, timeout=20).stdout
    except (OSError, subprocess.SubprocessError) as error:
        raise NotFound("The speech synthesiser of this computer does not work. Own words are said as “ta”.") from error


def in_language(language: str) -> "Synthesiser":
    """Return the synthesiser in a language; in that of the shipped words where it does not speak it."""
    return partial(espeak, language=language if language in languages() else LANGUAGE)


def espeak(text: str, language: str = LANGUAGE) -> bytes:
    """Return a text as a WAV file, spoken by the synthesiser of this computer.

    Raises:
        NotFound: It is not installed, or does not work.
    """
    return _asked("-v", language, "-s", str(_SPEED), "-p", str(_PITCH), "--stdout", "--", text)


def spoken(text: str, synthesiser: Synthesiser = espeak) -> Samples:
    """Return a text as samples from −1 to 1, 22,050 a second, its first vowel at ``ANCHOR``."""
    sound, rate = soundfile.read(io.BytesIO(synthesiser(text)))
    assert rate == RATE
    return aligned(sound)


def own_word(word: str, synthesiser: Synthesiser = espeak) -> Samples:
    """Return a teacher's own word as samples, as ``spoken`` does.

    Raises:
        Unreadable: It is no word of up to 24 letters.
        NotFound: There is no synthesiser here.
    """
    if not _SAYABLE.match(word):
        raise Unreadable(f"“{word[:30]}” cannot be spoken. Write a word of up to 24 letters.", field="word")
    return spoken(word, synthesiser)


def own_flac(word: str, synthesiser: Synthesiser = espeak) -> bytes:
    """Return a teacher's own word as a FLAC file; refused as ``own_word`` does."""
    target = io.BytesIO()
    soundfile.write(target, own_word(word, synthesiser), RATE, format="FLAC")
    return target.getvalue()


def vowel(sound: Samples) -> int:
    """Return the sample in which the vowel of a word sets in: half its greatest strength in the vowels' band."""
    spectrum = np.fft.rfft(sound)
    hertz = np.fft.rfftfreq(len(sound), 1 / RATE)
    spectrum[(hertz < _VOWEL_BAND[0]) | (hertz > _VOWEL_BAND[1])] = 0
    strength = _smooth(np.abs(np.fft.irfft(spectrum, len(sound))))
    return int(np.flatnonzero(strength > strength.max() / 2)[0])


def aligned(sound: Samples) -> Samples:
    """Return a word without silence around it, as loud as the others, its vowel at ``ANCHOR``."""
    loud = np.flatnonzero(_smooth(np.abs(sound)) > _QUIET * np.abs(sound).max())
    begin, end = int(loud[0]), int(loud[-1]) + 1
    anchor, at = vowel(sound), round(ANCHOR * RATE)
    begin = max(begin, anchor - at)
    made = sound[begin:end] * (_PEAK / np.abs(sound).max())
    fade = min(round(_FADE * RATE), len(made) // 4)
    made[:fade] *= np.linspace(0, 1, fade)
    made[-fade:] *= np.linspace(1, 0, fade)
    return np.concatenate([np.zeros(at - (anchor - begin)), made])


def _smooth(values: Samples) -> Samples:
    width = round(_SMOOTH * RATE)
    return np.convolve(values, np.ones(width) / width, mode="same")
