"""Settings of the studio, and its data: where it lies, how big it is, a copy of it."""

import tempfile
from pathlib import Path
from typing import Any

from flask import Response, current_app, send_file
from pydantic import BaseModel

import ripresa.formats.wire  # noqa: F401 - teaches pydantic how the core's types travel
from ripresa.core.studio import StudioSettings
from ripresa.store import settings as store
from ripresa.store.files import backup, sizes_of
from ripresa.web.answers import answer, now
from ripresa.web.blueprint import blueprint

api = blueprint("settings")


class SettingsBody(BaseModel):
    """What is set."""

    settings: StudioSettings


class DataShape(BaseModel):
    """The data: its folder, its size in words, and how many of each it holds."""

    folder: str
    size: str
    students: int
    drills: int
    climbs: int
    takes: int
    is_demo: bool


class SettingsShape(BaseModel):
    """What is set, and the data."""

    settings: StudioSettings
    data: DataShape


@api.get("/settings", responses={200: SettingsShape})
def show_settings() -> Response:
    """What is set, and the data."""
    return answer(_shape())


@api.put("/settings", responses={200: SettingsShape})
def keep_settings(body: SettingsBody) -> Response:
    """Keep what is set."""
    store.keep_settings(body.settings)
    return answer(_shape())


@api.get("/settings/backup.sqlite3")
def save_backup() -> Any:
    """A whole copy of all data in one file, made while it is in use."""
    path = Path(current_app.config["DATABASE"])
    with tempfile.TemporaryDirectory(prefix="ripresa-backup-") as folder:
        copy = Path(folder) / "backup.sqlite3"
        backup(path, copy)
        # Opened before its folder goes: what is open stays readable until it is sent.
        opened = copy.open("rb")
    name = f"ripresa-{now().date().isoformat()}.sqlite3"
    return send_file(opened, "application/vnd.sqlite3", as_attachment=True, download_name=name)


def _shape() -> SettingsShape:
    path = Path(current_app.config["DATABASE"])
    found = sizes_of(path)
    return SettingsShape(
        settings=store.studio_settings(),
        data=DataShape(
            folder=str(path.parent),
            size=_size(found.bytes),
            students=found.students,
            drills=found.drills,
            climbs=found.climbs,
            takes=found.takes,
            is_demo=current_app.config["DEMO"],
        ),
    )


def _size(found: int) -> str:
    return f"{found / 1_000_000:.1f} MB" if found >= 1_000_000 else f"{max(1, found // 1000)} kB"
