"""Openings: where a player is looked for. From the known latency, or from the offsets and tempi at which most strikes
lie near due notes; what goes away is followed from the first notes on.
"""

from collections import deque

import numpy as np
from numpy.typing import NDArray

from ripresa.core.takes.model import Model, Wanted, constant, fitted, steps_in, without_bend
from ripresa.core.takes.settling import Hearing, Settled, part_of, settle

Floats = NDArray[np.float64]

#: A fit that costs more a note, or has more slips, is tried again from other openings.
_DEAR, _MANY_SLIPS = 1.3, 0.12
#: Openings are tried on the first notes, which then grow.
_HEAD, _MOST_OPENINGS = 96, 3
_OFFSETS = np.arange(-0.15, 0.2501, 0.0125)
_NEAR = np.arange(-0.1, 0.1001, 0.0125)
_TEMPI = np.arange(-0.13, 0.1301, 0.0025)
#: Where an unknown latency is looked for first, and how firmly; how firmly a known one and the tempo hold. Seconds.
_USUAL_LATENCY, _LATENCY_SPREAD, _LATENCY_KNOWN, _TEMPO_SPREAD, _MOST_PRIOR = 0.03, 0.08, 0.02, 0.015, 8.0
#: A known latency outranks a fit that is a slot out.
_MOST_KNOWN = 60.0
#: A path that wanders by more than this share of a gap may be one of another tempo.
_WANDERS = 0.45
#: Openings that are so much dearer on the first notes are not followed.
_MARGIN, _NEARLY = 20.0, 6.0
#: Players whose offsets lie within so much of a gap are the same.
_SAME_PLAYER = 0.2
#: Kinds of strikes that are too few to say where the player is.
_FEW_SYMBOLS = 3
#: Seconds a second by which a player who was followed may go away from the click.
_OWN_SLOPE = 0.05
#: Notes that say where a player is who is followed, and how near the next one lies, in gaps.
_TRACKED, _TRACKS = 5, 0.4


def matched(wanted: Wanted, heard: Hearing) -> Settled:
    """Return the player that what was heard speaks for, wherever he was found."""
    count = len(wanted.at)
    if heard.symbols is not None:
        # Symbols say where the player is, whatever the tempo.
        told = settle(wanted, heard, constant(wanted, heard.latency or _USUAL_LATENCY))
        level = without_bend(told.model.path, wanted.at)
        if _is_good(told, count) and not steps_in(level, wanted.gap, told.model.scale):
            return told
        # What goes away farther than the band reaches is followed from the first notes on.
        begins = heard.latency or _USUAL_LATENCY
        ways = [told, _grown(wanted, heard, begins, 0.0)]
        if len(heard.symbols.price) <= _FEW_SYMBOLS:
            # Two keys take turns: a player who runs ahead is soon at the next one that is as right.
            ways.append(_tracked(wanted, heard, begins))
        better = min(ways, key=lambda one: one.score + _prior(heard, one.model))
        # Another tempo is looked for from its own beginning.
        if _is_good(better, count) and abs(better.model.slope) < _OWN_SLOPE:
            return better
    likely = _likely(wanted, heard)
    settled = [
        settle(wanted, heard, constant(wanted, offset)) if slope == 0 else _grown(wanted, heard, offset, slope)
        for offset, slope in likely
    ]
    best = min(settled, key=lambda one: one.score + _prior(heard, one.model))
    wanders = float(np.ptp(best.model.path)) >= _WANDERS * float(np.median(wanted.gap))
    if count <= _HEAD or (_is_good(best, count) and not wanders):
        return best
    # It is not as it was asked: perhaps it goes away slowly.
    settled += [_grown(wanted, heard, offset, slope) for offset, slope in likely[:1] if slope == 0]
    settled.append(_tracked(wanted, heard, likely[0][0]))
    return min(settled, key=lambda one: one.score + _prior(heard, one.model))


def _is_good(settled: Settled, count: int) -> bool:
    found = settled.aligned
    return found.cost <= _DEAR * count and count - len(found.due) <= _MANY_SLIPS * count


def _likely(wanted: Wanted, heard: Hearing) -> list[tuple[float, float]]:
    """Return the (offset, slope) from which a player is looked for: those that do well on the first notes."""
    found = list(dict.fromkeys([*_openings(wanted, heard, np.zeros(1)), *_openings(wanted, heard, _TEMPI)]))
    head = wanted.head(_HEAD)
    part = part_of(heard, head, _HEAD)
    scores, paths, gap = [], [], float(np.median(head.gap))
    for offset, slope in found:
        settled = settle(head, part, constant(head, offset, slope), rounds=2)
        scores.append(settled.score + _prior(heard, settled.model))
        paths.append(float(np.median(settled.model.path)))
    good: list[tuple[float, float]] = []
    for number in sorted(range(len(found)), key=lambda one: scores[one]):
        # Openings that lead to the same player are one.
        again = any(abs(paths[number] - paths[found.index(other)]) < _SAME_PLAYER * gap for other in good)
        if scores[number] <= min(scores) + _MARGIN and not again:
            good.append(found[number])
    # Who may well keep the tempo is not looked for at others.
    steady = [pair for pair in good if pair[1] == 0]
    return steady if steady and scores[found.index(steady[0])] <= min(scores) + _NEARLY else good


