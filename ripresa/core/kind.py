"""Kinds: a part of a drill or a plan that comes in several, with all that is told of each of them in one place.

Beside each dataclass stands its ``KIND``: how it is called, why one would choose it, and a fresh value. The bounds of
its numbers stand on its fields. What is offered, the schema, the hints, the refusals and the test strategies are made
from these, so that none of them can disagree.
"""

from collections.abc import Hashable
from dataclasses import dataclass, fields
from functools import cache
from typing import Any, Generic, TypeVar, get_type_hints

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction, label

T_co = TypeVar("T_co", covariant=True)


@dataclass(frozen=True, slots=True)
class Between:
    """The bounds of a number; both belong to it.

    Args:
        says: The sentence where it lies outside; ``{value}``, ``{least}`` and ``{most}`` stand in it.
        hint: What is told of the number while it is typed, after its bounds.
    """

    least: Fraction | int
    most: Fraction | int
    says: str
    hint: str = ""

    def check(self, value: Fraction | int, field: str) -> None:
        """Refuse a number outside.

        Raises:
            OutOfRange: With the field to blame.
        """
        if not self.least <= value <= self.most:
            least, most, shown = (label(Fraction(one)) for one in (self.least, self.most, value))
            raise OutOfRange(self.says.format(least=least, most=most, value=shown), field=field)

    @property
    def told(self) -> str:
        """The bounds and the hint: ``1 to 64. Five on four …``."""
        return f"{label(Fraction(self.least))} to {label(Fraction(self.most))}. {self.hint}".rstrip()


def bounds_of(part: type) -> dict[str, Between]:
    """Return the bounds of the numbers of a dataclass, by field."""
    return _bounds_of(part)


@cache
def _bounds_of(part: Hashable) -> dict[str, Between]:
    hints = get_type_hints(part, include_extras=True)
    found = {}
    for name, hint in hints.items():
        for mark in getattr(hint, "__metadata__", ()):
            if isinstance(mark, Between):
                found[name] = mark
    return found


def check_bounds(part: Any, at: str) -> None:
    """Refuse a part with a number outside its bounds; ``at`` is where it stands, ``material``; empty for a drill.

    Raises:
        OutOfRange: With the field to blame.
    """
    for name, bounds in bounds_of(type(part)).items():
        value = getattr(part, name)
        if isinstance(value, int | Fraction):
            bounds.check(value, f"{at}.{name}" if at else name)


@dataclass(frozen=True, slots=True)
class Kind(Generic[T_co]):
    """One kind of a part.

    Args:
        fresh: What it is when it is chosen. name: In the words of the brief. why: Why one would choose it.
        key: What it is chosen by, where its ``kind`` alone does not tell it from another.
    """

    fresh: T_co
    name: str
    why: str
    key: str = ""

    @property
    def value(self) -> str:
        """What it is chosen by."""
        return self.key or str(getattr(self.fresh, "kind", ""))

    @property
    def fields(self) -> tuple[str, ...]:
        """The names of all that can be set of it."""
        return tuple(field.name for field in fields(type(self.fresh)) if field.name != "kind")  # type: ignore[arg-type]

    @property
    def hints(self) -> dict[str, str]:
        """What is told of each number while it is typed."""
        return {name: bounds.told for name, bounds in bounds_of(type(self.fresh)).items()}
