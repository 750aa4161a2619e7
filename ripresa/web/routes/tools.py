"""Tools on a drill that need not be kept yet: the drill comes back changed."""

from typing import Literal, assert_never

from flask import Response
from pydantic import BaseModel

from ripresa.core.changes import (
    arriving,
    backwards,
    click_pressed,
    doubled,
    gridded,
    halved,
    lengthened,
    mirrored,
    pressed,
    trimmed,
    with_cells,
)
from ripresa.core.drill import Drill
from ripresa.core.reading import read
from ripresa.web.answers import answer
from ripresa.web.blueprint import blueprint
from ripresa.web.numbers import Count

api = blueprint("tools")

Tool = Literal[
    "double", "halve", "backwards", "trim", "lengthen", "arrive", "cells", "press", "click", "grid", "mirror"
]


class ToolBody(BaseModel):
    """A drill, what to do with it, and where: the beat that ``arrive`` leads to, or that ``cells`` changes.

    ``press`` turns the place with the number ``event``, ``click`` the click there;
    ``grid`` gives each bare beat ``count`` places.
    ``count`` cells of the note ``value`` are added to a beat; taken away if below 0.
    """

    drill: Drill
    tool: Tool
    bar: Count = 1
    beat: Count = 1
    count: Count = 1
    event: Count = 0
    value: Literal[4, 8, 16, 32] = 16


class ToolResult(BaseModel):
    """The drill that it became."""

    drill: Drill


@api.post("/tool", responses={200: ToolResult})
def use_tool(body: ToolBody) -> Response:
    """Double, halve, turn round, trim or lengthen a drill, or let it arrive on a beat."""
    changed = _changed(body)
    read(changed)
    return answer(ToolResult(drill=changed))


def _changed(body: ToolBody) -> Drill:
    match body.tool:
        case "double":
            return doubled(body.drill)
        case "halve":
            return halved(body.drill)
        case "backwards":
            return backwards(body.drill)
        case "trim":
            return trimmed(body.drill)
        case "lengthen":
            return lengthened(body.drill)
        case "arrive":
            return arriving(body.drill, body.bar, body.beat)
        case "cells":
            return with_cells(body.drill, body.count, body.value, body.beat)
        case "press":
            return pressed(body.drill, body.event)
        case "click":
            return click_pressed(body.drill, body.event)
        case "grid":
            return gridded(body.drill, body.count)
        case "mirror":
            return mirrored(body.drill)
        case _:
            assert_never(body.tool)
