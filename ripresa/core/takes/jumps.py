"""Jumps: a player who stops and goes back, or leaves something out and goes on at once; told by the pitches.

Each pitch that was heard votes for how late the player would be if it were one of the notes of that pitch that are
due. A player who keeps going has one such lateness; one who jumps has another one from there on. The cheapest way
through the votes (Viterbi 1967) says where.
"""

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from ripresa.core.takes.due import Due
from ripresa.core.takes.figures import LostBeat
from ripresa.core.takes.heard import HeardNote, Strike, moved, strikes_of

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

#: A lateness is looked at where so many notes, and such a share of them, vote for it; so many are.
_FEWEST, _SHARE, _MOST = 5, 0.04, 40
#: Nobody jumps farther than a turn and so many beats.
_FARTHEST = 8
#: Votes fall into bins of such a share of the gap, and a note is met within so much of it.
_BIN, _NEAR = 0.25, 0.4
#: What a note costs that no lateness explains, a jump and each beat of it, and going over to a lateness beside it.
_UNMET, _JUMP, _FAR, _BESIDE = 1.0, 4.0, 0.2, 0.2
#: What each beat costs by which the end is missed: who plays on comes to it.
_END = 0.1
#: Latenesses that lie within so much of a gap are the same player, who drifts.
_SAME = 0.9
#: So many jumps are told, of a player who goes on for so many notes between them.
_MOST_JUMPS, _GOES_ON = 6, 12
#: A player comes in again on a beat of the click where that is so near, in beats.
_ON_BEAT = 0.12


@dataclass(frozen=True, slots=True)
class Route:
    """What was played, without its jumps.

    Args:
        notes: Those that count, each moved to where it would have come without them; index: of each as it was given.
        jumps: Where the player went back, or left something out. again: Strikes of what was played once more.
    """

    notes: tuple[HeardNote, ...]
    index: tuple[int, ...]
    jumps: tuple[LostBeat, ...]
    again: int


@dataclass(frozen=True, slots=True)
class _Stretch:
    """What was played in one go: strikes from and to, the first and last note that they met, how late in seconds."""

    begin: int
    end: int
    first: int
    last: int
    late: float


def route_of(due: Due, notes: Sequence[HeardNote]) -> Route | None:
    """Return what was played without its jumps; None where there is none, or pitches do not tell."""
    strikes = strikes_of(notes, due.chords)
    votes = _votes(due, strikes)
    if votes is None:
        return None
    stretches = _stretches(due, strikes, votes)
    taken: list[HeardNote] = []
    index: list[int] = []
    jumps: list[LostBeat] = []
    by, reached = 0.0, -1
    for number, one in enumerate(stretches):
        if number:
            before = stretches[number - 1]
            jump = _jump(due, strikes, before, one)
            if jump is not None:
                jumps.append(jump)
                parted = one.late - before.late
                beats = round(parted / due.beat)
                by += beats * due.beat if abs(parted - beats * due.beat) < _ON_BEAT * due.beat else parted
        for strike in strikes[one.begin : one.end]:
            # What is played once more counts the first time.
            if reached >= 0 and strike.at - by < due.at[reached] + stretches[0].late + due.near_gap[reached] / 2:
                continue
            taken += moved((notes[strike.index],), -by)
            index.append(strike.index)
        reached = max(reached, one.last)
    # Who is somewhere else every few notes does not jump: that is another tempo, or another drill.
    if not jumps or len(jumps) > _MOST_JUMPS or len(strikes) < _GOES_ON * len(jumps):
        return None
    return Route(tuple(taken), tuple(index), tuple(jumps), len(strikes) - len(taken))


def _jump(due: Due, strikes: Sequence[Strike], before: _Stretch, after: _Stretch) -> LostBeat | None:
    """Return how the player got from one stretch to the next; None where nothing was repeated or left out."""
    if after.first <= before.last:
        beats = float(due.at[before.last] - due.at[after.first] + due.even_gap[before.last]) / due.beat
        stopped = strikes[after.begin].at - strikes[before.end - 1].at - float(due.even_gap[before.last])
        return _at(due, "back", max(0.0, stopped), beats, after.first)
    if after.first > before.last + 1 and after.late < before.late:
        out = float(due.at[after.first] - due.at[before.last + 1])
        return _at(due, "silent", out, out / due.beat, before.last + 1)
    return None


def _at(due: Due, kind: str, seconds: float, beats: float, index: int) -> LostBeat:
    event = int(due.index[index])
    return LostBeat(kind, seconds, beats, event, int(due.turn[index]), due.beat_name(event))


