"""The tasks of a day: warm-up, one rung, one remedy or weak place, one review."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from typing import Literal

TaskKind = Literal["warm_up", "rung", "remedy", "review"]
TASKS: dict[TaskKind, tuple[str, str]] = {
    "warm_up": ("warm up", "Slow and easy, before anything else."),
    "rung": ("one rung", "What was played longest ago comes first, the weaker before the firmer."),
    "remedy": ("what is weak", "The remedy that is waited for, or the climb with most shaky takes."),
    "review": ("look again", "What stood longest ago, sooner where it was shaky."),
}
#: From how many minutes on a day has room for a second and a third thing besides the warm-up: our choice.
_FOR_A_REMEDY, _FOR_A_REVIEW = 8, 12


@dataclass(frozen=True, slots=True)
class Subject:
    """A climb as far as the plan of a day needs it.

    Args:
        key: Its number. title: What it is of. now: Where it stands: ``♩ = 76, two takes``.
        last_played, last_clean: Days; None where there was none.
        shaky: Share of the last takes that were shaky, 0 to 1.
        remedy: What it waits for, in words; empty for nothing.
        stands: Whether its target stands.
    """

    key: int
    title: str
    now: str
    last_played: date | None = None
    last_clean: date | None = None
    shaky: float = 0.0
    remedy: str = ""
    stands: bool = False


@dataclass(frozen=True, slots=True)
class Task:
    """One thing of a day: how many minutes, of which climb, in words."""

    kind: TaskKind
    minutes: int
    words: str
    key: int | None = None


def tasks_of(day: date, minutes: int, subjects: Sequence[Subject], days_ahead: int = 0) -> tuple[Task, ...]:
    """Return the tasks of a day, which last as long as it together; none where nothing is planned.

    Args:
        days_ahead: Practice days from today on before it: what those played comes later.
    """
    if minutes < 1:
        return ()
    warm_up = Task("warm_up", max(1, minutes // 6) if minutes > 2 else 1, "Slow, easy, without a click if you like.")
    climbing = sorted((one for one in subjects if not one.stands), key=lambda one: _oldest_and_weakest(one, day))
    standing = sorted((one for one in subjects if one.last_clean), key=lambda one: -_due(one, day))
    chosen: list[Task] = []
    rung = climbing[days_ahead % len(climbing)] if climbing else None
    if rung:
        chosen.append(Task("rung", 0, f"{rung.title}: {rung.now}", rung.key))
    weak = _weak([one for one in climbing if one.remedy or one.shaky > 0], rung)
    if weak and minutes >= _FOR_A_REMEDY:
        chosen.append(Task("remedy", 0, f"{weak.title}: {weak.remedy or 'slower, until it is easy'}", weak.key))
    taken = {task.key for task in chosen}
    review = next((one for one in standing if one.key not in taken), None)
    if review and minutes >= _FOR_A_REVIEW:
        chosen.append(Task("review", 0, f"{review.title}: once or twice, as it stood", review.key))
    left = minutes - warm_up.minutes
    if not chosen or left < len(chosen):
        return (Task("warm_up", minutes, warm_up.words),)
    small = max(1, left // 4)
    first = Task(chosen[0].kind, left - small * (len(chosen) - 1), chosen[0].words, chosen[0].key)
    return (warm_up, first, *(Task(one.kind, small, one.words, one.key) for one in chosen[1:]))


def _oldest_and_weakest(one: Subject, day: date) -> tuple[int, float, int]:
    age = (day - one.last_played).days if one.last_played else 10_000
    return -age, -one.shaky, one.key


def _due(one: Subject, day: date) -> float:
    # A shaky one comes back as if it had stood twice as long ago.
    return ((day - one.last_clean).days if one.last_clean else 0) * (1 + one.shaky)


def _weak(found: Sequence[Subject], rung: Subject | None) -> Subject | None:
    # Its own remedy may stand beside a rung; another try of the same rung is no second task.
    fits = [one for one in found if one.remedy or one is not rung]
    return max(fits, key=lambda one: (bool(one.remedy), one.shaky, -one.key), default=None)
