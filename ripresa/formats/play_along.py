"""Play-along files: a performance rendered to sound, each onset exact to the sample."""

import io
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

import numpy as np
import soundfile

from ripresa.core.errors import OutOfRange
from ripresa.core.performance import Performance, Tick, Tone
from ripresa.formats.sounds import RATE, Samples, Timbre, Voice, click, note

SoundFormat = Literal["wav", "flac", "ogg", "mp3"]

#: Format → (what the writer calls it, type for the browser).
FORMATS: dict[SoundFormat, tuple[str, str]] = {
    "wav": ("WAV", "audio/wav"),
    "flac": ("FLAC", "audio/flac"),
    "ogg": ("OGG", "audio/ogg"),
    "mp3": ("MP3", "audio/mpeg"),
}
MOST_PASSES = 32
LONGEST_SECONDS = 20 * 60
_CLICK_GAIN, _NOTE_GAIN = 0.4, 0.28
_LOUD, _SOFT = 1.0, 0.55
#: How a note ends: it fades over 20 ms after 95 % of its length.
_HELD, _FADE = 0.95, 0.02
_PEAK = 0.97


@dataclass(frozen=True, slots=True)
class Levels:
    """What is heard: click and notes, each on or off, and how the click sounds."""

    click: bool = True
    notes: bool = True
    timbre: Timbre = "beep"


def render(performance: Performance, voice: Voice, passes: int, levels: Levels = Levels()) -> Samples:
    """Return count-in and passes as samples from −1 to 1, 44,100 a second.

    Raises:
        OutOfRange: Fewer than 1 or more than 32 passes, or more than 20 minutes.
    """
    if not 1 <= passes <= MOST_PASSES:
        raise OutOfRange(f"A file holds 1 to {MOST_PASSES} passes, not {passes}.", field="passes")
    lead, length = performance.lead.seconds, performance.loop_seconds * passes
    if lead + length > LONGEST_SECONDS:
        raise OutOfRange(
            f"{passes} passes last {(lead + length) / 60:.0f} minutes, and a file holds {LONGEST_SECONDS // 60}. "
            "Take fewer.",
            field="passes",
        )
    # A second at the end, for what still rings.
    sound = np.zeros(round((lead + length + 1) * RATE))
    if levels.click:
        for at, tick in _ticks(performance, length):
            loud = 0.75 if tick.level == "plain" else 1.0
            _add(sound, at, click(tick.level, levels.timbre) * (_CLICK_GAIN * loud))
    if levels.notes:
        for number in range(passes):
            for tone in performance.tones:
                _add_tone(sound, lead + number * performance.loop_seconds + tone.at, tone, voice)
    peak = float(np.abs(sound).max())
    return sound if peak <= _PEAK else sound * (_PEAK / peak)


def write_sound(sound: Samples, kind: SoundFormat) -> bytes:
    """Return samples as a file of a format."""
    target = io.BytesIO()
    soundfile.write(target, sound.astype(np.float32), RATE, format=FORMATS[kind][0])
    return target.getvalue()


def _ticks(performance: Performance, length: float) -> Iterator[tuple[float, Tick]]:
    lead = performance.lead.seconds
    yield from ((tick.at, tick) for tick in performance.lead.ticks)
    start = 0.0
    number = 0
    while start < length:
        for tick in performance.ticks:
            if start + tick.at < length - 1e-9:
                yield lead + start + tick.at, tick
        number += 1
        # From the number each time, so that no rounding adds up.
        start = number * performance.click_seconds


def _add_tone(sound: Samples, at: float, tone: Tone, voice: Voice) -> None:
    pitches = (tone.midi, *tone.also)
    gain = _NOTE_GAIN * (_LOUD if tone.accented else _SOFT) * len(pitches) ** -0.7
    held, fade = round(tone.seconds * _HELD * RATE), round(_FADE * RATE)
    for midi in pitches:
        made = note(voice, midi)[: held + fade].copy()
        if len(made) > held:
            made[held:] *= np.linspace(1, 0, len(made) - held)
        _add(sound, at, made * gain)


def _add(sound: Samples, at: float, made: Samples) -> None:
    start = round(at * RATE)
    end = min(len(sound), start + len(made))
    sound[start:end] += made[: end - start]
