"""Hands, accents and articulation: what is told of single symbols and of how notes sound, where the source knows it."""

from collections import defaultdict
from collections.abc import Sequence
from math import log10, sqrt

import numpy as np
from numpy.typing import NDArray

from ripresa.core.takes.due import Due
from ripresa.core.takes.figures import AccentFigures, HandFigures, HeldFigures
from ripresa.core.takes.fit import Fit
from ripresa.core.takes.heard import HeardNote
from ripresa.core.takes.interval import SHOWN, Interval, interval_of, student

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

_FEWEST = 4
#: Notes sound so much longer than they are asked to: our choice.
SMEARED = 1.2
#: Of how many turns a note is told that is held too long, and in what part of them it was.
_FEWEST_TURNS, _NEARLY_EACH = 3, 0.75
#: A velocity in dB, as General MIDI instruments answer to it: gain = (v / 127)².
_DB_OF_VELOCITY = 40.0
_MOST_HANDS = 6
#: Loud and soft are two levels where they lie so many dB apart.
_TWO_LEVELS = 3.0


def hands(due: Due, row: Ints, note: Ints, notes: Sequence[HeardNote], fit: Fit | None) -> tuple[HandFigures, ...]:
    """Return what each symbol of the hand row does; none where one alone plays.

    Args:
        row: Indexes of the met notes. note: Which heard ones met them.
    """
    strokes = np.array([due.events[one].stroke or "" for one in row.tolist()])
    symbols = [symbol for symbol in dict.fromkeys(strokes.tolist()) if symbol]
    if fit is None or len(symbols) < 2:
        return ()
    levels = levels_in_db(notes)
    found = []
    for symbol in symbols[:_MOST_HANDS]:
        own = strokes == symbol
        own_levels = [level for one in note[own].tolist() if (level := levels[one]) is not None]
        found.append(
            HandFigures(
                symbol,
                fit.spread(own),
                fit.mean([np.array([one]) for one in np.flatnonzero(own & fit.counts)]),
                interval_of(own_levels),
            )
        )
    return tuple(found)


def accents(due: Due, row: Ints, note: Ints, notes: Sequence[HeardNote]) -> AccentFigures | None:
    """Return how far accents stand out, in dB; None where the drill has none or levels were not heard."""
    levels = levels_in_db(notes)
    heard: dict[str, list[float]] = defaultdict(list)
    hand: dict[tuple[str, str], list[float]] = defaultdict(list)
    in_order: list[tuple[str, float]] = []
    for index, one in zip(row.tolist(), note.tolist(), strict=True):
        level, event = levels[one], due.events[index]
        if level is None:
            continue
        heard[event.accent].append(level)
        in_order.append((event.accent, level))
        if event.stroke:
            hand[event.stroke, event.accent].append(level)
    loud, plain, ghost = heard["accent"], heard["plain"], heard["ghost"]
    if not (loud and plain) and not (plain and ghost):
        return None
    over = {symbol: _over(hand[symbol, "accent"], hand[symbol, "plain"]) for symbol, _ in list(hand)}
    return AccentFigures(
        _over(loud, plain),
        _over(plain, ghost),
        _misplaced(in_order),
        len(loud),
        tuple((symbol, interval) for symbol, interval in over.items() if interval),
    )


def articulation(due: Due, row: Ints, note: Ints, notes: Sequence[HeardNote]) -> Interval | None:
    """Return for which part of its written length a note sounds; None where the source does not know when it stops."""
    found = []
    for index, one in zip(row.tolist(), note.tolist(), strict=True):
        until, length = notes[one].until, due.sounding.get(id(due.events[index]), 0.0)
        if until is not None and length > 0:
            found.append((until - notes[one].at) / length)
    return interval_of(found) if len(found) >= _FEWEST else None


def held(due: Due, row: Ints, note: Ints, notes: Sequence[HeardNote]) -> tuple[HeldFigures, ...]:
    """Return the notes that sound much longer than they are written, nearly each time of three or more."""
    limit = SMEARED * float(due.reading.drill.articulation)
    shares: dict[int, list[float]] = defaultdict(list)
    for index, one in zip(row.tolist(), note.tolist(), strict=True):
        until, length = notes[one].until, due.sounding.get(id(due.events[index]), 0.0)
        if until is not None and length > 0:
            shares[int(due.index[index])].append((until - notes[one].at) / length)
    found = []
    for event, each in shares.items():
        times, sounding = sum(share > limit for share in each), interval_of(each)
        if sounding is None or len(each) < _FEWEST_TURNS or times < _NEARLY_EACH * len(each):
            continue
        if sounding.value - sounding.half() > limit:
            found.append(HeldFigures(event, due.reading.every[event].place_name, sounding, times, len(each)))
    return tuple(sorted(found, key=lambda one: -one.sounding.value))


def levels_in_db(notes: Sequence[HeardNote]) -> list[float | None]:
    """Return the level of each note in dB: velocities by their gain, decibels as they are."""
    known = [note.level for note in notes if note.level is not None]
    are_velocities = bool(known) and min(known) >= 1
    return [
        None if note.level is None else _DB_OF_VELOCITY * log10(note.level / 127) if are_velocities else note.level
        for note in notes
    ]


def _over(loud: Sequence[float], soft: Sequence[float]) -> Interval | None:
    """Return the difference of two means with its half-width (Welch 1947); None under four of either."""
    if min(len(loud), len(soft)) < _FEWEST:
        return None
    one, other = float(np.var(loud, ddof=1)) / len(loud), float(np.var(soft, ddof=1)) / len(soft)
    both = one + other
    freedom = both**2 / (one**2 / (len(loud) - 1) + other**2 / (len(soft) - 1)) if both > 0 else 1e6
    value = float(np.mean(loud) - np.mean(soft))
    return Interval(value, student(SHOWN, freedom) * sqrt(both), len(loud))


def _misplaced(levels: Sequence[tuple[str, float]]) -> int:
    """Return how many accents were soft while the note before or after them was as loud as an accent."""
    loud = [level for accent, level in levels if accent == "accent"]
    plain = [level for accent, level in levels if accent != "accent"]
    if not loud or not plain:
        return 0
    # Between the loud and the soft of what was played, wherever the accents were due.
    every = sorted(level for _, level in levels)
    top = every[-len(loud) :]
    high, low = float(np.mean(top)), float(np.mean(every[: -len(loud)] or every))
    if high - low < _TWO_LEVELS:
        return 0
    middle = (high + low) / 2
    found = 0
    for number, (accent, level) in enumerate(levels):
        if accent != "accent" or level >= middle:
            continue
        beside = [*levels[max(0, number - 1) : number], *levels[number + 1 : number + 2]]
        found += any(other != "accent" and above > middle for other, above in beside)
    return found
