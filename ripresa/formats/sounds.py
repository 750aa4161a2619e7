"""The sounds, made from nothing: three reference voices, a clap, and the click by its role.

Made in the way that the browser makes its own, so that a file sounds like the stand.
"""

from functools import lru_cache
from typing import Literal

import numpy as np
from numpy.typing import NDArray

Samples = NDArray[np.float64]
Voice = Literal["pluck", "keys", "wind"]
Role = Literal["strong", "plain", "count"]

Timbre = Literal["beep", "wood", "tick"]

TIMBRES: dict[Timbre, tuple[str, str]] = {
    "beep": ("a beep", "Clear pitch: the bar is a fifth above the beat."),
    "wood": ("a wood block", "Short and dry, and it carries over a guitar."),
    "tick": ("a tick", "Hardly any pitch: least in the way of wind and keys."),
}
RATE = 44_100
_SECONDS = 1.6
_CLICK_SECONDS = 0.08
_CLICK_HERTZ: dict[Role, float] = {"strong": 1760.0, "plain": 1175.0, "count": 880.0}
#: Weights of the partials, fading a second, seconds of attack.
_PARTIALS: dict[Voice, tuple[tuple[float, ...], float, float]] = {
    "keys": ((1, 0.5, 0.28, 0.14, 0.07), 2.6, 0.003),
    "wind": ((1, 0.12, 0.42, 0.06, 0.18), 0.25, 0.014),
}


@lru_cache(maxsize=256)
def note(voice: Voice, midi: int | None) -> Samples:
    """Return a note of 1.6 s at 44,100 samples a second; a clap where it has no pitch."""
    if midi is None:
        return _clap()
    hertz = 440 * 2 ** ((midi - 69) / 12)
    return _pluck(hertz) if voice == "pluck" else _partials(voice, hertz)


@lru_cache(maxsize=16)
def click(role: Role, timbre: Timbre = "beep") -> Samples:
    """Return a click of 80 ms."""
    time = np.arange(int(_CLICK_SECONDS * RATE)) / RATE
    hertz, rising = _CLICK_HERTZ[role], np.minimum(1, 2000 * time)
    match timbre:
        case "beep":
            found: Samples = np.sin(2 * np.pi * hertz * time) * np.exp(-70 * time)
        case "wood":
            high = np.sin(2 * np.pi * 1.51 * hertz * time) * np.exp(-260 * time)
            found = 0.8 * np.sin(2 * np.pi * 0.6 * hertz * time) * np.exp(-110 * time) + 0.6 * high
        case "tick":
            found = 1.2 * np.sin(2 * np.pi * 2.3 * hertz * time) * np.exp(-420 * time)
    return found * rising


def _pluck(hertz: float) -> Samples:
    """Return a plucked string: a burst of noise in a loop that loses its edge (Karplus and Strong 1983)."""
    period = max(2, round(RATE / hertz))
    turn = _noise(period, period)
    # The string swings about its place: what all of the noise has in common would be a push and no tone.
    turn -= turn.mean()
    found, last = [turn], 0.0
    for _ in range(int(_SECONDS * RATE) // period):
        before = np.concatenate([[last], turn[:-1]])
        last = turn[-1]
        turn = 0.497 * (turn + before)
        found.append(turn)
    return np.concatenate(found)[: int(_SECONDS * RATE)] * 0.8


def _partials(voice: Voice, hertz: float) -> Samples:
    weights, fading, attack = _PARTIALS[voice]
    time = np.arange(int(_SECONDS * RATE)) / RATE
    found = np.zeros_like(time)
    for number, weight in enumerate(weights):
        partial = hertz * (number + 1)
        if partial <= RATE / 2.2:
            found += np.sin(2 * np.pi * partial * time) * weight * 0.5 * np.exp(-fading * (1 + 0.8 * number) * time)
    rising: Samples = found * np.minimum(1, time / attack)
    return rising


def _clap() -> Samples:
    length = int(0.12 * RATE)
    return _noise(length, 7) * np.exp(-45 * np.arange(length) / RATE)


def _noise(length: int, seed: int) -> Samples:
    """Return the same noise each time for a seed, from −1 to 1."""
    return np.random.default_rng(seed).uniform(-1, 1, length)
