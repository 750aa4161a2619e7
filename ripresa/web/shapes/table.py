"""Tables: many rows of one kind, sent column by column, in a quarter of the signs that they take one by one.

A column that is not sent is its field's default in every row; one of a single value is that value in every row. It may
be sent as its different values and, for each row, which of them; or, where it counts, as the number that it counts
from. Numbers with a point are cut at seven places: a tenth of a microsecond, or less of a beat than a screen can draw.
"""

from collections.abc import Callable, Iterable, Iterator, Sequence
from functools import cache
from operator import attrgetter
from typing import Any, Generic, TypeVar, overload

import msgspec

T = TypeVar("T")

_PLACES = 7


class Table(Sequence[T], Generic[T]):
    """Rows that are sent column by column; all records of one kind."""

    __slots__ = ("rows",)

    def __init__(self, rows: Iterable[T]) -> None:
        self.rows = tuple(rows)

    @overload
    def __getitem__(self, index: int) -> T: ...
    @overload
    def __getitem__(self, index: slice) -> Sequence[T]: ...
    def __getitem__(self, index: int | slice) -> T | Sequence[T]:
        """Return a row."""
        return self.rows[index]

    def __len__(self) -> int:
        return len(self.rows)

    def __iter__(self) -> Iterator[T]:
        return iter(self.rows)

    def columns(self) -> dict[str, Any]:
        """Return what is sent: how many rows there are, and each column that is not all default."""
        found: dict[str, Any] = {"rows": len(self.rows)}
        if self.rows:
            kind: Any = type(self.rows[0])
            named, get = _columns(kind)
            for (name, default), column in zip(named, zip(*map(get, self.rows), strict=True), strict=True):
                if column[0] != default or column.count(default) != len(column):
                    found[name] = _packed(column)
        return found


def _packed(column: tuple[Any, ...]) -> Any:
    first, length = column[0], len(column)
    if isinstance(first, float):
        column = tuple([round(value, _PLACES) for value in column])
    if column.count(column[0]) == length:
        return column[:1]
    if type(first) is int and column == tuple(range(first, first + length)):
        return {"from": first}
    # A number of a few digits is as short as which of them it is.
    if isinstance(first, str | float) or (first is None and any(isinstance(value, str) for value in column)):
        known = {value: place for place, value in enumerate(dict.fromkeys(column))}
        if 2 * len(known) <= length:
            return {"of": list(known), "at": [known[value] for value in column]}
    return column


@cache
def _columns(row: Any) -> tuple[tuple[tuple[str, Any], ...], Callable[[Any], tuple[Any, ...]]]:
    """Return name and default of each column, and what takes all of them from a row; nothing equals no default."""
    fields = msgspec.structs.fields(row)
    named = tuple((one.name, object() if one.default is msgspec.NODEFAULT else one.default) for one in fields)
    names = [one.name for one in fields]
    # Of one name alone the getter would give the value itself.
    return named, attrgetter(*names) if len(names) > 1 else lambda record: (getattr(record, names[0]),)
