"""What is kept is closed to the other people of a computer: files 0600, folders 0700, also what an older version made.

Where a system has no such modes, its own rules for a person's folders hold.
"""

from contextlib import suppress
from pathlib import Path

#: What lies in a folder of data beside the database and its copies.
RECORDINGS, TEMP = "recordings", "temp"
_FILE, _FOLDER = 0o600, 0o700


def private_folder(folder: Path) -> Path:
    """Return a folder that its owner alone may look into, made if there is none.

    Raises:
        OSError: It cannot be made.
    """
    folder.mkdir(mode=_FOLDER, parents=True, exist_ok=True)
    _close(folder, _FOLDER)
    return folder


def private_file(file: Path) -> Path:
    """Return a file that its owner alone may read and write, made if there is none.

    Raises:
        OSError: It cannot be made.
    """
    if not file.exists():
        file.touch(mode=_FILE)
    _close(file, _FILE)
    return file


def close_to_others(database_path: Path) -> None:
    """Close to others what lies around a database; its folder too, where nothing but what Ripresa keeps lies in it."""
    folder, name = database_path.parent, database_path.name
    try:
        lying = list(folder.iterdir())
    except OSError:
        # It may be entered and not be listed: then whoever made it so has closed it already.
        return
    own = [one for one in lying if one.name.startswith(name) or one.name in {RECORDINGS, TEMP}]
    for one in own:
        for inner in (one, *(one.rglob("*") if one.is_dir() and not one.is_symlink() else ())):
            if not inner.is_symlink():
                _close(inner, _FOLDER if inner.is_dir() else _FILE)
    if len(own) == len(lying):
        _close(folder, _FOLDER)


def _close(path: Path, mode: int) -> None:
    # Another's file, or a disk without modes, stays as it is.
    with suppress(OSError):
        if path.stat().st_mode & 0o777 != mode:
            path.chmod(mode)
