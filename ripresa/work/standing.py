"""How the climbs of a student stand: the last clean take, what is weak, the way there."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime

from ripresa.core.exact import Fraction
from ripresa.core.reports import peak_of_drill
from ripresa.core.rhythm import speed_nps
from ripresa.core.takes import Fault, Weak, pooled_faults
from ripresa.store import climb_lists
from ripresa.store.practice import (
    SpeedOf,
    faults_of,
    speeds_of,
)
from ripresa.work.climbs import Stood, as_they_stand

#: Takes of a climb that its trend is seen from, and those over which faults are pooled.
MOST_TRACED, MOST_POOLED = 200, 14


@dataclass(frozen=True, slots=True)
class Stands:
    """How a climb stands, at a glance.

    Args:
        clean: The last clean take; None without one. nps: Its notes a second.
        weak: What is weak in it, the most frequent first. speeds: Its judged takes, oldest first.
    """

    stood: Stood
    clean: SpeedOf | None
    nps: Fraction | None
    weak: tuple[Weak, ...]
    speeds: tuple[SpeedOf, ...]

    @property
    def shaky(self) -> float:
        """Share of the last ten judged takes that were shaky."""
        last = self.speeds[-10:]
        return sum(one.mark == "shaky" for one in last) / len(last) if last else 0.0

    @property
    def target_stands(self) -> bool:
        """Whether it stands on its last rung, clean."""
        return self.stood.word.heading == "The target stands"


def stands_of(student_id: int) -> list[Stands]:
    """Return how every climb of a student stands, the one played last first."""
    return stands_by_student([student_id])[student_id]


def stands_by_student(
    student_ids: Sequence[int], since: datetime | None = None, most: int = MOST_TRACED
) -> dict[int, list[Stands]]:
    """Return how every climb of some students stands, in as many questions as for one.

    Args:
        since: Those alone that were played since then. most: Takes of each that are looked at.
    """
    own = climb_lists.climbs_of(student_ids, since)
    ids = [climb.id for climb in own]
    speeds, faults = speeds_of(ids, most), faults_of(ids, MOST_POOLED)
    never = datetime.min.replace(tzinfo=UTC)
    found: dict[int, list[Stands]] = {student: [] for student in student_ids}
    for stood in as_they_stand(own):
        climb = stood.climb
        found[climb.student.id].append(_stands(stood, speeds[climb.id], faults[climb.id]))
    for stands in found.values():
        stands.sort(key=lambda one: (one.stood.standing.last_take_at or never, one.stood.climb.id), reverse=True)
    return found


def _stands(stood: Stood, speeds: Sequence[SpeedOf], faults: Sequence[tuple[Fault, ...]]) -> Stands:
    clean = next((one for one in reversed(speeds) if one.mark == "clean"), None)
    peak = peak_of_drill(stood.climb.drill.drill)
    return Stands(
        stood=stood,
        clean=clean,
        nps=nps_of(clean, peak) if clean else None,
        weak=tuple(pooled_faults(faults)),
        speeds=tuple(speeds),
    )


def nps_of(take: SpeedOf, peak: Fraction) -> Fraction:
    """Return the notes a second of a take of a drill with so many notes per beat where it is fastest."""
    only = None if take.part is None else take.part.only
    return speed_nps(take.bpm, only or peak)
