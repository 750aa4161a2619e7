"""Rows that cannot be read: left out where many are listed, and named in one place."""

import logging
from collections.abc import Callable, Iterable, Iterator
from typing import TypeVar

from ripresa.core.errors import RipresaError, Unreadable
from ripresa.store.tables import Row, database

T = TypeVar("T")
#: What a damaged text or number ends in when it is turned into a value of the core.
_DAMAGE = (RipresaError, ValueError, TypeError, LookupError, ArithmeticError, AttributeError)
MOST_NAMED = 50


def readable(what: str, rows: Iterable[Row], value: Callable[[Row], T]) -> Iterator[T]:
    """Yield the values of rows; those that cannot be read are left out, and noted for ``unread``.

    Args:
        what: What a row holds: ``"drill"``.
    """
    for row in rows:
        try:
            yield value(row)
        except _DAMAGE as error:
            _note(_name(what, row), error)


def one(what: str, row: Row, value: Callable[[Row], T]) -> T:
    """Return the value of a row.

    Raises:
        Unreadable: It is damaged; the sentence names it.
    """
    try:
        return value(row)
    except _DAMAGE as error:
        name = _name(what, row)
        _note(name, error)
        raise Unreadable(f"{name} cannot be read: its data is damaged. A backup may hold it whole.") from error


def unread() -> tuple[str, ...]:
    """Return the names of the rows that could not be read since the data was opened."""
    return tuple(database.studio.unread)


def _note(name: str, error: Exception) -> None:
    met = database.studio.unread
    if name not in met and len(met) < MOST_NAMED:
        logging.getLogger("ripresa").warning("%s cannot be read: %s", name, error)
        met[name] = None


def _name(what: str, row: Row) -> str:
    number = row["id"] if isinstance(row, dict) else row.get_id()
    return f"{what} {number}".capitalize() if what != "drill version" else f"Drill {row.drill_id}, version {row.number}"
