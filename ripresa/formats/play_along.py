"""Play-along files: performances rendered to sound one after the other, each onset exact to the sample."""

import io
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
import soundfile

from ripresa.core.errors import OutOfRange
from ripresa.core.lead import Said
from ripresa.core.performance import BackTone, Performance, Tone
from ripresa.formats.recipes import RECIPES, Role, Timbre, Voice
from ripresa.formats.sounds import RATE, Samples, click, drum, note
from ripresa.formats.speaker import ANCHOR
from ripresa.formats.words import word_sound

SoundFormat = Literal["wav", "flac", "ogg", "mp3"]

#: Format → (what the writer calls it, type for the browser).
FORMATS: dict[SoundFormat, tuple[str, str]] = {
    "wav": ("WAV", "audio/wav"),
    "flac": ("FLAC", "audio/flac"),
    "ogg": ("OGG", "audio/ogg"),
    "mp3": ("MP3", "audio/mpeg"),
}
MOST_PASSES = 32
MOST_RUNGS = 40
LONGEST_SECONDS = 20 * 60
#: Silence between one rung and the next, for a breath; and at the end, for what still rings.
_BETWEEN, _RINGS = 3.0, 1.0
#: How a note ends: it fades over 20 ms after 95 % of its length.
_HELD, _FADE = 0.95, 0.02
_PEAK = 0.97
#: Seconds over which a file starts soft, and from which share of its loudness.
_SOFT_SECONDS, _SOFT_SHARE = 0.8, 0.35


@dataclass(frozen=True, slots=True)
class Heard:
    """What is heard: click and notes, each on or off, and how the click sounds; what else there is, is heard."""

    click: bool = True
    notes: bool = True
    timbre: Timbre = "beep"


def check_length(performances: Sequence[Performance], passes: int) -> None:
    """Refuse what is too much for one file.

    Raises:
        OutOfRange: Fewer than 1 or more than 32 passes, more than 40 rungs, or more than 20 minutes.
    """
    if not 1 <= passes <= MOST_PASSES:
        raise OutOfRange(f"A file holds 1 to {MOST_PASSES} passes, not {passes}.", field="passes")
    if not 1 <= len(performances) <= MOST_RUNGS:
        raise OutOfRange(f"A file holds 1 to {MOST_RUNGS} rungs, not {len(performances)}.", field="rungs")
    seconds = sum(one.lead.seconds + one.loop_seconds * passes + _BETWEEN for one in performances)
    if seconds > LONGEST_SECONDS:
        raise OutOfRange(
            f"That lasts {seconds / 60:.0f} minutes, and a file holds {LONGEST_SECONDS // 60}. Take fewer "
            + ("passes." if len(performances) == 1 else "rungs or passes."),
            field="passes",
        )


def render(performance: Performance, voice: Voice, passes: int, heard: Heard = Heard()) -> Samples:
    """Return count-in and passes as samples from −1 to 1, 44,100 a second.

    Raises:
        OutOfRange: Fewer than 1 or more than 32 passes, or more than 20 minutes.
    """
    return render_all([performance], voice, passes, heard)


def render_all(
    performances: Sequence[Performance],
    voice: Voice,
    passes: int,
    heard: Heard = Heard(),
    tell: Callable[[int], None] = lambda _done: None,
) -> Samples:
    """Return performances one after the other, each with its count-in, as samples from −1 to 1.

    Args:
        tell: Called with how many performances are done, after each.

    Raises:
        OutOfRange: As ``check_length``.
    """
    check_length(performances, passes)
    parts = []
    for done, performance in enumerate(performances, start=1):
        last = done == len(performances)
        parts.append(_part(performance, voice, passes, heard, _RINGS if last else _BETWEEN))
        tell(done)
    sound = np.concatenate(parts)
    peak = float(np.abs(sound).max())
    return sound if peak <= _PEAK else sound * (_PEAK / peak)


