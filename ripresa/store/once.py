"""Keys of the browser: what was asked for with a key is made once, however often it arrives."""

from collections.abc import Callable
from typing import Literal

from ripresa.core.errors import Conflict
from ripresa.store.tables import MadeRow, database

Kind = Literal["student", "drill", "climb", "move", "remedy", "group", "set", "sheet"]


def once(key: str | None, kind: Kind, make: Callable[[], int]) -> int:
    """Return the number of what ``make`` makes, or of what it made for this key before; all or nothing.

    Raises:
        Conflict: The key has made something of another kind.
    """
    with database.atomic("IMMEDIATE"):
        row = MadeRow.get_or_none(MadeRow.key == key) if key else None
        if row is not None:
            if row.kind != kind:
                raise Conflict(f"This key has made a {row.kind} before. Take a new one.", field="key")
            return int(row.made_id)
        made = make()
        if key:
            MadeRow.create(key=key, kind=kind, made_id=made)
        return made
