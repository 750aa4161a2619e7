"""Remedies: what a take’s faults lead to, taken in one press, and kept beside the climb until they are clean."""

from dataclasses import replace
from datetime import datetime

from ripresa.core.climbs import laid_rungs
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction
from ripresa.core.reading import read
from ripresa.core.rhythm import check_bpm
from ripresa.core.studio import Climb, KeptRemedy, Take
from ripresa.core.takes import Fault, FaultKind, Remedy, fault_name, heard_fault
from ripresa.core.takes import remedies as remedies_for
from ripresa.store import climbs, drills, takes
from ripresa.store import remedies as store

#: Offered after one take: the first of each fault, then what else there is against the worst.
MOST_OFFERED = 6


def offered(take: Take, climb: Climb | None) -> list[tuple[Fault, Remedy]]:
    """Return what the faults of a take lead to, ears first: the first remedy of each fault, then the others."""
    faults = _heard(take) or (take.faults if take.mark == "shaky" else ())
    if take.part is not None and not take.part.is_all:
        return []
    reading = read(drills.find_drill(take.drill_id, take.version).drill)
    below = _below(climb, take.rung)
    by_fault = [(fault, remedies_for(reading, take.bpm, fault, below)) for fault in faults]
    firsts: dict[str, tuple[Fault, Remedy]] = {}
    for fault, found in by_fault:
        for one in found[:1]:
            firsts.setdefault(one.name, (fault, one))
    others = {one.name: (fault, one) for fault, found in by_fault for one in found if one.name not in firsts}
    return [*firsts.values(), *others.values()][:MOST_OFFERED]


def take_remedy(take_id: str, key: str, bpm: Fraction | None, now: datetime, once: str | None) -> KeptRemedy:
    """Take a remedy of a take, at its tempo or another one, and keep it beside the climb.

    Raises:
        NotFound: There is no such take.
        OutOfRange: The take leads to no such remedy, or the tempo cannot be played.
    """
    take = takes.find_take(take_id)
    climb = climbs.find_climb(take.climb_id) if take.climb_id is not None else None
    fault, remedy = next(((fault, one) for fault, one in offered(take, climb) if one.key == key), (None, None))
    if fault is None or remedy is None:
        raise OutOfRange("This take does not lead to such a remedy.", field="remedy")
    if bpm is not None:
        remedy = replace(remedy, bpm=check_bpm(bpm))
    return store.add_remedy(
        remedy,
        fault_name(fault),
        climb_id=take.climb_id,
        student_id=take.student_id,
        drill_id=take.drill_id,
        version=take.version,
        now=now,
        key=once,
    )


def _heard(take: Take) -> tuple[Fault, ...]:
    """Return faults that an ear has ticked, with what the machine knows of the same."""
    if take.ear is None:
        return ()
    known: dict[FaultKind, Fault] = {}
    for fault in take.faults:
        known.setdefault(fault.kind, fault)
    return tuple(known.get(kind) or _ticked(take, kind) for kind in take.ear.faults)


def _ticked(take: Take, kind: FaultKind) -> Fault:
    """Return a fault that an ear alone has heard: at the first change, in the fastest division, of the second hand."""
    reading = read(drills.find_drill(take.drill_id, take.version).drill)
    return heard_fault(reading, kind)


def _below(climb: Climb | None, rung: int | None) -> Fraction | None:
    if climb is None or rung is None or rung < 2:
        return None
    return laid_rungs(climb.plan)[rung - 2].bpm