def _stretches(due: Due, strikes: Sequence[Strike], votes: Floats) -> list[_Stretch]:
    """Return what was played in one go each; none where that explains little more than that nobody jumped."""
    gap = float(np.median(due.near_gap))
    met = _met(due, strikes, votes)
    if (met[:, np.abs(votes).argmin()] < 0).sum() < _FEWEST:
        return []
    short = float(due.at[-1]) - (strikes[-1].at - votes)
    path = _cheapest(met, votes, gap, due.beat, np.abs(short))
    order = np.arange(len(met))
    one_go = _cheapest(met, votes, gap, due.beat, np.abs(short), jump=np.inf)
    if (met[order, path] < 0).sum() > (met[order, one_go] < 0).sum() - _FEWEST:
        return []
    found: list[_Stretch] = []
    edges = [0, *(np.flatnonzero(np.diff(path)) + 1).tolist(), len(path)]
    for begin, end in pairwise(edges):
        own = met[begin:end, path[begin]]
        here = own[own >= 0]
        if not len(here):
            continue
        at = np.array([strikes[begin + place].at for place in np.flatnonzero(own >= 0).tolist()])
        late = float(np.median(at - due.at[here]))
        one = _Stretch(begin, end, int(here.min()), int(here.max()), late)
        if found and abs(found[-1].late - late) < _SAME * gap:
            before = found.pop()
            one = _Stretch(before.begin, end, min(before.first, one.first), max(before.last, one.last), late)
        found.append(one)
    return found


def _votes(due: Due, strikes: Sequence[Strike]) -> Floats | None:
    """Return how late, in seconds, the player may have been somewhere; None where pitches tell nothing."""
    by_pitch: dict[int, list[int]] = defaultdict(list)
    for index, tones in enumerate(due.tones):
        for tone in tones:
            by_pitch[tone].append(index)
    if len(by_pitch) < 4 or not strikes:
        return None
    far = due.turn_seconds + _FARTHEST * due.beat
    at = {pitch: due.at[own] for pitch, own in by_pitch.items()}
    found: list[Floats] = []
    for strike in strikes:
        for pitch in strike.pitches & at.keys():
            first, last = np.searchsorted(at[pitch], (strike.at - far, strike.at + far))
            found.append(strike.at - at[pitch][first:last])
    if not found:
        return None
    width = _BIN * float(np.median(due.near_gap))
    every = np.concatenate(found)
    if not len(every):
        return None
    numbers = np.round(every / width).astype(np.int64)
    low = int(numbers.min())
    counts = np.bincount(numbers - low)
    spread = np.convolve(counts, (1, 1, 1), mode="same")
    fewest = max(_FEWEST, _SHARE * len(strikes))
    likely: list[float] = []
    while len(likely) < _MOST and spread.max() >= fewest:
        top = int(spread.argmax())
        inside = every[np.abs(numbers - low - top) <= 1]
        likely.append(float(np.median(inside)))
        spread[max(0, top - 1) : top + 2] = 0
    return np.array(likely) if len(likely) > 1 else None


def _met(due: Due, strikes: Sequence[Strike], votes: Floats) -> Ints:
    """Return strikes × latenesses: the due note of its pitch that a strike would have met; −1 for none."""
    at = np.array([strike.at for strike in strikes])[:, None] - votes[None, :]
    after = np.clip(np.searchsorted(due.at, at), 1, len(due) - 1)
    near = np.where(at - due.at[after - 1] < due.at[after] - at, after - 1, after)
    close = np.abs(at - due.at[near]) < _NEAR * due.near_gap[near]
    kinds = {tones: number for number, tones in enumerate(dict.fromkeys(due.tones))}
    own = np.array([kinds[tones] for tones in due.tones])
    right = np.array([[bool(strike.pitches & tones) for tones in kinds] for strike in strikes])
    found: Ints = np.where(close & np.take_along_axis(right, own[near], axis=1), near, -1)
    return found


def _cheapest(met: Ints, votes: Floats, gap: float, beat: float, short: Floats, jump: float = _JUMP) -> Ints:
    """Return the lateness of each strike on the cheapest way; of jumps that explain as much the nearest is taken.

    In a drill that goes round a note of another turn is as right as one of this: it only lies farther away.

    Args:
        short: By how many seconds the end is missed by each lateness. jump: What a jump costs.
    """
    price = np.where(met >= 0, 0.0, _UNMET)
    apart = np.abs(votes[:, None] - votes[None, :])
    over = np.where(apart < _SAME * gap, _BESIDE, jump + _FAR * apart / beat)
    np.fill_diagonal(over, 0.0)
    best = price[0] + _FAR * np.abs(votes) / beat
    came = np.zeros(met.shape, dtype=np.int64)
    for row in range(1, len(met)):
        ways = best[:, None] + over
        came[row] = ways.argmin(axis=0)
        best = ways.min(axis=0) + price[row]
    best = best + _END * short / beat
    path = np.empty(len(met), dtype=np.int64)
    path[-1] = best.argmin()
    for row in range(len(met) - 1, 0, -1):
        path[row - 1] = came[row, path[row]]
    return path
