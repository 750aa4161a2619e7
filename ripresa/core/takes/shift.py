"""Shifts: whether a whole take is better explained as a slot or a beat early or late. Told where latency is known."""

import numpy as np
from numpy.typing import NDArray

from ripresa.core.takes.match import plain_hearing, wanted_of
from ripresa.core.takes.measure import Measured
from ripresa.core.takes.settling import opened, own_score, shifted_score

Floats = NDArray[np.float64]

#: By how much a shift has to be cheaper than being on time; by how much where the end is not looked at.
_CHEAPER, _FAR_CHEAPER = 4.0, 16.0
#: A shift is looked for where more slips than this were made; by its changes in so many notes.
_ODD, _VERY_ODD, _HEAD = 0.02, 0.12, 320
#: An opening has settled at a shift where it lies so near to it, in slots.
_SETTLED = 0.35
#: What a fit costs a note at most.
_FITTING = 1.6


def cheaper_shift(take: Measured, latency: float, shifts: dict[str, float]) -> tuple[str, bool] | None:
    """Return by what, and whether early, a whole take is better explained as shifted; None where it is on time."""
    due, match, model = take.due, take.match, take.match.model
    missed = set(match.missed)
    before = min((note.at for note in take.notes), default=0.0) - latency < due.at[0] - 0.5 * due.near_gap[0]
    is_short = len(due) <= _HEAD
    slips = len(missed) + len(match.extra)
    # A long take that is shifted shows it at its edge, or fits badly all through.
    at_edge, is_odd = 0 in missed or before, slips > (_ODD if is_short else _VERY_ODD) * len(due)
    if model is None or match.is_symbolic or not (at_edge or is_odd):
        return None
    wanted, heard = wanted_of(due), plain_hearing(due, take.notes, latency)
    signed = {(name, sign < 0): sign * size for name, size in shifts.items() for sign in (1, -1)}
    if not is_short and at_edge and match.cost <= _FITTING:
        on_time = shifted_score(wanted, heard, model, 0.0)
        scores = {one: shifted_score(wanted, heard, model, by) for one, by in signed.items()}
        nearest = min(scores, key=lambda one: scores[one])
        if scores[nearest] < on_time - _CHEAPER:
            return nearest
    if abs(float(np.median(model.path)) - latency) > min(shifts.values()) / 2:
        return None
    # The first notes alone do not show the end, but in a drill of several divisions its changes.
    openings = [opened(wanted, heard, latency + by, _HEAD) for by in (0.0, *signed.values())]
    slot = min(shifts.values())
    # Wherever it began, an opening is what it settled as.
    begun = {one: float(np.median(opening.model.path)) - latency for one, opening in enumerate(openings)}
    settled = (openings[one].score for one in begun if abs(begun[one]) < _SETTLED * slot)
    # Where none of them settled on time, it is what the take was matched as.
    on_time = min((own_score(wanted, heard, model, _HEAD), *settled))
    moved = {
        named: min(
            (openings[one] for one in begun if abs(begun[one] - by) < _SETTLED * slot),
            key=lambda opening: opening.score,
            default=None,
        )
        for named, by in signed.items()
    }
    cheapest = min(
        ((opening.score, named, opening) for named, opening in moved.items() if opening),
        key=lambda one: one[0],
        default=None,
    )
    if cheapest is None or cheapest[2].aligned.cost > _FITTING * min(len(due), _HEAD):
        return None
    return cheapest[1] if cheapest[0] < on_time - (_CHEAPER if is_short else _FAR_CHEAPER) else None
