"""Set-ups: by what takes are heard, and how late that is known to be."""

from typing import Annotated

from flask import Response
from pydantic import Field, StringConstraints

from ripresa.core.studio import Delay, Setup, Way
from ripresa.core.takes import Source
from ripresa.formats.wire import Shape
from ripresa.store import setups as store
from ripresa.web.answers import answer, now
from ripresa.web.blueprint import blueprint
from ripresa.web.numbers import Id
from ripresa.web.query import Query

api = blueprint("setups", "/api/setups")
_Device = Annotated[str, StringConstraints(max_length=200)]


class SetupPath(Shape):
    """Which set-up."""

    setup_id: Id


class SetupQuery(Query):
    """A set-up: its source, its device, what the click is heard by, and where."""

    source: Source
    device: _Device = ""
    output: _Device = ""
    place: _Device = ""


class SetupBody(SetupQuery):
    """What was measured of a set-up, or its pads; what is not said stays as it is.

    Args:
        way: What was measured: what the devices add, or those and a hand together. ms, half: The delay ± its
            half-width. forget: Forget what was measured.
        pads: MIDI note → a stroke, ``"start"`` or ``"offered"``.
    """

    way: Way | None = None
    ms: float = Field(default=0.0, ge=-1000, le=1000, allow_inf_nan=False)
    half: float = Field(default=0.0, ge=0, le=500, allow_inf_nan=False)
    forget: bool = False
    pads: dict[str, str] | None = Field(default=None, max_length=32)


class SetupShape(Shape):
    """A set-up, and what is known of it: the delay that is taken off, in ms, how it is told, and whether it is old."""

    id: int | None
    source: Source
    device: str
    output: str
    place: str
    way: Way | None
    ms: float | None
    half: float | None
    label: str
    sentences: list[str]
    is_old: bool
    pads: dict[str, str]


class SetupList(Shape):
    """Every set-up, the newest first."""

    setups: list[SetupShape]


@api.get("", responses={200: SetupList})
def list_setups() -> Response:
    """Every set-up that is known."""
    return answer(_list())


@api.get("/known", responses={200: SetupShape})
def show_setup(query: SetupQuery) -> Response:
    """What is known of a set-up; nothing of a new one."""
    return answer(_shape(store.find_setup(query.source, query.device, query.output, query.place)))


@api.put("", responses={200: SetupShape})
def keep_setup(body: SetupBody) -> Response:
    """Keep what was measured of a set-up, or its pads."""
    known = store.find_setup(body.source, body.device, body.output, body.place)
    measured = Delay(body.ms, body.half, now()) if body.way else None
    setup = Setup(
        body.source,
        body.device,
        body.output,
        body.place,
        None if body.forget else measured if body.way == "device" else known.device_delay,
        None if body.forget else measured if body.way == "hand" else known.hand_delay,
        known.pads if body.pads is None else body.pads,
    )
    return answer(_shape(setup, store.keep_setup(setup)))


@api.delete("/<int:setup_id>", responses={200: SetupList})
def forget_setup(path: SetupPath) -> Response:
    """Forget a set-up."""
    store.delete_setup(path.setup_id)
    return answer(_list())


def _list() -> SetupList:
    return SetupList(setups=[_shape(setup, number) for number, setup in store.all_setups()])


def _shape(setup: Setup, number: int | None = None) -> SetupShape:
    moment = now()
    return SetupShape(
        id=number,
        source=setup.source,
        device=setup.device,
        output=setup.output,
        place=setup.place,
        way=setup.way,
        ms=setup.used.ms if setup.used else None,
        half=setup.used.half if setup.used else None,
        label=setup.label(moment),
        sentences=list(setup.sentences(moment)),
        is_old=setup.is_old(moment),
        pads=dict(setup.pads),
    )
