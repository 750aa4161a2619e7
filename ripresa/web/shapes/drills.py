"""The shapes of kept drills."""

from collections.abc import Sequence

from ripresa.core.climbs import usual_target
from ripresa.core.drill import Drill
from ripresa.core.exact import division_label, label
from ripresa.core.reports import changed_told
from ripresa.core.rhythm import meter_named
from ripresa.core.studio import KeptDrill
from ripresa.formats.wire import Shape, WireExact


class DrillShape(Shape):
    """A version of a drill."""

    id: int
    version: int
    drill: Drill
    saved_at: str


class VersionLine(DrillShape):
    """A version of a drill, and what it changed of the one before it, in a few words each."""

    changed: list[str]


class DrillLine(Shape):
    """A drill in a list: what tells it from the others, and from where to where a climb with it is offered to lead."""

    id: int
    version: int
    title: str
    material: str
    divisions: str
    tempo: str
    bpm: WireExact
    target_bpm: WireExact
    instrument: str
    tags: list[str]
    saved_at: str


def drill_shape(kept: KeptDrill) -> DrillShape:
    """Return the shape of a version."""
    return DrillShape(id=kept.id, version=kept.version, drill=kept.drill, saved_at=kept.saved_at.isoformat())


def version_lines(kept: Sequence[KeptDrill]) -> list[VersionLine]:
    """Return versions, the latest first, each with what it changed of the one after it in the list."""
    before = [*(one.drill for one in kept[1:]), None]
    return [
        VersionLine(**dict(drill_shape(one)), changed=list(changed_told(was, one.drill)) if was else [])
        for one, was in zip(kept, before, strict=True)
    ]


def drill_line(kept: KeptDrill) -> DrillLine:
    """Return a drill as a line of a list."""
    drill = kept.drill
    return DrillLine(
        id=kept.id,
        version=kept.version,
        title=drill.title,
        material=drill.material.title,
        divisions=divisions_of(drill),
        tempo=tempo_of(drill),
        bpm=drill.bpm,
        target_bpm=usual_target(drill.bpm),
        instrument=drill.plays_on.name,
        tags=list(drill.tags),
        saved_at=kept.saved_at.isoformat(),
    )


def divisions_of(drill: Drill) -> str:
    """Return the divisions of a drill in a line, the first seven of many; a count has its own."""
    own = drill.material.own_division
    if own is not None:
        return f"{division_label(own)} a beat"
    divisions = [division_label(*leg.divisions) for leg in drill.legs]
    return " → ".join(divisions if len(divisions) <= 8 else [*divisions[:7], "…"]) + " a beat"


def tempo_of(drill: Drill) -> str:
    """Return the tempo of a drill as a mark: ``♩ = 84``."""
    return f"{meter_named(drill.meter).sign} = {label(drill.bpm)}"
