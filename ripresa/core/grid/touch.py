"""Where and with what a note is touched: string, fret and finger, or the finger alone."""

from dataclasses import dataclass

_ROMAN = ((10, "X"), (9, "IX"), (5, "V"), (4, "IV"), (1, "I"))


@dataclass(frozen=True, slots=True)
class Touch:
    """How a note is taken.

    Args:
        finger: 1 to 5 on keys (1 is the thumb), 1 to 4 on strings, 0 for an open string.
        string: On strings, from 1, the thinnest as a rule. fret: 0 is open.
        position: The fret under which the first finger stands.
    """

    finger: int
    string: int | None = None
    fret: int | None = None
    position: int | None = None

    @property
    def shown(self) -> str:
        """Short, for the rail: ``5·3`` is string 5, fret 3; on keys the finger."""
        return str(self.finger) if self.string is None else f"{self.string}·{self.fret}"

    @property
    def words(self) -> str:
        """In words, for people who listen."""
        if self.string is None:
            return f"finger {self.finger}"
        return f"string {self.string} " + (f"fret {self.fret} finger {self.finger}" if self.fret else "open")


def roman(number: int) -> str:
    """Return a position as it is written: ``V``.

    >>> roman(4), roman(9), roman(12)
    ('IV', 'IX', 'XII')
    """
    found = ""
    for value, sign in _ROMAN:
        while number >= value:
            found, number = found + sign, number - value
    return found
