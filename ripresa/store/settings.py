"""What is set for the whole studio."""

from pydantic import TypeAdapter

from ripresa.core.studio import StudioSettings
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


def keep_settings(settings: StudioSettings) -> StudioSettings:
    """Keep what is set; the last press counts."""
    with database.atomic("IMMEDIATE"):
        value = _SETTINGS.dump_json(settings).decode()
        SettingRow.insert(key=_KEY, value=value).on_conflict_replace().execute()
    return studio_settings()
