"""The plan of practice: minutes over days, by hand and as laws; the tasks of a day; notes a week."""

from datetime import date, timedelta
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ripresa.core.errors import OutOfRange, Unreadable
from ripresa.core.exact import Fraction as F
from ripresa.core.plans import (
    Load,
    PracticePlan,
    Spread,
    Subject,
    parse_days,
    spread,
    tasks_of,
    told_days,
)
from tests.strategies import fractions, so_many

OCTOBER = date(2026, 10, 7)


def plan(**more: Any) -> PracticePlan:
    usual = {
        "start": OCTOBER,
        "off": ("sunday", "2026-12-22/2027-01-02"),
        "lessons": ("wednesday",),
        "minutes": 12,
        "most_a_day": 18,
    }
    return PracticePlan(**{**usual, **more})


def on(found: Spread, day: date) -> F:
    return next(one.planned for one in found.days if one.date == day)


def test_a_plan_that_nothing_was_missed_of_is_its_minutes_on_its_days() -> None:
    found = spread(plan(weeks=2), {}, OCTOBER)
    assert [(one.date.day, one.planned) for one in found.days if one.planned] == [
        (day, 12) for day in (8, 9, 10, 12, 13, 15, 16, 17, 19, 20)
    ]
    kinds = {one.date.day: one.kind for one in found.days}
    assert (kinds[7], kinds[11], kinds[8]) == ("lesson", "off", "planned")
    assert (found.asked, found.unplaced, found.ends, found.fits) == (120, 0, date(2026, 10, 20), None)


def test_holidays_ask_for_less_and_carry_nothing() -> None:
    found = spread(plan(), {}, OCTOBER)
    # Eleven weeks of five days; of the twelfth, 23 to 29 December, every day is off.
    assert found.asked == 11 * 5 * 12
    assert not any(one.planned for one in found.days if one.date >= date(2026, 12, 22))


def test_missed_minutes_are_spread_evenly_over_the_days_that_are_left() -> None:
    done = {OCTOBER + timedelta(days=1): F(12), OCTOBER + timedelta(days=3): F(6)}
    found = spread(plan(weeks=2), done, date(2026, 10, 14))
    # 120 asked, 18 done: 102 on the five days from the 15th on, up to 18 each; 12 find no room.
    assert [one.planned for one in found.days if one.planned] == [18] * 5
    assert (found.done, found.planned, found.unplaced) == (18, 90, 12)
    assert found.fits == date(2026, 10, 22)
    assert spread(plan(weeks=2, until=found.fits), done, date(2026, 10, 14)).unplaced == 0


def test_a_day_that_was_begun_is_gone_on_with_up_to_its_limit() -> None:
    found = spread(plan(weeks=1, minutes=15), {OCTOBER + timedelta(days=1): F(10)}, OCTOBER + timedelta(days=1))
    assert on(found, OCTOBER + timedelta(days=1)) == 8
    assert sum(one.planned for one in found.days) + 10 == 75


def test_who_is_ahead_has_less_to_do_and_who_did_more_than_asked_has_nothing() -> None:
    ahead = spread(plan(weeks=1), {OCTOBER: F(30)}, OCTOBER + timedelta(days=1))
    assert [one.planned for one in ahead.days if one.planned] == [8, 8, 7, 7]
    more = spread(plan(weeks=1), {OCTOBER: F(100)}, OCTOBER)
    assert (more.asked, more.planned, more.unplaced) == (100, 0, 0)


def test_a_lesson_day_is_practised_on_only_where_others_do_not_do() -> None:
    found = spread(plan(weeks=1, days_a_week=6), {}, OCTOBER)
    assert sum(1 for one in found.days if one.planned) == 6
    assert on(found, OCTOBER) == 12


def test_where_every_day_is_off_nothing_is_asked_for() -> None:
    every = spread(plan(off=("2026-01-01/2029-12-31",)), {}, OCTOBER)
    assert (every.asked, every.planned, every.fits) == (0, 0, None)


