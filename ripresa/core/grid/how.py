"""How a note is played where the material itself says so: by which finger, on which strings, slurred or dead."""

from dataclasses import dataclass
from typing import Literal

Ornament = Literal["hammer", "pull", "slide"]

#: What a note that is not struck is called, and its sign.
ORNAMENTS: dict[Ornament, tuple[str, str]] = {
    "hammer": ("hammered on", "h"),
    "pull": ("pulled off", "p"),
    "slide": ("slid to", "sl"),
}


@dataclass(frozen=True, slots=True)
class Pluck:
    """A string that sounds: its number from 1, the thinnest; its fret, 0 for open; the finger that plucks it."""

    string: int
    fret: int
    finger: str = ""


@dataclass(frozen=True, slots=True)
class How:
    """How a note is played.

    Args:
        stroke: Finger or way of the stroke; None where the hand law of the drill says it.
        plucks: The strings that sound, the thickest first; empty where none are known.
        ornament: How it is reached where it is not struck; None where it is.
        dead: Whether it is damped: a stroke without pitch.
        rolled: Whether its tones come one after the other, the lowest first.
    """

    stroke: str | None = None
    plucks: tuple[Pluck, ...] = ()
    ornament: Ornament | None = None
    dead: bool = False
    rolled: bool = False


#: As the drill and its hands say.
AS_WRITTEN = How()
