"""A take as a recording: what was struck, in our own sounds. It stands in for a microphone, and is played back."""

import errno
import os
from collections.abc import Sequence
from io import BytesIO
from pathlib import Path

import numpy as np
import soundfile

from ripresa.core.errors import OutOfRange
from ripresa.core.listening import Sound
from ripresa.core.takes import HeardNote
from ripresa.formats.recipes import Voice
from ripresa.formats.sounds import RATE, Samples, note

LONGEST_SECONDS = 20 * 60
#: Before the first note and after the last one, in seconds.
BEFORE, _AFTER = 0.5, 1.0
#: How long what has no known end sounds; how a note ends; and how a velocity sounds, as General MIDI has it.
_USUAL, _FADE, _USUAL_VELOCITY = 0.3, 0.02, 80.0
_PEAK = 0.6


def played(notes: Sequence[HeardNote], voice: Voice, seconds: float, begin: float = 0.0) -> Samples:
    """Return so many seconds of what was struck, from a moment of the take on, as samples from −1 to 1.

    Raises:
        OutOfRange: It lasts more than twenty minutes.
    """
    if not 0 < seconds <= LONGEST_SECONDS:
        raise OutOfRange(f"A recording lasts up to {LONGEST_SECONDS // 60} minutes. Take fewer passes.", field="end")
    sound = np.zeros(round(seconds * RATE))
    for one in notes:
        first = round((one.at - begin) * RATE)
        if not 0 <= first < len(sound):
            continue
        tone = _held(note(voice, one.pitch), (one.until - one.at) if one.until is not None else _USUAL)
        room = min(len(tone), len(sound) - first)
        sound[first : first + room] += _gain(one) * tone[:room]
    return sound


def recorded(notes: Sequence[HeardNote], voice: Voice) -> bytes:
    """Return a take as a WAV file that begins half a second before its first beat."""
    last = max((one.at for one in notes), default=0.0)
    sound = played(notes, voice, BEFORE + max(0.0, last) + _AFTER, -BEFORE)
    peak = float(np.abs(sound).max(initial=0.0))
    return wav(sound * (_PEAK / peak) if peak > 0 else sound)


def wav(sound: Samples, rate: int = RATE) -> bytes:
    """Return samples from −1 to 1 as a WAV file of 16 bits."""
    target = BytesIO()
    soundfile.write(target, np.clip(sound, -1, 1), rate, format="WAV", subtype="PCM_16")
    return target.getvalue()


def _gain(one: HeardNote) -> float:
    if one.level is None:
        return float((_USUAL_VELOCITY / 127) ** 2)
    return float((one.level / 127) ** 2) if one.level >= 1 else float(10 ** (one.level / 20))


def _held(tone: Samples, seconds: float) -> Samples:
    """Return a tone that has ended after so many seconds, over 20 ms."""
    fade = round(_FADE * RATE)
    length = max(0, round(seconds * RATE) - fade)
    if length + fade >= len(tone):
        return tone
    held = tone[: length + fade].copy()
    held[length:] *= np.linspace(1, 0, fade)
    return held


def write_flac(sound: Sound, target: Path) -> None:
    """Write a recording as FLAC, a second at a time.

    Raises:
        OSError: It cannot be written whole, as the system says it.
    """
    count = len(sound.samples)
    try:
        with soundfile.SoundFile(target, "w", sound.rate, 1, format="FLAC", subtype="PCM_16") as opened:
            for first in range(0, count, sound.rate):
                opened.write(np.asarray(sound.samples[first : first + sound.rate]))
        whole = not count or soundfile.info(target).frames == count
    except (soundfile.LibsndfileError, AssertionError):
        # The library says of a full disk that it wrote less than it was given.
        whole = False
    if not whole:
        _ask_the_disk(target)
        raise OSError(errno.EIO, "the sound was not written whole", str(target))


def _ask_the_disk(target: Path) -> None:
    """Write a little more, so that the system says what is wrong, where it is the disk."""
    with target.open("ab") as opened:
        opened.write(bytes(65_536))
        opened.flush()
        os.fsync(opened.fileno())
