"""What is said of takes and of recordings: figures, words, reasons, offers, onsets."""

import json
from collections.abc import Iterator, Sequence
from dataclasses import fields, replace
from hashlib import sha256
from itertools import product
from typing import Any

import numpy as np

from ripresa.core.drill import Drill
from ripresa.core.drill.accents import EveryNth, NoAccents
from ripresa.core.drill.click import DropOut
from ripresa.core.drill.hands import ByOrder
from ripresa.core.drill.material import OneNote, ScaleRun
from ripresa.core.drill.second import Contrary, SecondHand
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.listening import As, listen
from ripresa.core.pitch import Voice
from ripresa.core.reading import read
from ripresa.core.shelf import SHELF
from ripresa.core.takes import (
    STAND_INS,
    Due,
    Fault,
    HeardNote,
    Judged,
    Limits,
    StandIn,
    due_notes,
    judge,
    play,
    pooled_faults,
)
from ripresa.core.takes.from_file import judge_file
from ripresa.core.takes.sources import Source
from ripresa.formats.judged_json import judged_values
from ripresa.formats.sound_in import sound_of
from ripresa.formats.sounds import RATE, note
from tests.strategies import legs

PLAYED = {
    "fours": Drill(
        material=ScaleRun(octaves=2), legs=legs(4), hands=ByOrder(cycle=("R", "L")), accents=EveryNth(size=4)
    ),
    "two three four": Drill(material=ScaleRun(octaves=1), legs=legs(2, 3, 4)),
    "five six": Drill(material=OneNote(beats=8), legs=legs(5, 6), accents=NoAccents()),
    "silent bars": Drill(material=OneNote(beats=16), legs=legs(2), click=DropOut(1, 1)),
    "both hands": Drill(
        material=ScaleRun(octaves=1), legs=legs(3), second=SecondHand(Contrary(), legs(2)), instrument="piano"
    ),
}
FAULTY = {
    "early": StandIn(spread_ms=5, bias_ms=-60),
    "drags": StandIn(spread_ms=5, drift_percent=-3),
    "short of notes": StandIn(spread_ms=5, miss_percent=10),
    "too many notes": StandIn(spread_ms=5, extra_percent=10),
    "late after silence": StandIn(spread_ms=5, silence_ms=70),
    "hands apart": StandIn(spread_ms=5, apart_ms=-45),
    "left hand late": StandIn(spread_ms=5, apart_ms=45),
    "a habit": StandIn(spread_ms=5, habit_ms=45),
    "early at changes": StandIn(spread_ms=5, stumble_ms=-80),
}


UNSURE = {
    "ordinary": StandIn(spread_ms=12),
    "late, uneven": StandIn(spread_ms=25, bias_ms=50, landing_ms=40),
    "flat, stumbling": StandIn(spread_ms=8, accent_db=2, misplaced_percent=30, stumble_ms=60),
    "wrong, slipping": StandIn(spread_ms=8, wrong_percent=8, miss_percent=4, group_slips=2),
    "bends": StandIn(spread_ms=6, bend_bpm=4, crowd_percent=30),
}
SOURCES: tuple[tuple[Source, tuple[float, float] | None], ...] = (
    ("stand_in", (0.0, 0.002)),
    ("taps", None),
    ("midi", (0.01, 0.004)),
    ("microphone", (0.02, 0.008)),
)


def _sum(due: Due, judged: Judged) -> str:
    """Return the sum of every number of a take as it is printed: none of them goes astray."""
    told = json.dumps(judged_values(due, judged, Limits()), sort_keys=True)
    return f"#{sha256(told.encode()).hexdigest()[:8]}"


def takes() -> Iterator[str]:
    """Yield what is said of each player on some drills, and of some on the ready ones, from each source."""
    players = {**{name: player for name, (_, player) in STAND_INS.items()}, **FAULTY}
    pooled: list[Sequence[Fault]] = []
    for (drill_name, drill), (name, player) in product(PLAYED.items(), players.items()):
        reading = read(drill)
        due = due_notes(reading, F(84), 0.0, 4 * float(reading.loop_beats * 60 / 84))
        judged = judge(due, play(replace(player, seed=7), due).notes, Limits(), "stand_in", (0.0, 0.002))
        found = judged.verdict
        yield f"{drill_name}, {name}: {found.mark}. {' '.join(found.reasons)} {_sum(due, judged)}"
        yield from (f"  offers: {offer.label}" for offer in found.offers)
        pooled.append(found.faults)
    yield from (f"weak: {one.words}" for one in pooled_faults(pooled))
    for number, (one, (name, player)) in enumerate(product(SHELF[::3], UNSURE.items())):
        reading = read(one.drill)
        seconds = float(reading.loop_beats * 60 / one.drill.bpm)
        due = due_notes(reading, one.drill.bpm, 0.0, max(12.0, 2 * seconds))
        source, latency = SOURCES[number % len(SOURCES)]
        judged = judge(due, play(replace(player, seed=number), due).notes, Limits(), source, latency)
        found = judged.verdict
        yield f"{one.key}, {name}, {source}: {found.mark}. {' '.join(found.reasons)} {_sum(due, judged)}"
        yield from (f"  offers: {offer.label}" for offer in found.offers)


