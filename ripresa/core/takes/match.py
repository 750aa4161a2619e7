"""Matching: which strike belongs to which due note, in order, with misses and extras.

An alignment whose costs act on the deviation from a model of the player. It is opened from the known latency, or
from the offsets and tempi at which most strikes lie near due notes, and the model is improved in up to four rounds.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from ripresa.core.takes.align import EXTRA, Aligned
from ripresa.core.takes.due import Due, near_gaps
from ripresa.core.takes.heard import (
    MEANT,
    HeardNote,
    Strike,
    codes_of,
    learnt_strokes,
    named_strokes,
    pitch_mismatch,
    strikes_of,
)
from ripresa.core.takes.model import Model, Wanted
from ripresa.core.takes.openings import matched
from ripresa.core.takes.settling import Hearing, Settled, Symbols, rightly

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

#: What another pitch and another key cost, and what the right one costs at most, however far it lies.
_WRONG_PITCH, _WRONG_KEY, _RIGHT_PITCH, _RIGHT_KEY = 5.0, 3.5, 4.5, 8.0
#: A strike so soon after another one of the same symbol is a rebound, in seconds and in gaps, and costs less as extra.
_REBOUND_SECONDS, _REBOUND_GAPS, _REBOUND = 0.08, 0.65, 1.5
#: So many strikes for each note are nobody's take of this drill, and are not looked through.
_MOST_STRIKES, _SOME_STRIKES = 4, 100
#: How early, in seconds, the first note of a drill may come and still be counted when it is extra.
_EARLIEST = 0.25


@dataclass(frozen=True, slots=True)
class Match:
    """Which due note was met by which heard one.

    Args:
        pairs: (index of the due, index of the heard), rising in the due.
        missed: Indexes of due notes that were not heard.
        extra: Indexes of heard notes inside the stretch that belong to none.
        wrong: Indexes of due notes that were met in another pitch.
        model: Of the player; None where nothing was matched. cost: Of the alignment, a note.
        is_symbolic: Whether pitches or keys told notes apart.
    """

    pairs: tuple[tuple[int, int], ...]
    missed: tuple[int, ...]
    extra: tuple[int, ...]
    wrong: tuple[int, ...] = ()
    model: Model | None = None
    cost: float = 0.0
    is_symbolic: bool = False


def match_take(due: Due, notes: Sequence[HeardNote], latency: float | None = None) -> Match:
    """Return how the notes of a take belong to what is due.

    Args:
        latency: Known delay of the source, in seconds; None where it was not measured.
    """
    strikes = strikes_of(notes, due.chords)
    if not len(due) or not strikes or len(strikes) > _MOST_STRIKES * len(due) + _SOME_STRIKES:
        inside = _inside(due, np.array([one.at for one in strikes]), latency or 0.0)
        extra = tuple(one.index for one, counts in zip(strikes, inside, strict=True) if counts)
        return Match((), tuple(range(len(due))), extra)
    wanted = wanted_of(due)
    plain = _plain(due, wanted, strikes, latency)
    inside = _inside(due, plain.at, latency or 0.0)
    heard = Hearing(plain.at, plain.extra, _symbols(due, strikes, wanted, plain), latency)
    settled = matched(wanted, heard)
    if heard.symbols and heard.symbols.most == _RIGHT_KEY and not _agree(heard, settled.aligned):
        # Keys that do not agree with the hands even where that is looked for were not meant as hands.
        heard, settled = plain, matched(wanted, plain)
    return _told(due, strikes, inside, heard, settled)


def wanted_of(due: Due) -> Wanted:
    """Return what is due, as matching needs it."""
    return Wanted(due.at, due.near_gap, due.beat, due.place_number, due.since_change)


def match_times(due: Sequence[float], heard: Sequence[float], latency: float | None = None) -> Match:
    """Return how plain moments belong to plain due ones, all in seconds and rising, of one kind.

    >>> match_times([0.0, 0.5, 1.0], [0.01, 1.02]).missed
    (1,)
    """
    at, played = np.asarray(due, dtype=float), np.asarray(heard, dtype=float)
    if not len(at) or not len(played):
        return Match((), tuple(range(len(at))), tuple(range(len(played))))
    gap = near_gaps(at)
    none = np.full(len(at), np.inf)
    wanted = Wanted(at, gap, float(np.median(gap)), np.zeros(len(at), dtype=np.int64), none)
    found = matched(wanted, Hearing(played, np.full(len(played), EXTRA), None, latency))
    pairs = tuple(zip(found.aligned.due.tolist(), found.aligned.strike.tolist(), strict=True))
    met, used = {pair[0] for pair in pairs}, {pair[1] for pair in pairs}
    return Match(
        pairs,
        tuple(index for index in range(len(at)) if index not in met),
        tuple(index for index in range(len(played)) if index not in used),
        model=found.model,
    )


def plain_hearing(due: Due, notes: Sequence[HeardNote], latency: float | None) -> Hearing:
    """Return what was heard of a take as moments alone."""
    strikes = strikes_of(notes, due.chords)
    return _plain(due, wanted_of(due), strikes, latency)


def _plain(due: Due, wanted: Wanted, strikes: Sequence[Strike], latency: float | None) -> Hearing:
    at = np.array([one.at for one in strikes])
    inside = _inside(due, at, latency or 0.0)
    return Hearing(at, np.where(inside, EXTRA - _REBOUND * _rebounds(wanted, strikes, at), 0.0), None, latency)


def _agree(heard: Hearing, aligned: Aligned) -> bool:
    right = rightly(heard, aligned)
    return bool(right.sum() >= MEANT * len(right))


def _symbols(due: Due, strikes: Sequence[Strike], wanted: Wanted, plain: Hearing) -> Symbols | None:
    """Return what tells notes apart: pitches where the source knows them, else keys that stand for hands."""
    tones = due.tones
    wrong = pitch_mismatch(tones, strikes)
    # Where every note is the same one, its pitch tells none from another.
    if wrong is not None and len(set(tones)) > 1:
        price = _WRONG_PITCH * wrong.astype(float)
        return Symbols(price, codes_of([one.pitches for one in strikes]), codes_of(tones), _RIGHT_PITCH)
    strokes = [event.stroke for event in due.events]
    keys = [one.key for one in strikes]
    if len({key for key in keys if key}) < 2 or len({stroke for stroke in strokes if stroke}) < 2:
        return None
    named = named_strokes(keys, strokes)
    if not named:
        first = matched(wanted, plain).aligned
        named = learnt_strokes(keys, strokes, list(zip(first.due.tolist(), first.strike.tolist(), strict=True)))
    if not named:
        return None
    rows, columns = list(dict.fromkeys(keys)), list(dict.fromkeys(strokes))
    other = [[bool(key and stroke and named.get(key) != stroke) for stroke in columns] for key in rows]
    price = _WRONG_KEY * np.array(other, dtype=float)
    return Symbols(price, codes_of(keys), codes_of(strokes), _RIGHT_KEY)


def _inside(due: Due, at: Floats, latency: float) -> NDArray[np.bool_]:
    """Return which strikes lie in the stretch; others belong to the bars beside it and are nobody's extras.

    A stretch is cut at a bar line: half a gap before its first note and after its last one belongs to it.
    """
    if not len(due):
        return np.ones(len(at), dtype=bool)
    first = due.at[1] - due.at[0] if len(due) > 1 else due.end - due.at[0]
    begin = due.at[0] - (first / 2 if due.at[0] > 0 else max(first / 2, _EARLIEST))
    finish = due.end - (due.end - due.at[-1]) / 2
    return np.asarray((at - latency >= begin) & (at - latency < finish))


def _rebounds(wanted: Wanted, strikes: Sequence[Strike], at: Floats) -> NDArray[np.bool_]:
    same = [False, *(one.pitches == other.pitches and one.key == other.key for one, other in pairwise(strikes))]
    soon = np.diff(at, prepend=at[0] - 1.0) < min(_REBOUND_SECONDS, _REBOUND_GAPS * float(np.median(wanted.gap)))
    return np.asarray(soon & np.array(same))


def _told(due: Due, strikes: Sequence[Strike], inside: NDArray[np.bool_], heard: Hearing, settled: Settled) -> Match:
    found = settled.aligned
    pairs = tuple((int(one), strikes[other].index) for one, other in zip(found.due, found.strike, strict=True))
    met, used = set(found.due.tolist()), set(found.strike.tolist())
    extra = tuple(one.index for number, one in enumerate(strikes) if number not in used and inside[number])
    symbols = heard.symbols
    wrong: tuple[int, ...] = ()
    if symbols is not None and symbols.most == _RIGHT_PITCH:
        wrong = tuple(found.due[~rightly(heard, found)].tolist())
    return Match(
        pairs,
        tuple(index for index in range(len(due)) if index not in met),
        extra,
        wrong,
        settled.model,
        found.cost / max(1, len(due)),
        symbols is not None,
    )
