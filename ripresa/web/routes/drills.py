"""The library of drills: versions, files in and out."""

from dataclasses import replace
from typing import Any

from flask import Response

from ripresa.core.drill import Drill
from ripresa.core.errors import NotFound
from ripresa.core.reading import read
from ripresa.core.rhythm import Counting
from ripresa.formats.drill_file import read_drill
from ripresa.formats.exports import EXPORTS, Asked
from ripresa.formats.wire import Shape, WireExact
from ripresa.store import drills as store
from ripresa.store.settings import studio_settings
from ripresa.web.answers import answer, download, file_name, now
from ripresa.web.blueprint import blueprint
from ripresa.web.numbers import Id, Key, Once
from ripresa.web.query import Query
from ripresa.web.shapes.drills import DrillLine, DrillShape, VersionLine, drill_line, drill_shape, version_lines

api = blueprint("drills")


class DrillPath(Shape):
    """Which drill."""

    drill_id: Id


class FilePath(DrillPath):
    """Which drill, and the ending of the file."""

    ending: str


class ArchiveQuery(Query):
    """Drills in use, or those put away."""

    archived: bool = False


class ArchiveBody(Shape):
    """Whether a drill is put away."""

    archived: bool


class VersionQuery(Query):
    """Which version; the latest if left out."""

    version: Id | None = None


class AtTempoQuery(VersionQuery):
    """Which version, and at which tempo."""

    bpm: WireExact | None = None


class NewDrill(Once):
    """A drill to keep, and the open page that it comes from."""

    drill: Drill
    writer: Key | None = None


class ChangedDrill(Shape):
    """A change, the version it was made from, and the open page that made it.

    What the same page has kept since that version is no conflict: its answer was lost on the way.
    """

    drill: Drill
    based_on: Id
    writer: Key | None = None


class FileBody(Once):
    """The text of a drill file."""

    text: str


class DrillList(Shape):
    """The library, the last changed first."""

    drills: list[DrillLine]


class VersionList(Shape):
    """Versions of one drill, the latest first."""

    versions: list[VersionLine]


@api.get("/drills", responses={200: DrillList})
def list_drills(query: ArchiveQuery) -> Response:
    """The library: drills in use, or those put away."""
    return answer(DrillList(drills=[drill_line(one) for one in store.all_drills(archived=query.archived)]))


@api.put("/drills/<int:drill_id>/archived", responses={200: DrillShape})
def archive_drill(path: DrillPath, body: ArchiveBody) -> Response:
    """Put a drill away, or take it back into use."""
    store.archive_drill(path.drill_id, now() if body.archived else None)
    return answer(drill_shape(store.find_drill(path.drill_id)))


@api.post("/drills", responses={201: DrillShape})
def add_drill(body: NewDrill) -> Response:
    """Keep a new drill."""
    drill = body.drill
    if drill.counting == Counting():
        # A drill that says nothing of it is counted as this teacher counts.
        drill = replace(drill, counting=studio_settings().counting)
    read(drill)
    return answer(drill_shape(store.add_drill(drill, now(), body.key, body.writer or "")), 201)


@api.post("/drills/file", responses={201: DrillShape})
def open_file(body: FileBody) -> Response:
    """Keep the drill of a drill file as a new one."""
    drill = read_drill(body.text)
    read(drill)
    return answer(drill_shape(store.add_drill(drill, now(), body.key)), 201)


@api.get("/drills/<int:drill_id>", responses={200: DrillShape})
def show_drill(path: DrillPath, query: VersionQuery) -> Response:
    """A version of a drill."""
    return answer(drill_shape(store.find_drill(path.drill_id, query.version)))


@api.put("/drills/<int:drill_id>", responses={200: DrillShape})
def save_drill(path: DrillPath, body: ChangedDrill) -> Response:
    """Keep a change as the next version."""
    read(body.drill)
    kept = store.save_drill(path.drill_id, body.drill, body.based_on, now(), body.writer or "")
    return answer(drill_shape(kept))


@api.get("/drills/<int:drill_id>/versions", responses={200: VersionList})
def list_versions(path: DrillPath) -> Response:
    """The last versions of a drill."""
    return answer(VersionList(versions=version_lines(store.versions_of(path.drill_id))))


@api.get("/drills/<int:drill_id>/file.<ending>")
def save_file(path: FilePath, query: AtTempoQuery) -> Any:
    """A drill as a file, at its own tempo or another."""
    export = EXPORTS.get(path.ending)
    if export is None:
        raise NotFound(f"A drill is no file of the kind “{path.ending}”. Take one of {', '.join(EXPORTS)}.")
    kept = store.find_drill(path.drill_id, query.version)
    body = export.write(read(kept.drill), Asked(query.bpm or kept.drill.bpm))
    return download(body, f"{file_name(kept.drill.title)}.{path.ending}", export.mimetype)
