"""Tools on a drill that need not be kept yet: the drill comes back changed."""

from typing import Literal

from flask import Response
from pydantic import BaseModel

from ripresa.core.changes import Tool, Where, changed
from ripresa.core.drill import Drill
from ripresa.web.answers import answer
from ripresa.web.blueprint import blueprint
from ripresa.web.numbers import Count

api = blueprint("tools")


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
    where = Where(body.bar, body.beat, body.count, body.event, body.value)
    return answer(ToolResult(drill=changed(body.drill, body.tool, where)))
