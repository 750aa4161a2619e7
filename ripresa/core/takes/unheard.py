"""What a microphone cannot hear: slurred notes and soft tonguing, and notes under a click.

They are left out, and told.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from ripresa.core.exact import plural
from ripresa.core.grid import Event
from ripresa.core.reading import Reading
from ripresa.core.takes.due import Due, nearest
from ripresa.core.takes.heard import HeardNote
from ripresa.core.takes.match import match_take
from ripresa.core.takes.sources import BY_SOUND, Source

#: Syllables of the tongue that hardly part a note from the one before.
SOFT_SYLLABLES = {"D", "DA", "DU", "DI", "G", "GA", "GU", "L", "LA", "LU", "N", "NU"}
#: A note due so near to a click, in seconds and in gaps, may lie under it.
_UNDER_SECONDS, _UNDER_GAPS = 0.04, 0.5


@dataclass(frozen=True, slots=True)
class LeftOut:
    """How many notes of a take were left out: slurred or softly tongued ones, and those under a click."""

    soft: int = 0
    hidden: int = 0

    @property
    def sentences(self) -> tuple[str, ...]:
        """What is said of them."""
        found = []
        if self.soft:
            found.append(
                f"{plural(self.soft, 'slurred or softly tongued note')} left out: a microphone does not hear them "
                "begin."
            )
        if self.hidden:
            found.append(
                f"{plural(self.hidden, 'note')} lay under the click in the microphone and "
                f"{'was' if self.hidden == 1 else 'were'} left out. With headphones they are heard."
            )
        return tuple(found)


def is_soft(event: Event, reading: Reading) -> bool:
    """Return whether a microphone does not hear a note begin."""
    if event.slurred or event.how.ornament is not None:
        return True
    return reading.instrument.breathes and (event.stroke or "").upper() in SOFT_SYLLABLES


def unheard_words(reading: Reading) -> str:
    """Return what a microphone will not hear of a drill, to be said before a take; empty where it hears all."""
    notes = [event for event in reading.every if event.kind == "note"]
    soft = sum(is_soft(event, reading) for event in notes)
    if not soft:
        return ""
    if soft == len(notes):
        return "A microphone hears none of its notes begin: they are slurred. Mark the take by ear, or use MIDI."
    return (
        f"{soft} of the {len(notes)} notes of a pass are slurred or softly tongued: a microphone does not hear them "
        "begin, and they are left out of the word."
    )


def heard_part(
    due: Due, notes: Sequence[HeardNote], source: Source, hidden: Sequence[float], latency: float | None
) -> tuple[Due, tuple[HeardNote, ...], LeftOut]:
    """Return what of a take can be judged: what is due and can be heard, and the notes that do not belong to the rest.

    Args:
        hidden: Moments of clicks under which nothing was heard, as they were planned, in seconds.
    """
    if source not in BY_SOUND or not len(due):
        return due, tuple(notes), LeftOut()
    own = {index: is_soft(due.reading.every[index], due.reading) for index in set(due.index.tolist())}
    soft = np.array([own[index] for index in due.index.tolist()])
    under = _under(due, hidden) & ~soft
    out = soft | under
    if not out.any():
        return due, tuple(notes), LeftOut()
    # What belongs to a note that is left out is nobody’s extra.
    found = match_take(due, notes, latency)
    gone = {heard for wanted, heard in found.pairs if out[wanted]}
    kept = tuple(note for index, note in enumerate(notes) if index not in gone)
    rest = replace(due, at=due.at[~out], index=due.index[~out])
    return rest, kept, LeftOut(int(soft.sum()), int(under.sum()))


def _under(due: Due, hidden: Sequence[float]) -> NDArray[np.bool_]:
    if not len(hidden):
        return np.zeros(len(due), dtype=bool)
    clicks = np.sort(np.asarray(hidden, dtype=float))
    away = np.abs(due.at - clicks[nearest(clicks, due.at)])
    return np.asarray(away < np.minimum(_UNDER_SECONDS, _UNDER_GAPS * due.near_gap))
