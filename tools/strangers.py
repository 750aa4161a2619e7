"""Players with faults that neither the stand-in nor the follower has: each moves, leaves out or adds what it says.

What they play is made from the moments that are due and from nothing else of the app. Nothing here was used to choose
a cost or a limit.
"""

from collections.abc import Callable
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from ripresa.core.takes import Due, HeardNote

Floats = NDArray[np.float64]
#: Velocities of plain notes, accents and ghosts.
_LEVELS = {"plain": 70.0, "accent": 110.0, "ghost": 45.0}
#: Scatter of a hand that is even, in seconds.
_EVEN = 0.006


def notes_at(due: Due, at: Floats, kept: NDArray[np.bool_] | None = None) -> list[HeardNote]:
    """Return the pitches that are due at other moments, in seconds; ``kept`` says which of them are played."""
    found = []
    for index, tones in enumerate(due.tones):
        if kept is None or kept[index]:
            pitch = min(tones) if tones else None
            found.append(HeardNote(float(at[index]), pitch=pitch, level=_LEVELS[due.events[index].accent]))
    return sorted(found, key=lambda note: note.at)


def even(due: Due, seed: int, scatter: float = _EVEN) -> Floats:
    """Return the moments of a hand that is even, in seconds."""
    return np.asarray(due.at + np.random.default_rng(seed).normal(0, scatter, len(due)))


