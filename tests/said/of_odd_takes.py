"""What is said of takes as no stand-in plays them: cut off, doubled, swung, moved by a beat, out of another drill.

Each is made of a drill of the corpus and of two things that happen to a player, by one seed; its line bears the sum of
every number that is told of it.
"""

import json
from collections.abc import Callable, Iterator
from hashlib import sha256

import numpy as np
from numpy.random import Generator
from numpy.typing import NDArray

from ripresa.core.errors import RipresaError
from ripresa.core.reading import read
from ripresa.core.takes import Due, Figures, HeardNote, Limits, due_notes, judge
from ripresa.core.takes.sources import Source
from ripresa.formats.judged_json import judged_values
from tests.strategies import MAKERS, kept_drills

Moments = NDArray[np.float64]
Happening = Callable[[Moments, float, Generator], Moments]

#: How many takes there are, and how many notes of a drill are due at most.
TAKES, MOST_DUE = 240, 100
SOURCES: tuple[Source, ...] = ("midi", "taps", "microphone", "stand_in")


def _cut(at: Moments, _gap: float, random: Generator) -> Moments:
    return at[: int(random.integers(0, 1 + min(len(at), 60)))]


def _begins_inside(at: Moments, _gap: float, random: Generator) -> Moments:
    return at[int(random.integers(0, max(1, len(at) // 2))) :]


def _hole(at: Moments, _gap: float, random: Generator) -> Moments:
    first, size = random.integers(0, max(1, len(at) - 2)), random.integers(1, 14)
    return np.delete(at, slice(first, first + size))


def _crowd(at: Moments, gap: float, random: Generator) -> Moments:
    middle = random.choice(at) if len(at) else 1.0
    return np.concatenate([at, middle + gap * random.uniform(-1, 1, random.integers(1, 9))])


def _moved(at: Moments, gap: float, random: Generator) -> Moments:
    moved = at.copy()
    moved[random.integers(0, max(1, len(at))) :] += gap * random.choice([-1, -0.5, 0.5, 1, 2, 4])
    return moved


def _other_tempo(at: Moments, _gap: float, random: Generator) -> Moments:
    return np.asarray(at * random.choice([0.5, 0.8, 0.94, 0.985, 1.015, 1.05, 1.2, 2]))


def _swung(at: Moments, gap: float, random: Generator) -> Moments:
    moved = at.copy()
    moved[1::2] += gap * random.uniform(-0.4, 0.4)
    return moved


def _one_in_some(at: Moments, gap: float, random: Generator) -> Moments:
    moved, every = at.copy(), int(random.integers(2, 9))
    moved[random.integers(0, every) :: every] += gap * random.uniform(-0.6, 0.6)
    return moved


def _thinned(at: Moments, _gap: float, random: Generator) -> Moments:
    return np.asarray(at[random.uniform(0, 1, len(at)) > random.choice([0.02, 0.1, 0.3, 0.6])])


def _other_division(at: Moments, gap: float, random: Generator) -> Moments:
    end = at[-1] if len(at) else 4.0
    return np.asarray(np.arange(0.0, end + gap, gap * random.choice([1 / 2, 2 / 3, 3 / 4, 4 / 3, 3 / 2, 2])))


def _late(at: Moments, gap: float, random: Generator) -> Moments:
    return np.asarray(at + gap * random.uniform(-1.2, 1.2))


def _beside(at: Moments, gap: float, random: Generator) -> Moments:
    end = at[-1] if len(at) else 4.0
    return np.concatenate([-gap * random.uniform(0, 3, 2), at, end + gap * random.uniform(0, 3, 2)])


def _same(at: Moments, _gap: float, _random: Generator) -> Moments:
    return at


HAPPENINGS: dict[str, Happening] = {
    one.__name__.strip("_").replace("_", " "): one
    for one in (
        *(_cut, _begins_inside, _hole, _crowd, _moved, _other_tempo, _swung),
        *(_one_in_some, _thinned, _other_division, _late, _beside, _same),
    )
}


def _notes(due: Due, at: Moments, source: Source, random: Generator) -> list[HeardNote]:
    """Return strikes with the pitch and the level of the note that is nearest, some wrong, some of no level."""
    notes = []
    for one in sorted(at.tolist()):
        near = int(np.abs(due.at - one).argmin())
        pitches = due.tones[near] if source == "midi" else ()
        pitch = min(pitches, default=None)
        if pitch is not None and random.uniform() < 0.04:
            pitch = min(127, pitch + 1)
        loud = (96.0 if due.events[near].accent == "accent" else 70.0) + random.normal(0, 9)
        level = {"taps": None, "midi": min(127.0, max(1.0, loud)), "stand_in": loud}.get(source, loud / 4 - 40)
        key = str(random.choice(["f", "j"])) if source == "taps" else None
        notes.append(HeardNote(one, key=key, pitch=pitch, level=level, until=one + 0.2 if source == "midi" else None))
    return notes


def odd(seed: int = 28) -> Iterator[str]:
    """Yield what is said of each odd take, with the sum of its numbers."""
    random = np.random.default_rng(seed)
    drills = [one for kind in MAKERS for one in kept_drills(kind)]
    names = list(HAPPENINGS)
    earlier: list[Figures] = []
    for number in range(TAKES):
        drill = drills[random.integers(0, len(drills))]
        first, second = (names[index] for index in random.integers(0, len(names), 2))
        source = SOURCES[number % len(SOURCES)]
        told = f"{number}, {first}, {second}, {source}"
        try:
            reading = read(drill)
            seconds = float(reading.loop_beats * 60 / drill.bpm) / max(1, sum(len(row) for row in reading.hands))
            due = due_notes(reading, drill.bpm, 0.0, seconds * random.integers(18, MOST_DUE))
            if not len(due):
                continue
            gap = float(np.median(due.even_gap))
            at = due.at + random.normal(0, gap * random.choice([0.01, 0.03, 0.1]), len(due))
            for name in (first, second):
                at = HAPPENINGS[name](at, gap, random)
            notes = _notes(due, at, source, random)
            latency = (0.012, 0.004) if number % 2 else None
            hidden = list(due.at[3::7]) if source == "microphone" else []
            found = judge(due, notes, Limits(), source, latency, earlier[-2:], hidden)
        except RipresaError as error:
            yield f"{told}: {error}"
            continue
        earlier.append(found.figures) if found.figures else earlier.clear()
        values = json.dumps(judged_values(due, found, Limits()), sort_keys=True)
        word = found.verdict
        yield f"{told}: {word.mark} {word.refused} {word.reasons[0]} #{sha256(values.encode()).hexdigest()[:8]}"
