"""The attack: where exactly a note begins, and how loud it is, from the samples around its place.

How loud a note is, is what it adds: what rang before it goes off, frequency by frequency.
"""

from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from itertools import chain

import numpy as np
from numpy.typing import NDArray

from ripresa.core.listening.novelty import THREADS, Floats, band_weights, folded, frames_of
from ripresa.core.listening.profiles import Profile
from ripresa.core.listening.sound import Sound

#: Seconds of sound in a frame, from one to the next, and how far a frame is held against an earlier one.
_FRAME, _STEP, _AGAINST = 0.0116, 0.0015, 0.03
#: Seconds of sound in which a level is taken, from one such frame to the next, and the middle of the first.
_LEVEL_FRAME, _LEVEL_STEP, _LEVEL_FROM = 0.0232, 0.006, -0.026
#: The last frame that ends before a note begins, and the first that is looked at for what it adds; all of them.
_RINGS, _ADDS, _LEVEL_FRAMES = 2, 5, 18
#: What rang before may ring on so many times as strong as it was heard, as two strings meet in and out of phase; what
#: was falling off goes on to fall, by so many times as much.
_RINGS_ON, _FALLS_ON = 1.5, 3.0
#: From a spectrum under a Hann window to the power of what was heard: 1/2 · 8/3, for both halves of it.
_HANN_POWER = 16 / 3
#: Places that are looked at together.
_BLOCK = 64
SILENT_DB = -120.0


def attacks_of(sound: Sound, places: NDArray[np.float64], profile: Profile) -> Iterator[tuple[float, float]]:
    """Yield when the note at each place begins, in seconds, and how loud it is, in dB below full scale.

    Short frames are held against those of 30 ms before: where they rise the most is the attack, and where they first
    rise by a share of that, between two frames, is its beginning.
    """
    fold, rate = folded(sound.rate)
    size, step = 1 << round(np.log2(_FRAME * rate)), max(1, round(_STEP * rate))
    lag, before = round(_AGAINST * rate / step), round(profile.before * rate / step)
    count = before + round(profile.after * rate / step) + lag + 1
    bands = band_weights(rate, size)
    window = (np.hanning(size) * 2 / size).astype(np.float32)

    def told(block: NDArray[np.float64]) -> list[tuple[float, float]]:
        begins = [round(place * rate) - (before + lag) * step for place in block.tolist()]
        frames = np.stack([frames_of(sound, begin, size, step, count, fold) for begin in begins])
        spectrum = np.fft.rfft(frames * window, axis=2)
        energy = (spectrum.real**2 + spectrum.imag**2) @ bands
        found = []
        for own, begin in zip(energy, begins, strict=True):
            at = (begin + (_edge(own, lag, profile) + lag) * step) / rate - profile.late
            found.append((at, _added(sound, at)))
        return found

    blocks = [places[first : first + _BLOCK] for first in range(0, len(places), _BLOCK)]
    with ThreadPoolExecutor(THREADS) as pool:
        yield from chain.from_iterable(pool.map(told, blocks))


def _edge(energy: Floats, lag: int, profile: Profile) -> float:
    """Return where the steepest rise begins, in frames behind the first that has an earlier one to be held against."""
    floor = float(energy.sum(axis=1).max()) * 10 ** (profile.depth / 10) / energy.shape[1] + 1e-13
    decibels = 10 * np.log10(1 + energy / floor)
    rise = np.maximum(0, decibels[lag:] - decibels[:-lag]).mean(axis=1)
    place = int(rise.argmax())
    edge = profile.share * float(rise[place])
    while place > 0 and rise[place - 1] >= edge:
        place -= 1
    if place == 0 or rise[place] <= rise[place - 1]:
        return float(place)
    return place - float((rise[place] - edge) / (rise[place] - rise[place - 1]))


def _added(sound: Sound, at: float) -> float:
    """Return how loud what a note adds is where that is most, in dB below full scale."""
    fold, rate = folded(sound.rate)
    size = 1 << round(np.log2(_LEVEL_FRAME * rate))
    first, step = round((at + _LEVEL_FROM) * rate), round(_LEVEL_STEP * rate)
    frames = frames_of(sound, first, size, step, _LEVEL_FRAMES, fold)
    spectrum = np.fft.rfft(frames * np.hanning(size).astype(np.float32), axis=1)
    power = spectrum.real**2 + spectrum.imag**2
    falls = min(1.0, float(power[_RINGS].sum()) / (float(power[0].sum()) + 1e-20))
    rang = _RINGS_ON * falls**_FALLS_ON * power[_RINGS]
    most = float(np.maximum(0, power[_ADDS:] - rang).sum(axis=1).max())
    return max(SILENT_DB, 10 * float(np.log10(_HANN_POWER * most / size**2 + 1e-12)))
