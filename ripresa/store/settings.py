"""What is set for the whole studio."""

from dataclasses import replace

from pydantic import TypeAdapter

from ripresa.core.pitch import OWN_SIGN
from ripresa.core.studio import MOST_INSTRUMENTS, StudioSettings
from ripresa.formats.wire import adapter
from ripresa.store.tables import SettingRow, database

_SETTINGS: TypeAdapter[StudioSettings] = adapter(StudioSettings)
_KEY = "studio"


def studio_settings() -> StudioSettings:
    """Return what is set; what cannot be read is as it was at first."""
    row = SettingRow.get_or_none(SettingRow.key == _KEY)
    try:
        return _SETTINGS.validate_json(row.value) if row else StudioSettings()
    except ValueError:
        return StudioSettings()


def learn_instrument(name: str) -> None:
    """Keep an instrument of one's own that a drill brings with it, so that it is offered everywhere."""
    if OWN_SIGN not in name:
        return
    kept = studio_settings()
    if name not in kept.own_instruments and len(kept.own_instruments) < MOST_INSTRUMENTS:
        lines = "\n".join((*kept.own_instruments, name))
        keep_settings(replace(kept, instruments=lines))


def keep_settings(settings: StudioSettings) -> StudioSettings:
    """Keep what is set; the last press counts."""
    with database.atomic("IMMEDIATE"):
        value = _SETTINGS.dump_json(settings).decode()
        SettingRow.insert(key=_KEY, value=value).on_conflict_replace().execute()
    return studio_settings()
