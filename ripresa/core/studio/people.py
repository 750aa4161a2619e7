"""People: what is written down about a student, no more than lessons need; groups of students."""

from dataclasses import dataclass
from datetime import date, datetime
from typing import Literal

from ripresa.core.changes import Part
from ripresa.core.climbs import Level
from ripresa.core.drill.click import Click
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Exact, Fraction, label
from ripresa.core.pitch import instrument_named, parse_pitch
from ripresa.core.plans import WEEKDAYS, PracticePlan, parse_days
from ripresa.core.rhythm import Counting, check_bpm
from ripresa.core.takes import Evenness

#: Numbers of what is kept: whole ones that every reader of JSON holds exactly.
MOST_NUMBER = 2**53 - 1
LONGEST_NAME = 80
LONGEST_NOTE = 2000
MOST_DATES = 60
LONGEST_BREATH = 60
MOST_KEEP_DAYS = 365
Hand = Literal["right", "left"]


@dataclass(frozen=True, slots=True)
class Guardian:
    """What a guardian allows; nothing is limited where a field is empty.

    Args:
        most_minutes: Of practice a day. most_bpm: The fastest target. recordings: Whether sound may be kept.

    Raises:
        OutOfRange: A number out of its range.
    """

    most_minutes: int | None = None
    most_bpm: Exact | None = None
    recordings: bool = False

    def __post_init__(self) -> None:
        if self.most_minutes is not None and not 1 <= self.most_minutes <= 600:
            raise OutOfRange("A limit of a day is 1 to 600 minutes.", field="guardian.most_minutes")
        if self.most_bpm is not None:
            check_bpm(self.most_bpm, "guardian.most_bpm")


@dataclass(frozen=True, slots=True)
class StandSettings:
    """How the stand is set for a student.

    Args:
        sound: Levels, timbre and voice, as the stand keeps them, in JSON; up to 2000 signs.
        foot_switch: The key that a foot switch sends; empty for the usual one.
        sound_first: Whether figures stay hidden until they are asked for; None as in the settings.
    """

    sound: str = ""
    foot_switch: str = ""
    sound_first: bool | None = None

    def __post_init__(self) -> None:
        if len(self.sound) > LONGEST_NOTE or len(self.foot_switch) > LONGEST_NAME:
            raise OutOfRange("These settings of the stand are too long to be kept.", field="stand")


@dataclass(frozen=True, slots=True)
class StudentDetails:
    """What is written down about a student.

    Args:
        name: 1 to 80 signs.
        instrument: Key of ``INSTRUMENTS``.
        lesson_weekday: 0 (Monday) to 6, or None without a regular lesson.
        lesson_time: ``"15:30"``, or empty.
        lesson_from: Of lessons every two weeks the first one; empty where they are weekly.
        lesson_dates: Single lessons besides, as dates.
        leading_hand, level: Of the player; an empty level is not said.
        lowest, highest: Written notes that are reached; empty for all that the instrument has.
        breath: Seconds that one lasts; 0 where it is not known.
        counting: Count words of own drills; None as in the settings.
        guardian: What is allowed.
        hurts: What hurts, in the student's or the teacher's words: private, never on paper.
        evenness: The school that new climbs begin with; None as in the settings.
        stand: How the stand is set.
        keep_days: For how many days recordings of takes are kept; 0 keeps none.

    Raises:
        OutOfRange: A name, weekday, time, or number that is not one.
        Unreadable: A note or a date that is not one.
    """

    name: str
    instrument: str = "any"
    lesson_weekday: int | None = None
    lesson_time: str = ""
    lesson_from: str = ""
    lesson_dates: tuple[str, ...] = ()
    leading_hand: Hand = "right"
    level: Level | Literal[""] = ""
    lowest: str = ""
    highest: str = ""
    breath: Exact = Fraction(0)
    counting: Counting | None = None
    guardian: Guardian = Guardian()
    hurts: str = ""
    evenness: Evenness | None = None
    stand: StandSettings = StandSettings()
    keep_days: int = 0

    def __post_init__(self) -> None:
        if not self.name.strip() or len(self.name) > LONGEST_NAME:
            raise OutOfRange(f"A student needs a name of 1 to {LONGEST_NAME} signs.", field="name")
        instrument_named(self.instrument)
        _check_lesson(self.lesson_weekday, self.lesson_time)
        if len(self.lesson_dates) > MOST_DATES:
            raise OutOfRange(f"Up to {MOST_DATES} single lessons can be written down.", field="lesson_dates")
        self.lesson_days  # noqa: B018 - dates that are none are refused here
        for name in ("lowest", "highest"):
            if getattr(self, name):
                parse_pitch(getattr(self, name))
        if self.lowest and self.highest and parse_pitch(self.lowest).midi >= parse_pitch(self.highest).midi:
            raise OutOfRange(f"{self.lowest} is not below {self.highest}. Write the lower note first.", field="lowest")
        if not 0 <= self.breath <= LONGEST_BREATH:
            raise OutOfRange(
                f"A breath lasts up to {LONGEST_BREATH} seconds, not {label(self.breath)}. Write 0 where it is not "
                "known.",
                field="breath",
            )
        if not 0 <= self.keep_days <= MOST_KEEP_DAYS:
            raise OutOfRange(f"Recordings are kept for up to {MOST_KEEP_DAYS} days; 0 keeps none.", field="keep_days")
        if len(self.hurts) > LONGEST_NOTE:
            raise OutOfRange(f"What hurts is told in up to {LONGEST_NOTE} signs.", field="hurts")

    @property
    def kept_days(self) -> int:
        """For how many days recordings are kept: none where the guardian's limit says no, whatever was asked for."""
        return self.keep_days if self.guardian.recordings else 0

    @property
    def lesson_days(self) -> tuple[str, ...]:
        """The days of lessons, as a plan has them."""
        found = [f"R/{self.lesson_from}/P2W"] if self.lesson_from else []
        if not found and self.lesson_weekday is not None:
            found = [WEEKDAYS[self.lesson_weekday].lower()]
        for one in (*found, *self.lesson_dates):
            parse_days(one)
        return (*found, *self.lesson_dates)

    def has_lesson(self, day: date) -> bool:
        """Return whether there is a lesson on a day."""
        return any(parse_days(one).covers(day) for one in self.lesson_days)


