"""Play-along files: scores rendered to sound one after the other, each onset exact to the sample."""

import io
import zipfile
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
from ripresa.core.exact import label, plural
from ripresa.core.pitch import instrument_named
from ripresa.core.playing import (
    COUNT_A_BAR,
    SILENT,
    Accompaniment,
    Before,
    Pulse,
    Score,
    Sounding,
    Spoken,
    lead_of,
    score,
    soundings,
)
from ripresa.core.reading import read, with_click
from ripresa.core.rhythm import check_bpm, span_seconds
from ripresa.formats.id3 import id3
from ripresa.formats.recipes import RECIPES, Timbre, Voice
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


@dataclass(frozen=True, slots=True)
class Rung:
    """A score and its tempo: what sounds until the next rung begins."""

    score: Score
    bpm: Fraction

    def seconds(self, beats: Fraction) -> float:
        """Return how long so many beats last."""
        return float(span_seconds(beats, self.bpm))

    def lasts(self, passes: int) -> float:
        """Return how many seconds its lead and so many passes last."""
        return self.seconds(self.score.lead.beats + passes * self.score.beats)


def check_length(rungs: Sequence[Rung], passes: int) -> None:
    """Refuse what is too much for one file.

    Raises:
        OutOfRange: Fewer than 1 or more than 32 passes, more than 40 rungs, or more than 20 minutes.
    """
    _check_count(len(rungs), passes)
    _check_seconds([rung.lasts(passes) for rung in rungs])


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


def render(rung: Rung, voice: Voice, passes: int, heard: Heard = Heard()) -> Samples:
    """Return count-in and passes as samples from −1 to 1, 44,100 a second.

    Raises:
        OutOfRange: Fewer than 1 or more than 32 passes, or more than 20 minutes.
    """
    return render_all([rung], voice, passes, heard)


def render_all(
    rungs: Sequence[Rung],
    voice: Voice,
    passes: int,
    heard: Heard = Heard(),
    tell: Callable[[int], None] = lambda _done: None,
) -> Samples:
    """Return rungs one after the other, each with its count-in, as samples from −1 to 1.

    Args:
        tell: Called with how many rungs are done, after each.

    Raises:
        OutOfRange: As ``check_length``.
    """
    check_length(rungs, passes)
    parts = []
    for done, rung in enumerate(rungs, start=1):
        last = done == len(rungs)
        parts.append(_part(rung, voice, passes, heard, _RINGS if last else _BETWEEN))
        tell(done)
    sound = np.concatenate(parts)
    peak = float(np.abs(sound).max())
    return sound if peak <= _PEAK else sound * (_PEAK / peak)


@dataclass(frozen=True, slots=True)
class Tags:
    """What a player shows of a file: its title, whom it is from, which of a set it is, what it holds."""

    title: str = ""
    artist: str = ""
    track: int | None = None
    comment: str = ""

    @property
    def named(self) -> dict[str, str]:
        """Each by the name that the writer of the other formats has for it."""
        track = str(self.track or "")
        return {"title": self.title, "artist": self.artist, "comment": self.comment, "tracknumber": track}


def write_sound(sound: Samples, kind: SoundFormat, tags: Tags = Tags()) -> bytes:
    """Return samples as a file of a format."""
    target = io.BytesIO()
    # A second at a time: given many at once, the writer of Ogg ends the process (seen from 48 s on).
    with soundfile.SoundFile(target, "w", RATE, channels=1, format=FORMATS[kind][0]) as file:
        for name, said in (tags.named if kind != "mp3" else {}).items():
            # An empty tag is refused by the writer.
            if said:
                setattr(file, name, said)
        for start in range(0, len(sound), RATE):
            file.write(sound[start : start + RATE].astype(np.float32))
    own = id3(tags.title, tags.artist, str(tags.track or ""), tags.comment) if kind == "mp3" else b""
    return own + target.getvalue()


