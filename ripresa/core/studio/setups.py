"""Set-ups: by which device takes are heard, through which sound, and how late that is known to be."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime
from typing import Literal

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import plural
from ripresa.core.takes import SOURCES, Source

LONGEST_DEVICE = 200
MOST_PADS = 32
LARGEST_MS, LARGEST_HALF = 1000.0, 500.0
#: After so many days a delay is asked for again: drivers and devices change.
OLD_DAYS = 90
#: How a delay was measured: out of the loudspeaker and back in, or by a hand that went along with the click.
Way = Literal["device", "hand"]
#: What a pad of a MIDI device may do beside naming a stroke.
PRESSES = ("start", "offered")


@dataclass(frozen=True, slots=True)
class Delay:
    """A measured delay: ms ± its half-width, and when it was measured.

    Raises:
        OutOfRange: A number that no device has.
    """

    ms: float
    half: float
    at: datetime

    def __post_init__(self) -> None:
        if abs(self.ms) > LARGEST_MS or not 0 <= self.half <= LARGEST_HALF:
            raise OutOfRange(f"A delay is up to {LARGEST_MS:.0f} ms.", field="ms")


@dataclass(frozen=True, slots=True)
class Setup:
    """By what takes are heard.

    Args:
        source: Of takes. device: Its name as the browser has it; empty for the usual one.
        output: By what the click is heard; empty for the usual one. place: The browser and the computer.
        device_delay: Out of the loudspeaker and back in: what the devices add.
        hand_delay: By a hand that goes along with the click: what devices and hand add together.
        pads: Of a MIDI device: note, or ``"c64"`` for a pedal → a stroke, ``"start"`` or ``"offered"``.

    Raises:
        OutOfRange: A name that is too long, or a pad that is none.
    """

    source: Source
    device: str = ""
    output: str = ""
    place: str = ""
    device_delay: Delay | None = None
    hand_delay: Delay | None = None
    pads: Mapping[str, str] = field(default_factory=dict)

    def __post_init__(self) -> None:
        if self.source not in SOURCES:
            raise OutOfRange(f"Takes are heard by {', '.join(SOURCES)}, not by “{self.source}”.", field="source")
        for name in ("device", "output", "place"):
            if len(getattr(self, name)) > LONGEST_DEVICE:
                raise OutOfRange(f"The name of a device has up to {LONGEST_DEVICE} signs.", field=name)
        if len(self.pads) > MOST_PADS:
            raise OutOfRange(f"Up to {MOST_PADS} pads can be named.", field="pads")
        for place, does in self.pads.items():
            number = place.removeprefix("c")
            if not (number.isascii() and number.isdecimal() and int(number) <= 127) or not 1 <= len(does) <= 20:
                raise OutOfRange(
                    "A pad is a MIDI note from 0 to 127, a pedal “c” and its number; either stands for a stroke of up "
                    "to 20 signs.",
                    field="pads",
                )

    @property
    def used(self) -> Delay | None:
        """What is taken off takes: what the devices add, else what they and the hand add together."""
        return self.device_delay or self.hand_delay

    @property
    def way(self) -> Way | None:
        """How what is taken off was measured."""
        return "device" if self.device_delay else "hand" if self.hand_delay else None

    def is_old(self, now: datetime) -> bool:
        """Return whether it was measured so long ago that it is asked for again."""
        return self.used is not None and (now - self.used.at).days >= OLD_DAYS

    def label(self, now: datetime) -> str:
        """Return how late it is, in a few words: ``"43 ± 3 ms, 12 days old"``; empty where it was not measured."""
        return "" if self.used is None else f"{_ms(self.used)}, {_age(self.used, now)}"

    def sentences(self, now: datetime) -> tuple[str, ...]:
        """Return what is known of it: which of the two was measured, how old that is, and the hand's own habit."""
        if self.used is None:
            return ("It was not measured how late this set-up is: only what changes between takes is told.",)
        found = []
        if self.device_delay:
            found.append(
                f"The devices add {_ms(self.device_delay)}, measured out of the loudspeaker and back in, "
                f"{_age(self.device_delay, now)}."
            )
        else:
            found.append(f"The devices and the hand together add {_ms(self.used)}, {_age(self.used, now)}.")
        if self.device_delay and self.hand_delay:
            away = self.hand_delay.ms - self.device_delay.ms
            unsure = (self.hand_delay.half**2 + self.device_delay.half**2) ** 0.5
            side = "after" if away > 0 else "before"
            found.append(f"The hand comes {abs(away):.0f} ± {unsure:.0f} ms {side} the click: that is its own habit.")
        if self.is_old(now):
            found.append("That is long ago: measure it again.")
        return tuple(found)


def _ms(delay: Delay) -> str:
    return f"{delay.ms:.0f} ± {max(1, round(delay.half))} ms"


def _age(delay: Delay, now: datetime) -> str:
    days = max(0, (now - delay.at).days)
    return "measured today" if days == 0 else f"{plural(days, 'day')} old"
