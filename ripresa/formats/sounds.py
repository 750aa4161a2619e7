"""The sounds, made from nothing by the recipes: three reference voices, a clap, drums, and the click by its role.

Made in the way that the browser makes its own, so that a file sounds like the stand.
"""

from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from ripresa.core.playing import Drum
from ripresa.formats.recipes import RECIPES, Role, Timbre, Voice

Samples = NDArray[np.float64]

RATE = 44_100


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
    recipe = RECIPES.clicks
    time = np.arange(int(recipe.seconds * RATE)) / RATE
    found = np.zeros_like(time)
    for wave in recipe.waves[timbre]:
        swings = np.sin(2 * np.pi * wave.ratio * recipe.hertz[role] * time)
        found += wave.weight * swings * np.exp(-wave.fading * time)
    rising: Samples = found * np.minimum(1, recipe.rise * time)
    return rising


@lru_cache(maxsize=16)
def drum(which: Drum) -> Samples:
    """Return a drum of a quarter of a second."""
    recipe = RECIPES.drums[which]
    time = np.arange(int(RECIPES.drum_seconds * RATE)) / RATE
    hertz = recipe.hertz + recipe.falls * np.exp(-recipe.falling * time)
    tone = recipe.tone * np.sin(2 * np.pi * hertz * time) * np.exp(-recipe.tone_fading * time)
    hiss = recipe.noise * _noise(len(time), 11) * np.exp(-recipe.noise_fading * time)
    found: Samples = tone + hiss
    return found


def _pluck(hertz: float) -> Samples:
    recipe, seconds = RECIPES.pluck, RECIPES.note_seconds
    period = max(2, round(RATE / hertz))
    turn = _noise(period, period)
    # The string swings about its place: what all of the noise has in common would be a push and no tone.
    turn -= turn.mean()
    found, last = [turn], 0.0
    for _ in range(int(seconds * RATE) // period):
        before = np.concatenate([[last], turn[:-1]])
        last = turn[-1]
        turn = recipe.keeps * (turn + before)
        found.append(turn)
    return np.concatenate(found)[: int(seconds * RATE)] * recipe.gain


def _partials(voice: Voice, hertz: float) -> Samples:
    assert voice != "pluck" and voice != "struck"  # noqa: PT018 - one claim: what has partials
    recipe = RECIPES.partials[voice]
    time = np.arange(int(RECIPES.note_seconds * RATE)) / RATE
    found = np.zeros_like(time)
    for number, weight in enumerate(recipe.weights):
        partial = hertz * (number + 1)
        if partial <= RATE / 2.2:
            fades = np.exp(-recipe.fading * (1 + 0.8 * number) * time)
            found += np.sin(2 * np.pi * partial * time) * weight * 0.5 * fades
    rising: Samples = found * np.minimum(1, time / recipe.attack)
    return rising


def _clap() -> Samples:
    length = int(RECIPES.clap_seconds * RATE)
    return _noise(length, 7) * np.exp(-RECIPES.clap_fading * np.arange(length) / RATE)


def _noise(length: int, seed: int) -> Samples:
    """Return the same noise each time for a seed, from −1 to 1."""
    return np.random.default_rng(seed).uniform(-1, 1, length)
