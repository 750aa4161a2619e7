"""Play-along files: performances rendered to sound one after the other, each onset exact to the sample."""

import io
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from fractions import Fraction
from pathlib import Path
from typing import Literal

import numpy as np
import soundfile

from ripresa.core.drill import Drill
from ripresa.core.drill.click import Click
from ripresa.core.errors import OutOfRange
from ripresa.core.pitch import instrument_named
from ripresa.core.playing import (
    COUNT_A_BAR,
    SILENT,
    BackTone,
    Before,
    Part,
    Performance,
    Pulse,
    Said,
    Spoken,
    Tone,
    lead_of,
    perform,
)
from ripresa.core.reading import read, with_click
from ripresa.core.rhythm import check_bpm, span_seconds
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
    _check_count(len(performances), passes)
    _check_seconds([one.lead.seconds + one.loop_seconds * passes for one in performances])


def _check_count(rungs: int, passes: int) -> None:
    if not 1 <= passes <= MOST_PASSES:
        raise OutOfRange(f"A file holds 1 to {MOST_PASSES} passes, not {passes}.", field="passes")
    if not 1 <= rungs <= MOST_RUNGS:
        raise OutOfRange(f"A file holds 1 to {MOST_RUNGS} rungs, not {rungs}.", field="rungs")


def _check_seconds(parts: Sequence[float]) -> None:
    seconds = sum(part + _BETWEEN for part in parts)
    if seconds > LONGEST_SECONDS:
        raise OutOfRange(
            f"That lasts {seconds / 60:.0f} minutes, and a file holds {LONGEST_SECONDS // 60}. Take fewer "
            + ("passes." if len(parts) == 1 else "rungs or passes."),
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
    # A second at a time: given many at once, the writer of Ogg ends the process (seen from 48 s on).
    with soundfile.SoundFile(target, "w", RATE, channels=1, format=FORMATS[kind][0]) as file:
        for start in range(0, len(sound), RATE):
            file.write(sound[start : start + RATE].astype(np.float32))
    return target.getvalue()


@dataclass(frozen=True, slots=True)
class PlayAlong:
    """A file that is asked for: a drill at one tempo after the other, and what is heard of it.

    Args:
        rungs: (bpm, click) of each; None is the drill’s own click.

    Raises:
        OutOfRange: As ``check_length``; or a tempo or a click that the drill cannot have.
    """

    drill: Drill
    rungs: tuple[tuple[Fraction, Click | None], ...]
    sound: SoundFormat = "mp3"
    passes: int = 2
    heard: Heard = Heard()
    before: Before = COUNT_A_BAR
    spoken: Spoken = SILENT
    pulse: Pulse | None = None
    back: tuple[Part, ...] = ()

    def check(self) -> None:
        """Refuse what cannot be made, without making it."""
        _check_count(len(self.rungs), self.passes)
        reading = read(self.drill)
        for other in {rung[1] for rung in self.rungs if rung[1]}:
            with_click(reading, other)
        _check_seconds(
            [
                lead_of(reading, check_bpm(bpm), self.before)[0].seconds
                + float(span_seconds(reading.loop_beats * self.passes, bpm))
                for bpm, _ in self.rungs
            ]
        )

    def performances(self) -> list[Performance]:
        """Return what is heard, rung by rung."""
        reading = read(self.drill)
        return [
            perform(
                with_click(reading, click) if click else reading,
                bpm,
                before=self.before,
                pulse=self.pulse,
                back=self.back,
                spoken=self.spoken,
            )
            for bpm, click in self.rungs
        ]


def make_file(asked: PlayAlong, target: Path, tell: Callable[[int], None]) -> None:
    """Write a play-along file; ``tell`` is called with how many rungs are done."""
    voice = instrument_named(asked.drill.instrument).voice
    sound = render_all(asked.performances(), voice, asked.passes, asked.heard, tell)
    target.write_bytes(write_sound(sound, asked.sound))


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
