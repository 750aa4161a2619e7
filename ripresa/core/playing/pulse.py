"""The inner pulse, made to be heard: first loud, then soft, then silent, while the student goes on with it."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Literal

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Exact, Fraction, capital, label, listed
from ripresa.core.rhythm import MIDDLE_RATE, Meter, inner_pulse

School = Literal["middle", "large", "smallest"]

SCHOOLS: dict[School, tuple[str, str]] = {
    "middle": (
        "near a middle rate",
        "The multiple of the beat that stays near 140 a minute: neither rushed nor dragging.",
    ),
    "large": ("large", "One for two beats: to stay loose at speed."),
    "smallest": ("small", "Sixteenths inside: nothing between two beats is left to chance."),
}
MOST_BARS = 16
#: Bars for which a pulse that is switched goes on.
MOST_SWITCHED = 64
_LOUD, _SOFT = 1.0, 0.3


@dataclass(frozen=True, slots=True)
class Pulse:
    """A pulse that fades.

    Args:
        school: Which multiple of the beat.
        middle: Pulses a minute that the middle rate stays near.
        heard, soft: Bars in which it is loud, then soft, 0 to 16; after them it is silent.
        switched: Bars after which it goes over to the next school, and does not fade, 1 to 16; 0 keeps to one.

    Raises:
        OutOfRange: Another number of bars.
    """

    school: School = "middle"
    heard: int = 2
    soft: int = 2
    middle: Exact = MIDDLE_RATE
    switched: int = 0

    def __post_init__(self) -> None:
        for bars, name in ((self.heard, "heard"), (self.soft, "soft"), (self.switched, "switched")):
            if not 0 <= bars <= MOST_BARS:
                raise OutOfRange(f"The pulse is heard for 0 to {MOST_BARS} bars, not {bars}.", field=f"pulse.{name}")

    def multiple(self, bpm: Fraction) -> Fraction:
        """Return how many times the beat it goes.

        >>> Pulse().multiple(Fraction(88)), Pulse("large").multiple(Fraction(88))
        (Fraction(2, 1), Fraction(1, 2))
        """
        match self.school:
            case "middle":
                return inner_pulse(bpm, self.middle)
            case "large":
                return Fraction(1, 2)
            case "smallest":
                return Fraction(4)

    def beats(self, bpm: Fraction, meter: Meter) -> Iterator[tuple[Fraction, float]]:
        """Yield (beats from the first bar line, loudness from 0 to 1) of each pulse."""
        if self.switched:
            yield from self._switching(bpm, meter)
            return
        step = 1 / self.multiple(bpm)
        until = meter.bar_start(self.heard + self.soft + 1)
        loud = meter.bar_start(self.heard + 1)
        number = 0
        while number * step < until:
            yield number * step, _LOUD if number * step < loud else _SOFT
            number += 1

    def told(self, bpm: Fraction) -> tuple[str, ...]:
        """Return what each school counts inside at a tempo, in sentences, its own first; those that agree once."""
        found: dict[Fraction, list[str]] = {}
        for school in (self.school, *(one for one in SCHOOLS if one != self.school)):
            found.setdefault(replace(self, school=school).multiple(bpm), []).append(SCHOOLS[school][0])
        return tuple(
            f"{capital(listed(names))}: {label(multiple)} for each beat, {label(multiple * bpm)} a minute."
            for multiple, names in found.items()
        )

    def order(self, bpm: Fraction) -> tuple[Fraction, ...]:
        """Return the multiples that it goes through where it is switched, its own school first, each once."""
        schools = [self.school, *(one for one in SCHOOLS if one != self.school)]
        return tuple(dict.fromkeys(replace(self, school=one).multiple(bpm) for one in schools))

    def _switching(self, bpm: Fraction, meter: Meter) -> Iterator[tuple[Fraction, float]]:
        multiples = self.order(bpm)
        for turn in range(MOST_SWITCHED // self.switched):
            step = 1 / multiples[turn % len(multiples)]
            start, end = (meter.bar_start(1 + number * self.switched) for number in (turn, turn + 1))
            number = 0
            while start + number * step < end:
                yield start + number * step, _LOUD
                number += 1
