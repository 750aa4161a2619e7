"""The click in the microphone: whether it is heard there, and which notes lie under it.

Where clicks sound alone, before the first note, it is told how loud they come in, and how late. A click under which
nothing louder is heard hides whatever was played there: that is said, and not measured.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ripresa.core.listening.onsets import Onset

#: How early and how late an onset may come and be the click itself, in seconds; how late clicks may come in at all.
_EARLY, _LATE, _LATEST = 0.012, 0.025, 0.5
#: A note that is so much louder than the click is heard in spite of it, in dB.
_LOUDER = 6.0
#: So many clicks have to come in alone, and this share of those that sound, to know them.
_FEWEST, _MOST_OF_THEM = 2, 0.6
_ALIKE = 0.006
#: Where so many more onsets than clicks are heard before the first note, somebody plays there: clicks are not known.
_OTHERS = 1.5


@dataclass(frozen=True, slots=True)
class Bleed:
    """What the click does to a recording.

    Args:
        onsets: Those that are notes. hidden: Numbers of the clicks that may hide a note.
        late: By how much clicks come in late, in seconds; None where they are not heard.
        level: How loud they come in, in dB; None where they are not heard.
    """

    onsets: tuple[Onset, ...]
    hidden: tuple[int, ...] = ()
    late: float | None = None
    level: float | None = None


def without_clicks(onsets: Sequence[Onset], clicks: Sequence[float], alone: int, latency: float | None = None) -> Bleed:
    """Return which onsets are notes, and which clicks may have hidden one.

    Args:
        clicks: When each click was planned, in seconds of the recording, in order.
        alone: How many of them come before the first note.
        latency: By how much the microphone is known to be late, in seconds; None where it was not measured.
    """
    told = _known(onsets, clicks[:alone], latency)
    if told is None:
        return Bleed(tuple(onsets))
    late, level = told
    kept: list[Onset] = []
    hidden: set[int] = set()
    due = np.array(clicks) + late
    for onset in onsets:
        near = int(np.argmin(np.abs(due - onset.at)))
        if not -_EARLY <= onset.at - due[near] <= _LATE or onset.level >= level + _LOUDER:
            kept.append(onset)
        elif near >= alone:
            hidden.add(near)
    return Bleed(tuple(kept), tuple(sorted(hidden)), late, level)


def _known(onsets: Sequence[Onset], alone: Sequence[float], latency: float | None) -> tuple[float, float] | None:
    """Return how late clicks come in that sound alone, and how loud; None where they are not heard."""
    if len(alone) < _FEWEST:
        return None
    at = np.array([onset.at for onset in onsets])
    best: list[int] = []
    middle = 0.0
    for first in range(len(onsets)):
        # Each onset may be any of these clicks: the delay under which most of them were heard is theirs.
        for click in alone:
            late = float(at[first] - click)
            if not -_EARLY <= late <= _LATEST or (latency is not None and abs(late - latency) > 2 * _LATE):
                continue
            places = [int(np.argmin(np.abs(at - (one + late)))) for one in alone]
            fits = [place for place, one in zip(places, alone, strict=True) if abs(at[place] - one - late) <= _ALIKE]
            if len(fits) > len(best):
                best, middle = fits, late
        if at[first] > alone[-1] + _LATEST:
            break
    if len(best) < max(_FEWEST, _MOST_OF_THEM * len(alone)):
        return None
    begin, end = alone[0] + middle - _LATE, alone[-1] + middle + _LATE
    if ((at >= begin) & (at <= end)).sum() > _OTHERS * len(alone):
        return None
    return middle, float(np.median([onsets[place].level for place in best]))
