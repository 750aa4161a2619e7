"""How true listening is, on instruments that are not ours: ``make truth`` prints the table of decisions/0020.

A synthesiser plays known onsets with a small and a large font of instruments, dry and in a room that rings and hisses.
The first six instruments are those that listening was tuned on, with other parts; nothing was tuned on the rest.
"""

import argparse
from collections.abc import Sequence
from pathlib import Path

import numpy as np
from numpy.typing import NDArray

from ripresa.core.listening import PROFILES, As, Sound, listen
from ripresa.core.listening.attack import attacks_of
from ripresa.formats.sound_in import sound_of
from tools.band import (
    INSTRUMENTS,
    LARGE_FONT,
    OTHERS,
    RATE,
    SMALL_FONT,
    Note,
    has_band,
    in_room,
    let_go,
    part,
    recorded,
    struck_at,
)

Floats = NDArray[np.float64]

HELD: dict[As, float] = {"plucked": 1.1, "struck": 0.9, "tongued": 0.72}
GAPS: dict[As, tuple[float, ...]] = {
    "plucked": (0.3, 0.2, 0.13),
    "struck": (0.3, 0.2, 0.13),
    "tongued": (0.3, 0.22, 0.18),
}
#: Seconds from note to note, and over how many of them each rings.
RINGING = ((0.14, 0.85), (0.2, 2.0), (0.25, 1.1), (0.25, 3.0))


def met(due: Floats, heard: Floats, reach: float = 0.05) -> tuple[float, float, float]:
    """Return F1, the median lateness and the scatter of onsets beside the due ones, in ms, matched in order."""
    late, offsets = 0.0, np.zeros(0)
    for _ in range(2):
        one, other = 0, 0
        found: list[float] = []
        while one < len(due) and other < len(heard):
            away = float(heard[other] - late - due[one])
            if abs(away) <= reach:
                found.append(float(heard[other] - due[one]))
                one, other = one + 1, other + 1
            elif away < 0:
                other += 1
            else:
                one += 1
        offsets = np.array(found)
        late = float(np.median(offsets)) if found else 0.0
    scatter = float(offsets.std()) if len(offsets) else 0.0
    return 2 * len(offsets) / max(1, len(due) + len(heard)), 1000 * late, 1000 * scatter


def quiet(samples: NDArray[np.float32], peak: float = 0.4) -> Sound:
    """Return a recording at a usual level."""
    return sound_of(samples.astype(np.float64) * (peak / float(np.abs(samples).max())), RATE)


def heard(instrument: tuple[int, int, int, As], seed: int, gap: float, font: Path, *, room: bool) -> Sequence[float]:
    """Return F1, lateness and scatter of one part."""
    program, lowest, highest, kind = instrument
    notes = part(seed, lowest, highest, gap=gap, held=HELD[kind])
    samples = recorded(notes, program, font)
    due = struck_at(notes, program, font)
    sound = quiet(in_room(samples, seed) if room else samples)
    found = listen(sound, kind, float(np.diff(due).min()))
    return met(due, np.array([onset.at for onset in found.onsets]))


def accents(instrument: tuple[int, int, int, As], gap: float, held: float, count: int = 48) -> tuple[float, float]:
    """Return how far every fourth note of a scale stands over the others, in dB: each alone, and as it is heard.

    Args:
        gap: From note to note, in seconds. held: For so many of them each note rings.
    """
    program, lowest, _, kind = instrument
    steps = (0, 2, 4, 5, 7, 9, 11, 12, 11, 9, 7, 5, 4, 2)
    notes = [
        Note(0.5 + gap * one, lowest + 19 + steps[one % len(steps)], 74 if one % 4 else 100, held * gap)
        for one in range(count)
    ]
    each = sorted({(one.midi, one.velocity) for one in notes})
    apart = [Note(0.5 + 1.5 * number, midi, velocity, 0.4) for number, (midi, velocity) in enumerate(each)]
    alone = dict(zip(each, levels(apart, program, kind), strict=True))
    found = levels(let_go(notes), program, kind)
    return _over([alone[one.midi, one.velocity] for one in notes]), _over(found)


def levels(notes: Sequence[Note], program: int, kind: As) -> list[float]:
    """Return how loud each note is heard, in dB, where it is known when it begins."""
    sound = sound_of(0.2 * recorded(notes, program).astype(np.float64), RATE)
    return [level for _, level in attacks_of(sound, struck_at(notes, program), PROFILES[kind])]


def _over(found: Sequence[float]) -> float:
    loud = [level for number, level in enumerate(found) if number % 4 == 0]
    plain = [level for number, level in enumerate(found) if number % 4]
    return float(np.mean(loud) - np.mean(plain))


def main() -> None:
    asked = argparse.ArgumentParser(description=__doc__)
    asked.add_argument("--parts", type=int, default=9, help="parts a row")
    count = asked.parse_args().parts
    for font in (SMALL_FONT, LARGE_FONT):
        if not has_band(font):
            print(f"\n{font.name} is not there: tools/need.sh large-band")
            continue
        print(f"\nOnsets of {count} parts of 60 notes, {font.name}: F1, late, scatter in ms; dry, then in a room")
        for name, instrument in {**INSTRUMENTS, **OTHERS}.items():
            told = []
            for room in (False, True):
                gaps = GAPS[instrument[3]]
                rows = [
                    heard(instrument, 200 + number, gaps[number % len(gaps)], font, room=room)
                    for number in range(count)
                ]
                f1, late, scatter = (float(np.mean([row[place] for row in rows])) for place in range(3))
                told.append(f"{f1:.3f} {late:>6.1f} {scatter:>5.1f}")
            print(
                f"{name:>16} {instrument[3]:>8}   {told[0]}   {told[1]}",
                "" if name in INSTRUMENTS else "  not tuned on",
            )
    if has_band():
        print("\nAccents over plain notes, in dB: each note alone; then short, and rung on over the notes that follow")
        for name, instrument in {**INSTRUMENTS, **OTHERS}.items():
            over = [accents(instrument, gap, held) for gap, held in RINGING]
            print(f"{name:>16}   {over[0][0]:.1f}  ", "  ".join(f"{level:.1f}" for _, level in over))


if __name__ == "__main__":
    main()