def _prior(heard: Hearing, model: Model) -> float:
    begins, slope = float(model.path[0]), model.slope
    usual, spread = (_USUAL_LATENCY, _LATENCY_SPREAD) if heard.latency is None else (heard.latency, _LATENCY_KNOWN)
    away = 0.5 * ((begins - usual) / spread) ** 2, 0.5 * (slope / _TEMPO_SPREAD) ** 2
    most = _MOST_PRIOR if heard.latency is None else _MOST_KNOWN
    return float(min(away[0], most) + min(away[1], _MOST_PRIOR))


def _openings(wanted: Wanted, heard: Hearing, tempi: Floats) -> list[tuple[float, float]]:
    """Return the (offset, slope) at which most strikes lie near due notes, the best first."""
    head = wanted.head(_HEAD)
    gap = float(np.median(head.gap))
    begin = head.at[0]
    near = heard.at[(heard.at > begin - 0.5) & (heard.at < head.at[-1] + 0.5)][:_HEAD]
    if not len(near):
        return [(heard.latency or 0.0, 0.0)]
    offsets = _OFFSETS if heard.latency is None else heard.latency + _NEAR
    # (tempo, offset, strike) → where the strike would lie if the player were on time.
    moved = (near - begin - offsets[None, :, None]) / (1 + tempi[:, None, None]) + begin
    after = np.clip(np.searchsorted(head.at, moved), 1, max(1, len(head.at) - 1))
    last = len(head.at) - 1
    distance = np.minimum(np.abs(moved - head.at[after - 1]), np.abs(head.at[np.minimum(after, last)] - moved))
    scores = np.exp(-0.5 * (distance / (0.14 * gap)) ** 2).sum(axis=2)
    found: list[tuple[float, float]] = []
    while len(found) < _MOST_OPENINGS and scores.max() > 0:
        tempo, offset = (int(one) for one in np.unravel_index(int(scores.argmax()), scores.shape))
        found.append((float(offsets[offset]), float(tempi[tempo])))
        scores[max(0, tempo - 4) : tempo + 5, np.abs(offsets - offsets[offset]) < 0.35 * gap] = 0.0
    return found or [(heard.latency or 0.0, 0.0)]


def _tracked(wanted: Wanted, heard: Hearing, offset: float) -> Settled:
    """Return the settled alignment of a player who is followed from note to note, as far as each lies near the last.

    So a tempo is followed that changes on the way: each strike is the note that is due nearest to where the last few
    say that the player is.
    """
    at, gap = wanted.at, wanted.gap
    recent = deque([offset], maxlen=_TRACKED)
    due: list[int] = []
    away: list[float] = []
    last = -1
    for strike in heard.at.tolist():
        here = strike - sorted(recent)[len(recent) // 2]
        after = int(np.searchsorted(at, here))
        near = min((one for one in (after - 1, after) if 0 <= one < len(at)), key=lambda one: abs(at[one] - here))
        if near > last and abs(at[near] - here) < _TRACKS * gap[near]:
            last = near
            due.append(near)
            away.append(float(strike - at[near]))
            recent.append(away[-1])
    if len(due) < 2:
        return settle(wanted, heard, constant(wanted, offset))
    return settle(wanted, heard, fitted(wanted, np.array(due), np.array(away)))


def _grown(wanted: Wanted, heard: Hearing, offset: float, slope: float) -> Settled:
    """Return the settled alignment of a player at another tempo, from the first notes on, twice as many each time."""
    count, total = min(_HEAD, len(wanted.at)), len(wanted.at)
    model = constant(wanted, offset, slope)
    while count < total:
        part = wanted.head(count)
        own = Model(model.path[:count], model.habit[:count], model.scale, model.slope)
        settled = settle(part, part_of(heard, part, count), own, rounds=2)
        ahead, known = wanted.at - part.at[-1], settled.model.path
        # As it went in the last half, which a bend has reached by now.
        half = count // 2
        going = float(known[-1] - known[half]) / max(1e-6, float(part.at[-1] - part.at[half]))
        path = np.concatenate([known, known[-1] + going * ahead[count:]])
        model = Model(path, np.zeros(total), settled.model.scale, settled.model.slope)
        count = min(total, 2 * count)
    return settle(wanted, heard, model)
