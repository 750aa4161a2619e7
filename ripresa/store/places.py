"""Where everything of a studio lies on the disk, and how much it is."""

from collections.abc import Iterable
from dataclasses import dataclass
from pathlib import Path

from ripresa.store.files import SET_ASIDE
from ripresa.store.private import RECORDINGS, TEMP


@dataclass(frozen=True, slots=True)
class Place:
    """A place: what lies there, its file or folder, how many files there are, and their bytes."""

    what: str
    path: Path
    files: int
    bytes: int


def places_of(path: Path) -> list[Place]:
    """Return where the studio whose database is at a path lies; what is not there has no files."""
    folder, name = path.parent, path.name
    return [
        _place("Students, drills, climbs and takes", path, (folder / f"{name}{end}" for end in ("", "-wal", "-shm"))),
        _place("What was there before a restore", folder / f"{name}{SET_ASIDE}", folder.glob(f"{name}{SET_ASIDE}*")),
        _place("Recordings that are kept", folder / RECORDINGS, (folder / RECORDINGS).glob("*")),
        _place("On its way, gone when Ripresa stops", folder / TEMP, (folder / TEMP).rglob("*")),
    ]


def _place(what: str, path: Path, files: Iterable[Path]) -> Place:
    sizes = [size for size in map(_size, files) if size is not None]
    return Place(what, path, len(sizes), sum(sizes))


def _size(file: Path) -> int | None:
    try:
        return file.stat().st_size if file.is_file() else None
    except OSError:
        # It went while one looked.
        return None
