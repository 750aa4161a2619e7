"""Legs: stretches of a drill with one division, or with several that take turns beat by beat."""

from dataclasses import dataclass

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Exact, Fraction, label

MOST_NOTES_A_SPAN = 16
MOST_BEATS_A_SPAN = 8
MOST_MIXED = 16


@dataclass(frozen=True, slots=True)
class Leg:
    """A stretch of a drill with one division, or with several that take turns beat by beat.

    Args:
        division: Notes per beat: n/m is n notes in the time of m beats; n to 16, m to 8.
        following: Divisions of the beats that follow, before it begins again; up to 16.

    Raises:
        OutOfRange: Any other division, or too many.
    """

    division: Exact
    following: tuple[Exact, ...] = ()

    def __post_init__(self) -> None:
        for division in self.divisions:
            if division <= 0 or division.numerator > MOST_NOTES_A_SPAN or division.denominator > MOST_BEATS_A_SPAN:
                raise OutOfRange(
                    f"{label(division)} notes a beat is not a division that can be laid out. Use ½, 1 to "
                    f"{MOST_NOTES_A_SPAN}, or n:m with up to {MOST_NOTES_A_SPAN} notes in up to "
                    f"{MOST_BEATS_A_SPAN} beats.",
                    field="legs.division",
                )
        if len(self.following) >= MOST_MIXED:
            raise OutOfRange(f"Up to {MOST_MIXED} divisions take turns in a leg.", field="legs.division")

    @property
    def divisions(self) -> tuple[Fraction, ...]:
        """All divisions, in the order in which they take turns."""
        return (self.division, *self.following)

    @property
    def fastest(self) -> Fraction:
        """Most notes per beat."""
        return max(self.divisions)
