"""A fault: one figure of a take beside its limit, and on which side of it."""

from dataclasses import dataclass
from typing import Literal

from ripresa.core.takes.interval import Interval

FaultKind = Literal[
    "seam",
    "habit",
    "crowding",
    "swing",
    "place",
    "tempo",
    "click",
    "furthest",
    "spread",
    "lost_beat",
    "group",
    "back",
    "hand",
    "accent",
    "misplaced",
    "smear",
    "landing",
    "slips",
    "together",
]
#: What each hand is called in a sentence.
HAND_WORDS = {"R": "right hand", "L": "left hand"}
State = Literal["inside", "near", "outside"]


@dataclass(frozen=True, slots=True)
class Fault:
    """A figure beside its limit.

    Args:
        kind: What it is. where: In words or numbers: ``"5 → 6"``, ``"slot 3 of 4"``, ``"hand R"``.
        value, half_width, limit: In seconds, per cent, dB, a share of the notes, or to 1; see ``unit``.
        unit: ``"s"``, ``"%"``, ``"dB"``, ``"notes"`` or ``":1"``.
        division, slot, symbol: What a remedy needs to know.
        times, of: How often it was outside, of how many times that it was heard.
        event, turn: Where it begins, for what happens once.
    """

    kind: FaultKind
    where: str
    value: float
    half_width: float
    limit: float
    unit: str = "s"
    division: str = ""
    slot: int | None = None
    symbol: str = ""
    times: int = 0
    of: int = 0
    event: int | None = None
    turn: int = 0

    @property
    def side(self) -> str:
        """On which side of its place it lies, in a word."""
        return "late" if self.value >= 0 else "early"

    @property
    def in_hand(self) -> str:
        """In which hand it is, as a sentence goes on; empty where no hand is named."""
        return f" in the {HAND_WORDS[self.symbol]}" if self.symbol in HAND_WORDS else ""


@dataclass(frozen=True, slots=True)
class Checked:
    """A figure held against its limit; weight sorts the worst first: value / limit.

    Args:
        share: Its part of that: what follows from other faults says less than they do.
    """

    fault: Fault
    state: State
    share: float = 1.0

    @property
    def weight(self) -> float:
        """How far it goes, in limits; what is lost altogether comes first."""
        fault = self.fault
        if fault.kind in {"lost_beat", "group", "back"}:
            return 1e3 + fault.value
        if fault.kind == "accent":
            return 1.0 + max(0.0, fault.limit - fault.value) / max(fault.limit, 1e-9)
        return self.share * abs(fault.value) / max(fault.limit, 1e-9)


def state_of(interval: Interval, limit: float, family: int = 1) -> State:
    """Return where a figure lies beside its limit, whichever side of 0.

    Inside and outside by the 90 % interval; of a family of figures the outermost one has to lie farther out, so
    that many slots do not make a fault by chance (Bonferroni).
    """
    size = abs(interval.value)
    if size + interval.half() < limit:
        return "inside"
    return "outside" if size - interval.half(1 - 0.10 / family) > limit else "near"
