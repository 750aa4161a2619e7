"""Onsets: where novelty stands out from what is beside it, each refined to its attack.

A strum is one, at its first string.
"""

from dataclasses import dataclass

import numpy as np
from numpy.lib.stride_tricks import sliding_window_view
from numpy.typing import NDArray

from ripresa.core.listening.attack import attacks_of
from ripresa.core.listening.novelty import Floats, Novelty, novelty
from ripresa.core.listening.profiles import Profile
from ripresa.core.listening.sound import Sound

#: Nobody plays faster than this, in seconds; and what comes so soon after a beginning belongs to it.
SHORTEST_GAP = 0.06
#: Of the shortest gap that is due, what is still the same note.
_SAME_SHARE, _LONGEST_SAME = 0.49, 0.13
_PEAK_BESIDE = 0.03
#: So many times as much rises at a beginning as at what came just before it and is none.
_FAR_MORE = 2.0
#: How much softer than what was before a note may be at its beginning, however clearly it rises, in dB.
_SOFTER = -8.0
#: Seconds on either side from which it is taken what bands do anyway.
_USUAL_BESIDE = 0.07
_COARSE = 4


@dataclass(frozen=True, slots=True)
class Onset:
    """The beginning of a note: seconds from the start of the recording, dB below full scale."""

    at: float
    level: float


def onsets_of(sound: Sound, profile: Profile, shortest_gap: float | None = None) -> tuple[tuple[Onset, ...], Novelty]:
    """Return the onsets of a recording, in order, and the novelty that they stand out from.

    Args:
        shortest_gap: Between notes that are due, in seconds; what follows sooner than in half of it is the same note.
    """
    found = novelty(sound, profile)
    peaks = _peaks(found, profile)
    places, rises = peaks.astype(np.float64) * found.hop, found.rise[peaks].tolist()
    same = min(_LONGEST_SAME, _SAME_SHARE * max(SHORTEST_GAP, shortest_gap or 2 * SHORTEST_GAP))
    onsets: list[Onset] = []
    before = 0.0
    for (at, level), rise in zip(attacks_of(sound, places, profile), rises, strict=True):
        if not onsets or at - onsets[-1].at >= same:
            onsets.append(Onset(at, level))
            before = rise
            continue
        # The first string of a strum begins it; what rises far less than what follows was a note that was let go.
        begins = at if rise > _FAR_MORE * before else onsets[-1].at
        onsets[-1] = Onset(begins, max(level, onsets[-1].level))
        before = max(before, rise)
    return tuple(onsets), found


def _peaks(found: Novelty, profile: Profile) -> NDArray[np.int64]:
    rise = found.rise
    beside = max(1, round(_PEAK_BESIDE / found.hop))
    highest = sliding_window_view(np.pad(rise, beside), 2 * beside + 1).max(axis=1)
    usual = _usual(rise, round(_USUAL_BESIDE / found.hop))
    over = rise - profile.above * usual
    places = np.flatnonzero((rise >= highest) & (over > profile.least))
    louder = _rises_at(found, places)
    return places[(louder > profile.falls) | ((over[places] > profile.clear) & (louder > _SOFTER))]


def _usual(rise: Floats, beside: int) -> Floats:
    """Return the median beside each frame, on a coarse grid that is joined by lines."""
    padded = np.pad(rise, beside, mode="edge")
    grid = np.arange(0, len(rise), _COARSE)
    found = np.median(sliding_window_view(padded, 2 * beside + 1)[::_COARSE], axis=1)
    return np.asarray(np.interp(np.arange(len(rise)), grid, found), dtype=np.float32)


def _rises_at(found: Novelty, places: NDArray[np.int64]) -> Floats:
    """Return by how much all of the sound is louder soon after each place than before it, in dB."""
    # High bands decay first, and tell a new note from one that is let go.
    weights = np.linspace(1, 30, found.energy.shape[1], dtype=np.float32)
    total = found.energy @ weights + np.float32(1e-14)
    last = len(total) - 1
    near, far = round(0.025 / found.hop), round(0.03 / found.hop)
    after = np.max([total[np.minimum(places + one, last)] for one in range(near + 1)], axis=0, initial=0)
    before = total[np.maximum(places - far, 0)]
    return np.asarray(10 * np.log10(after / before))
