"""The shapes of kept drills."""

from ripresa.core.drill import Drill
from ripresa.core.exact import division_label, label
from ripresa.core.pitch import instrument_named
from ripresa.core.rhythm import meter_named
from ripresa.core.studio import KeptDrill
from ripresa.formats.wire import Shape


class DrillShape(Shape):
    """A version of a drill."""

    id: int
    version: int
    drill: Drill
    saved_at: str


class DrillLine(Shape):
    """A drill in a list: what tells it from the others."""

    id: int
    version: int
    title: str
    material: str
    divisions: str
    tempo: str
    instrument: str
    tags: list[str]
    saved_at: str


def drill_shape(kept: KeptDrill) -> DrillShape:
    """Return the shape of a version."""
    return DrillShape(id=kept.id, version=kept.version, drill=kept.drill, saved_at=kept.saved_at.isoformat())


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
        instrument=instrument_named(drill.instrument).name,
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
