"""The tools by name: what a press on the bench asks for."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

from ripresa.core.changes.by_hand import finger_pressed, grip_pressed, phrase_pressed
from ripresa.core.changes.cells import with_cells
from ripresa.core.changes.mirror import mirrored, mirrored_with_thumb
from ripresa.core.changes.pressing import (
    click_pressed,
    filled,
    gridded,
    growing,
    hit_pressed,
    ornament_pressed,
    pressed,
)
from ripresa.core.changes.tools import (
    arriving,
    backwards,
    doubled,
    grown_to_neighbour,
    halved,
    lengthened,
    one_by_one,
    other_foot,
    shifted,
    trimmed,
    trimmed_to_neighbour,
    until_home,
)
from ripresa.core.changes.transposed import for_part
from ripresa.core.changes.winds import in_all_patterns, over_the_break
from ripresa.core.changes.written_out import as_line
from ripresa.core.drill import Drill
from ripresa.core.reading import read

Tool = Literal[
    "double",
    "halve",
    "backwards",
    "trim",
    "lengthen",
    "arrive",
    "cells",
    "press",
    "click",
    "grid",
    "mirror",
    "circuit",
    "crossing",
    "shift",
    "trim_beats",
    "grow_beats",
    "hit",
    "ornament",
    "finger",
    "phrase",
    "grip",
    "fill",
    "grow",
    "foot",
    "mirror_thumb",
    "write_out",
    "one_by_one",
    "part",
    "home",
]


@dataclass(frozen=True, slots=True)
class Where:
    """Where a tool works, as far as it has to know.

    Args:
        bar, beat: The beat that ``arrive`` leads to, or that ``cells`` changes, from 1.
        count: Slots by which ``shift`` moves, later above 0; or cells of the note ``value`` that are added to a beat,
            taken away if below 0; or places of a bare beat; or notes that grow over ``bar`` sections.
        event: Number of the place that is pressed, or whose click is, from 0.
        source: Key of the instrument that ``part`` finds it written for; empty as it sounds.
    """

    bar: int = 1
    beat: int = 1
    count: int = 1
    event: int = 0
    value: Literal[4, 8, 16, 32] = 16
    source: str = ""


@dataclass(frozen=True, slots=True)
class Making:
    """A tool: what it makes of a drill, and whether its work is told: where it changes more than what is pressed."""

    change: Callable[[Drill, Where], Drill]
    is_told: bool = False


TOOLS: dict[Tool, Making] = {
    "double": Making(lambda drill, _: doubled(drill), is_told=True),
    "halve": Making(lambda drill, _: halved(drill), is_told=True),
    "backwards": Making(lambda drill, _: backwards(drill), is_told=True),
    "trim": Making(lambda drill, _: trimmed(drill), is_told=True),
    "lengthen": Making(lambda drill, _: lengthened(drill), is_told=True),
    "circuit": Making(lambda drill, _: in_all_patterns(drill)),
    "crossing": Making(lambda drill, _: over_the_break(drill)),
    "mirror": Making(lambda drill, _: mirrored(drill), is_told=True),
    "arrive": Making(lambda drill, where: arriving(drill, where.bar, where.beat), is_told=True),
    "cells": Making(lambda drill, where: with_cells(drill, where.count, where.value, where.beat), is_told=True),
    "press": Making(lambda drill, where: pressed(drill, where.event)),
    "click": Making(lambda drill, where: click_pressed(drill, where.event)),
    "grid": Making(lambda drill, where: gridded(drill, where.count)),
    "shift": Making(lambda drill, where: shifted(drill, where.count), is_told=True),
    "trim_beats": Making(lambda drill, _: trimmed_to_neighbour(drill), is_told=True),
    "grow_beats": Making(lambda drill, _: grown_to_neighbour(drill), is_told=True),
    "hit": Making(lambda drill, where: hit_pressed(drill, where.event)),
    "finger": Making(lambda drill, where: finger_pressed(drill, where.event)),
    "grip": Making(lambda drill, where: grip_pressed(drill, where.event)),
    "phrase": Making(lambda drill, where: phrase_pressed(drill, where.event)),
    "ornament": Making(lambda drill, where: ornament_pressed(drill, where.event)),
    "fill": Making(lambda drill, _: filled(drill), is_told=True),
    "grow": Making(lambda drill, where: growing(drill, where.count, where.bar), is_told=True),
    "foot": Making(lambda drill, _: other_foot(drill)),
    "mirror_thumb": Making(lambda drill, _: mirrored_with_thumb(drill), is_told=True),
    "write_out": Making(lambda drill, _: as_line(drill)),
    "one_by_one": Making(lambda drill, _: one_by_one(drill), is_told=True),
    "part": Making(lambda drill, where: for_part(drill, where.source), is_told=True),
    "home": Making(lambda drill, _: until_home(drill), is_told=True),
}


def changed(drill: Drill, tool: Tool, where: Where) -> Drill:
    """Return what a drill becomes by a tool.

    Raises:
        OutOfRange: It cannot be done to this drill, or what it would become cannot be read.
    """
    found = TOOLS[tool].change(drill, where)
    read(found)
    return found
