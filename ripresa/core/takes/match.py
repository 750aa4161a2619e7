"""Matching: which strike belongs to which due note, in order, with misses and extras (MEASURING §2).

An alignment whose costs act on the deviation from a model of the player. It is opened from the known latency, or
from the offsets and tempi at which most strikes lie near due notes, and the model is improved in up to three rounds.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from ripresa.core.takes.align import EXTRA, Aligned, Costs, align
from ripresa.core.takes.due import Due
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
from ripresa.core.takes.model import Model, Wanted, constant, fitted, steps_in, without_bend

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

#: How far from the model a strike may lie, in beats and in gaps: a lost beat has to lie inside.
_REACH_BEATS, _REACH_GAPS, _REACH_SYMBOLIC = 1.6, 2.5, 2.6
_ROUNDS = 4
#: Rounds end when so small a share of the pairs changes.
_SAME = 0.002
#: What another pitch and another key cost, and what the right one costs at most, however far it lies.
_WRONG_PITCH, _WRONG_KEY, _RIGHT_PITCH, _RIGHT_KEY = 5.0, 3.5, 4.5, 8.0
#: In the first round the symbol counts for more than the moment.
_RIGHT_FIRST = 2.0
#: A fit that costs more a note, or has more slips, is tried again from other openings.
_DEAR, _MANY_SLIPS = 1.3, 0.12
#: Openings are tried on the first notes, which then grow.
_HEAD, _MOST_OPENINGS = 96, 3
_OFFSETS = np.arange(-0.15, 0.2501, 0.0125)
_NEAR = np.arange(-0.1, 0.1001, 0.0125)
_TEMPI = np.arange(-0.13, 0.1301, 0.0025)
#: Where an unknown latency is looked for first, and how firmly; how firmly a known one and the tempo hold. Seconds.
_USUAL_LATENCY, _LATENCY_SPREAD, _LATENCY_KNOWN, _TEMPO_SPREAD, _MOST_PRIOR = 0.03, 0.08, 0.035, 0.015, 8.0
_STEP_COST = 6.0
#: From so many notes to the next so many a path moves by about such a share of a gap.
_WAY, _WAY_SHARE, _MOST_ROUGH = 12, 0.12, 9.0
#: A path that wanders by more than this share of a gap may be one of another tempo.
_WANDERS = 0.45
#: Openings that are so much dearer on the first notes are not followed.
_MARGIN, _NEARLY = 20.0, 6.0
#: Players whose offsets lie within so much of a gap are the same.
_SAME_PLAYER = 0.2
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


@dataclass(frozen=True, slots=True)
class Symbols:
    """What tells notes apart: price by kinds, and the kinds of strikes and of due notes."""

    price: Floats
    strikes: Ints
    due: Ints
    most: float

    def head(self, count: int) -> "Symbols":
        """Return them for the first so many due notes."""
        return Symbols(self.price, self.strikes, self.due[:count], self.most)


@dataclass(frozen=True, slots=True)
class Hearing:
    """What was heard, for matching: moments, what each costs as an extra, and symbols where there are some."""

    at: Floats
    extra: Floats
    symbols: Symbols | None
    latency: float | None


@dataclass(frozen=True, slots=True)
class Settled:
    """An alignment that agrees with its own model; score compares openings."""

    aligned: Aligned
    model: Model
    score: float


def match_take(due: Due, notes: Sequence[HeardNote], latency: float | None = None) -> Match:
    """Return how the notes of a take belong to what is due.

    Args:
        latency: Known delay of the source, in seconds; None where it was not measured.
    """
    has_chords = any(len(event.tones) > 1 for event in due.events)
    strikes = strikes_of(notes, has_chords=has_chords)
    if not len(due) or not strikes or len(strikes) > _MOST_STRIKES * len(due) + _SOME_STRIKES:
        inside = _inside(due, np.array([one.at for one in strikes]), latency or 0.0)
        extra = tuple(one.index for one, counts in zip(strikes, inside, strict=True) if counts)
        return Match((), tuple(range(len(due))), extra)
    wanted = wanted_of(due)
    plain = _plain(due, wanted, strikes, latency)
    inside = _inside(due, plain.at, latency or 0.0)
    heard = Hearing(plain.at, plain.extra, _symbols(due, strikes, wanted, plain), latency)
    settled = _matched(wanted, heard)
    if heard.symbols and heard.symbols.most == _RIGHT_KEY and not _agree(heard, settled.aligned):
        # Keys that do not agree with the hands even where that is looked for were not meant as hands.
        heard, settled = plain, _matched(wanted, plain)
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
    between = np.diff(at) if len(at) > 1 else np.array([0.5])
    gap = np.minimum(np.append(between, between[-1]), np.insert(between, 0, between[0]))[: len(at)]
    none = np.full(len(at), np.inf)
    wanted = Wanted(at, gap, float(np.median(gap)), np.zeros(len(at), dtype=np.int64), none)
    found = _matched(wanted, Hearing(played, np.full(len(played), EXTRA), None, latency))
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
    strikes = strikes_of(notes, has_chords=any(len(event.tones) > 1 for event in due.events))
    return _plain(due, wanted_of(due), strikes, latency)


def shifted_score(wanted: Wanted, heard: Hearing, model: Model, by: float) -> float:
    """Return the score of a player who is the same but for a constant shift, in seconds; habits are left aside.

    They would belong to other slots then.
    """
    moved = Model(model.path + by, np.zeros_like(model.habit), model.scale, model.slope)
    return _scored(wanted, align(wanted.at, heard.at, _costs(wanted, heard, moved)), moved)


def opened(wanted: Wanted, heard: Hearing, offset: float, count: int) -> Settled:
    """Return the alignment of the first so many notes for a player who began at an offset, in seconds."""
    head = wanted.head(count)
    return _settle(head, _part(heard, head, count), constant(head, offset), rounds=2)


def own_score(wanted: Wanted, heard: Hearing, model: Model, count: int) -> float:
    """Return the score of the first so many notes for the player of a model."""
    head = wanted.head(count)
    own = Model(model.path[:count], model.habit[:count], model.scale, model.slope)
    part = _part(heard, head, count)
    return _scored(head, align(head.at, part.at, _costs(head, part, own)), own)


def _plain(due: Due, wanted: Wanted, strikes: Sequence[Strike], latency: float | None) -> Hearing:
    at = np.array([one.at for one in strikes])
    inside = _inside(due, at, latency or 0.0)
    return Hearing(at, np.where(inside, EXTRA - _REBOUND * _rebounds(wanted, strikes, at), 0.0), None, latency)


def _matched(wanted: Wanted, heard: Hearing) -> Settled:
    count = len(wanted.at)
    if heard.symbols is not None:
        # Symbols say where the player is, whatever the tempo.
        told = _settle(wanted, heard, constant(wanted, heard.latency or _USUAL_LATENCY))
        level = without_bend(told.model.path, wanted.at)
        if _is_good(told, count) and not steps_in(level, wanted.gap, told.model.scale):
            return told
        # What goes away farther than the band reaches is followed from the first notes on.
        grown = _grown(wanted, heard, heard.latency or _USUAL_LATENCY, 0.0)
        better = min(told, grown, key=lambda one: one.score + _prior(heard, one.model))
        if _is_good(better, count):
            return better
    likely = _likely(wanted, heard)
    settled = [
        _settle(wanted, heard, constant(wanted, offset)) if slope == 0 else _grown(wanted, heard, offset, slope)
        for offset, slope in likely
    ]
    best = min(settled, key=lambda one: one.score + _prior(heard, one.model))
    wanders = float(np.ptp(best.model.path)) >= _WANDERS * float(np.median(wanted.gap))
    if count <= _HEAD or (_is_good(best, count) and not wanders):
        return best
    # It is not as it was asked: perhaps it goes away slowly.
    settled += [_grown(wanted, heard, offset, slope) for offset, slope in likely[:1] if slope == 0]
    return min(settled, key=lambda one: one.score + _prior(heard, one.model))


def _is_good(settled: Settled, count: int) -> bool:
    found = settled.aligned
    return found.cost <= _DEAR * count and count - len(found.due) <= _MANY_SLIPS * count


def _likely(wanted: Wanted, heard: Hearing) -> list[tuple[float, float]]:
    """Return the (offset, slope) from which a player is looked for: those that do well on the first notes."""
    found = list(dict.fromkeys([*_openings(wanted, heard, np.zeros(1)), *_openings(wanted, heard, _TEMPI)]))
    head = wanted.head(_HEAD)
    part = _part(heard, head, _HEAD)
    scores, paths, gap = [], [], float(np.median(head.gap))
    for offset, slope in found:
        settled = _settle(head, part, constant(head, offset, slope), rounds=2)
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


def _part(heard: Hearing, head: Wanted, count: int) -> Hearing:
    """Return what was heard, as it is held against the first notes: what lies behind them is no extra."""
    extra = np.where(heard.at > head.at[-1] + 0.5 * head.beat, 0.0, heard.extra)
    return Hearing(heard.at, extra, heard.symbols.head(count) if heard.symbols else None, heard.latency)


def _prior(heard: Hearing, model: Model) -> float:
    begins, slope = float(model.path[0]), model.slope
    usual, spread = (_USUAL_LATENCY, _LATENCY_SPREAD) if heard.latency is None else (heard.latency, _LATENCY_KNOWN)
    away = 0.5 * ((begins - usual) / spread) ** 2, 0.5 * (slope / _TEMPO_SPREAD) ** 2
    return float(sum(min(one, _MOST_PRIOR) for one in away))


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


def _grown(wanted: Wanted, heard: Hearing, offset: float, slope: float) -> Settled:
    """Return the settled alignment of a player at another tempo, from the first notes on, twice as many each time."""
    count, total = min(_HEAD, len(wanted.at)), len(wanted.at)
    model = constant(wanted, offset, slope)
    while count < total:
        part = wanted.head(count)
        own = Model(model.path[:count], model.habit[:count], model.scale, model.slope)
        settled = _settle(part, _part(heard, part, count), own, rounds=2)
        ahead, known = wanted.at - part.at[-1], settled.model.path
        # As it went in the last half, which a bend has reached by now.
        half = count // 2
        going = float(known[-1] - known[half]) / max(1e-6, float(part.at[-1] - part.at[half]))
        path = np.concatenate([known, known[-1] + going * ahead[count:]])
        model = Model(path, np.zeros(total), settled.model.scale, settled.model.slope)
        count = min(total, 2 * count)
    return _settle(wanted, heard, model)


def _settle(wanted: Wanted, heard: Hearing, model: Model, rounds: int = _ROUNDS) -> Settled:
    """Return the alignment from a model on, the model improved from it round after round."""
    aligned = align(wanted.at, heard.at, _costs(wanted, heard, model, _RIGHT_FIRST))
    for _ in range(rounds):
        if len(aligned.due) < 2:
            break
        right = _rightly(heard, aligned)
        if right.sum() < 2:
            break
        due, strike = aligned.due[right], aligned.strike[right]
        model = fitted(wanted, due, heard.at[strike] - wanted.at[due])
        again = align(wanted.at, heard.at, _costs(wanted, heard, model))
        changed = len(
            np.setxor1d(again.due * len(heard.at) + again.strike, aligned.due * len(heard.at) + aligned.strike)
        )
        aligned = again
        if changed <= _SAME * len(wanted.at):
            break
    return Settled(aligned, model, _scored(wanted, aligned, model))


def _rightly(heard: Hearing, aligned: Aligned) -> NDArray[np.bool_]:
    """Return which pairs are of the right symbol: others say nothing about where the player is."""
    symbols = heard.symbols
    if symbols is None:
        return np.ones(len(aligned.due), dtype=bool)
    return np.asarray(symbols.price[symbols.strikes[aligned.strike], symbols.due[aligned.due]] == 0.0)


def _agree(heard: Hearing, aligned: Aligned) -> bool:
    right = _rightly(heard, aligned)
    return bool(right.sum() >= MEANT * len(right))


def _scored(wanted: Wanted, aligned: Aligned, model: Model) -> float:
    """Return the cost of an alignment, what a narrow scale is worth in, and what its steps cost."""
    width = np.log(model.scales(wanted)[aligned.due] / wanted.gap[aligned.due]).sum()
    level = without_bend(model.path, wanted.at)
    steps = _STEP_COST * len(steps_in(level, wanted.gap, model.scale))
    return aligned.cost + float(width) + steps + _roughness(wanted, level)


def _roughness(wanted: Wanted, level: Floats) -> float:
    """Return what it costs that a path goes up and down beside its bend: a hand does that slowly, or not at all."""
    moved = np.diff(level[::_WAY]) / (_WAY_SHARE * wanted.gap[::_WAY][1:])
    return float(0.5 * np.minimum(moved * moved, _MOST_ROUGH).sum())


def _costs(wanted: Wanted, heard: Hearing, model: Model, most: float | None = None) -> Costs:
    beats = _REACH_BEATS if heard.symbols is None else _REACH_SYMBOLIC
    reach = np.maximum(beats * wanted.beat, _REACH_GAPS * wanted.gap)
    plain = Costs(model.centre, model.scales(wanted), reach, heard.extra)
    symbols = heard.symbols
    if symbols is None:
        return plain
    limit = symbols.most if most is None else min(most, symbols.most)
    return Costs(plain.centre, plain.scale, reach, plain.extra, symbols.price, symbols.strikes, symbols.due, limit)


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
        first = _matched(wanted, plain).aligned
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
        wrong = tuple(found.due[~_rightly(heard, found)].tolist())
    return Match(
        pairs,
        tuple(index for index in range(len(due)) if index not in met),
        extra,
        wrong,
        settled.model,
        found.cost / max(1, len(due)),
        symbols is not None,
    )
