"""Tables: many rows of one kind, sent column by column, in a quarter of the signs that they take one by one.

A column that is not sent is its field's default in every row; one of a single value is that value in every row; a text
column may be sent as its different texts and, for each row, which of them. Numbers with a point are cut at seven
places: a tenth of a microsecond, or less of a beat than a screen can draw.
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
    if column.count(first) == length:
        return [_rounded(first)]
    if isinstance(first, float):
        return [round(value, _PLACES) for value in column]
    if isinstance(first, str) or (first is None and any(isinstance(value, str) for value in column)):
        known = {text: place for place, text in enumerate(dict.fromkeys(column))}
        if 2 * len(known) <= length:
            return {"of": list(known), "at": [known[text] for text in column]}
    return column


def _rounded(value: Any) -> Any:
    return round(value, _PLACES) if isinstance(value, float) else value


@cache
def _columns(row: Any) -> tuple[tuple[tuple[str, Any], ...], Callable[[Any], tuple[Any, ...]]]:
    """Return name and default of each column, and what takes all of them from a row; nothing equals no default."""
    fields = msgspec.structs.fields(row)
    named = tuple((one.name, object() if one.default is msgspec.NODEFAULT else one.default) for one in fields)
    names = [one.name for one in fields]
    # Of one name alone the getter would give the value itself.
    return named, attrgetter(*names) if len(names) > 1 else lambda record: (getattr(record, names[0]),)
