"""Novelty: how much more there is to hear than a moment ago, by the spectral flux of bands in decibels.

Bello et al., A Tutorial on Onset Detection in Music Signals (2005): half-wave rectified differences of a logarithmic
spectrum. Worked out in blocks, so that memory does not grow with the square of anything.
"""

from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass

import numpy as np
from numpy.lib.stride_tricks import sliding_window_view
from numpy.typing import NDArray

from ripresa.core.listening.profiles import Profile
from ripresa.core.listening.sound import Sound

Floats = NDArray[np.float32]

#: Seconds from one frame to the next; frames that are worked out at once.
HOP = 0.005
_BLOCK = 1024
_MANY = 32_000
#: Threads that transform at once.
THREADS = 2
#: Bands from the lowest string to where instruments have nothing left, in Hz.
_BANDS, _LOWEST, _HIGHEST = 30, 80.0, 14_000.0
#: How far to either side the loudest nearby is looked for, in seconds; and how far below all of it a place may lie.
_NEARBY, _SILENCE = 0.4, 10**-3.0
#: So much over its own noise a band counts, as a factor of its energy.
_OVER_NOISE = 4.0
_COARSE = 8


@dataclass(frozen=True)
class Novelty:
    """The novelty of each frame in dB, and the energy of each band of each frame.

    Args:
        rise: Novelty. energy: (frames, bands). hop: Seconds between frames; the first lies at 0.
    """

    rise: Floats
    energy: Floats
    hop: float


def novelty(sound: Sound, profile: Profile) -> Novelty:
    """Return the novelty of a recording."""
    fold, rate = folded(sound.rate)
    size, step = 1 << round(np.log2(profile.frame * rate)), max(1, round(HOP * rate))
    energy = _energies(sound, size, step, fold)
    hop = step / rate
    return Novelty(_rises(energy, hop, profile), energy, hop)


def folded(rate: int) -> tuple[int, float]:
    """Return how many samples are made one, and how many a second are left: what tells notes apart is below 10 kHz."""
    fold = 2 if rate >= _MANY else 1
    return fold, rate / fold


def frames_of(sound: Sound, first: int, size: int, step: int, count: int, fold: int) -> Floats:
    """Return (count, size): frames of folded samples, the first with its middle at a sample, one each step."""
    begin = first - size // 2
    samples = sound.part(begin * fold, (begin + (count - 1) * step + size) * fold)
    return sliding_window_view(samples.reshape(-1, fold).mean(axis=1), size)[::step]


def _energies(sound: Sound, size: int, step: int, fold: int) -> Floats:
    count = len(sound.samples) // (step * fold) + 1
    bands = band_weights(sound.rate / fold, size)
    window = (np.hanning(size) * 2 / size).astype(np.float32)
    found = np.empty((count, bands.shape[1]), dtype=np.float32)

    def fill(first: int) -> None:
        last = min(count, first + _BLOCK)
        frames = frames_of(sound, first * step, size, step, last - first, fold)
        spectrum = np.fft.rfft(frames * window, axis=1)
        found[first:last] = (spectrum.real**2 + spectrum.imag**2) @ bands

    # Transforms let other threads work meanwhile.
    with ThreadPoolExecutor(THREADS) as pool:
        list(pool.map(fill, range(0, count, _BLOCK)))
    return found


def band_weights(rate: float, size: int) -> Floats:
    """Return (bins, bands): each band the mean of its bins."""
    hertz = np.fft.rfftfreq(size, 1 / rate)
    edges = np.geomspace(_LOWEST, min(_HIGHEST, 0.46 * rate), _BANDS + 1)
    found = np.zeros((len(hertz), _BANDS), dtype=np.float32)
    for band in range(_BANDS):
        own = (hertz >= edges[band]) & (hertz < edges[band + 1])
        if not own.any():
            own[np.argmin(np.abs(hertz - np.sqrt(edges[band] * edges[band + 1])))] = True
        found[own, band] = 1 / own.sum()
    return found


def _rises(energy: Floats, hop: float, profile: Profile) -> Floats:
    lag = max(1, round(profile.rise / hop))
    total = energy.sum(axis=1)
    everywhere = float(np.percentile(total, 95)) + 1e-20
    nearby = np.sqrt(_loudest(total, round(_NEARBY / hop)) * everywhere)
    floor = np.maximum(nearby, everywhere * _SILENCE) * np.float32(10 ** (profile.floor / 10) / energy.shape[1])
    noise = np.percentile(energy[::_COARSE], 10, axis=0) * _OVER_NOISE
    found = np.zeros(len(energy), dtype=np.float32)
    for first in range(lag, len(energy), _BLOCK):
        last = min(len(energy), first + _BLOCK)
        under = np.maximum(floor[first:last, None], noise)
        now = np.log10(1 + energy[first:last] / under)
        before = np.log10(1 + energy[first - lag : last - lag] / under)
        found[first:last] = 10 * np.maximum(0, now - before).mean(axis=1)
    return found


def _loudest(total: Floats, beside: int) -> Floats:
    """Return the loudest near each frame, on a coarse grid that is joined by lines."""
    padded = np.pad(total, (beside, beside))
    grid = np.arange(0, len(total), _COARSE)
    found = sliding_window_view(padded, 2 * beside + 1)[::_COARSE].max(axis=1)
    return np.asarray(np.interp(np.arange(len(total)), grid, found), dtype=np.float32)
