"""Cues: a line of technique for a leg, a station of a walk or a step of the way in."""

from dataclasses import dataclass
from typing import Literal

from ripresa.core.drill.way_in import STEPS, Step
from ripresa.core.errors import OutOfRange

Where = Literal["all", "leg", "station", "step"]
LONGEST, MOST, LARGEST = 80, 32, 400
WHERES: dict[Where, tuple[str, str]] = {
    "all": ("throughout", "It stands there the whole time."),
    "leg": ("in leg", "While that division is played."),
    "station": ("on station", "While the accent walks over that slot."),
    "step": ("at the step", "While that step of the way in is practised."),
}


@dataclass(frozen=True, slots=True)
class Cue:
    """A line that is shown beside the word while it holds, never over the notes.

    Args:
        text: 1 to 80 signs: ``"drop the wrist on the accent"``.
        where: What it belongs to. number: Of the leg or the station, from 1.
        step: The step of the way in.

    Raises:
        OutOfRange: It is empty or too long, or has no such number.
    """

    text: str
    where: Where = "all"
    number: int = 1
    step: Step = "whole"

    def __post_init__(self) -> None:
        if not len(self.text.strip()) >= 1 or len(self.text) > LONGEST:
            raise OutOfRange(f"A cue has 1 to {LONGEST} signs, so that it is read at a glance.", field="cues")
        if not 1 <= self.number <= LARGEST:
            raise OutOfRange(f"Legs and stations are counted from 1 to {LARGEST}, not {self.number}.", field="cues")

    @property
    def told(self) -> str:
        """The line and where it holds: ``drop the wrist (in leg 2)``."""
        return f"{self.text} ({self.where_words})" if self.where_words else self.text

    @property
    def where_words(self) -> str:
        """Where it holds, in words; empty where it always does."""
        match self.where:
            case "all":
                return ""
            case "step":
                return f"at “{STEPS[self.step][0]}”"
            case _:
                return f"{WHERES[self.where][0]} {self.number}"
