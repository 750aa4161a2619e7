"""What a studio keeps: students, drills with versions, climbs, takes and moves."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime
from fractions import Fraction
from typing import Literal

from ripresa.core.changes import Part
from ripresa.core.climbs import ClimbPlan, Decision
from ripresa.core.drill import Drill
from ripresa.core.drill.click import Click
from ripresa.core.errors import OutOfRange
from ripresa.core.pitch import instrument_named
from ripresa.core.takes import Fault, FaultKind, Figures, HeardNote, Mark, Offer, Remedy, Source

WEEKDAYS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")
LONGEST_NAME = 80
LONGEST_NOTE = 2000


@dataclass(frozen=True, slots=True)
class StudentDetails:
    """What is written down about a student; no more than lessons need.

    Args:
        name: 1 to 80 signs.
        instrument: Key of ``INSTRUMENTS``.
        lesson_weekday: 0 (Monday) to 6, or None without a regular lesson.
        lesson_time: ``"15:30"``, or empty.

    Raises:
        OutOfRange: A name, weekday or time that is not one.
    """

    name: str
    instrument: str = "any"
    lesson_weekday: int | None = None
    lesson_time: str = ""

    def __post_init__(self) -> None:
        if not self.name.strip() or len(self.name) > LONGEST_NAME:
            raise OutOfRange(f"A student needs a name of 1 to {LONGEST_NAME} signs.", field="name")
        instrument_named(self.instrument)
        if self.lesson_weekday is not None and not 0 <= self.lesson_weekday < len(WEEKDAYS):
            raise OutOfRange("A weekday is 0 (Monday) to 6 (Sunday).", field="lesson_weekday")
        if self.lesson_time and not _is_time(self.lesson_time):
            raise OutOfRange(f"“{self.lesson_time}” is not a time of day. Write 15:30.", field="lesson_time")


@dataclass(frozen=True, slots=True)
class Student:
    """A student, as kept.

    Args:
        clicks: The click ladder that is the student's own; empty without one.
        revision: Counts its changes, from 1.
    """

    id: int
    details: StudentDetails
    clicks: tuple[Click, ...] = ()
    revision: int = 1


@dataclass(frozen=True, slots=True)
class KeptDrill:
    """A version of a drill; versions never change."""

    id: int
    version: int
    drill: Drill
    saved_at: datetime


@dataclass(frozen=True, slots=True)
class Climb:
    """A student on the way from a start to a target with one version of a drill.

    Args:
        rung: Number of the present rung, from 1.
        revision: Counts changes of the plan, from 1.
    """

    id: int
    student: Student
    drill: KeptDrill
    plan: ClimbPlan
    rung: int
    started_at: datetime
    revision: int = 1


@dataclass(frozen=True, slots=True)
class Standing:
    """How a climb stands, as far as its treads and its word need it.

    Args:
        marks: Rung → marks of its last takes, oldest first.
        counting: Marks of the takes on the present rung since it was reached, under the click that is due, oldest
            first.
        last_take_at, answered_at: When it was last played, and when a word was last answered.
        reached_at: When the present rung was reached; None on the first. came_from: From which one.
        counted_seconds: How long the takes lasted together that count.
    """

    marks: Mapping[int, tuple[Mark, ...]] = field(default_factory=dict)
    counting: tuple[Mark, ...] = ()
    last_take_at: datetime | None = None
    answered_at: datetime | None = None
    reached_at: datetime | None = None
    came_from: int | None = None
    counted_seconds: float = 0.0


@dataclass(frozen=True, slots=True)
class Ear:
    """What a person says of a take; it overrules the machine, whose word stays beside it.

    Args:
        mark: Clean or shaky. by: Who says so.
        ease: How easy it was, 1 (a struggle) to 5 (by itself); talk: whether one could talk while playing.
        faults: What was heard to be off, by the kinds of the machine's own list.

    Raises:
        OutOfRange: An ease that is not 1 to 5, or a fault twice.
    """

    mark: Literal["clean", "shaky"]
    by: Literal["teacher", "student"] = "teacher"
    ease: int | None = None
    talk: bool | None = None
    faults: tuple[FaultKind, ...] = ()

    def __post_init__(self) -> None:
        if self.ease is not None and not 1 <= self.ease <= 5:
            raise OutOfRange(f"Ease goes from 1 (a struggle) to 5 (by itself), not {self.ease}.", field="ear.ease")
        if len(set(self.faults)) < len(self.faults):
            raise OutOfRange("A fault is ticked once.", field="ear.faults")


@dataclass(frozen=True, slots=True)
class Take:
    """One recorded run of a drill, or of a part of it, with its raw notes.

    Args:
        id: Made where it was played, so that sending it twice keeps it once.
        rung: Of the climb, from 1; None without a climb, of a part, or at a tempo that is none of its rungs.
        part: What was practised of the drill; part_name: in words, empty for all of it.
        click: In words; click_plan: as data, None in a take of old.
        start, end: Seconds from the start of the first turn between which notes were due.
        latency: Delay of the source in seconds that was taken off; is_calibrated: whether it was measured;
            latency_half: its half-width.
        notes: As they came, in seconds from the start of the first turn.
        figures: None where nothing was measured (by ear).
        mark: What counts: the ear's where one spoke, else the machine's. machine: The machine's own.
        refused: Why there was no word, by its kind; offers: what fits better.
        remedy_id: The remedy that it was a try of.
    """

    id: str
    student_id: int
    climb_id: int | None
    rung: int | None
    drill_id: int
    version: int
    bpm: Fraction
    click: str
    source: Source
    played_at: datetime
    start: float
    end: float
    latency: float
    is_calibrated: bool
    notes: tuple[HeardNote, ...]
    figures: Figures | None
    mark: Mark
    reasons: tuple[str, ...]
    note: str = ""
    click_plan: Click | None = None
    latency_half: float = 0.0
    part: Part | None = None
    part_name: str = ""
    faults: tuple[Fault, ...] = ()
    offers: tuple[Offer, ...] = ()
    refused: str = ""
    machine: Mark | None = None
    ear: Ear | None = None
    remedy_id: int | None = None

    @property
    def known_latency(self) -> tuple[float, float] | None:
        """The delay of its source and the half-width of that, in seconds; None where it was not measured."""
        return (self.latency, self.latency_half) if self.is_calibrated else None


@dataclass(frozen=True, slots=True)
class KeptRemedy:
    """A remedy that was taken, kept beside the climb and the drill that it was made for.

    Args:
        fault: What it is against, in words. clean_at: When a take of it was clean; None while it is waited for.
    """

    id: int
    climb_id: int | None
    student_id: int
    drill_id: int
    version: int
    remedy: Remedy
    fault: str
    made_at: datetime
    clean_at: datetime | None


@dataclass(frozen=True, slots=True)
class TakeLine:
    """A take as lists show it: all but its notes and pictures.

    Args:
        seconds: How long it lasted.
        due, matched, missed, extra: Notes; None where nothing was measured.
        bias, spread: Seconds; the bias ± its half width, from so many notes.
        drift_percent, drift_bpm: Per cent, and bpm a minute.
    """

    id: str
    student_id: int
    climb_id: int | None
    rung: int | None
    drill_id: int
    version: int
    bpm: Fraction
    click: str
    source: Source
    played_at: datetime
    seconds: float
    mark: Mark
    reasons: tuple[str, ...]
    note: str
    due: int | None = None
    matched: int | None = None
    missed: int | None = None
    extra: int | None = None
    bias: float | None = None
    bias_half: float | None = None
    bias_count: int | None = None
    spread: float | None = None
    drift_percent: float | None = None
    drift_bpm: float | None = None
    part_name: str = ""
    machine: Mark | None = None
    ear_by: str | None = None
    ease: int | None = None


@dataclass(frozen=True, slots=True)
class PartStanding:
    """How far a part of a drill has come: its takes, and the tempo of its last clean one in bpm; None without one."""

    drill_id: int
    version: int
    name: str
    takes: int
    last_clean: Fraction | None


@dataclass(frozen=True, slots=True)
class Move:
    """A change of rung, or the word to stay, with who said it.

    Args:
        offered: What the rule said. decision: What was done.
        reason: The teacher's, where the two differ; else the rule's sentence.
    """

    id: int
    climb_id: int
    take_id: str | None
    from_rung: int
    to_rung: int
    offered: Decision
    decision: Decision
    reason: str
    made_at: datetime


def _is_time(text: str) -> bool:
    hours, colon, minutes = text.partition(":")
    digits = hours.isascii() and hours.isdigit() and minutes.isascii() and minutes.isdigit() and len(minutes) == 2
    return bool(colon) and digits and int(hours) < 24 and int(minutes) < 60
