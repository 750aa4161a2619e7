"""What stands on a hand-out, as plain values: made once, kept as it was issued, set by ``page.typ`` and told as text.

Everything that people wrote is data here and stays data: the page is set by a program that would run it as source.
"""

from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from typing import Literal

from pydantic import TypeAdapter

from ripresa.core.reports import Run
from ripresa.core.studio import Paper
from ripresa.formats.wire import adapter

Shows = Literal["rail", "notation", "both"]
SHOWS: dict[Shows, tuple[str, str]] = {
    "rail": ("the rail", "Where each note falls, with its count, hand and click: for everyone."),
    "notation": ("notation", "As it is printed, for who reads it."),
    "both": ("rail and notation", "One beside the other: for who learns to read."),
}


@dataclass(frozen=True, slots=True)
class Picture:
    """A picture (SVG), and the same in words."""

    svg: str
    words: str


@dataclass(frozen=True, slots=True)
class RungLine:
    """A rung on paper.

    Args:
        tempo: bpm. metronome: What to set an ordinary one to. speed: Notes a second.
        click, what: The click that is due and what is played, where they change; empty where they do not.
        boxes: How many takes can be ticked. is_now: Whether the student stands on it.
    """

    tempo: str
    metronome: str
    speed: str
    click: str = ""
    what: str = ""
    boxes: int = 4
    is_now: bool = False


@dataclass(frozen=True, slots=True)
class DayBox:
    """A day to tick: its name, and the minutes that the plan has on it; empty where it has none."""

    name: str
    minutes: str


@dataclass(frozen=True, slots=True)
class Sheet:
    """A hand-out.

    Args:
        whom: For whom, and on which instrument; empty for anyone. issued: From whom, the date, the number.
        brief: The drill in a sentence. differs: What this student plays otherwise.
        before: What to do before playing, in order.
        rails, notation: The pictures; more: what they leave out, in words.
        cues: Lines of technique, with where they hold.
        fit: How legs fit the bar and change, in sentences.
        sign: The note that bpm counts. rungs: From the present one on. first_click: What the first click means.
        moving, clean: When to go up, stay or go back; what a clean take is.
        days: The week of the plan. week: What is asked for, in words.
        care: Cautions. note: What the teacher wrote in. foot: What lies beside, and the next lesson.
    """

    paper: Paper
    large: bool
    title: str
    whom: str
    issued: str
    purpose: str
    brief: tuple[Run, ...]
    differs: tuple[str, ...] = ()
    before: tuple[str, ...] = ()
    rails: tuple[Picture, ...] = ()
    notation: tuple[Picture, ...] = ()
    more: str = ""
    cues: tuple[str, ...] = ()
    fit: tuple[str, ...] = ()
    sign: str = ""
    rungs: tuple[RungLine, ...] = ()
    rungs_told: str = ""
    first_click: str = ""
    moving: str = ""
    clean: str = ""
    days: tuple[DayBox, ...] = ()
    week: str = ""
    care: tuple[str, ...] = ()
    note: str = ""
    foot: tuple[str, str] = field(default=("", ""))

    def numbered(self, number: int) -> "Sheet":
        """Return the sheet under a number of its drill and student."""
        return replace(self, issued=f"sheet {number} · {self.issued}")


_ADAPTER: TypeAdapter[Sheet] = adapter(Sheet)


def write_sheet(sheet: Sheet) -> str:
    """Return a sheet as JSON, as it is kept and as it is set."""
    return _ADAPTER.dump_json(sheet).decode()


def read_sheet(text: str) -> Sheet:
    """Return a sheet that was kept."""
    return _ADAPTER.validate_json(text)


def as_text(sheet: Sheet) -> str:
    """Return a sheet as plain text, for who listens to it and for a message."""
    return "\n\n".join(part for part in _paragraphs(sheet) if part.strip()) + "\n"


def _paragraphs(sheet: Sheet) -> Iterator[str]:
    yield "\n".join(line for line in (sheet.title, sheet.whom, sheet.issued) if line)
    if sheet.purpose:
        yield f"What for: {sheet.purpose}"
    yield "".join(run.text for run in sheet.brief)
    if sheet.differs:
        yield f"For you: {', '.join(sheet.differs)}."
    if sheet.before:
        yield "Before you play\n" + "\n".join(f"{place}. {step}" for place, step in enumerate(sheet.before, start=1))
    if sheet.cues:
        yield "Think of\n" + "\n".join(sheet.cues)
    yield "\n".join(picture.words for picture in (*sheet.rails, *sheet.notation))
    yield "\n".join([*sheet.fit, *([sheet.more] if sheet.more else [])])
    if sheet.rungs:
        yield f"Your rungs{f' ({sheet.rungs_told})' if sheet.rungs_told else ''}\n" + "\n".join(
            f"{sheet.sign} = {rung.tempo}: metronome {rung.metronome}, {rung.speed} notes a second"
            + "".join(f", {word}" for word in (rung.click, rung.what) if word)
            + (", you are here" if rung.is_now else "")
            for rung in sheet.rungs
        )
    yield sheet.first_click
    if sheet.moving:
        yield f"When to move\n{sheet.moving} Stay in between. {sheet.clean}"
    if sheet.days:
        yield f"{sheet.week}\n" + ", ".join(f"{day.name} {day.minutes}".strip() for day in sheet.days)
    if sheet.note:
        yield f"From your teacher\n{sheet.note}"
    yield f"Care\n{' '.join(sheet.care)}"
    yield "\n".join(part for part in sheet.foot if part)
