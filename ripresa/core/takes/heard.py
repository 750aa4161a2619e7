"""What was heard: the notes of a take, and by which key or pitch they can be told apart.

A **symbol** is what a source knows of a note besides its moment: the pitch of a MIDI key, or which tap key was
struck where the hand row of the drill tells hands apart.
"""

from collections import Counter, defaultdict
from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import isfinite
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from ripresa.core.errors import OutOfRange

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]

#: Keys of a chord that are struck within this are one note, in seconds.
CHORD_SECONDS = 0.040
_HAIR = 1e-6
#: Tap keys that lie under one hand: what the hand row may call that hand.
_SIDES = {"f": "L", "j": "R", "l": "L", "r": "R", "left": "L", "right": "R"}
#: Below this share of agreement between keys and hands the keys were not meant as hands: our choice.
MEANT = 0.75
LATEST = 7200.0


@dataclass(frozen=True, slots=True)
class HeardNote:
    """A note as a source heard it.

    Args:
        at: Seconds from the first beat of the first pass.
        key: Which tap key or pad. pitch: Sounding MIDI number, 0 to 127.
        level: Velocity 1 to 127, or dB. until: When it stopped, in seconds.

    Raises:
        OutOfRange: A time or a number that no source can mean.
    """

    at: float
    key: str | None = None
    pitch: int | None = None
    level: float | None = None
    until: float | None = None

    def __post_init__(self) -> None:
        if not isfinite(self.at) or abs(self.at) > LATEST:
            raise OutOfRange(f"A note is heard within two hours of the start, not at {self.at:g} s.", field="notes.at")
        if self.pitch is not None and not 0 <= self.pitch <= 127:
            raise OutOfRange(f"A pitch is a MIDI number from 0 to 127, not {self.pitch}.", field="notes.pitch")
        if self.level is not None and not (isfinite(self.level) and abs(self.level) <= 200):
            raise OutOfRange("A level is a velocity of 1 to 127, or decibels.", field="notes.level")
        if self.until is not None and not (isfinite(self.until) and self.at <= self.until <= 2 * LATEST):
            raise OutOfRange("A note stops after it starts.", field="notes.until")
        if self.key is not None and len(self.key) > 20:
            raise OutOfRange("The name of a key has up to 20 signs.", field="notes.key")


@dataclass(frozen=True, slots=True)
class Strike:
    """One stroke of the player: a note, or the notes of a chord that were struck together.

    Args:
        index: Of its first note, as the take gives them.
        pitches: MIDI numbers; none where the source knows none.
    """

    at: float
    index: int
    key: str | None
    pitches: frozenset[int]
    level: float | None
    until: float | None


def moved(notes: Sequence[HeardNote], by: float) -> tuple[HeardNote, ...]:
    """Return notes so many seconds later, earlier below 0."""
    return tuple(
        replace(note, at=note.at + by, until=None if note.until is None else note.until + by) for note in notes
    )


def as_keys(notes: Sequence[HeardNote]) -> tuple[HeardNote, ...]:
    """Return the notes of pads, whose pitches are names of places to strike: which hand each is, is learnt by them."""
    return tuple(
        note if note.pitch is None or note.key else replace(note, key=str(note.pitch), pitch=None) for note in notes
    )


#: How the tones of a chord come: one alone, together, or rolled, each soon after the last.
Chords = Literal["none", "together", "rolled"]


def strikes_of(notes: Sequence[HeardNote], chords: Chords) -> list[Strike]:
    """Return what was struck, in order; of chords, notes of different pitch within 40 ms are one.

    Rolled, each of them may come 40 ms after the one before.
    """
    found: list[Strike] = []
    before = 0.0
    for index in sorted(range(len(notes)), key=lambda one: notes[one].at):
        note = notes[index]
        own = frozenset(() if note.pitch is None else (note.pitch,))
        last = found[-1] if found else None
        other = bool(last and own and last.pitches and not own <= last.pitches)
        since = note.at - (before if chords == "rolled" or not last else last.at)
        before = note.at
        if chords != "none" and last and other and since <= CHORD_SECONDS + _HAIR:
            levels = [level for level in (last.level, note.level) if level is not None]
            loudest = max(levels, default=None)
            found[-1] = Strike(last.at, last.index, last.key, last.pitches | own, loudest, last.until)
            continue
        found.append(Strike(note.at, index, note.key, own, note.level, note.until))
    return found


def pitch_mismatch(wanted: Sequence[frozenset[int]], strikes: Sequence[Strike]) -> NDArray[np.bool_] | None:
    """Return, for kinds of strike × kinds of due note, whether the pitch is another one; None without pitches.

    The kinds are those of ``codes_of`` for the same sequences.
    """
    if not any(strike.pitches for strike in strikes) or not any(wanted):
        return None
    rows, columns = list(dict.fromkeys(one.pitches for one in strikes)), list(dict.fromkeys(wanted))
    return np.array([[bool(own and due and not own & due) for due in columns] for own in rows])


def codes_of(values: Sequence[object]) -> Ints:
    """Return the number of each value's kind, in order of first appearance."""
    kinds = {value: number for number, value in enumerate(dict.fromkeys(values))}
    return np.array([kinds[value] for value in values], dtype=np.int64)


def side_of_key(key: str | None) -> str | None:
    """Return the hand that a tap key lies under, R or L; None where that is not known."""
    return _SIDES.get((key or "").lower())


def named_strokes(keys: Sequence[str | None], strokes: Sequence[str | None]) -> dict[str, str]:
    """Return which stroke each key stands for by its name: its letter, or the hand it lies under; all, or none."""
    hands = {stroke for stroke in strokes if stroke}
    named = {key: key if key in hands else _SIDES.get(key.lower(), "") for key in keys if key}
    return named if all(hand in hands for hand in named.values()) and len(set(named.values())) > 1 else {}


def learnt_strokes(
    keys: Sequence[str | None], strokes: Sequence[str | None], pairs: Sequence[tuple[int, int]]
) -> dict[str, str]:
    """Return which stroke each key stands for as it was struck; empty where keys and hands agree too seldom.

    Args:
        keys: Of each strike. strokes: Of each due note. pairs: (due, strike) of a first alignment.
    """
    counts: dict[str, Counter[str]] = defaultdict(Counter)
    for due, strike in pairs:
        key, stroke = keys[strike], strokes[due]
        if key and stroke:
            counts[key][stroke] += 1
    named = {key: own.most_common(1)[0][0] for key, own in counts.items()}
    agree = sum(own.most_common(1)[0][1] for own in counts.values())
    told = sum(own.total() for own in counts.values())
    return named if len(set(named.values())) > 1 and agree >= MEANT * told else {}
