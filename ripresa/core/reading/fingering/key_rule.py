"""A thumb-under rule for what no table has: neighbours lie under neighbours, the thumb stays off black keys."""

from functools import lru_cache
from itertools import pairwise

from ripresa.core.reading.fingering.key_tables import BLACK, Hand

_NEVER = 1000.0

Midis = tuple[int | None, ...]


@lru_cache(maxsize=256)
def by_rule(hand: Hand, midis: Midis) -> tuple[int | None, ...]:
    """Return the cheapest fingers: neighbours lie under neighbours, the thumb goes under and stays off black keys.

    The left hand is the right one in a mirror. The weights are our choice (docs/decisions/0007).

    >>> by_rule("right", (60, 62, 64, 65, 67, 69, 71, 72))
    (1, 2, 3, 1, 2, 3, 4, 5)
    """
    mirrored = [midi if hand == "right" or midi is None else -midi for midi in midis]
    placed = [(at, midi) for at, midi in enumerate(mirrored) if midi is not None]
    found: list[int | None] = [None] * len(midis)
    if not placed:
        return tuple(found)
    cost = [_holding(finger, placed[0][1], hand) for finger in range(1, 6)]
    backs: list[list[int]] = []
    for (_, before), (_, after) in pairwise(placed):
        back, now = [], []
        for finger in range(1, 6):
            ways = [cost[old - 1] + _stepping(old, finger, after - before) for old in range(1, 6)]
            best = min(range(5), key=ways.__getitem__)
            back.append(best)
            now.append(ways[best] + _holding(finger, after, hand))
        cost = now
        backs.append(back)
    best = min(range(5), key=cost.__getitem__)
    for (at, _), back_row in zip(reversed(placed), [*reversed(backs), None], strict=True):
        found[at] = best + 1
        if back_row is not None:
            best = back_row[best]
    return tuple(found)


def _holding(finger: int, midi: int, hand: Hand) -> float:
    """Return what a finger costs on a key: short ones stay off the black keys."""
    key = midi if hand == "right" else -midi
    if key % 12 not in BLACK:
        return 0.0
    return {1: 2.0, 5: 1.0}.get(finger, 0.0)


def _stepping(old: int, new: int, up: int) -> float:
    """Return what it costs to go so many semitones up from one finger of the right hand to another."""
    if up == 0:
        return 0.0 if old == new else 1.0
    if up < 0:
        old, new, up = new, old, -up
    if old == new:
        return 6.0
    if new > old:
        # Neighbouring fingers lie a whole tone apart, more or less.
        return 0.4 * abs(up - 2 * (new - old)) if up <= 3 * (new - old) + 2 else 4.0
    if new == 1 and old in {2, 3, 4} and up <= 5:
        return {2: 1.6, 3: 1.0, 4: 1.2}[old] + 0.02 * up
    return _NEVER
