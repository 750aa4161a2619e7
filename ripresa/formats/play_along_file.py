"""Play-along files as they are asked for and saved: one sound with a list of its rungs, or a numbered set."""

import io
import tempfile
import zipfile
from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import IO, Any, Literal

import numpy as np
import soundfile
from numpy.typing import NDArray

from ripresa.core.drill import Drill
from ripresa.core.drill.click import Click
from ripresa.core.exact import Fraction, label, plural
from ripresa.core.playing import COUNT_A_BAR, SILENT, Accompaniment, Before, Pulse, Spoken, lead_of, score
from ripresa.core.reading import read, with_click
from ripresa.core.rhythm import check_bpm, span_seconds
from ripresa.formats.id3 import id3
from ripresa.formats.play_along import BETWEEN, Heard, Rung, check_count, check_seconds, rendered, share_of
from ripresa.formats.recipes import Voice
from ripresa.formats.sounds import RATE, Samples

SoundFormat = Literal["wav", "flac", "ogg", "mp3"]


@dataclass(frozen=True, slots=True)
class SoundKind:
    """A format of sound: what menus and its writer call it, and its type for the browser."""

    name: str
    mimetype: str


FORMATS: dict[SoundFormat, SoundKind] = {
    "mp3": SoundKind("MP3", "audio/mpeg"),
    "wav": SoundKind("WAV", "audio/wav"),
    "flac": SoundKind("FLAC", "audio/flac"),
    "ogg": SoundKind("Ogg", "audio/ogg"),
}


#: Whom files are said to be from: the studio has no name of its own.
ARTIST = "Ripresa"


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


def save_sound(blocks: Iterable[Samples], target: Path, kind: SoundFormat, tags: Tags = Tags()) -> None:
    """Write blocks of samples as a file of a format, each softer by the same share where one is too loud.

    They lie on the disk until the loudest is known, so that a long file takes no more memory than a short one.
    """
    with target.open("wb") as file, tempfile.TemporaryFile(dir=target.parent) as spool:
        peak = 0.0
        for block in blocks:
            peak = max(peak, float(np.abs(block).max(initial=0.0)))
            spool.write(block.astype(np.float32).tobytes())
        spool.seek(0)
        share = np.float32(share_of(peak))
        made = (np.frombuffer(read, np.float32) * share for read in iter(lambda: spool.read(4 * RATE), b""))
        if kind == "mp3":
            # Its tags stand before it, and the writer begins at the beginning.
            packed = io.BytesIO()
            _write(made, packed, kind, tags)
            file.write(id3(tags.title, tags.artist, str(tags.track or ""), tags.comment))
            file.write(packed.getbuffer())
        else:
            # By its name: each of its little writes would come back through here.
            _write(made, str(target), kind, tags)


def _write(sound: Iterable[NDArray[Any]], target: IO[bytes] | str, kind: SoundFormat, tags: Tags) -> None:
    with soundfile.SoundFile(target, "w", RATE, channels=1, format=FORMATS[kind].name.upper()) as file:
        for name, said in (tags.named if kind != "mp3" else {}).items():
            # An empty tag is refused by the writer.
            if said:
                setattr(file, name, said)
        for block in sound:
            # A second at a time: given many at once, the writer of Ogg ends the process (seen from 48 s on).
            for start in range(0, len(block), RATE):
                file.write(block[start : start + RATE].astype(np.float32))


@dataclass(frozen=True, slots=True)
class PlayAlong:
    """A file that is asked for: a drill at one tempo after the other, and what is heard of it.

    Args:
        rungs: (bpm, click) of each; None is the drill’s own click.
        is_set: Whether each rung is a file of its own, numbered, in an archive with a list.

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

    def check(self) -> None:
        """Refuse what cannot be made, without making it."""
        check_count(len(self.rungs), self.passes)
        reading = read(self.drill)
        for other in {rung[1] for rung in self.rungs if rung[1]}:
            with_click(reading, other)
        check_seconds(
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
    voice = asked.drill.plays_on.voice
    rungs = asked.made()
    title = asked.drill.title
    if asked.is_set:
        _save_set(asked, rungs, voice, target, tell)
        return
    tags = Tags(title, ARTIST, comment="; ".join(_contents(asked, rungs)))
    save_sound(rendered(rungs, voice, asked.passes, asked.heard, tell), target, asked.sound, tags)


def _save_set(asked: PlayAlong, rungs: Sequence[Rung], voice: Voice, target: Path, tell: Callable[[int], None]) -> None:
    """Write an archive of a file a rung, numbered, and a text that says what each is."""
    listed = [asked.drill.title, ""]
    with zipfile.ZipFile(target, "w") as archive, tempfile.TemporaryDirectory(dir=target.parent) as folder:
        for number, rung in enumerate(rungs, start=1):
            name = f"{number:02d}-{_ascii(label(rung.bpm))}-bpm.{asked.sound}"
            what = _told(asked, number - 1, rung)
            tags = Tags(f"{asked.drill.title}, {what}", ARTIST, number)
            made = Path(folder) / "rung"
            save_sound(rendered([rung], voice, asked.passes, asked.heard), made, asked.sound, tags)
            archive.write(made, name)
            lasts = f"{plural(asked.passes, 'pass', 'passes')}, {_clock(rung.lasts(asked.passes))}"
            listed.append(f"{name}: {what}, {lasts}")
            tell(number)
        # After a mark of its encoding: titles are in every script, and some readers guess.
        archive.writestr("contents.txt", "\ufeff" + "\n".join(listed) + "\n")


def _contents(asked: PlayAlong, rungs: Sequence[Rung]) -> Iterator[str]:
    """Yield where each rung begins in one file, and what it is."""
    at = 0.0
    for number, rung in enumerate(rungs):
        yield f"{_clock(at)} {_told(asked, number, rung)}"
        at += rung.lasts(asked.passes) + BETWEEN


def _told(asked: PlayAlong, number: int, rung: Rung) -> str:
    click = asked.rungs[number][1] or asked.drill.click
    return f"{label(rung.bpm)} bpm, click {click.words}"


def _clock(seconds: float) -> str:
    minutes, rest = divmod(round(seconds), 60)
    return f"{minutes}:{rest:02d}"


def _ascii(text: str) -> str:
    """Return a tempo as it may stand in the name of a file on every device: ``74⅔`` is ``74``."""
    return "".join(sign for sign in text if sign in "0123456789.") or "0"
