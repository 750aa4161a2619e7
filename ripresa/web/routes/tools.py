"""Tools on a drill that need not be kept yet: the drill comes back changed."""

from typing import Literal

from flask import Response

from ripresa.core.changes import TOOLS, Tool, Where, changed, differences, others, turned, turned_told
from ripresa.core.drill import Drill
from ripresa.core.reading import read
from ripresa.core.rhythm import check_bpm
from ripresa.formats.wire import Shape, WireExact
from ripresa.web.answers import answer
from ripresa.web.blueprint import blueprint
from ripresa.web.numbers import Count

api = blueprint("tools")


class ToolBody(Shape):
    """A drill, what to do with it, and where: the beat that ``arrive`` leads to, or that ``cells`` changes.

    ``press`` turns the place with the number ``event``, ``click`` the click there;
    ``grid`` gives each bare beat ``count`` places.
    ``part`` moves it from what was written for the instrument ``source``, or as it sounds.
    ``count`` cells of the note ``value`` are added to a beat; taken away if below 0.
    """

    drill: Drill
    tool: Tool
    bar: Count = 1
    beat: Count = 1
    count: Count = 1
    event: Count = 0
    value: Literal[4, 8, 16, 32] = 16
    source: str = ""


class ToolResult(Shape):
    """The drill that it became, and what is another thing than before, in sentences.

    ``turned`` are the numbers of the notes whose stroke goes the other way than it did at their place.
    """

    drill: Drill
    told: list[str]
    turned: list[int]


class CompareBody(Shape):
    """A drill, at its own tempo if no other is said; and what it is held against."""

    drill: Drill
    other: Drill | None = None
    bpm: WireExact | None = None


class ComparedShape(Shape):
    """Another drill to hear, its name, and what differs, in sentences."""

    name: str
    drill: Drill
    told: list[str]


class CompareShape(Shape):
    """What a drill can be heard against in one press; with ``other`` that one alone."""

    others: list[ComparedShape]


@api.post("/tool", responses={200: ToolResult})
def use_tool(body: ToolBody) -> Response:
    """Double, halve, turn round, trim or lengthen a drill, or let it arrive on a beat."""
    where = Where(body.bar, body.beat, body.count, body.event, body.value, body.source)
    found = changed(body.drill, body.tool, where)
    before, after = read(body.drill), read(found)
    # A press is seen where it is made; what it turns round elsewhere is told.
    is_told = TOOLS[body.tool].is_told
    told = differences(before, after, body.drill.bpm) if is_told else turned_told(before, after)
    return answer(ToolResult(drill=found, told=list(told), turned=list(turned(before, after))))


@api.post("/compare", responses={200: CompareShape})
def compare(body: CompareBody) -> Response:
    """What a drill can be heard against, and what differs then."""
    bpm = check_bpm(body.bpm or body.drill.bpm)
    before = read(body.drill)
    found = [("", read(body.other))] if body.other else [(one.name, one.reading) for one in others(body.drill)]
    return answer(
        CompareShape(
            others=[
                ComparedShape(name=name, drill=other.drill, told=list(differences(before, other, bpm)))
                for name, other in found
            ]
        )
    )
