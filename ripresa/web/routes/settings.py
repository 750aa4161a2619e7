"""Settings of the studio, and its data: where it lies, how big it is, a copy of it."""

import shutil
import tempfile
import weakref
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from flask import Response, current_app

from ripresa.core.studio import StudioSettings
from ripresa.formats.wire import Shape
from ripresa.store import settings as store
from ripresa.store.files import backup, sizes_of
from ripresa.store.places import places_of
from ripresa.web.answers import answer, now
from ripresa.web.blueprint import blueprint

api = blueprint("settings")
#: Bytes of a copy that are sent at once.
_PIECE = 1_000_000


class SettingsBody(Shape):
    """What is set."""

    settings: StudioSettings


class LyingShape(Shape):
    """A place where something lies: what, its file or folder, and how much in words; empty where nothing does."""

    what: str
    path: str
    size: str


class DataShape(Shape):
    """The data: its folder, the places in it, its size in words, and how many of each it holds."""

    folder: str
    places: list[LyingShape]
    size: str
    students: int
    drills: int
    climbs: int
    takes: int
    is_demo: bool


class SettingsShape(Shape):
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
    folder = Path(tempfile.mkdtemp(prefix="backup-", dir=current_app.config["SCRATCH"].folder))
    copy = folder / "backup.sqlite3"
    try:
        backup(Path(current_app.config["DATABASE"]), copy)
    except BaseException:
        shutil.rmtree(folder, ignore_errors=True)
        raise
    response = Response(_pieces(copy), mimetype="application/vnd.sqlite3")
    # The copy goes with the answer, sent or not.
    weakref.finalize(response, shutil.rmtree, folder, ignore_errors=True)
    name = f"ripresa-{now().date().isoformat()}.sqlite3"
    response.headers.set("Content-Disposition", "attachment", filename=name)
    response.content_length = copy.stat().st_size
    return response


def _pieces(copy: Path) -> Iterator[bytes]:
    with copy.open("rb") as opened:
        while piece := opened.read(_PIECE):
            yield piece


def _shape() -> SettingsShape:
    path = Path(current_app.config["DATABASE"])
    found = sizes_of(path)
    return SettingsShape(
        settings=store.studio_settings(),
        data=DataShape(
            folder=str(path.parent),
            places=[
                LyingShape(what=one.what, path=str(one.path), size=_size(one.bytes) if one.bytes else "")
                for one in places_of(path)
            ],
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
