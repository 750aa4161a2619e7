"""Set-ups as they are kept: one for each source, device, sound and place."""

import json
from typing import Any

from pydantic import TypeAdapter

from ripresa.core.errors import NotFound
from ripresa.core.studio import Delay, Setup
from ripresa.formats.wire import adapter
from ripresa.store.tables import Row, SetupRow, database
from ripresa.store.unread import readable

_DELAY: TypeAdapter[Delay] = adapter(Delay)
#: Set-ups that are kept; the one that was made first goes for a new one.
MOST_SETUPS = 200


def all_setups() -> list[tuple[int, Setup]]:
    """Return every set-up with its number, the newest first."""
    return list(readable("setup", SetupRow.select().order_by(SetupRow.id.desc()), lambda row: (row.id, _setup(row))))


def keep_setup(setup: Setup) -> int:
    """Keep a set-up in place of what was known of it, and return its number."""
    named = {name: getattr(setup, name) for name in ("source", "device", "output", "place")}
    known: dict[str, Any] = {
        "device_delay": _DELAY.dump_json(setup.device_delay).decode() if setup.device_delay else None,
        "hand_delay": _DELAY.dump_json(setup.hand_delay).decode() if setup.hand_delay else None,
        "pads": json.dumps(dict(setup.pads)),
    }
    with database.atomic("IMMEDIATE"):
        row, is_new = SetupRow.get_or_create(**named, defaults=known)
        if not is_new:
            SetupRow.update(**known).where(SetupRow.id == row.id).execute()
        kept = SetupRow.select(SetupRow.id).order_by(SetupRow.id.desc()).limit(MOST_SETUPS)
        SetupRow.delete().where(SetupRow.id.not_in(kept)).execute()
    return int(row.id)


def find_setup(source: str, device: str, output: str, place: str) -> Setup:
    """Return what is known of a set-up; one that nothing is known of is new."""
    row = SetupRow.get_or_none(
        (SetupRow.source == source)
        & (SetupRow.device == device)
        & (SetupRow.output == output)
        & (SetupRow.place == place)
    )
    try:
        return _setup(row) if row else Setup(source, device, output, place)  # type: ignore[arg-type]
    except ValueError:
        return Setup(source, device, output, place)  # type: ignore[arg-type]


def delete_setup(setup_id: int) -> None:
    """Forget a set-up.

    Raises:
        NotFound: There is none of this number.
    """
    if not SetupRow.delete().where(SetupRow.id == setup_id).execute():
        raise NotFound("This set-up is no longer kept.")


def _setup(row: Row) -> Setup:
    return Setup(
        row.source,
        row.device,
        row.output,
        row.place,
        _DELAY.validate_json(row.device_delay) if row.device_delay else None,
        _DELAY.validate_json(row.hand_delay) if row.hand_delay else None,
        {str(note): str(does) for note, does in json.loads(row.pads).items()},
    )
