"""Recordings read: WAV, FLAC, Ogg, MP3 and what else the library knows, as one channel of 16 bits, block by block."""

from io import BytesIO
from pathlib import Path

import numpy as np
import soundfile
from numpy.typing import NDArray

from ripresa.core.errors import NotFound, Unreadable
from ripresa.core.listening import RATES, Sound, check_seconds

#: The largest file of sound that is opened at all: twenty minutes of WAV in two channels.
LARGEST_SOUND = 260_000_000
_BLOCK_SECONDS = 5
_MOST_CHANNELS = 32
_FULL = 32_767.0
_KINDS = "A recording is a WAV, FLAC, Ogg or MP3 file."


def read_sound(source: bytes | Path) -> Sound:
    """Return a recording, its channels made one, at no more than 48,000 samples a second.

    Raises:
        NotFound: There is no such file.
        Unreadable: It is no sound, it is broken, or it is too large.
        OutOfRange: It lasts longer than is listened to.
    """
    try:
        if (len(source) if isinstance(source, bytes) else source.stat().st_size) > LARGEST_SOUND:
            raise Unreadable(
                f"This recording has more than {LARGEST_SOUND // 1_000_000} MB. Cut out the take.", field="file"
            )
        with soundfile.SoundFile(BytesIO(source) if isinstance(source, bytes) else source) as opened:
            return _read(opened)
    except FileNotFoundError as error:
        raise NotFound(f"{source!s} does not exist.") from error
    except OSError as error:
        raise Unreadable(f"This recording cannot be read: {error.strerror}.", field="file") from error
    except (soundfile.SoundFileError, RuntimeError, ValueError, TypeError) as error:
        raise Unreadable(f"This is no recording that can be read, or it is broken. {_KINDS}", field="file") from error


def sound_of(samples: NDArray[np.float64], rate: int) -> Sound:
    """Return samples from −1 to 1 as a recording."""
    return Sound(np.round(np.clip(samples, -1, 1) * _FULL).astype(np.int16), rate)


def _read(opened: soundfile.SoundFile) -> Sound:
    rate, channels = int(opened.samplerate), int(opened.channels)
    if not RATES[0] <= rate <= 8 * RATES[1] or not 1 <= channels <= _MOST_CHANNELS:
        raise Unreadable(
            f"This recording has {rate:,} samples a second in {channels} channels, which is not read. {_KINDS}",
            field="file",
        )
    # What a header claims may be untrue; it is enough to refuse what is surely too long, before it is read.
    check_seconds(opened.frames / rate)
    fold = -(-rate // RATES[1])
    parts, seconds = [], 0
    size = rate * _BLOCK_SECONDS // fold * fold
    while len(block := opened.read(size, dtype="float32", always_2d=True)):
        seconds += _BLOCK_SECONDS
        check_seconds(seconds - _BLOCK_SECONDS)
        one = block.mean(axis=1)
        one = one[: len(one) // fold * fold].reshape(-1, fold).mean(axis=1)
        parts.append(np.round(np.clip(np.nan_to_num(one), -1, 1) * _FULL).astype(np.int16))
    if not parts or not sum(map(len, parts)):
        raise Unreadable(f"There is no sound in this file. {_KINDS}", field="file")
    return Sound(np.concatenate(parts), rate // fold)
