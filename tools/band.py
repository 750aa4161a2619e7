"""A band that is not ours: a synthesiser of instruments plays known onsets into recordings, in clean and noisy rooms.

For tests of listening only. Nothing of what it plays was made by Ripresa's own synthesis, so that what is heard in it
proves more than that a maker knows his own work.
"""

import shutil
import subprocess
import tempfile
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path

import mido
import numpy as np
import soundfile
from numpy.typing import NDArray

from ripresa.core.listening import As

RATE = 44_100
SMALL_FONT = Path("/usr/share/sounds/sf2/TimGM6mb.sf2")
LARGE_FONT = Path("/usr/share/sounds/sf2/FluidR3_GM.sf2")
#: Name → program, lowest and highest pitch, how it is listened to.
INSTRUMENTS: dict[str, tuple[int, int, int, As]] = {
    "nylon guitar": (24, 40, 76, "plucked"),
    "steel guitar": (25, 40, 76, "plucked"),
    "piano": (0, 45, 84, "struck"),
    "clarinet": (71, 52, 82, "tongued"),
    "flute": (73, 60, 88, "tongued"),
    "alto sax": (65, 50, 78, "tongued"),
}
#: Those that nothing was tuned on.
OTHERS: dict[str, tuple[int, int, int, As]] = {
    "jazz guitar": (26, 40, 76, "plucked"),
    "harpsichord": (6, 45, 84, "struck"),
    "electric piano": (4, 45, 84, "struck"),
    "trumpet": (56, 54, 80, "tongued"),
    "oboe": (68, 60, 86, "tongued"),
    "recorder": (74, 66, 90, "tongued"),
}
_TICKS = 10_000
_BEFORE = 0.5


@dataclass(frozen=True, slots=True)
class Note:
    """A note that is played: when in seconds, its pitch, velocity, and how long it is held."""

    at: float
    midi: int
    velocity: int
    seconds: float


@dataclass(frozen=True)
class Recorded:
    """A recording and what is known of it: when notes were struck, and when a click leaked into it, in seconds."""

    samples: NDArray[np.float32]
    onsets: NDArray[np.float64]
    clicks: tuple[float, ...] = ()


def has_band(font: Path = SMALL_FONT) -> bool:
    """Return whether the synthesiser is there."""
    return shutil.which("fluidsynth") is not None and font.exists()


def part(
    seed: int,
    lowest: int,
    highest: int,
    *,
    gap: float = 0.2,
    count: int = 60,
    held: float = 0.85,
    wavers: float = 6.0,
) -> list[Note]:
    """Return a part: scales, leaps and repeated notes with accents, a little uneven, in phrases of one speed each.

    Args:
        held: For which part of its gap a note sounds. wavers: One deviation of velocities around 100 and 72.
    """
    random = np.random.default_rng(seed)
    notes, at, midi = [], _BEFORE, int(random.integers(lowest, highest + 1))
    speed = gap
    for number in range(count):
        if number % 16 == 0:
            speed = float(gap * random.choice([1.0, 1.0, 0.75, 1.5]))
        step = int(random.choice([0, 1, 2, 2, -1, -2, -2, 5, -5]))
        midi = midi + step if lowest <= midi + step <= highest else midi - step
        velocity = int(np.clip(random.normal(100 if number % 4 == 0 else 72, wavers), 30, 127))
        notes.append(Note(at, midi, velocity, held * speed))
        at += speed + float(random.normal(0, 0.006))
    return let_go(notes)


def let_go(notes: Sequence[Note]) -> list[Note]:
    """Return notes of which each has ended before its pitch is struck again."""
    again: dict[int, float] = {}
    found = []
    for note in reversed(notes):
        ends = min(note.at + note.seconds, again.get(note.midi, np.inf) - 0.01)
        again[note.midi] = note.at
        found.append(Note(note.at, note.midi, note.velocity, ends - note.at))
    return found[::-1]


def strums(seed: int, *, gap: float = 0.3, count: int = 40, spread: float = 0.024) -> list[Note]:
    """Return strummed chords of four to six strings, down and up; an onset is that of the first string."""
    random = np.random.default_rng(seed)
    chord = [40, 47, 52, 56, 59, 64]
    notes, at = [], _BEFORE
    for number in range(count):
        strings = chord[int(random.integers(0, 3)) :]
        order = strings if number % 2 == 0 else strings[::-1]
        velocity = 100 if number % 4 == 0 else 76
        for place, midi in enumerate(order):
            late = spread * place / (len(order) - 1)
            notes.append(Note(at + late, midi, velocity - 2 * place, gap * 0.9))
        at += gap + float(random.normal(0, 0.005))
    return let_go(notes)


