"""Assignments: variants of a drill made as a set, a later version, and where a climb goes beyond its student."""

from dataclasses import dataclass
from datetime import datetime

from ripresa.core.changes import Overrides, Turned, VariantSet, overridden, variant_set
from ripresa.core.climbs import (
    ClimbPlan,
)
from ripresa.core.drill import Drill
from ripresa.core.exact import Fraction, label
from ripresa.core.pitch import parse_pitch
from ripresa.core.reading import read
from ripresa.core.studio import Climb
from ripresa.store import climbs as store
from ripresa.store import drills
from ripresa.store.climb_lists import climbs_of_set
from ripresa.work.climbs import aimed, check_guardian, check_rungs


def cautions_of(climb: Climb) -> tuple[str, ...]:
    """Return where a climb goes beyond what is written down about its student: range, breath, tempo."""
    details, reading = climb.student.details, read(climb.drill.drill)
    found = []
    pitches = [event.pitch for event in reading.every if event.pitch]
    if pitches and details.lowest and min(pitches, key=lambda one: one.midi).midi < parse_pitch(details.lowest).midi:
        lowest = min(pitches, key=lambda one: one.midi)
        found.append(f"It goes down to {lowest.shown}; {details.name} reaches {parse_pitch(details.lowest).shown}.")
    if pitches and details.highest and max(pitches, key=lambda one: one.midi).midi > parse_pitch(details.highest).midi:
        highest = max(pitches, key=lambda one: one.midi)
        found.append(f"It goes up to {highest.shown}; {details.name} reaches {parse_pitch(details.highest).shown}.")
    breath = climb.drill.drill.breath
    if breath and details.breath and breath > details.breath:
        found.append(
            f"The drill counts on a breath of {label(breath)} s; {details.name} has {label(details.breath)} s."
        )
    most = details.guardian.most_bpm
    if most is not None and climb.plan.goal > most:
        found.append(f"The target lies above the {label(most)} bpm that the guardian of {details.name} allows.")
    return tuple(found)


@dataclass(frozen=True, slots=True)
class SetToMake:
    """A drill turned through a list, before it is started: its variants, and the time of once through all of them."""

    found: VariantSet
    start: Fraction


def set_of(drill_id: int, version: int | None, turned: Turned, plan: ClimbPlan, over: Overrides) -> SetToMake:
    """Return the variants of a drill that a set would have.

    Raises:
        NotFound: There is no such drill or version.
        OutOfRange: It has nothing that could be turned so.
    """
    drill = drills.find_drill(drill_id, version).drill
    return SetToMake(variant_set(drill, turned, plan.start, over), plan.start)


def start_set(
    student_id: int,
    drill_id: int,
    version: int | None,
    turned: Turned,
    plan: ClimbPlan,
    over: Overrides,
    now: datetime,
    key: str | None = None,
) -> list[Climb]:
    """Start a climb for every variant of a drill, in their order; each keeps its own clean tempo and click.

    Raises:
        NotFound: There is no such student, drill or version.
        OutOfRange: As ``set_of`` and ``start_climb``.
    """
    variants = [one.overrides for one in set_of(drill_id, version, turned, plan, over).found.variants]
    drill = drills.find_drill(drill_id, version).drill
    for overrides in variants:
        check_rungs(aimed(plan, overridden(drill, overrides)), overridden(drill, overrides))
    check_guardian(student_id, plan)
    return climbs_of_set(store.add_set(student_id, drill_id, version, aimed(plan, drill), variants, now, key))


def take_own(climb_id: int, drill: Drill, based_on: int, now: datetime, key: str | None = None) -> Climb:
    """Let a climb go on with a drill of its student’s own, kept beside the one that it was of; takes stay with theirs.

    Raises:
        NotFound: There is no such climb.
        OutOfRange, Conflict: As ``take_version``.
    """
    climb = store.find_climb(climb_id)
    check_rungs(climb.plan, overridden(drill, climb.overrides))
    return store.take_own(climb_id, drill, based_on, now, key)


def take_version(climb_id: int, version: int, based_on: int) -> Climb:
    """Let a climb go on with another version of its drill; its takes stay with theirs.

    Raises:
        NotFound: There is no such climb or version.
        OutOfRange: The climb cannot go on so: what the student plays otherwise, or a rung, does not fit it.
        Conflict: It was changed since that revision.
    """
    climb = store.find_climb(climb_id)
    drill = overridden(drills.find_drill(climb.drill.id, version).drill, climb.overrides)
    check_rungs(climb.plan, drill)
    return store.take_version(climb_id, version, based_on)
