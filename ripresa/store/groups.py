"""Finding and saving groups of students."""

from datetime import datetime

from pydantic import TypeAdapter

from ripresa.core.errors import Conflict, NotFound
from ripresa.core.studio import Group, GroupDetails
from ripresa.formats.wire import adapter
from ripresa.store.once import once
from ripresa.store.tables import GroupRow, Row, database
from ripresa.store.unread import one, readable

_BODY: TypeAdapter[GroupDetails] = adapter(GroupDetails)


def all_groups() -> list[Group]:
    """Return every group, by name."""
    found = list(readable("group", GroupRow.select(), _to_group))
    return sorted(found, key=lambda group: group.details.name.casefold())


def find_group(group_id: int) -> Group:
    """Return a group.

    Raises:
        NotFound: There is none of this number.
    """
    return one("group", _row(group_id), _to_group)


def add_group(details: GroupDetails, now: datetime, key: str | None = None) -> Group:
    """Keep a new group; the same key twice is the same group."""
    body = _BODY.dump_json(details).decode()
    return find_group(once(key, "group", lambda: int(GroupRow.create(body=body, created_at=now).id)))


def change_group(group_id: int, details: GroupDetails, based_on: int) -> Group:
    """Keep new details of a group.

    Raises:
        NotFound: There is none of this number.
        Conflict: It was changed since that revision.
    """
    with database.atomic("IMMEDIATE"):
        row = _row(group_id)
        body = _BODY.dump_json(details).decode()
        if row.body != body:
            if row.revision != based_on:
                raise Conflict("This group was changed elsewhere since this page asked. Look at it, and try again.")
            GroupRow.update(body=body, revision=row.revision + 1).where(GroupRow.id == group_id).execute()
        return find_group(group_id)


def delete_group(group_id: int) -> None:
    """Delete a group; its students and their climbs stay.

    Raises:
        NotFound: There is none of this number.
    """
    _row(group_id)
    GroupRow.delete().where(GroupRow.id == group_id).execute()


def _to_group(row: Row) -> Group:
    return Group(row.id, _BODY.validate_json(row.body), row.revision)


def _row(group_id: int) -> Row:
    row = GroupRow.get_or_none(GroupRow.id == group_id)
    if row is None:
        raise NotFound("This group does not exist.")
    return row
