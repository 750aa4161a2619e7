"""Two hands: each is matched and measured by itself, by its key or its pitches, and then against the other.

Where a source does not tell the hands apart (one key alone), what both strike is measured as one line.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from math import sqrt

import numpy as np
from numpy.typing import NDArray

from ripresa.core.grid import HANDS_OF
from ripresa.core.takes.due import Due, due_notes
from ripresa.core.takes.figures import (
    Dot,
    Figures,
    Furthest,
    HandFigures,
    LegFigures,
    LostBeat,
    Point,
    TogetherFigures,
)
from ripresa.core.takes.heard import HeardNote, side_of_key
from ripresa.core.takes.interval import SHOWN, Interval, interval_of, student
from ripresa.core.takes.landing import pooled
from ripresa.core.takes.match import Match, match_take
from ripresa.core.takes.measure import Measured, fitted_take, measure
from ripresa.core.takes.touch import levels_in_db

Floats = NDArray[np.float64]

#: What both hands strike on one key.
BOTH = "RL"
#: Two moments that are due within this are one; two strokes of one key within that are of two hands, in seconds.
_AT_ONCE, _ONE_STROKE = 1e-6, 0.08
#: Meetings that were heard, fewer than which say nothing of the distance between the hands.
FEWEST_MEETINGS = 4


@dataclass(frozen=True, slots=True)
class Hand:
    """One hand of a take.

    Args:
        symbol: R or L. take, figures: As of a drill of its own.
        notes: Index of each of its notes among all that were heard.
        events: What is added to the number of an event to have it among the events of both hands.
    """

    symbol: str
    take: Measured
    figures: Figures
    notes: tuple[int, ...]
    events: int


def measured_hands(
    due: Due, notes: Sequence[HeardNote], latency: tuple[float, float] | None
) -> tuple[Hand, ...] | None:
    """Return both hands of a take, matched and measured one by one; None where the notes do not tell hands apart."""
    sides = sides_of(due, notes)
    if sides is None:
        return None
    found = []
    left = set(zip(due.index.tolist(), due.turn.tolist(), strict=True))
    for symbol, row in zip(HANDS_OF.values(), due.reading.hands, strict=True):
        own = tuple(index for index, side in enumerate(sides) if symbol in side)
        heard = [notes[index] for index in own]
        shift = 0 if row is due.reading.events else len(due.reading.events)
        asked = due_notes(due.reading.of_hand(symbol), due.bpm, due.start, due.end, due.window)
        # What a source cannot hear is due of neither hand.
        each = zip(asked.index.tolist(), asked.turn.tolist(), strict=True)
        kept = [(one + shift, turn) in left for one, turn in each]
        asked = replace(asked, at=asked.at[kept], index=asked.index[kept])
        take = fitted_take(asked, match_take(asked, heard, latency[0] if latency else None), heard)
        found.append(Hand(symbol, take, measure(take, latency), own, shift))
    return tuple(found)


def as_one(due: Due) -> Due:
    """Return what both hands strike as one line: of a meeting the note of the right hand stands for both."""
    moments = np.round(due.at, 9)
    kept = np.concatenate([[True], np.diff(moments) > 0]) if len(moments) else np.ones(0, dtype=bool)
    return replace(due, at=due.at[kept], index=due.index[kept])


def sides_of(due: Due, notes: Sequence[HeardNote]) -> list[str] | None:
    """Return the hand of each note, R or L: by its key, or by whose pitch it is, and then by whose turn it is.

    None where notes have neither, or all have one and the same key.
    """
    keys = [side_of_key(note.key) for note in notes]
    if notes and all(keys) and len(set(keys)) > 1:
        return [key or "" for key in keys]
    if not notes or any(note.pitch is None for note in notes):
        return None
    reading = due.reading
    rows = {
        symbol: {tone for event in row if event.kind == "note" for tone in reading.heard(event)}
        for symbol, row in zip(HANDS_OF.values(), reading.hands, strict=True)
    }
    if not all(rows.values()):
        return None
    shared = rows["R"] & rows["L"]
    turns = {symbol: _moments(due, symbol, shared) for symbol in rows} if shared else {}
    sides = [_side(note, rows, turns) for note in notes]
    return _shared_out(notes, sides) if shared else sides


def _moments(due: Due, symbol: str, pitches: set[int]) -> dict[int, Floats]:
    """Return when a hand is due on each of some pitches, in seconds."""
    found: dict[int, list[float]] = {pitch: [] for pitch in pitches}
    for at, event in zip(due.at.tolist(), due.events, strict=True):
        if event.hand == symbol:
            for tone in due.reading.heard(event):
                if tone in found:
                    found[tone].append(at)
    return {pitch: np.array(moments) for pitch, moments in found.items()}


def _side(note: HeardNote, rows: dict[str, set[int]], turns: dict[str, dict[int, Floats]]) -> str:
    """Return the hand of a note by its pitch; both where both are due on that key at once."""
    pitch = note.pitch or 0
    mine = [symbol for symbol, tones in rows.items() if pitch in tones]
    if len(mine) == 1:
        return mine[0]
    if not mine:
        return min(rows, key=lambda symbol: min(abs(pitch - tone) for tone in rows[symbol]))
    # A key that both hands strike belongs to the one that is due there next.
    next_due = {symbol: float(_nearest(turns[symbol][pitch], note.at)) for symbol in mine}
    if abs(next_due["R"] - next_due["L"]) < _AT_ONCE:
        return BOTH
    return min(mine, key=lambda symbol: abs(next_due[symbol] - note.at))


def _nearest(moments: Floats, at: float) -> float:
    return float(moments[np.abs(moments - at).argmin()]) if len(moments) else float("inf")


def _shared_out(notes: Sequence[HeardNote], sides: list[str]) -> list[str]:
    """Return the sides with keys that both strike at once shared out: the first stroke is the right hand's.

    A key that is struck once for both is heard once, and stays both's.
    """
    found = list(sides)
    both = [index for index, side in enumerate(sides) if side == BOTH]
    for before, after in pairwise(sorted(both, key=lambda index: notes[index].at)):
        same = notes[before].pitch == notes[after].pitch and notes[after].at - notes[before].at < _ONE_STROKE
        if same and found[before] == BOTH:
            found[before], found[after] = "R", "L"
    return found


def struck_as_one(due: Due, notes: Sequence[HeardNote]) -> list[HeardNote]:
    """Return what was heard with the two strokes of a meeting as one, as far as nothing is due so close together."""
    window = min(_ONE_STROKE, 0.5 * float(due.near_gap.min(initial=_ONE_STROKE)))
    found: list[HeardNote] = []
    for note in sorted(notes, key=lambda one: one.at):
        if not found or note.at - found[-1].at > window:
            found.append(note)
    return found


def both_hands(due: Due, hands: Sequence[Hand]) -> tuple[Match, Figures]:
    """Return the match and the figures of both hands together, and how far apart they are where they meet."""
    places = {
        (int(event), int(turn)): number for number, (event, turn) in enumerate(zip(due.index, due.turn, strict=True))
    }
    pairs: list[tuple[int, int]] = []
    missed: list[int] = []
    extra: list[int] = []
    wrong: list[int] = []
    for hand in hands:
        own = hand.take.due

        def number(index: int, hand: Hand = hand, own: Due = own) -> int:
            return places[int(own.index[index]) + hand.events, int(own.turn[index])]

        match = hand.take.match
        pairs += [(number(one), hand.notes[other]) for one, other in match.pairs]
        missed += [number(one) for one in match.missed]
        extra += [hand.notes[one] for one in match.extra]
        wrong += [number(one) for one in match.wrong]
    first = hands[0].take.match
    match = Match(
        tuple(sorted(pairs)),
        tuple(sorted(missed)),
        tuple(sorted(extra)),
        tuple(sorted(wrong)),
        first.model,
        max(hand.take.match.cost for hand in hands),
        is_symbolic=True,
    )
    return match, _figures(hands)


def _figures(hands: Sequence[Hand]) -> Figures:
    each = [hand.figures for hand in hands]
    points = [_point(point, hand) for hand in hands for point in hand.figures.line]

    def over(get: Callable[[Figures], Interval | None]) -> Interval | None:
        return _weighted([found for one in each if (found := get(one)) is not None])

    return Figures(
        due=sum(one.due for one in each),
        matched=sum(one.matched for one in each),
        missed=sum(one.missed for one in each),
        extra=sum(one.extra for one in each),
        wrong=sum(one.wrong for one in each),
        gap_seconds=min(one.gap_seconds for one in each),
        bias=over(lambda one: one.bias),
        with_click=over(lambda one: one.with_click),
        tempo_percent=over(lambda one: one.tempo_percent),
        bend=over(lambda one: one.bend),
        spread=over(lambda one: one.spread),
        legs=tuple(_of_hand(leg, hand) for hand in hands for leg in hand.figures.legs),
        seams=pooled([one.seams for one in each]),
        landings=tuple(landing for one in each for landing in one.landings),
        fills=over(lambda one: one.fills),
        hands=tuple(HandFigures(hand.symbol, hand.figures.spread, None, _level(hand)) for hand in hands),
        accents=next((one.accents for one in each if one.accents), None),
        articulation=over(lambda one: one.articulation),
        held=tuple(replace(one, event=one.event + hand.events) for hand in hands for one in hand.figures.held),
        lost=tuple(_lost(lost, hand) for hand in hands for lost in hand.figures.lost),
        line=tuple(sorted(points, key=lambda one: one.at)),
        together=together(hands),
        strays=tuple(
            replace(stray, event=stray.event + hand.events) for hand in hands for stray in hand.figures.strays
        ),
        places=tuple(replace(one, event=one.event + hand.events) for hand in hands for one in hand.figures.places),
        furthest=_furthest(hands),
        corner=next((one.corner for one in each if one.corner), None),
        outside=sum(one.outside for one in each),
    )


def _furthest(hands: Sequence[Hand]) -> Furthest | None:
    """Return where the hand was that went furthest from the click."""
    found = [
        replace(hand.figures.furthest, event=hand.figures.furthest.event + hand.events)
        for hand in hands
        if hand.figures.furthest
    ]
    return max(found, key=lambda one: abs(one.offset.value), default=None)


def together(hands: Sequence[Hand]) -> TogetherFigures | None:
    """Return how far the left hand comes after the right where both are due at once; None where that is too seldom."""
    right, left = (_strikes(hand.take) for hand in hands)
    met = [at for at in right if at in left]
    apart = [left[at][0] - right[at][0] for at in met]
    mean = interval_of(apart)
    if mean is None or len(apart) < FEWEST_MEETINGS:
        return None
    deviation = float(np.std(apart, ddof=1))
    # An SD errs by 1/√(2(n − 1)) of itself (normal law).
    half = student(SHOWN, len(apart) - 1) * deviation / sqrt(2 * (len(apart) - 1))
    gap = min(hand.figures.gap_seconds for hand in hands)
    levels = [(right[at][1], left[at][1]) for at in met]
    louder = interval_of([one - other for one, other in levels if one is not None and other is not None])
    return TogetherFigures(mean, Interval(deviation, half, len(apart)), gap, louder)


def _strikes(take: Measured) -> dict[float, tuple[float, float | None]]:
    """Return when each due moment was struck, and how loud in dB."""
    levels = levels_in_db(take.notes)
    return {round(float(take.due.at[one]), 6): (take.notes[other].at, levels[other]) for one, other in take.match.pairs}


def _level(hand: Hand) -> Interval | None:
    return interval_of([level for level in levels_in_db(hand.take.notes) if level is not None])


def _weighted(intervals: Sequence[Interval]) -> Interval | None:
    """Return the mean of figures by their notes; None of none."""
    count = sum(one.count for one in intervals)
    if not count:
        return None
    value = sum(one.value * one.count for one in intervals) / count
    half = sqrt(sum((one.half_width * one.count / count) ** 2 for one in intervals))
    return Interval(value, half, count)


def _of_hand(leg: LegFigures, hand: Hand) -> LegFigures:
    slots = tuple(
        replace(slot, dots=tuple(Dot(dot.offset, dot.event + hand.events, dot.turn) for dot in slot.dots))
        for slot in leg.slots
    )
    return replace(leg, slots=slots, hand=hand.symbol)


def _lost(lost: LostBeat, hand: Hand) -> LostBeat:
    return replace(lost, event=lost.event + hand.events)


def _point(point: Point, hand: Hand) -> Point:
    return replace(point, event=point.event + hand.events)
