"""What stands on the shelf: a ready drill with its aim, and the short way to write one."""

from dataclasses import dataclass
from typing import Any, Literal

from ripresa.core.drill import Drill, Leg, Seam
from ripresa.core.drill.accents import Accents, EachBeat
from ripresa.core.drill.click import NamedClick
from ripresa.core.drill.hands import Hands, NoHands
from ripresa.core.drill.material import Material
from ripresa.core.exact import Fraction, fraction_of

Aim = Literal[
    "evenness",
    "changes",
    "displacement",
    "accents",
    "strumming",
    "tonguing",
    "sequences",
    "meters",
    "pulse",
    "lines",
    "layers",
    "two_hands",
    "picking",
    "breath",
]

AIMS: dict[Aim, str] = {
    "evenness": "even notes",
    "changes": "changing divisions",
    "displacement": "groups across the beat",
    "accents": "accents",
    "strumming": "strumming",
    "tonguing": "tonguing",
    "sequences": "sequences and arpeggios",
    "meters": "other meters",
    "pulse": "keeping the beat alone",
    "lines": "lines and cells",
    "layers": "layers and the way in",
    "two_hands": "two hands on keys",
    "picking": "fingers and picks on strings",
    "breath": "breath and registers",
}


@dataclass(frozen=True, slots=True)
class Shelved:
    """A ready drill: its key, what it is for, and the drill."""

    key: str
    aim: Aim
    drill: Drill


def _legs(text: str) -> tuple[Leg, ...]:
    """Return the legs of ``"2 3 6+5"``."""
    found = []
    for word in text.split():
        first, *following = (fraction_of(one) for one in word.split("+"))
        found.append(Leg(first, tuple(following)))
    return tuple(found)


def shelf_drill(
    aim: Aim,
    title: str,
    purpose: str,
    material: Material,
    legs: str = "1",
    *,
    bpm: int = 72,
    meter: str = "4/4",
    hands: Hands | None = None,
    accents: Accents | None = None,
    click: str = "every_beat",
    seam: Seam = "hold",
    instrument: str = "any",
    **rest: Any,
) -> Shelved:
    """Return a ready drill; ``rest`` are further parts of ``Drill`` by name."""
    drill = Drill(
        title=title,
        purpose=purpose,
        material=material,
        legs=_legs(legs),
        bpm=Fraction(bpm),
        meter=meter,
        seam=seam,
        hands=hands or NoHands(),
        accents=accents or EachBeat(),
        click=NamedClick(plan=click),
        instrument=instrument,
        **rest,
    )
    return Shelved(title.lower().replace(" ", "-").replace(",", ""), aim, drill)
