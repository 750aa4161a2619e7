"""A drill said in one line: what is understood of it, at each key."""

from typing import Annotated

from flask import Response
from pydantic import Field

from ripresa.core.drill import Drill
from ripresa.core.reading import read
from ripresa.core.reports import brief, changed_told
from ripresa.core.say import LONGEST, say
from ripresa.formats.wire import Shape
from ripresa.web.answers import answer
from ripresa.web.blueprint import blueprint

api = blueprint("say")


class SayBody(Shape):
    """What is said; and the drill that it changes, or none for a new one."""

    text: Annotated[str, Field(max_length=LONGEST)]
    drill: Drill | None = None


class ChipShape(Shape):
    """Words that are understood: where they stand, the word before the line that they belong to, and what they set."""

    start: int
    end: int
    sets: str
    says: str


class UnknownShape(Shape):
    """A word that is not understood, where it stands, and the nearest that are."""

    text: str
    start: int
    end: int
    near: list[str]


class SaidShape(Shape):
    """The drill that is meant, what was understood, what was not, and what came of it in sentences."""

    drill: Drill
    chips: list[ChipShape]
    unknown: list[UnknownShape]
    refused: str
    told: list[str]


@api.post("/say", responses={200: SaidShape})
def said(body: SayBody) -> Response:
    """What a sentence means; nothing is kept."""
    found = say(body.text, body.drill)
    told = list(changed_told(body.drill, found.drill)) if body.drill else [brief(read(found.drill))]
    return answer(
        SaidShape(
            drill=found.drill,
            chips=[ChipShape(start=one.start, end=one.end, sets=one.sets, says=one.says) for one in found.chips],
            unknown=[
                UnknownShape(text=one.text, start=one.start, end=one.end, near=list(one.near)) for one in found.unknown
            ],
            refused=found.refused,
            told=told,
        )
    )
