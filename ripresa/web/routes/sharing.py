"""Drills shared between colleagues: saved as one file, looked at, and taken as it is chosen."""

from typing import Any

from flask import Response
from pydantic import Field

from ripresa.core.exact import plural
from ripresa.formats.shared_file import MOST_DRILLS, read_shared, write_shared
from ripresa.formats.wire import Shape
from ripresa.web.answers import answer, download, file_name, now
from ripresa.web.blueprint import blueprint
from ripresa.web.numbers import Id, Key
from ripresa.web.query import Query
from ripresa.work.sharing import Choice, How, State, gather, look, take

api = blueprint("sharing", "/api/shared")


class ShareQuery(Query):
    """Which drills."""

    drill: list[Id] = Field(min_length=1, max_length=MOST_DRILLS)


class SharedText(Shape):
    """A file of drills, as text."""

    text: str


class LookedShape(Shape):
    """A drill of a file beside the one of its title that is here.

    ``state``: new here, the same, or it differs, and then in what. ``beside``: its remedies and variants by name.
    """

    title: str
    state: State
    words: str
    brief: str
    beside: list[str]
    here_id: int | None


class LookedList(Shape):
    """The drills of a file, in its order, and how they stand to those here, in a sentence."""

    drills: list[LookedShape]
    sentence: str


class ChoiceShape(Shape):
    """What becomes of a drill of the file, by its place from 0."""

    index: int = Field(ge=0, lt=MOST_DRILLS)
    how: How
    with_beside: bool = False


class TakeShared(SharedText):
    """The file again, what becomes of each drill, and a key for the press."""

    choices: list[ChoiceShape] = Field(max_length=MOST_DRILLS)
    key: Key


class TakenDrills(Shape):
    """How many drills were kept, in a sentence."""

    sentence: str
    ids: list[int]


@api.get("/file.json")
def fetch_shared(query: ShareQuery) -> Any:
    """Drills with their remedies and variants as one file."""
    found = gather(query.drill)
    name = file_name(found[0].drill.title) if len(found) == 1 else f"{len(found)}-drills"
    return download(write_shared(found), f"{name}-shared.json", "application/json")


@api.post("/look", responses={200: LookedList})
def look_at(body: SharedText) -> Response:
    """What a file holds, beside what is here."""
    found = look(read_shared(body.text))
    counted = {state: sum(one.state == state for one in found) for state in ("new", "same", "differs")}
    told = (
        (counted["new"], "new here"),
        (counted["same"], "the same as here"),
        (counted["differs"], "of a title that is here and otherwise"),
    )
    sentence = ", ".join(f"{count} {what}" for count, what in told if count)
    return answer(
        LookedList(
            drills=[
                LookedShape(
                    title=one.shared.drill.title,
                    state=one.state,
                    words=f"It differs in {one.differs}." if one.differs else "",
                    brief=one.brief,
                    beside=list(one.beside),
                    here_id=one.here.id if one.here else None,
                )
                for one in found
            ],
            sentence=f"{plural(len(found), 'drill')}: {sentence}.",
        )
    )


@api.post("", responses={201: TakenDrills})
def take_shared(body: TakeShared) -> Response:
    """Keep drills of a file as they were chosen."""
    choices = [Choice(one.index, one.how, one.with_beside) for one in body.choices]
    kept = take(read_shared(body.text), choices, now(), body.key)
    sentence = f"{plural(len(kept), 'drill')} kept." if kept else "None was taken."
    return answer(TakenDrills(sentence=sentence, ids=[one.id for one in kept]), 201)
