"""The shape of the map: tempo across, divisions up, and the way of a climb through it."""

from collections.abc import Sequence

from ripresa.core.climbs import (
    Place,
    Played,
    SpeedMap,
)
from ripresa.core.exact import Fraction, decimal, division_label, label
from ripresa.formats.wire import Shape, WireExact
from ripresa.web.shapes.climbs import TreadState, tread_state


class PlaceShape(Shape):
    """A place of the map; ``weight`` 0 to 1 by its speed, ``inside`` the band, ``rung`` that stands there."""

    bpm: WireExact
    bpm_label: str
    division: WireExact
    division_label: str
    nps: str
    weight: float
    inside: bool
    rung: int | None
    played: Played


class WayShape(Shape):
    """A rung on the map: its column and its row as they are counted there, in parts where it lies between."""

    rung: int
    column: float
    row: int
    state: TreadState


class MapShape(Shape):
    """The map of a climb: rows from the most notes a beat down, the way through it, the twins of the present speed."""

    tempi: list[str]
    rows: list[list[PlaceShape]]
    way: list[WayShape]
    twins: str


def map_shape(found: SpeedMap, here: int) -> MapShape:
    """Return the map of a climb that stands on a rung."""
    speeds = [place.nps for row in found.rows for place in row]
    low, high = min(speeds), max(speeds)
    divisions = [row[0].division for row in found.rows]
    return MapShape(
        tempi=[label(bpm) for bpm in found.tempi],
        rows=[[_map_place(place, low, high) for place in row] for row in found.rows],
        way=[
            WayShape(
                rung=rung.number,
                column=_column(found.tempi, rung.bpm),
                row=divisions.index(rung.division),
                state=tread_state(rung.number, here, len(found.way)),
            )
            for rung in found.way
        ],
        twins=found.twins,
    )


def _map_place(place: Place, low: Fraction, high: Fraction) -> PlaceShape:
    return PlaceShape(
        bpm=place.bpm,
        bpm_label=label(place.bpm),
        division=place.division,
        division_label=division_label(place.division),
        nps=decimal(place.nps, 1),
        weight=float((place.nps - low) / (high - low)) if high > low else 0.0,
        inside=place.inside,
        rung=place.rung,
        played=place.played,
    )


def _column(tempi: Sequence[Fraction], bpm: Fraction) -> float:
    """Return the column of a tempo, in parts where it lies between two."""
    before = max((number for number, one in enumerate(tempi) if one <= bpm), default=0)
    after = min(before + 1, len(tempi) - 1)
    wide = tempi[after] - tempi[before]
    return before + float((bpm - tempi[before]) / wide) if wide else float(before)