def late_once_a_turn(share: float) -> Callable[[Due, int], list[HeardNote]]:
    """Return who is late at the same note of every turn, by a share of the gap."""

    def play(due: Due, seed: int) -> list[HeardNote]:
        at = even(due, seed)
        place = int(due.index[len(due) // 7 + seed % 5])
        at[due.index == place] += share * due.even_gap[due.index == place]
        return notes_at(due, at)

    return play


def late_at_changes(share: float) -> Callable[[Due, int], list[HeardNote]]:
    """Return whose first note after every change of division comes late, by a share of the gap."""

    def play(due: Due, seed: int) -> list[HeardNote]:
        at = even(due, seed)
        division = due.division_number
        first = np.flatnonzero(np.diff(division, prepend=division[0]) != 0)
        at[first] += share * due.even_gap[first]
        return notes_at(due, at)

    return play


def wandering(curve: Callable[[Floats], Floats]) -> Callable[[Due, int], list[HeardNote]]:
    """Return who goes away from the click by a curve (0 to 1 of the take → seconds)."""

    def play(due: Due, seed: int) -> list[HeardNote]:
        part = (due.at - due.at[0]) / max(1e-9, float(due.at[-1] - due.at[0]))
        return notes_at(due, even(due, seed) + curve(part))

    return play


def slow_run_away(percent: float) -> Callable[[Due, int], list[HeardNote]]:
    """Return who is faster than the click by so much, all the way."""
    return lambda due, seed: notes_at(due, even(due, seed) - due.at * (percent / 100) / (1 + percent / 100))


def crowding(shares: tuple[float, ...]) -> Callable[[Due, int], list[HeardNote]]:
    """Return whose shares of the beat are these, in place of even ones."""

    def play(due: Due, seed: int) -> list[HeardNote]:
        at = even(due, seed)
        begins = np.concatenate([[0.0], np.cumsum(shares)[:-1]])
        for index, (division, slot) in enumerate(due.place):
            if division == len(shares):
                at[index] += (begins[slot] - slot / len(shares)) * due.beat
        return notes_at(due, at)

    return play


def goes_back(beats: float, waits: float = 1.0) -> Callable[[Due, int], list[HeardNote]]:
    """Return who stops in the middle, waits, and repeats so many beats."""

    def play(due: Due, seed: int) -> list[HeardNote]:
        at = even(due, seed)
        middle = len(due) // 2
        back = int(np.searchsorted(due.at, due.at[middle] - beats * due.beat - 1e-6))
        first = notes_at(due, at, np.arange(len(due)) < middle)
        later = notes_at(due, at + (beats + waits) * due.beat, np.arange(len(due)) >= back)
        return first + later

    return play


def goes_back_twice(due: Due, seed: int) -> list[HeardNote]:
    """Return the notes of who stops at two places of any kind, waits for any time, and repeats some notes."""
    random = np.random.default_rng(seed)
    at = even(due, seed)
    places = set(random.choice(np.arange(12, len(due) - 12), 2, replace=False).tolist())
    found: list[HeardNote] = []
    index, moved = 0, 0.0
    while index < len(due):
        if index in places:
            places.remove(index)
            back = max(0, index - int(random.integers(3, 12)))
            moved += float(due.at[index] - due.at[back] + random.uniform(0.6, 2.2) * due.beat)
            index = back
        pitch = min(due.tones[index], default=None)
        found.append(HeardNote(float(at[index]) + moved, pitch=pitch, level=_LEVELS[due.events[index].accent]))
        index += 1
    return found


def leaves_out(beats: float, *, waits: bool = False) -> Callable[[Due, int], list[HeardNote]]:
    """Return who leaves out so many beats in the middle: in silence, or by going on with what follows at once."""

    def play(due: Due, seed: int) -> list[HeardNote]:
        at = even(due, seed)
        middle = len(due) // 2
        after = int(np.searchsorted(due.at, due.at[middle] + beats * due.beat - 1e-6))
        number = np.arange(len(due))
        kept = (number < middle) | (number >= after)
        return notes_at(due, at - np.where(number >= after, 0.0 if waits else beats * due.beat, 0.0), kept)

    return play


def stops(share: float) -> Callable[[Due, int], list[HeardNote]]:
    """Return who stops after a share of the notes."""
    return lambda due, seed: notes_at(due, even(due, seed), np.arange(len(due)) < share * len(due))


def transposed(semitones: int) -> Callable[[Due, int], list[HeardNote]]:
    """Return who plays all of it higher."""

    def play(due: Due, seed: int) -> list[HeardNote]:
        found = notes_at(due, even(due, seed))
        return [replace(one, pitch=None if one.pitch is None else one.pitch + semitones) for one in found]

    return play


def at_speed(factor: float) -> Callable[[Due, int], list[HeardNote]]:
    """Return who plays so many times as fast, round and round until the time is over."""

    def play(due: Due, seed: int) -> list[HeardNote]:
        turn = due.at[due.turn == due.turn[0]]
        events = np.flatnonzero(due.turn == due.turn[0])
        random = np.random.default_rng(seed)
        found: list[HeardNote] = []
        number = 0
        while True:
            start = number * due.turn_seconds / factor
            moments = start + turn / factor + random.normal(0, _EVEN, len(turn))
            if moments[0] > due.end:
                return sorted(found, key=lambda note: note.at)
            for event, at in zip(events.tolist(), moments.tolist(), strict=True):
                if at < due.end - 0.01:
                    tones = due.tones[event]
                    level = _LEVELS[due.events[event].accent]
                    found.append(HeardNote(at, pitch=min(tones) if tones else None, level=level))
            number += 1

    return play


def with_sounds(*moments: float, after: bool) -> Callable[[Due, int], list[HeardNote]]:
    """Return an even player with sounds so many seconds before the first, or after the last note."""

    def play(due: Due, seed: int) -> list[HeardNote]:
        found = notes_at(due, even(due, seed))
        zero = due.end if after else float(due.at[0])
        more = [HeardNote(zero + (one if after else -one), level=60.0) for one in moments]
        return sorted([*found, *more], key=lambda note: note.at)

    return play


def pink(scatter: float) -> Callable[[Due, int], list[HeardNote]]:
    """Return a player with 1/f timing of so many seconds: slow waves and quick ones have the same power an octave."""

    def play(due: Due, seed: int) -> list[HeardNote]:
        random = np.random.default_rng(seed)
        count = 1 << int(np.ceil(np.log2(2 * len(due))))
        waves = np.fft.rfft(random.normal(0, 1, count))
        waves[1:] /= np.sqrt(np.arange(1, len(waves)))
        waves[0] = 0.0
        found = np.fft.irfft(waves, count)[: len(due)]
        return notes_at(due, due.at + scatter * found / found.std())

    return play