def heard() -> Iterator[str]:
    """Yield where the notes of recordings whose truth is known begin, and what is wrong with some."""
    random = np.random.default_rng(5)
    voices: tuple[tuple[Voice, As], ...] = (("pluck", "plucked"), ("keys", "struck"))
    for voice, kind in voices:
        samples = np.zeros(4 * RATE)
        for number in range(10):
            fade = np.linspace(0.3 if number % 3 else 0.6, 0, round(0.28 * RATE))
            tone = note(voice, 57 + number)[: len(fade)] * fade
            first = round((0.5 + 0.3 * number) * RATE)
            samples[first : first + len(tone)] += tone
        for room, sound in (("clean", samples), ("noisy", samples + 0.004 * random.normal(0, 1, len(samples)))):
            found = listen(sound_of(0.5 * sound, RATE), kind, 0.3)
            told = " ".join(f"{one.at:.4f}/{one.level:.1f}" for one in found.onsets)
            good = found.quality
            levels = f"{good.peak_db:.1f} {good.level_db:.1f} {good.noise_db:.1f} dB, {good.seconds:.2f} s"
            yield f"{voice}, {room}: {told}; {levels} {' '.join(good.sentences)}"
    time = np.arange(3 * RATE) / RATE
    for name, wrong in (
        ("silent", np.zeros(len(time))),
        ("soft", 0.001 * np.sin(2 * np.pi * 220 * time)),
        ("humming", 0.2 * np.sin(2 * np.pi * 50 * time)),
        ("clipped", np.clip(3 * np.sin(2 * np.pi * 220 * time), -1, 1)),
    ):
        yield f"{name}: {' '.join(listen(sound_of(wrong, RATE), 'plucked').quality.sentences)}"


#: Notes of a take that are told one by one.
MOST_NOTES = 12


def _shown(value: Any) -> Any:
    """Return a value whose numbers have two decimals, and whose lists are not longer than a line."""
    match value:
        case float():
            return round(value, 2) + 0.0
        case list() | tuple():
            return [_shown(one) for one in value[:MOST_NOTES]]
        case dict():
            return {name: _shown(one) for name, one in value.items()}
        case _:
            return value


def judged() -> Iterator[str]:
    """Yield every number of some takes as ``ripresa judge`` prints it."""
    players = {name: player for name, (_, player) in STAND_INS.items()} | FAULTY
    taken = [*product(("fours", "both hands"), players.items()), *product(("two three four",), FAULTY.items())]
    for number, (drill, (name, player)) in enumerate(taken):
        reading, limits = read(PLAYED[drill]), Limits()
        due = due_notes(reading, F(96), 0.0, (2 + number % 3) * float(reading.loop_beats * 60 / 96))
        found = judge(due, play(replace(player, seed=3), due).notes, limits, "stand_in", (0.001, 0.002))
        for key, value in judged_values(due, found, limits).items():
            if key in {"matched", "missed"}:
                continue
            told = value.items() if key == "figures" and value else [("", value)]
            yield from (f"{drill}, {name}, {key} {part}: {json.dumps(_shown(one))}" for part, one in told if one)


def from_files() -> Iterator[str]:
    """Yield where takes of files are found, and what is said of them: of players who begin, miss and go as they do."""
    players = {
        "ordinary": UNSURE["ordinary"],
        "wrong, slipping": UNSURE["wrong, slipping"],
        "faster": StandIn(spread_ms=8, drift_percent=10),
        "begins later": StandIn(spread_ms=8, bias_ms=300, miss_percent=10),
    }
    for number, ((drill, reading), (name, player)) in enumerate(
        product(((name, read(PLAYED[name])) for name in ("two three four", "five six", "both hands")), players.items())
    ):
        due = due_notes(reading, F(96), 0.0, (1 + number % 3) * float(reading.loop_beats * 60 / 96))
        first = 0.3 + 0.7 * (number % 5)
        notes = play(replace(player, seed=number), due).notes[number % 4 :]
        moved = [HeardNote(first / 2, pitch=36), *(replace(one, at=one.at + first, until=None) for one in notes)]
        try:
            found = judge_file(reading, F(96), moved, Limits(), "midi")
        except OutOfRange as error:
            yield f"{drill}, {name}: {error.message}"
            continue
        word = found.judged.verdict
        where = f"{found.begun.at - first:.3f} to {found.begun.end:.2f}"
        yield f"{drill}, {name}: {where}. {word.mark}. {word.reasons[0]} {_sum(found.due, found.judged)}"


def refused() -> Iterator[str]:
    """Yield what is said to whoever asks a player for too much or too little."""
    for one in fields(StandIn):
        for value in (-10_000, 10_000):
            try:
                StandIn(**{one.name: value})
            except OutOfRange as error:
                yield f"{one.name} = {value}: {error.message}"
