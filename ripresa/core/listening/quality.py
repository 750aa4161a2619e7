"""The gate of a recording: whether what was recorded can be listened to at all, and if not, why and what would help."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.lib.stride_tricks import sliding_window_view

from ripresa.core.exact import plural
from ripresa.core.listening.novelty import Floats, Novelty
from ripresa.core.listening.onsets import Onset
from ripresa.core.listening.sound import Sound

Trouble = Literal["silent", "soft", "clipping", "hum", "noise"]
#: Below this nothing was recorded but the device itself; below that notes drown in it. dB below full scale.
_SILENT_DB, _SOFT_DB = -66.0, -50.0
#: Three samples in a row at the end of the scale are a clipped wave; so large a share of the notes may have one.
_AT_THE_END, _MOST_CLIPPED = 32_700, 0.02
#: Notes stand over what is there between them by so many dB at least.
_CLEAR_DB = 9.0
#: A hum is this much of what is heard between notes, above this level.
_HUM_SHARE, _HUM_DB = 0.7, -56.0
_MAINS = (50.0, 60.0)
#: Noise has no line that stands over those beside it by more than this, as a factor; so many lines are beside it.
_NO_LINE, _LINES_BESIDE = 60.0, 40
_BLOCK_SECONDS = 10.0
#: What is quiet is the softest of so many parts of half a second.
_PARTS = 8


@dataclass(frozen=True, slots=True)
class Quality:
    """How a recording is.

    Args:
        troubles: What is wrong with it, the worst first; none where it can be listened to.
        sentences: What is said of each, and what would help.
        peak_db: The loudest sample. level_db: Of its notes, their median. noise_db: Of the quietest half second; dB
            below full scale, −120 for nothing at all.
        seconds: How long it lasts.
    """

    troubles: tuple[Trouble, ...]
    sentences: tuple[str, ...]
    peak_db: float
    level_db: float
    noise_db: float
    seconds: float

    @property
    def is_good(self) -> bool:
        """Whether it can be listened to."""
        return not self.troubles


def quality_of(sound: Sound, onsets: Sequence[Onset], found: Novelty) -> Quality:
    """Return how a recording is, by its samples, its notes and what is between them."""
    peak, clipped = _peaks(sound)
    levels = [onset.level for onset in onsets]
    level = float(np.median(levels)) if levels else -120.0
    quiet = _quietest(sound, found)
    softest = min(float((part.astype(np.float64) ** 2).mean()) for part in np.array_split(quiet, _PARTS))
    noise = max(-120.0, 10 * float(np.log10(softest + 1e-12)))
    is_close = not onsets or level - noise < _CLEAR_DB
    hum = _hum_of(quiet, sound.rate) if noise > _HUM_DB and (not onsets or level - noise < 2 * _CLEAR_DB) else None
    is_noisy = is_close and _is_noise(quiet)
    told = tuple(_troubles(peak, level, noise if is_noisy else None, hum, clipped, onsets))
    return Quality(tuple(kind for kind, _ in told), tuple(text for _, text in told), peak, level, noise, sound.seconds)


def _troubles(
    peak: float, level: float, noise: float | None, hum: float | None, clipped: int, onsets: Sequence[Onset]
) -> Iterator[tuple[Trouble, str]]:
    """Yield what is wrong, the worst first; noise is given where it is about as loud as the notes."""
    if peak < _SILENT_DB:
        yield (
            "silent",
            "Nothing was recorded: the microphone is muted, or another one is meant. Choose it, and try again.",
        )
        return
    if clipped > max(2, _MOST_CLIPPED * len(onsets)):
        yield (
            "clipping",
            f"It is too loud: the sound is cut off at {plural(clipped, 'place')}. Move away from the microphone, or "
            "turn its level down.",
        )
    if hum is not None:
        yield ("hum", f"A hum of {hum:.0f} Hz lies under the notes. Try another cable or socket, or move away from it.")
    elif noise is not None and onsets:
        yield (
            "noise",
            f"The room is too loud: notes stand only {max(0, level - noise):.0f} dB over it. Close the window, or "
            "move nearer to the microphone.",
        )
    if not onsets:
        yield "silent", "No note was heard in it. Play nearer to the microphone, or choose another one."
    elif level < _SOFT_DB:
        yield "soft", f"It is too soft, {level:.0f} dB. Move nearer to the microphone, or turn its level up."


def _peaks(sound: Sound) -> tuple[float, int]:
    """Return the loudest sample in dB, and at how many places of a tenth of a second the wave is cut off."""
    loudest, places = 0, 0
    step, tenth = int(_BLOCK_SECONDS * sound.rate), max(1, sound.rate // 10)
    for first in range(0, len(sound.samples), step):
        size = np.abs(sound.samples[first : first + step].astype(np.int32))
        loudest = max(loudest, int(size.max(initial=0)))
        ends = size >= _AT_THE_END
        run = ends[2:] & ends[1:-1] & ends[:-2]
        places += len(np.unique(np.flatnonzero(run) // tenth))
    return (20 * float(np.log10(loudest / 32_768)) if loudest else -120.0), places


def _quietest(sound: Sound, found: Novelty) -> Floats:
    """Return half a second of sound around one of its quietest moments."""
    total = found.energy.sum(axis=1)
    quiet = int(np.argsort(total)[len(total) // 20])
    middle, half = round(quiet * found.hop * sound.rate), sound.rate // 4
    return sound.part(middle - half, middle + half)


def _is_noise(samples: Floats) -> bool:
    """Return whether a sound has no tones: no line of its spectrum stands far over those beside it."""
    power = np.abs(np.fft.rfft(samples * np.hanning(len(samples)))) ** 2 + 1e-18
    size = 2 * _LINES_BESIDE + 1
    beside = np.median(sliding_window_view(np.pad(power, _LINES_BESIDE, mode="edge"), size), axis=1)
    return bool((power[_LINES_BESIDE:] / beside[_LINES_BESIDE:]).max() < _NO_LINE)


def _hum_of(samples: Floats, rate: int) -> float | None:
    power = np.abs(np.fft.rfft(samples * np.hanning(len(samples)))) ** 2
    hertz = np.fft.rfftfreq(len(samples), 1 / rate)
    whole = float(power[hertz > 30].sum())
    if whole <= 0:
        return None
    for mains in _MAINS:
        away = np.abs(hertz - mains * np.maximum(1, np.round(hertz / mains)))
        own = float(power[(away <= 4) & (hertz > 30) & (hertz < 10 * mains)].sum())
        if own / whole >= _HUM_SHARE:
            return mains
    return None
