"""Memory: how alike neighbouring notes are, and what that makes of the errors of a fit."""

from math import exp, log

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]

_RHOS = np.arange(0.0, 0.975, 0.05)
_LAGS = 10
#: Start, drift and bend take slow movement out of what remains, so that it looks less alike than it is.
_SMOOTH_TERMS = 3
#: Waves from the fourth on, up to a part of the notes, tell how much slower ones weigh; so many have to. From a slope
#: on they do, and it is taken for as steep as that at most.
_SLOW_FIRST, _SLOW_PART, _FEWEST_WAVES, _SLOW, _STEEPEST = 3, 5, 10, 0.4, 1.2


def correlation(rest: Floats) -> tuple[float, float]:
    """Return (ρ, share) of ``share · ρ^lag``, the correlation of what remains; (0, 0) where there is none.

    The autocovariances of residuals are too small by about 3 / n, for the slow terms, which is put back.
    """
    count = len(rest)
    power = float(rest @ rest)
    lags = min(_LAGS, count // 4)
    if power == 0 or lags < 2:
        return 0.0, 0.0
    found = np.array([float(rest[lag:] @ rest[:-lag]) / power for lag in range(1, lags + 1)]) + _SMOOTH_TERMS / count
    weights = np.sqrt(count - np.arange(1, lags + 1.0))
    best = (float(weights @ found**2), 0.0, 0.0)
    for rho in _RHOS[1:]:
        shape = rho ** np.arange(1, lags + 1.0)
        share = min(1.0, max(0.0, float((weights * shape) @ found) / float((weights * shape) @ shape)))
        left = float(weights @ (found - share * shape) ** 2)
        if left < best[0]:
            best = (left, float(rho), share)
    return best[1], best[2]


def slow_meat(design: Floats, rest: Floats) -> Floats | None:
    """Return XᵀΣX for a power of what remains that falls with its frequency; None where it does not fall enough.

    People’s timing has slow waves of every length (Gilden, Thornton & Mallon 1995): an AR(1) forgets too soon. The
    slope is that of the logarithms of the periodogram over those of the frequencies (Geweke & Porter-Hudak 1983), above
    the ones that start, drift and bend took out; Σ is that of a ring four times as long.
    """
    count = len(rest)
    top = count // _SLOW_PART
    if top - _SLOW_FIRST < _FEWEST_WAVES:
        return None
    waves = np.arange(_SLOW_FIRST, top)
    power = np.abs(np.fft.rfft(rest - rest.mean())[waves]) ** 2 / count
    frequency = np.log(waves / count)
    moved = frequency - frequency.mean()
    logs = np.log(np.maximum(power, 1e-18))
    slope = -float(moved @ logs) / float(moved @ moved)
    if slope < _SLOW:
        return None
    slope = min(slope, _STEEPEST)
    # The logarithm of a periodogram lies by Euler’s number under that of the spectrum.
    level = exp(float((logs + slope * frequency).mean()) + 0.5772)
    ring = 4 * count
    spectrum = level * (np.maximum(np.arange(ring // 2 + 1), 1) / ring) ** -slope
    padded = np.fft.rfft(design, n=ring, axis=0)
    found: Floats = np.asarray(design.T @ np.fft.irfft(spectrum[:, None] * padded, n=ring, axis=0)[:count])
    return found


def meat(design: Floats, rho: float, share: float) -> Floats:
    """Return XᵀRX for a correlation of ``share · ρ^lag``."""
    found = design.T @ design
    if rho <= 0 or share <= 0:
        return found
    lags = min(len(design) - 1, int(log(1e-3) / log(rho)) + 1)
    for lag in range(1, lags + 1):
        part = share * rho**lag * (design[lag:].T @ design[:-lag])
        found = found + part + part.T
    return found