def test_after_its_end_a_plan_still_says_what_it_lacks() -> None:
    found = spread(plan(weeks=1), {}, date(2026, 11, 2))
    assert (found.planned, found.unplaced) == (0, 60)
    assert found.fits == date(2026, 11, 6)


day_rules = st.one_of(
    st.sampled_from(["monday", "sunday", "Friday", "2026-10-20", "2026-11-01/2026-11-20", "R/2026-10-07/P2W"]),
    st.dates(date(2026, 9, 1), date(2027, 3, 1)).map(date.isoformat),
)
plans = st.builds(
    PracticePlan,
    start=st.dates(date(2026, 9, 1), date(2026, 12, 1)),
    weeks=st.integers(1, 14),
    days_a_week=st.integers(1, 7),
    minutes=st.integers(1, 60),
    most_a_day=st.integers(1, 60),
    off=st.lists(day_rules, max_size=4).map(tuple),
    lessons=st.lists(day_rules, max_size=3).map(tuple),
)


@so_many(120, 600)
@given(plans, st.data())
def test_done_planned_and_unplaced_are_what_is_asked(asked: PracticePlan, data: st.DataObject) -> None:
    today = asked.start + timedelta(days=data.draw(st.integers(-10, 7 * asked.weeks + 20)))
    past = max(0, min((today - asked.start).days, 7 * asked.weeks - 1))
    minutes = fractions(0, 40, 60)
    done = (
        data.draw(st.dictionaries(st.integers(0, past).map(lambda n: asked.start + timedelta(days=n)), minutes))
        if today >= asked.start
        else {}
    )
    found = spread(asked, done, today)
    assert found.done + found.planned + found.unplaced == found.asked
    assert (sum(one.planned for one in found.days), sum(one.done for one in found.days)) == (found.planned, found.done)
    for one in found.days:
        if one.planned:
            assert one.date >= today
            assert not asked.is_off(one.date)
            assert one.planned + one.done <= asked.most_a_day
    # Evenly: a day with less than another had no room for more. Parts of a minute go to one day.
    planned = [one for one in found.days if one.planned]
    for one in planned:
        if one.planned + one.done <= asked.most_a_day - 1:
            assert one.planned >= max(other.planned for other in planned) - 2
    if found.unplaced:
        assert all(asked.most_a_day - one.planned - one.done < 1 for one in planned)
    if found.fits and (found.fits - asked.ends).days < 600:
        longer = PracticePlan(**{**_fields(asked), "until": found.fits})
        assert spread(longer, done, today).unplaced == 0


def _fields(asked: PracticePlan) -> dict[str, Any]:
    return {name: getattr(asked, name) for name in asked.__dataclass_fields__}


@pytest.mark.parametrize(
    ("text", "told"),
    [
        ("sunday", "Sundays"),
        ("2026-12-22/2027-01-02", "22 Dec – 2 Jan"),
        ("2026-10-20", "20 Oct"),
        ("R/2026-10-07/P2W", "every 2 weeks from 7 Oct"),
        ("R/2026-10-07/P1W", "weekly from 7 Oct"),
    ],
)
def test_days_are_told_as_one_says_them(text: str, told: str) -> None:
    assert told_days(parse_days(text)) == told


@pytest.mark.parametrize(
    "text", ["", "someday", "2026-13-01", "2026-02-30", "20261007", "2027-01-02/2026-12-22", "R/2026-10-07/P0W", "²"]
)
def test_days_that_are_none_are_refused(text: str) -> None:
    with pytest.raises(Unreadable, match="Write"):
        parse_days(text)


