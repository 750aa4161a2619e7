"""A player of another make than the stand-in: one who hears the click and corrects himself, note by note.

The stand-in lays offsets over a grid. This one has no grid: an inner clock of skewed intervals, a hand that is late by
a random bit of its own, and a correction of part of each error that is heard (linear phase correction, after
Vorberg & Wing 1996). Slots are uneven as shares of the beat, notes are missed in clusters, extras come anywhere, and
where a beat is lost the hand stops for a while of any length and comes in again on a beat of the click. Nothing here
was used to choose a cost or a limit.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ripresa.core.takes import Due, HeardNote, Performed

Floats = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Follower:
    """How a follower plays; times in ms.

    Args:
        clock, hand: Deviation of the inner clock in a note, and of the hand. corrects: Share of an error he takes back.
        ahead: How early he plays on the average. unevenness: Deviation of the shares of a beat.
        misses, extras: Shares of notes. hesitates: Delay at a change, which he corrects like any error.
        lost: Beats lost. speeds_up: Per cent by which his own tempo is off, if he does not hear the click.
        hears: Whether he hears the click at all.
    """

    clock: float = 6.0
    hand: float = 5.0
    corrects: float = 0.3
    ahead: float = 20.0
    unevenness: float = 6.0
    misses: float = 0.02
    extras: float = 0.01
    hesitates: float = 0.0
    lost: int = 0
    speeds_up: float = 0.0
    hears: bool = True


def follow(player: Follower, due: Due, seed: int) -> Performed:
    """Return what a follower plays."""
    random = np.random.default_rng(seed)
    count = len(due)
    errors = _errors(player, due, random)
    uneven = {place: float(random.normal(0, player.unevenness / 1000)) for place in dict.fromkeys(due.place)}
    onsets = due.at + errors - player.ahead / 1000 + np.array([uneven[place] for place in due.place])
    onsets = onsets + random.normal(0, player.hand / 1000, count)
    meant: list[int | None] = list(range(count))
    onsets, kept = _lost(player, due, onsets, random)
    # Once a note is missed the next one is missed more easily.
    missing = False
    for index in range(count):
        missing = bool(random.random() < (0.4 if missing else player.misses * 0.6))
        kept[index] &= not missing
    found = [(float(onsets[index]), meant[index], _pitch(due, index)) for index in range(count) if kept[index]]
    for _ in range(int(random.binomial(count, player.extras))):
        near = int(random.integers(0, count))
        at = float(random.uniform(onsets[0], onsets[-1]))
        found.append((at, None, _pitch(due, near)))
    found.sort(key=lambda one: one[0])
    notes = tuple(HeardNote(at, pitch=pitch, level=float(random.integers(60, 90))) for at, _, pitch in found)
    return Performed(notes, tuple(index for _, index, _ in found))


def _errors(player: Follower, due: Due, random: np.random.Generator) -> Floats:
    found = np.zeros(len(due))
    changes = {round(seam.at, 6) for seam in due.seams}
    gaps = np.diff(due.at, prepend=due.at[0])
    error = 0.0
    for index in range(len(due)):
        # A skewed clock: an interval is now and then much too long, seldom much too short.
        tick = float(random.gamma(4.0, 1.0) - 4.0) / 2.0 * player.clock / 1000
        if player.hears:
            error = (1 - player.corrects) * error + tick
        else:
            error += tick * 0.4 - float(gaps[index]) * player.speeds_up / 100
        if round(float(due.at[index]), 6) in changes:
            error += player.hesitates / 1000 * float(random.uniform(0.6, 1.4))
        found[index] = error
    return found


def _lost(player: Follower, due: Due, onsets: Floats, random: np.random.Generator) -> tuple[Floats, list[bool]]:
    """Stop somewhere, and come in again on a later beat of the click with the note that was due when it stopped."""
    kept = [True] * len(due)
    for _ in range(player.lost):
        at = int(random.integers(len(due) // 4, 3 * len(due) // 4))
        onsets = onsets.copy()
        onsets[at:] += due.beat * int(random.integers(1, 3))
    return onsets, kept


def _pitch(due: Due, index: int) -> int | None:
    tones = due.reading.heard(due.events[index])
    return tones[0] if tones else None
