"""The beginning of a take in a file: which of its notes is the first of the drill, and how far the take goes.

Nobody says where the first beat lies in a recording. Each of its first notes is tried as the first note of the drill,
and the one from which on most of the drill is met is where it begins.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from math import ceil

import numpy as np
from numpy.typing import NDArray

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction, label
from ripresa.core.playing import Window, score
from ripresa.core.reading import Reading
from ripresa.core.rhythm import span_seconds
from ripresa.core.takes.due import Due, due_notes, nearest
from ripresa.core.takes.heard import HeardNote, Strike, codes_of, moved, pitch_mismatch, strikes_of
from ripresa.core.takes.match import match_take

Floats = NDArray[np.float64]

#: Notes of the drill by which a beginning is told, and notes of the file that may be it.
_HEAD, _MOST_FIRST, _NEAR_FIRST = 48, 96, 12
#: A silence parts a take from what is none that is so many beats longer than any of the drill at half its tempo.
_SILENT_BEATS = 2.5
#: Notes that a player may leave out at the start; beginnings that are one, in seconds.
_MOST_MISSED, _ALIKE = 4, 0.012
#: A note meets one that is due within so much of a gap.
_MEETS = 0.3
#: What a note before the beginning costs, in slips.
_NOBODYS = 0.25
#: Beginnings that are looked at closely.
_CLOSELY = 4
#: Tempi at which a take is looked for that does not fit the one that was asked: shares of it.
_TEMPI = np.exp(np.arange(np.log(0.4), np.log(2.5), 0.012))
#: Another tempo is told where so much more of the drill is met, and so much of it at all.
_BETTER, _ENOUGH = 0.25, 0.7
_OWN_TEMPO = 0.06
#: Of the notes of its last bar so many have to be heard for the bar to count.
_LAST_BAR = 0.75
_FEWEST = 4


@dataclass(frozen=True, slots=True)
class Begun:
    """A take that was found in a file.

    Args:
        notes: In seconds from the first beat of the first pass. at: Where that lies in the file, in seconds.
        end: The last bar line that was reached, in seconds from there.
    """

    notes: tuple[HeardNote, ...]
    at: float
    end: float


def found_take(reading: Reading, bpm: Fraction, notes: Sequence[HeardNote], window: Window | None = None) -> Begun:
    """Return where a take begins in a file, and how far it goes.

    Args:
        notes: In seconds of the file. window: What goes round of the drill, if not all of it.

    Raises:
        OutOfRange: There are too few notes, or they are of another tempo; the sentence says which.
    """
    due = _due(reading, bpm, notes, window)
    if len(due) and len(notes) > 1:
        notes = _body(due, notes)
    strikes = strikes_of(notes, due.chords)
    if len(strikes) < _FEWEST or not len(due):
        raise OutOfRange(
            f"{len(strikes)} notes were heard in it, too few to find the drill. Choose another file.", field="file"
        )
    heard = _Heard(due, strikes)
    begins = heard.beginnings()
    scores = [heard.met(begin) for begin in begins]
    # Where little is left of the file, little of the drill can be missed.
    told = [one * heard.reached(begin) for one, begin in zip(scores, begins, strict=True)]
    _check_tempo(heard, max(told), bpm)
    best = sorted(range(len(begins)), key=lambda one: (-round(told[one], 2), begins[one]))[:_CLOSELY]
    _, begin = min(_looked_at(due, notes, heard.nearer(begins[one])) for one in best)
    own = moved(notes, -begin)
    return Begun(own, begin, _end(due, own, window))


def _body(due: Due, notes: Sequence[HeardNote]) -> tuple[HeardNote, ...]:
    """Return the notes between the silences that no player makes inside this drill: the most of them in one go.

    What lies beyond such a silence is a knock, a tuning fork, or another try.
    """
    order = sorted(notes, key=lambda note: note.at)
    at = np.array([note.at for note in order])
    silent = 2 * float(np.diff(due.at).max(initial=0.0)) + _SILENT_BEATS * due.beat
    edges = [0, *(np.flatnonzero(np.diff(at) > silent) + 1).tolist(), len(order)]
    begin, end = max(pairwise(edges), key=lambda one: one[1] - one[0])
    return tuple(order[begin:end])


def _due(reading: Reading, bpm: Fraction, notes: Sequence[HeardNote], window: Window | None) -> Due:
    """Return what is due in turns enough for all notes of a file."""
    turn = float(span_seconds(window.beats if window else reading.loop_beats, bpm))
    lasts = max((note.at for note in notes), default=0.0) - min((note.at for note in notes), default=0.0)
    return due_notes(reading, bpm, 0.0, max(1, ceil(lasts / turn + 1e-6)) * turn, window)


class _Heard:
    """The first notes of a file beside the first that are due."""

    def __init__(self, due: Due, strikes: Sequence[Strike]) -> None:
        self.at = np.array([strike.at for strike in strikes])
        self.due, self.gaps = due.at[:_HEAD], due.near_gap[:_HEAD]
        wrong = pitch_mismatch(due.tones[:_HEAD], strikes)
        self._wrong = wrong
        if wrong is not None:
            self._strikes, self._tones = codes_of([one.pitches for one in strikes]), codes_of(due.tones[:_HEAD])

    def beginnings(self) -> list[float]:
        """Return the moments at which a take may begin: where one of its first notes is one of the first due."""
        found: list[float] = []
        for wanted in self.due[:_MOST_MISSED].tolist():
            for begin in (self.at[:_MOST_FIRST] - wanted).tolist():
                if all(abs(begin - other) > _ALIKE for other in found):
                    found.append(begin)
        return found

    def reached(self, begin: float) -> float:
        """Return which share of the first notes due lies before the end of the file."""
        return float((begin + self.due <= self.at[-1] + self.gaps).mean())

    def met(self, begin: float, share: float = 1.0) -> float:
        """Return the share of due notes that one was heard near, less what is played between them for nothing.

        Args:
            share: Of the tempo.
        """
        wanted, gaps = begin + self.due / share, self.gaps / share
        reached = wanted <= self.at[-1] + gaps
        if reached.sum() < _FEWEST:
            return 0.0
        wanted, gaps = wanted[reached], gaps[reached]
        place = nearest(self.at, wanted)
        meets = np.exp(-0.5 * ((self.at[place] - wanted) / (_MEETS * gaps)) ** 2)
        if self._wrong is not None:
            meets = np.where(self._wrong[self._strikes[place], self._tones[: len(wanted)]], 0.0, meets)
        inside = ((self.at >= wanted[0] - gaps[0] / 2) & (self.at <= wanted[-1] + gaps[-1] / 2)).sum()
        return float(meets.mean() - 0.5 * max(0.0, float(inside) / len(wanted) - 1))

    def nearer(self, begin: float) -> float:
        """Return a beginning as most of the notes near it say, and not the first one alone."""
        wanted = begin + self.due[:_NEAR_FIRST]
        away = self.at[nearest(self.at, wanted)] - wanted
        near = away[np.abs(away) <= _MEETS * self.gaps[:_NEAR_FIRST]]
        return begin + (float(np.median(near)) if len(near) else 0.0)


def _looked_at(due: Due, notes: Sequence[HeardNote], begin: float) -> tuple[float, float]:
    """Return what a beginning costs, in notes that are missed, extra, wrong or nobody’s, and where it truly is."""
    own = moved(notes, -begin)
    found = match_take(_until(due, max(note.at for note in own)), own, 0.0)
    slips = len(found.missed) + len(found.extra) + len(found.wrong)
    first = found.pairs[:_NEAR_FIRST]
    away = float(np.median([own[one].at - due.at[wanted] for wanted, one in first])) if first else 0.0
    # A beginning that had to be moved is none, where another one did not.
    nobodys = sum(note.at < due.at[0] - due.beat / 2 for note in own)
    return slips + _NOBODYS * nobodys + abs(away) / due.beat, begin + away


def _until(due: Due, last: float) -> Due:
    reached = due.at <= last + due.near_gap / 2
    reached[:_FEWEST] = True
    return replace(due, at=due.at[reached], index=due.index[reached])


def _check_tempo(heard: _Heard, most: float, bpm: Fraction) -> None:
    """Refuse notes that fit the drill clearly better at another tempo."""
    if most >= 1 - _BETTER:
        return
    firsts = (heard.at[: _NEAR_FIRST // 2] - heard.due[0]).tolist()
    # As it is looked for at other tempi, so at its own.
    here = max(heard.met(first) for first in firsts)
    scores = [max(heard.met(first, share) for first in firsts) for share in _TEMPI.tolist()]
    best = int(np.argmax(scores))
    share = float(_TEMPI[best])
    if abs(share - 1) < _OWN_TEMPO or scores[best] < max(_ENOUGH, here + _BETTER):
        return
    raise OutOfRange(
        f"This was played at about {float(bpm) * share:.0f}, not at {label(bpm)}. Choose the rung of that tempo.",
        field="bpm",
    )


def _end(due: Due, notes: Sequence[HeardNote], window: Window | None) -> float:
    """Return the last bar line that was reached: the end of the last bar of which most was played."""
    bars = score(due.reading, due.bpm, window=window).bars
    turn = due.turn_seconds
    turns = ceil(due.end / turn - 1e-6)
    lines = [number * turn + float(span_seconds(bar.at, due.bpm)) for number in range(turns) for bar in bars]
    lines = [*lines, turns * turn]
    # What was met, not what was heard: talk after the end is no bar of the drill.
    met = np.zeros(len(due), dtype=bool)
    found = match_take(_until(due, max(note.at for note in notes)), notes, 0.0)
    met[[one for one, _ in found.pairs if one not in found.wrong]] = True
    ended = turn
    for begin, end in pairwise(lines):
        inside = (due.at >= begin - 1e-9) & (due.at < end - 1e-9)
        if inside.any() and (inside & met).sum() >= _LAST_BAR * inside.sum():
            ended = end
    return float(ended)
