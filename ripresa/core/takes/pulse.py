"""The pulse: whether strikes gather around the notes of a drill, told without any alignment of single notes."""

from dataclasses import replace
from math import sqrt

import numpy as np
from numpy.typing import NDArray

from ripresa.core.exact import Exact
from ripresa.core.takes.evenness import swing_shifts
from ripresa.core.takes.figures import Figures
from ripresa.core.takes.measure import Measured
from ripresa.core.takes.model import Model

Floats = NDArray[np.float64]

#: Where fewer notes lie near the pulse of the drill than this, they do not follow it (resultant length, 0 to 1),
#: and how far chance alone gets: a number of roots.
_COHERENT, _CHANCE = 0.25, 1.9
#: A bar has a pulse of its own where its strikes gather less than this around its notes; shorter ones say nothing.
_INCOHERENT, _FEWEST_IN_BAR = 0.2, 4
#: Slots lie as a swing puts them within so much of a gap.
_SWUNG = 0.15


def strange_bars(take: Measured, figures: Figures) -> tuple[int, int]:
    """Return how many bars do not fit, by their misses, extras or pulse, and how many there are."""
    due, model = take.due, _swung(take, figures)
    if model is None:
        return 0, 1
    bar = due.turn * (due.reading.bar_count + 1) + np.array([event.bar for event in due.events])
    numbers, place = np.unique(bar, return_inverse=True)
    count = np.bincount(place)
    missed = np.bincount(place[list(take.match.missed)], minlength=len(numbers))
    moments, extras = moments_of(take, model), np.array([take.notes[one].at for one in take.match.extra])
    at = np.clip(np.searchsorted(due.at, moments, side="right") - 1, 0, len(due) - 1)
    extra_at = np.clip(np.searchsorted(due.at + model.path, extras, side="right") - 1, 0, len(due) - 1)
    extra = np.bincount(place[extra_at], minlength=len(numbers))
    turned = np.exp(2j * np.pi * _away(take, moments))
    heard = np.bincount(place[at], minlength=len(numbers))
    length = np.abs(
        np.bincount(place[at], turned.real, len(numbers)) + 1j * np.bincount(place[at], turned.imag, len(numbers))
    )
    is_strange = (missed > 0.4 * count) | (extra > 0.5 * count) | ((heard >= 6) & (length < _INCOHERENT * heard))
    told = count >= _FEWEST_IN_BAR
    return int((is_strange & told).sum()), int(told.sum())


def _swung(take: Measured, figures: Figures) -> Model | None:
    """Return the model with the swing that was played: who swings otherwise than asked keeps the pulse all the same.

    Where slots stand off in another way it is no swing, and nothing is taken off.
    """
    model, due = take.match.model, take.due
    shifts: dict[tuple[Exact, int], float] = {}
    for leg in figures.legs:
        found = swing_shifts(leg)
        habits = [slot.habit.value if slot.habit else 0.0 for slot in leg.slots]
        if found and all(abs(one - shift) < _SWUNG * leg.gap for one, shift in zip(habits, found, strict=True)):
            shifts |= {(leg.division, slot.slot): shift for slot, shift in zip(leg.slots, found, strict=True)}
    if model is None or not shifts:
        return model
    return replace(model, path=model.path + np.array([shifts.get(place, 0.0) for place in due.place]))


def _away(take: Measured, moments: Floats) -> Floats:
    """Return how far each moment lies from the nearest due note, in gaps, from −½ to ½."""
    due = take.due
    after = np.clip(np.searchsorted(due.at, moments), 1, len(due) - 1)
    before = np.where(moments - due.at[after - 1] < due.at[after] - moments, after - 1, after)
    return np.asarray(np.clip((moments - due.at[before]) / due.near_gap[before], -0.5, 0.5), dtype=float)


def moments_of(take: Measured, model: Model) -> Floats:
    """Return when each strike would have fallen if the player had been on time throughout, in seconds."""
    due = take.due
    strikes = take.struck
    expected = np.maximum.accumulate(due.at + model.path)
    found: Floats = np.asarray(np.interp(strikes, expected, due.at))
    early, late = strikes < expected[0], strikes > expected[-1]
    found[early] = strikes[early] - model.path[0]
    found[late] = strikes[late] - model.path[-1]
    return found


def follows(take: Measured, figures: Figures) -> bool:
    """Return whether what was heard keeps the pulse of the drill: strikes gather around due notes."""
    model, due = _swung(take, figures), take.due
    if model is None:
        return False
    moments = moments_of(take, model)
    moments = moments[(moments > due.at[0] - due.near_gap[0]) & (moments < due.at[-1] + due.near_gap[-1])]
    if len(moments) < 8:
        return False
    away = _away(take, moments)
    length = float(abs(np.exp(2j * np.pi * away).mean()))
    return length >= max(_COHERENT, _CHANCE / sqrt(len(moments)))