@dataclass(frozen=True, slots=True)
class Student:
    """A student, as kept.

    Args:
        clicks: The click ladder that is the student's own; empty without one.
        revision: Counts its changes, from 1.
        plan: The plan of practice; None without one.
        put_away_at: When; None while in use.
    """

    id: int
    details: StudentDetails
    clicks: tuple[Click, ...] = ()
    revision: int = 1
    plan: PracticePlan | None = None
    put_away_at: datetime | None = None


@dataclass(frozen=True, slots=True)
class Member:
    """A student of a group, and the part of a drill that is theirs there; all of it where nothing is said.

    Raises:
        OutOfRange: A number that no student has.
    """

    student_id: int
    part: Part = Part()

    def __post_init__(self) -> None:
        if not 1 <= self.student_id <= MOST_NUMBER:
            raise OutOfRange("A member is a student of this studio, by the number of that student.", field="members")


@dataclass(frozen=True, slots=True)
class GroupDetails:
    """A class.

    Args:
        name: 1 to 80 signs. members: Up to 60 students, each once.
        lesson_weekday, lesson_time: As of a student.

    Raises:
        OutOfRange: A name or a time that is none, or a student twice.
    """

    name: str
    members: tuple[Member, ...] = ()
    lesson_weekday: int | None = None
    lesson_time: str = ""

    def __post_init__(self) -> None:
        if not self.name.strip() or len(self.name) > LONGEST_NAME:
            raise OutOfRange(f"A group needs a name of 1 to {LONGEST_NAME} signs.", field="name")
        if len(self.members) > MOST_DATES:
            raise OutOfRange(f"A group has up to {MOST_DATES} members.", field="members")
        if len({one.student_id for one in self.members}) < len(self.members):
            raise OutOfRange("A student stands twice in this group. Keep one of the two.", field="members")
        _check_lesson(self.lesson_weekday, self.lesson_time)


@dataclass(frozen=True, slots=True)
class Group:
    """A group, as kept; the revision counts its changes."""

    id: int
    details: GroupDetails
    revision: int = 1


def _check_lesson(weekday: int | None, time: str) -> None:
    if weekday is not None and not 0 <= weekday < len(WEEKDAYS):
        raise OutOfRange("A weekday is 0 (Monday) to 6 (Sunday).", field="lesson_weekday")
    if time and not _is_time(time):
        raise OutOfRange(f"“{time}” is not a time of day. Write 15:30.", field="lesson_time")


def _is_time(text: str) -> bool:
    hours, colon, minutes = text.partition(":")
    digits = hours.isascii() and hours.isdigit() and minutes.isascii() and minutes.isdigit() and len(minutes) == 2
    return bool(colon) and digits and int(hours) < 24 and int(minutes) < 60
