"""A file as a take: what is heard of a recording, and a take that is found in it and judged."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction
from ripresa.core.listening import Listened
from ripresa.core.playing import Window, expected_onsets, most_due
from ripresa.core.reading import Reading
from ripresa.core.rhythm import span_seconds
from ripresa.core.takes.beginning import Begun, found_take
from ripresa.core.takes.due import Due, due_notes
from ripresa.core.takes.heard import HeardNote
from ripresa.core.takes.judging import Judged, judge
from ripresa.core.takes.limits import Limits
from ripresa.core.takes.sources import Source
from ripresa.core.takes.verdict import MOST_MEASURED, too_long


@dataclass(frozen=True, slots=True)
class FromFile:
    """A take of a file: where it begins and ends, what was due, and what is said of it."""

    begun: Begun
    due: Due
    judged: Judged


def heard_in(listened: Listened) -> tuple[HeardNote, ...]:
    """Return the notes of a recording, in seconds from its start.

    Raises:
        OutOfRange: It cannot be listened to; the sentence says why, and what would help.
    """
    if not listened.quality.is_good:
        raise OutOfRange(" ".join(listened.quality.sentences), field="file")
    return tuple(HeardNote(onset.at, level=onset.level) for onset in listened.onsets)


def shortest_gap(reading: Reading, bpm: Fraction, window: Window | None = None) -> float | None:
    """Return the shortest time between notes that are due after each other, in seconds; None with fewer than two."""
    turn = float(span_seconds(window.beats if window else reading.loop_beats, bpm))
    at = [moment for moment, _ in expected_onsets(reading, bpm, 0.0, 2 * turn, window)]
    gaps = np.diff(at)
    apart = gaps[gaps > 1e-6]
    return float(apart.min()) if len(apart) else None


def judge_file(
    reading: Reading,
    bpm: Fraction,
    notes: Sequence[HeardNote],
    limits: Limits,
    source: Source,
    window: Window | None = None,
) -> FromFile:
    """Return the take that is found among the notes of a file, judged.

    Raises:
        OutOfRange: It is none of this drill, of another tempo, or too long; the sentence says why.
    """
    lasts = max((note.at for note in notes), default=0.0) - min((note.at for note in notes), default=0.0)
    most = max(most_due(reading, bpm, lasts, window), len(notes))
    if most > MOST_MEASURED:
        raise OutOfRange(too_long(most).reasons[0], field="file")
    begun = found_take(reading, bpm, notes, window)
    due = due_notes(reading, bpm, 0.0, begun.end, window)
    return FromFile(begun, due, judge(due, begun.notes, limits, source))