@pytest.mark.parametrize(
    ("more", "field"),
    [
        ({"weeks": 0}, "weeks"),
        ({"weeks": 105}, "weeks"),
        ({"days_a_week": 8}, "days_a_week"),
        ({"minutes": 0}, "minutes"),
        ({"most_a_day": 601}, "most_a_day"),
        ({"until": date(2026, 10, 8)}, "until"),
        ({"most_more": 101}, "most_more"),
        ({"off": ("sunday",) * 300}, "off"),
    ],
)
def test_plans_that_cannot_be_are_refused(more: dict[str, Any], field: str) -> None:
    with pytest.raises(OutOfRange) as refused:
        plan(**more)
    assert refused.value.field == field


@pytest.mark.parametrize(
    ("done", "says"),
    [
        ({date(2026, 11, 1): F(5)}, "lies after today"),
        ({date(2026, 10, 1): F(5)}, "lies outside the plan"),
        ({OCTOBER: F(-1)}, "0 to 1440"),
    ],
)
def test_minutes_that_cannot_have_been_played_are_refused(done: dict[date, F], says: str) -> None:
    with pytest.raises(OutOfRange, match=says):
        spread(plan(), done, date(2026, 10, 20))


def subject(key: int, played: int | None, **more: Any) -> Subject:
    last = None if played is None else date(2026, 11, 24) - timedelta(days=played)
    return Subject(key, f"Drill {key}", "♩ = 76", last_played=last, **more)


TODAY = date(2026, 11, 24)


def test_the_oldest_and_weakest_comes_first_and_a_remedy_beside_it() -> None:
    clean = TODAY - timedelta(days=9)
    found = tasks_of(
        TODAY,
        20,
        [
            subject(1, 1),
            subject(2, 6, shaky=0.2),
            subject(3, 6, shaky=0.6),
            subject(4, 3, remedy="the change 5 → 6, slower"),
            subject(5, 20, stands=True, last_clean=clean),
        ],
    )
    assert [(task.kind, task.key) for task in found] == [
        ("warm_up", None),
        ("rung", 3),
        ("remedy", 4),
        ("review", 5),
    ]
    assert "the change 5 → 6" in found[2].words
    assert sum(task.minutes for task in found) == 20


def test_what_was_shaky_is_looked_at_again_sooner() -> None:
    firm = subject(1, 9, stands=True, last_clean=TODAY - timedelta(days=9))
    weak = subject(2, 6, stands=True, last_clean=TODAY - timedelta(days=6), shaky=0.8)
    assert [task.key for task in tasks_of(TODAY, 30, [firm, weak, subject(3, 1)]) if task.kind == "review"] == [2]


def test_the_days_to_come_take_turns() -> None:
    climbs = [subject(1, 5), subject(2, 3), subject(3, 1)]
    assert [tasks_of(TODAY, 6, climbs, ahead)[1].key for ahead in range(4)] == [1, 2, 3, 1]


@given(st.integers(0, 120), st.lists(st.integers(0, 40), max_size=5), st.integers(0, 5))
def test_the_tasks_of_a_day_last_as_long_as_it(minutes: int, ages: list[int], ahead: int) -> None:
    clean = TODAY - timedelta(days=2)
    found = tasks_of(TODAY, minutes, [subject(n, age, last_clean=clean) for n, age in enumerate(ages)], ahead)
    assert sum(task.minutes for task in found) == minutes
    assert all(task.minutes > 0 for task in found)
    assert not found or found[0].kind == "warm_up"
    keys = [task.key for task in found if task.kind in {"rung", "review"}]
    assert len(set(keys)) == len(keys)


@pytest.mark.parametrize(
    ("now", "before", "over", "says"),
    [
        (9400, 8868, False, "9,400 notes in these seven days, 6 % more"),
        (1101, 1000, True, "above 10 %"),
        (1100, 1000, False, "10 % more"),
        (500, 1000, False, "50 % fewer"),
        (500, 0, False, "none in the seven before"),
        (0, 0, False, ""),
    ],
)
def test_notes_a_week_are_flagged_above_the_limit_and_not_at_it(now: int, before: int, over: bool, says: str) -> None:
    load = Load(now, before)
    assert load.is_over is over
    assert says in load.sentence