def recorded(notes: Sequence[Note], program: int, font: Path = SMALL_FONT) -> NDArray[np.float32]:
    """Return what the synthesiser makes of notes: mono, at 44,100 samples a second, dry."""
    return _rendered(tuple(notes), program, font).copy()


@lru_cache(maxsize=64)
def _rendered(notes: tuple[Note, ...], program: int, font: Path) -> NDArray[np.float32]:
    track = mido.MidiTrack(
        [mido.MetaMessage("set_tempo", tempo=1_000_000), mido.Message("program_change", program=program)]
    )
    moments = [(note.at, 1, note) for note in notes] + [(note.at + note.seconds, 0, note) for note in notes]
    before = 0
    for at, sounds, note in sorted(moments, key=lambda one: (one[0], one[1])):
        tick = round(at * _TICKS)
        kind = "note_on" if sounds else "note_off"
        track.append(mido.Message(kind, note=note.midi, velocity=note.velocity if sounds else 0, time=tick - before))
        before = tick
    track.append(mido.MetaMessage("end_of_track", time=_TICKS))
    with tempfile.TemporaryDirectory() as folder:
        score, sound = Path(folder) / "part.mid", Path(folder) / "part.wav"
        mido.MidiFile(type=1, ticks_per_beat=_TICKS, tracks=[track]).save(score)
        dry = ["-o", "synth.reverb.active=0", "-o", "synth.chorus.active=0", "-g", "0.6"]
        command = ["fluidsynth", "-ni", *dry, "-r", str(RATE), "-O", "float", "-F", str(sound), str(font), str(score)]
        subprocess.run(command, check=True, capture_output=True, timeout=120)
        found, _ = soundfile.read(sound, dtype="float32", always_2d=True)
    return np.asarray(found.mean(axis=1), dtype=np.float32)


def in_room(dry: NDArray[np.float32], seed: int, *, noise_db: float = -52, wet: float = 0.25) -> NDArray[np.float32]:
    """Return a recording in a room that rings for 0.4 s, with noise so far below the loudest."""
    random = np.random.default_rng(seed)
    time = np.arange(int(0.4 * RATE)) / RATE
    tail = random.normal(0, 1, len(time)) * np.exp(-6.9 * time / 0.4)
    tail[: int(0.004 * RATE)] = 0
    tail *= wet / np.sqrt((tail**2).sum())
    tail[0] = 1.0
    size = 1 << (len(dry) + len(tail)).bit_length()
    sound = np.fft.irfft(np.fft.rfft(dry, size) * np.fft.rfft(tail, size), size)[: len(dry)]
    noise = _pink(len(dry), random) * 10 ** (noise_db / 20) * np.abs(sound).max()
    return np.asarray(sound + noise, dtype=np.float32)


def with_clicks(
    sound: NDArray[np.float32], click: NDArray[np.float64], at: Sequence[float], loud: float
) -> NDArray[np.float32]:
    """Return a recording into which a click leaks, so loud beside its loudest."""
    found = sound.astype(np.float64)
    scale = loud * float(np.abs(sound).max()) / float(np.abs(click).max())
    for moment in at:
        first = round(moment * RATE)
        room = max(0, min(len(click), len(found) - first))
        found[first : first + room] += scale * click[:room]
    return np.asarray(found, dtype=np.float32)


def _pink(count: int, random: np.random.Generator) -> NDArray[np.float64]:
    spectrum = np.fft.rfft(random.normal(0, 1, count))
    spectrum[1:] /= np.sqrt(np.arange(1, len(spectrum)))
    spectrum[0] = 0
    found = np.fft.irfft(spectrum, count)
    return np.asarray(found / np.abs(found).max())


def struck_at(notes: Sequence[Note], program: int, font: Path = SMALL_FONT, within: float = 0.0) -> NDArray[np.float64]:
    """Return when strokes begin to sound, in seconds: notes within so many seconds of the first of them are one.

    A sound font’s samples have a silence of their own before them, 2 to 15 ms by pitch: a note begins where it reaches
    a tenth of its peak when it is played alone.
    """
    found: list[float] = []
    begun: list[float] = []
    for note in sorted(notes, key=lambda one: one.at):
        if not begun or note.at - begun[-1] > within:
            begun.append(note.at)
            found.append(note.at + _begins(program, note.midi, font))
    return np.array(found)


@lru_cache(maxsize=512)
def _begins(program: int, midi: int, font: Path) -> float:
    alone = np.abs(_rendered((Note(_BEFORE, midi, 90, 0.5),), program, font))
    first = round(_BEFORE * RATE)
    struck = alone[first : first + round(0.2 * RATE)]
    return float(np.argmax(struck >= 0.1 * struck.max())) / RATE
