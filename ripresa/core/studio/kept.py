"""Work as it is kept: drills with versions, climbs, takes and moves."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime
from typing import Literal

from ripresa.core.changes import Overrides, Part
from ripresa.core.climbs import ClimbPlan, Decision
from ripresa.core.drill import Drill
from ripresa.core.drill.click import Click
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction
from ripresa.core.studio.people import Student
from ripresa.core.takes import Fault, FaultKind, Figures, HeardNote, Mark, Offer, Remedy, Source


@dataclass(frozen=True, slots=True)
class KeptDrill:
    """A version of a drill; versions never change."""

    id: int
    version: int
    drill: Drill
    saved_at: datetime


@dataclass(frozen=True, slots=True)
class Climb:
    """A student on the way from a start to a target with one version of a drill: an assignment.

    Args:
        drill: The version, with what the student plays otherwise laid over it.
        rung: Number of the present rung, from 1.
        revision: Counts changes of the plan, from 1.
        overrides: What the student plays otherwise. differs: That in words.
        set_key: Of the set of variants that it belongs to; empty without one. set_place: Its place there, from 0.
    """

    id: int
    student: Student
    drill: KeptDrill
    plan: ClimbPlan
    rung: int
    started_at: datetime
    revision: int = 1
    overrides: Overrides = Overrides()
    differs: tuple[str, ...] = ()
    set_key: str = ""
    set_place: int = 0

    @property
    def title(self) -> str:
        """The title of its drill, with what differs from it."""
        return ", ".join((self.drill.drill.title, *self.differs))


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
        played_notes: Notes of the drill that were met, by ear those that were due; None where nobody counted.
        hidden: Moments of clicks under which a microphone heard nothing, in seconds.
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
    played_notes: int | None = None
    hidden: tuple[float, ...] = ()

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