@dataclass(frozen=True, slots=True)
class PlayAlong:
    """A file that is asked for: a drill at one tempo after the other, and what is heard of it.

    Args:
        rungs: (bpm, click) of each; None is the drill’s own click.
        is_set: Whether each rung is a file of its own, numbered, in an archive with a list.
        artist: Whom the files are said to be from.

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
    back: tuple[Accompaniment, ...] = ()
    is_set: bool = False
    artist: str = ""

    def check(self) -> None:
        """Refuse what cannot be made, without making it."""
        _check_count(len(self.rungs), self.passes)
        reading = read(self.drill)
        for other in {rung[1] for rung in self.rungs if rung[1]}:
            with_click(reading, other)
        _check_seconds(
            [
                float(
                    span_seconds(
                        lead_of(reading, check_bpm(bpm), self.before)[0].beats + reading.loop_beats * self.passes, bpm
                    )
                )
                for bpm, _ in self.rungs
            ]
        )

    def made(self) -> list[Rung]:
        """Return what is heard, rung by rung."""
        reading = read(self.drill)
        return [
            Rung(
                score(
                    with_click(reading, click) if click else reading,
                    bpm,
                    before=self.before,
                    pulse=self.pulse,
                    back=self.back,
                    spoken=self.spoken,
                ),
                bpm,
            )
            for bpm, click in self.rungs
        ]


def make_file(asked: PlayAlong, target: Path, tell: Callable[[int], None]) -> None:
    """Write a play-along file; ``tell`` is called with how many rungs are done."""
    voice = instrument_named(asked.drill.instrument).voice
    rungs = asked.made()
    title = asked.drill.title
    if asked.is_set:
        target.write_bytes(_set(asked, rungs, voice, tell))
        return
    tags = Tags(title, asked.artist, comment="; ".join(_contents(asked, rungs)))
    sound = render_all(rungs, voice, asked.passes, asked.heard, tell)
    target.write_bytes(write_sound(sound, asked.sound, tags))


def _set(asked: PlayAlong, rungs: Sequence[Rung], voice: Voice, tell: Callable[[int], None]) -> bytes:
    """Return an archive of a file a rung, numbered, and a text that says what each is."""
    packed = io.BytesIO()
    listed = [asked.drill.title, ""]
    with zipfile.ZipFile(packed, "w") as archive:
        for number, rung in enumerate(rungs, start=1):
            name = f"{number:02d}-{_ascii(label(rung.bpm))}-bpm.{asked.sound}"
            what = _told(asked, number - 1, rung)
            tags = Tags(f"{asked.drill.title}, {what}", asked.artist, number)
            archive.writestr(name, write_sound(render(rung, voice, asked.passes, asked.heard), asked.sound, tags))
            lasts = f"{plural(asked.passes, 'pass', 'passes')}, {_clock(rung.lasts(asked.passes))}"
            listed.append(f"{name}: {what}, {lasts}")
            tell(number)
        # After a mark of its encoding: titles are in every script, and some readers guess.
        archive.writestr("contents.txt", "\ufeff" + "\n".join(listed) + "\n")
    return packed.getvalue()


def _contents(asked: PlayAlong, rungs: Sequence[Rung]) -> Iterator[str]:
    """Yield where each rung begins in one file, and what it is."""
    at = 0.0
    for number, rung in enumerate(rungs):
        yield f"{_clock(at)} {_told(asked, number, rung)}"
        at += rung.lasts(asked.passes) + _BETWEEN


def _told(asked: PlayAlong, number: int, rung: Rung) -> str:
    click = asked.rungs[number][1] or asked.drill.click
    return f"{label(rung.bpm)} bpm, click {click.words}"


def _clock(seconds: float) -> str:
    minutes, rest = divmod(round(seconds), 60)
    return f"{minutes}:{rest:02d}"


def _ascii(text: str) -> str:
    """Return a tempo as it may stand in the name of a file on every device: ``74⅔`` is ``74``."""
    return "".join(sign for sign in text if sign in "0123456789.") or "0"


def _part(rung: Rung, voice: Voice, passes: int, heard: Heard, after: float) -> Samples:
    sound = np.zeros(round((rung.lasts(passes) + after) * RATE))
    for one in soundings(rung.score, passes):
        _add_sounding(sound, one, rung, voice, heard)
    soft = round(_SOFT_SECONDS * RATE)
    sound[:soft] *= np.linspace(_SOFT_SHARE, 1, soft)[: len(sound)]
    return sound


def _add_sounding(sound: Samples, one: Sounding, rung: Rung, voice: Voice, heard: Heard) -> None:
    at, levels = rung.seconds(one.at), RECIPES.levels
    if one.click and heard.click:
        softer = {"plain": levels.plain_click, "division": levels.division_click}
        gain = levels.click * one.loud * softer.get(one.click, 1.0)
        _add(sound, at, click(one.click, heard.timbre) * gain)
    if one.tone and heard.notes:
        pitches = one.tone.midis or (None,)
        gain = levels.notes * levels.of(one.tone.level) * float(one.tone.loud) * len(pitches) ** -levels.chord
        for number, pitch in enumerate(pitches):
            _add(
                sound,
                at + number * float(one.tone.apart),
                _held(note(voice, pitch), rung.seconds(one.tone.beats)) * gain,
            )
    if one.back and one.back.drum:
        _add(sound, at, drum(one.back.drum) * levels.backing)
    if one.back:
        gain = levels.backing * max(1, len(one.back.midis)) ** -levels.chord
        for midi in one.back.midis:
            _add(sound, at, _held(note("keys", midi), rung.seconds(one.back.beats)) * gain)
    if one.said:
        _add_word(sound, at, one.said.word, rung.seconds(one.said.beats))


def _add_word(sound: Samples, at: float, word: str, seconds: float) -> None:
    """Add a word so that its vowel is in time; its consonant comes before."""
    made = _held(word_sound(word), ANCHOR + seconds) * RECIPES.levels.voice
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
