"""The plan: minutes of practice, spread over the days that are left, none above its limit.

What is asked for is minutes × days a week × weeks, a week being seven days from the start on; where so many days are
off that a week has fewer to practise on, less is asked for. Missed minutes are spread again, evenly, over the days that
are left; what does not fit is said, with the date that would fit it.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from functools import cached_property
from typing import Literal

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction
from ripresa.core.plans.days import LATEST, Days, days_between, parse_date, parse_days

DayKind = Literal["planned", "done", "lesson", "off", "free"]
MOST_WEEKS, MOST_MINUTES, MOST_RULES = 104, 600, 200
#: How far beyond its end a date that fits is looked for: two years.
_FAR = 730


@dataclass(frozen=True)
class PracticePlan:
    """What is asked for.

    Args:
        start: The first day. weeks: 1 to 104.
        days_a_week: 1 to 7. minutes: A day, 1 to 600. most_a_day: The limit of a day in minutes.
        off: Days without practice. lessons: Days with a lesson; both as ``parse_days`` reads them.
        until: A later day up to which what is asked may be placed; None is the end of the weeks.
        most_more: By how many per cent the notes of a week may grow before it is flagged, 0 to 100.

    Raises:
        OutOfRange: A number out of its range, or an end before the start.
        Unreadable: Days that are none.
    """

    start: date
    weeks: int = 12
    days_a_week: int = 5
    minutes: int = 12
    most_a_day: int = 18
    off: tuple[str, ...] = ()
    lessons: tuple[str, ...] = ()
    until: date | None = None
    most_more: int = 10

    def __post_init__(self) -> None:
        parse_date(self.start.isoformat())
        for name, most, what in (
            ("weeks", MOST_WEEKS, "weeks"),
            ("days_a_week", 7, "days a week"),
            ("minutes", MOST_MINUTES, "minutes a day"),
            ("most_a_day", MOST_MINUTES, "minutes a day at most"),
        ):
            value = getattr(self, name)
            if not 1 <= value <= most:
                raise OutOfRange(f"A plan has 1 to {most} {what}, not {value}.", field=name)
        if not 0 <= self.most_more <= 100:
            raise OutOfRange("The notes of a week may grow by 0 to 100 %.", field="most_more")
        if len(self.off) + len(self.lessons) > MOST_RULES:
            raise OutOfRange(f"A plan has up to {MOST_RULES} days off and lessons.", field="off")
        if self.until is not None and not self.ends <= self.until <= min(LATEST, self.ends + timedelta(days=_FAR)):
            raise OutOfRange("A later end lies after the weeks of the plan, within two years.", field="until")
        self.days_off, self.days_of_lessons  # noqa: B018 - days that are none are refused here

    @property
    def ends(self) -> date:
        """The last day of its weeks."""
        return self.start + timedelta(days=7 * self.weeks - 1)

    @property
    def last_day(self) -> date:
        """The last day on which it places minutes."""
        return self.until or self.ends

    @cached_property
    def days_off(self) -> tuple[Days, ...]:
        """Days without practice."""
        return tuple(parse_days(one) for one in self.off)

    @cached_property
    def days_of_lessons(self) -> tuple[Days, ...]:
        """Days with a lesson."""
        return tuple(parse_days(one) for one in self.lessons)

    def is_off(self, day: date) -> bool:
        """Return whether nobody practises on a day."""
        return any(one.covers(day) for one in self.days_off)

    def has_lesson(self, day: date) -> bool:
        """Return whether a day has a lesson."""
        return any(one.covers(day) for one in self.days_of_lessons)

    def asked_of(self, week: Sequence[date]) -> int:
        """Return on how many days of a week practice is asked for: fewer where more are off."""
        return min(self.days_a_week, sum(not self.is_off(day) for day in week))


@dataclass(frozen=True, slots=True)
class PlannedDay:
    """A day of a plan.

    Args:
        planned: Minutes still to come on it. done: Minutes played on it.
        kind: What it is first of all: planned, done, lesson, off or free.
        lesson: Whether it has a lesson, whatever else it is.
    """

    date: date
    planned: Fraction
    done: Fraction
    kind: DayKind
    lesson: bool


@dataclass(frozen=True, slots=True)
class Spread:
    """A plan, spread over its days: done + planned + unplaced = asked.

    Args:
        asked: Minutes in all; never less than what was done.
        planned: Minutes on the days that are left. unplaced: What none of them has room for.
        ends: The last day of the plan. fits: The day by which the unplaced would fit; None where all fits, or none is
            found within two years.
    """

    days: tuple[PlannedDay, ...]
    asked: Fraction
    done: Fraction
    planned: Fraction
    unplaced: Fraction
    ends: date
    fits: date | None

    @property
    def more_a_day(self) -> Fraction:
        """Minutes that a planned day has above what was agreed, at most; 0 where none has."""
        return max((day.planned + day.done for day in self.days if day.kind == "planned"), default=Fraction(0))


def spread(plan: PracticePlan, done: Mapping[date, Fraction], today: date) -> Spread:
    """Return a plan spread over the days from today on.

    Args:
        done: Minutes played, by day.

    Raises:
        OutOfRange: Minutes below 0, more than a day has, outside the plan or after today.
    """
    check_done(plan, done, today)
    every = days_between(plan.start, plan.last_day)
    weeks = [every[first : first + 7] for first in range(0, len(every), 7)]
    total = sum(done.values(), Fraction(0))
    # What is placed beyond the weeks of the plan was asked for in them.
    asked = max(Fraction(sum(plan.minutes * plan.asked_of(week) for week in weeks[: plan.weeks])), total)
    open_days = [day for week in weeks for day in _practice_days(plan, week, done, today)]
    room = {day: max(Fraction(0), plan.most_a_day - done.get(day, Fraction(0))) for day in open_days}
    placed = evenly(asked - total, room)
    unplaced = asked - total - sum(placed.values(), Fraction(0))
    return Spread(
        days=tuple(_day(plan, day, placed.get(day, Fraction(0)), done.get(day, Fraction(0))) for day in every),
        asked=asked,
        done=total,
        planned=sum(placed.values(), Fraction(0)),
        unplaced=unplaced,
        ends=plan.last_day,
        fits=_that_fits(plan, unplaced, today) if unplaced else None,
    )


def check_done(plan: PracticePlan, done: Mapping[date, Fraction], today: date) -> None:
    """Refuse minutes that cannot have been played.

    Raises:
        OutOfRange: With the day in the sentence.
    """
    for day, minutes in done.items():
        if not 0 <= minutes <= 24 * 60:
            raise OutOfRange(f"{day} has 0 to 1440 minutes.", field="done")
        if not plan.start <= day <= plan.last_day:
            raise OutOfRange(
                f"{day} lies outside the plan, which goes from {plan.start} to {plan.last_day}.", field="done"
            )
        if day > today and minutes:
            raise OutOfRange(f"{day} lies after today, {today}: nothing can be done on it yet.", field="done")


def evenly(minutes: Fraction, room: Mapping[date, Fraction]) -> dict[date, Fraction]:
    """Return minutes shared out in whole ones, as evenly as the room of each day lets, the earlier days first.

    >>> day = date(2026, 10, 7)
    >>> list(evenly(Fraction(7), {day: Fraction(2), day + timedelta(1): Fraction(9)}).values())
    [Fraction(2, 1), Fraction(5, 1)]
    """
    placed = dict.fromkeys(room, Fraction(0))
    whole, rest = divmod(minutes, 1)
    left = int(whole)
    while left and (with_room := [day for day in room if room[day] - placed[day] >= 1]):
        share, over = divmod(left, len(with_room))
        for number, day in enumerate(with_room):
            more = min(share + (number < over), int(room[day] - placed[day]))
            placed[day] += more
            left -= more
    # A part of a minute comes from what was played in seconds; it goes where it fits.
    first = next((day for day in room if room[day] - placed[day] >= rest), None)
    if first is not None and not left:
        placed[first] += rest
    return placed


def _practice_days(plan: PracticePlan, week: Sequence[date], done: Mapping[date, Fraction], today: date) -> list[date]:
    """Return on which days of a week that are left to practise: those with a lesson only where others do not do."""
    played = sum(1 for day in week if day < today and done.get(day))
    wanted = plan.asked_of(week) - played
    left = [day for day in week if day >= today and not plan.is_off(day)]
    # A day that was begun is gone on with.
    chosen = [day for day in left if done.get(day)]
    plain = [day for day in left if day not in chosen and not plan.has_lesson(day)]
    chosen += _apart(plain, wanted - len(chosen))
    if len(chosen) < wanted:
        lessons = [day for day in left if day not in chosen and plan.has_lesson(day)]
        chosen += _apart(lessons, wanted - len(chosen))
    return sorted(chosen)


def _apart(days: Sequence[date], wanted: int) -> list[date]:
    """Return so many of some days, as far apart as they can be, the first among them."""
    if wanted >= len(days):
        return list(days)
    return [days[number * len(days) // wanted] for number in range(wanted)] if wanted > 0 else []


def _day(plan: PracticePlan, day: date, planned: Fraction, done: Fraction) -> PlannedDay:
    lesson, off = plan.has_lesson(day), plan.is_off(day)
    kind: DayKind = "planned" if planned else "done" if done else "lesson" if lesson else "off" if off else "free"
    return PlannedDay(day, planned, done, kind, lesson)


def _that_fits(plan: PracticePlan, unplaced: Fraction, today: date) -> date | None:
    """Return the day by which so many minutes more would be placed, each day filled to its limit."""
    first = max(plan.last_day + timedelta(days=1), today)
    # Weeks are counted from the start of the plan.
    first_week = plan.start + timedelta(days=(first - plan.start).days // 7 * 7)
    for number in range(_FAR // 7):
        begin = first_week + timedelta(days=7 * number)
        if begin + timedelta(days=6) > min(LATEST, plan.ends + timedelta(days=_FAR)):
            return None
        week = days_between(begin, begin + timedelta(days=6))
        for day in _practice_days(plan, week, {}, first):
            unplaced -= plan.most_a_day
            if unplaced <= 0:
                return day
    return None