def write_sound(sound: Samples, kind: SoundFormat) -> bytes:
    """Return samples as a file of a format."""
    target = io.BytesIO()
    soundfile.write(target, sound.astype(np.float32), RATE, format=FORMATS[kind][0])
    return target.getvalue()


def _part(performance: Performance, voice: Voice, passes: int, heard: Heard, after: float) -> Samples:
    lead, length = performance.lead.seconds, performance.loop_seconds * passes
    levels = RECIPES.levels
    sound = np.zeros(round((lead + length + after) * RATE))
    if heard.click:
        for at, role, loud in _ticks(performance, length):
            softer = {"plain": levels.plain_click, "division": levels.division_click}
            gain = levels.click * loud * softer.get(role, 1.0)
            _add(sound, at, click(role, heard.timbre) * gain)
    for word in performance.lead.said:
        _add_word(sound, word.at, word)
    for number in range(passes):
        start = lead + number * performance.loop_seconds
        for word in performance.said:
            # Where the count-in is spoken up to a pickup, nothing else is said meanwhile.
            if not performance.lead.said or start + word.at >= performance.lead.until - 1e-9:
                _add_word(sound, start + word.at, word)
        for tone in performance.tones if heard.notes else ():
            _add_tone(sound, start + tone.at, tone, voice)
        for back in performance.backing:
            _add_backing(sound, start + back.at, back)
    soft = round(_SOFT_SECONDS * RATE)
    sound[:soft] *= np.linspace(_SOFT_SHARE, 1, soft)[: len(sound)]
    return sound


def _ticks(performance: Performance, length: float) -> Iterator[tuple[float, Role, float]]:
    """Yield (seconds, role, loudness) of each click and each beat of the inner pulse."""
    lead = performance.lead.seconds
    yield from ((tick.at, tick.level, 1.0) for tick in performance.lead.ticks)
    yield from ((lead + beat.at, "pulse", beat.loud) for beat in performance.pulse if beat.at < length - 1e-9)
    start = 0.0
    number = 0
    while start < length:
        for tick in performance.ticks:
            if start + tick.at < length - 1e-9:
                yield lead + start + tick.at, tick.level, 1.0
        number += 1
        # From the number each time, so that no rounding adds up.
        start = number * performance.click_seconds


def _add_tone(sound: Samples, at: float, tone: Tone, voice: Voice) -> None:
    levels = RECIPES.levels
    pitches = (tone.midi, *tone.also)
    gain = levels.notes * (levels.accented if tone.accented else levels.plain) * len(pitches) ** -levels.chord
    for midi in pitches:
        _add(sound, at, _held(note(voice, midi), tone.seconds) * gain)


def _add_backing(sound: Samples, at: float, back: BackTone) -> None:
    levels = RECIPES.levels
    if back.drum:
        _add(sound, at, drum(back.drum) * levels.backing)
    for midi in back.midis:
        gain = levels.backing * len(back.midis) ** -levels.chord
        _add(sound, at, _held(note("keys", midi), back.seconds) * gain)


def _add_word(sound: Samples, at: float, word: Said) -> None:
    """Add a word so that its vowel is in time; its consonant comes before."""
    made = _held(word_sound(word.word), ANCHOR + word.seconds) * RECIPES.levels.voice
    start = at - ANCHOR
    # A word at the very beginning loses what would come before the file does.
    _add(sound, max(start, 0.0), made[max(0, round(-start * RATE)) :])


def _held(made: Samples, seconds: float) -> Samples:
    """Return a sound that ends with its length."""
    held, fade = round(seconds * _HELD * RATE), round(_FADE * RATE)
    cut = made[: held + fade].copy()
    if len(cut) > held:
        cut[held:] *= np.linspace(1, 0, len(cut) - held)
    return cut


def _add(sound: Samples, at: float, made: Samples) -> None:
    start = round(at * RATE)
    end = min(len(sound), start + len(made))
    sound[start:end] += made[: end - start]
