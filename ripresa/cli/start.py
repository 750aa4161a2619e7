"""Starting the app: with a teacher's own data, or with the demo studio, which is filled once a day."""

import argparse
import hashlib
import shutil
import sqlite3
import tempfile
from contextlib import closing, suppress
from datetime import datetime
from pathlib import Path

import platformdirs

import ripresa
from ripresa.core.errors import NotFound, RipresaError
from ripresa.store.files import DATABASE_NAME, backup
from ripresa.work.days import local_now

DEFAULT_PORT = 8765
#: What a filled demo studio is called where it lies until it is another day.
_FILLED = "demo-{key}.sqlite3"


def add_start(parser: argparse.ArgumentParser, *, opens: bool) -> None:
    """Let a parser start the app.

    Args:
        opens: Whether the browser is opened unless that is refused.
    """
    # What was said before a command is not unsaid by its own defaults.
    port, data, demo = (DEFAULT_PORT, None, False) if opens else (argparse.SUPPRESS,) * 3
    parser.add_argument("--port", type=int, default=port, help=f"where it answers; {DEFAULT_PORT} if left out")
    parser.add_argument("--data", type=Path, default=data, help="folder of the data; your own data folder if left out")
    parser.add_argument("--demo", action="store_true", default=demo, help="start with a throwaway demo studio")
    if opens:
        parser.add_argument("--no-browser", dest="opens", action="store_false", help="do not open the browser")
    parser.set_defaults(run=_start, opens=opens)


def data_folder() -> Path:
    """Return where a teacher's own data is kept on this computer."""
    return Path(platformdirs.user_data_dir("ripresa", appauthor=False))


def database_of(chosen: argparse.Namespace) -> Path:
    """Return where the database is that was chosen.

    Raises:
        NotFound: The folder is a file.
    """
    folder: Path = chosen.data or data_folder()
    if folder.exists() and not folder.is_dir():
        raise NotFound(f"{folder} is a file. Name the folder that holds the data.")
    return folder / DATABASE_NAME


def _start(chosen: argparse.Namespace) -> None:
    from ripresa.web.server import serve

    if not chosen.demo:
        serve(database_of(chosen), chosen.port, opens=chosen.opens)
        return
    with tempfile.TemporaryDirectory(prefix="ripresa-demo-") as folder:
        path = Path(folder) / DATABASE_NAME
        filled = filled_demo(local_now())
        known = _copied(filled, path)

        def fill() -> None:
            from ripresa.demo import fill_demo_studio

            fill_demo_studio(local_now())

        serve(
            path,
            chosen.port,
            fill=None if known else fill,
            filled=lambda: keep_filled(path, filled),
            is_demo=True,
            opens=chosen.opens,
        )


def filled_demo(now: datetime) -> Path:
    """Return where the demo studio of a day, whose lessons are today, lies once these very files have filled it."""
    folder = Path(platformdirs.user_cache_dir("ripresa", appauthor=False))
    key = hashlib.sha256(f"{ripresa.__version__} {now.date()} {now.utcoffset()}".encode())
    for path in sorted(Path(ripresa.__file__).parent.rglob("*.py")):
        seen = path.stat()
        key.update(f"{path} {seen.st_size} {seen.st_mtime_ns}".encode())
    return folder / _FILLED.format(key=key.hexdigest()[:16])


def keep_filled(path: Path, target: Path) -> None:
    """Keep a filled demo studio for the next start, and those of other days no longer; nothing fails for it."""
    with suppress(RipresaError, OSError):
        target.parent.mkdir(parents=True, exist_ok=True)
        for old in target.parent.glob(_FILLED.format(key="*")):
            old.unlink()
        backup(path, target)


def _copied(filled: Path, path: Path) -> bool:
    """Copy a filled studio as one of its own; return whether there was one that can be used."""
    try:
        shutil.copyfile(filled, path)
        with closing(sqlite3.connect(path)) as opened, opened:
            (state,) = opened.execute("PRAGMA quick_check").fetchone()
            # What a browser still holds of another start belongs to another studio.
            opened.execute("UPDATE studio SET id = lower(hex(randomblob(8)))")
    except (OSError, sqlite3.DatabaseError):
        state = "none"
    if state != "ok":
        path.unlink(missing_ok=True)
    return bool(state == "ok")
