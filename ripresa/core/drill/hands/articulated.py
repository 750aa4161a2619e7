"""Articulation patterns: which notes are tongued and which are slurred, one pattern or all in turn, leg by leg."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field
from itertools import groupby
from typing import Literal

from ripresa.core.drill.hands.by_order import SLUR
from ripresa.core.errors import OutOfRange
from ripresa.core.grid import Restart, Spot, in_turn
from ripresa.core.kind import Kind

Pattern = Literal[
    "all_tongued",
    "all_slurred",
    "slur_pairs",
    "slur_two_tongue_two",
    "tongue_two_slur_two",
    "slur_three_tongue_one",
    "tongue_one_slur_three",
    "tongue_one_slur_two_tongue_one",
    "slur_two_tongue_one",
    "tongue_one_slur_two",
    "slur_three",
    "double_on_t",
    "triple_on_t",
]
Circuit = Literal["fours", "threes"]

#: Pattern → its cycle, its name, and why one would choose it. A slur counts as one stroke of the tongue.
PATTERNS: dict[Pattern, tuple[tuple[str, ...], str, str]] = {
    "all_tongued": (("T",), "all tongued", "Every note with the tongue: light, and in one place."),
    "all_slurred": ((), "all slurred", "The tongue begins, the fingers do the rest: they are heard bare."),
    "slur_pairs": (("T", SLUR), "slurred in twos", "Two and two, the second one not shorter."),
    "slur_two_tongue_two": (("T", SLUR, "T", "T"), "slur two, tongue two", "The usual mix of fours."),
    "tongue_two_slur_two": (("T", "T", "T", SLUR), "tongue two, slur two", "The mix turned round."),
    "slur_three_tongue_one": (("T", SLUR, SLUR, "T"), "slur three, tongue one", "The tongue leads into the beat."),
    "tongue_one_slur_three": (("T", "T", SLUR, SLUR), "tongue one, slur three", "The tongue leaves the beat."),
    "tongue_one_slur_two_tongue_one": (
        ("T", "T", SLUR, "T"),
        "tongue one, slur two, tongue one",
        "The slur hides inside the beat.",
    ),
    "slur_two_tongue_one": (("T", SLUR, "T"), "slur two, tongue one", "For threes and sixes."),
    "tongue_one_slur_two": (("T", "T", SLUR), "tongue one, slur two", "For threes and sixes, turned round."),
    "slur_three": (("T", SLUR, SLUR), "slurred in threes", "For threes and sixes: one stroke of the tongue each."),
    "double_on_t": (("T", "K"), "double tonguing that ends on T", "T K T in threes, and a T before each silence."),
    "triple_on_t": (
        ("T", "T", "K"),
        "triple tonguing that ends on T",
        "T T K, and a T before each silence: it lands firm.",
    ),
}
#: Circuit → the patterns that it goes through, its name, and why one would choose it.
CIRCUITS: dict[Circuit, tuple[tuple[Pattern, ...], str, str]] = {
    "fours": (
        (
            "all_tongued",
            "all_slurred",
            "slur_pairs",
            "slur_two_tongue_two",
            "tongue_two_slur_two",
            "slur_three_tongue_one",
            "tongue_one_slur_three",
            "tongue_one_slur_two_tongue_one",
        ),
        "each pattern for fours in turn",
        "A leg for each: the fingers stay the same, the tongue changes.",
    ),
    "threes": (
        ("all_tongued", "all_slurred", "slur_two_tongue_one", "tongue_one_slur_two", "slur_three"),
        "each pattern for threes in turn",
        "A leg for each, for threes and sixes.",
    ),
}
#: Patterns that begin again with each beat, and have a T before each silence, whatever their cycle has there.
_ENDS_ON_T = {"double_on_t", "triple_on_t"}


@dataclass(frozen=True, slots=True)
class Articulated:
    """Tonguing and slurring by a pattern.

    Args:
        pattern: One of ``PATTERNS``, or of ``CIRCUITS``: then each leg has the next one.
        restart: Whether it runs on over the beat, or starts again with each beat, bar or leg.

    Raises:
        OutOfRange: An unknown pattern.
    """

    kind: Literal["articulated"] = field(default="articulated", kw_only=True)
    pattern: str = "slur_two_tongue_two"
    restart: Restart = "never"

    def __post_init__(self) -> None:
        if self.pattern not in PATTERNS and self.pattern not in CIRCUITS:
            known = ", ".join((*PATTERNS, *CIRCUITS))
            raise OutOfRange(
                f"“{self.pattern}” is not a pattern that Ripresa knows. Use one of {known}.", field="hands.pattern"
            )

    @property
    def circuit(self) -> tuple[Pattern, ...]:
        """The patterns that take turns, leg by leg; one alone where it does not change."""
        if self.pattern in CIRCUITS:
            return CIRCUITS[self.pattern][0]
        return (self.pattern,)  # type: ignore[return-value]

    def of_leg(self, leg: int) -> Pattern:
        """Return the pattern of a leg, from 0."""
        return self.circuit[leg % len(self.circuit)]

    def cycle_of(self, leg: int) -> tuple[str, ...]:
        """Return the cycle of a leg; an empty one where all but the first is slurred."""
        return PATTERNS[self.of_leg(leg)][0]

    def strokes(self, places: Iterable[Spot]) -> Iterator[str | None]:
        """Yield T, K or a slur for each note, None for the others; what follows a silence is always tongued."""
        for leg, inside in groupby(places, key=lambda place: place.leg):
            yield from self._of_leg(self.of_leg(leg), list(inside))

    def _of_leg(self, pattern: Pattern, places: list[Spot]) -> Iterator[str | None]:
        # One slur over all of it is slurs alone, but for what follows a silence.
        cycle = PATTERNS[pattern][0] or (SLUR,)
        restart: Restart = "beat" if pattern in _ENDS_ON_T else self.restart
        strokes = list(in_turn(places, cycle, "leg" if restart == "never" else restart))
        if pattern in _ENDS_ON_T:
            strokes = _ending_on_t(places, strokes)
        silent = True
        for place, stroke in zip(places, strokes, strict=True):
            yield "T" if silent and stroke == SLUR else stroke
            silent = place.kind not in {"note", "hold"}


def _ending_on_t(places: list[Spot], strokes: list[str | None]) -> list[str | None]:
    """Return the strokes with a T on each note that is followed by a silence, or by nothing in its leg."""
    found = list(strokes)
    last: int | None = None
    for index, place in enumerate(places):
        if place.kind == "note":
            last = index
        elif place.kind != "hold" and last is not None:
            found[last], last = "T", None
    if last is not None:
        found[last] = "T"
    return found


KIND = Kind(
    Articulated(),
    "tongue and slur",
    "Articulation patterns over any material: one of them, or all in turn as a circuit.",
)
