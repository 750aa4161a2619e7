"""What went wrong with a file or a disk, and what to do; told by the codes of SQLite and of the system."""

import errno
import sqlite3
from pathlib import Path

from ripresa.core.errors import RipresaError, Unkept, Unreadable

_FULL = {sqlite3.SQLITE_FULL}
_BUSY = {sqlite3.SQLITE_BUSY, sqlite3.SQLITE_LOCKED}
_FORBIDDEN = {sqlite3.SQLITE_READONLY, sqlite3.SQLITE_PERM, sqlite3.SQLITE_CANTOPEN, sqlite3.SQLITE_AUTH}
_NO_DATABASE = {sqlite3.SQLITE_NOTADB}
_DAMAGED = {sqlite3.SQLITE_CORRUPT, sqlite3.SQLITE_FORMAT}


def cause(error: BaseException) -> BaseException:
    """Return the first error of the database or of the system that led to another one.

    The first: after a full disk SQLite has rolled back already, and to ask it to is a second error.
    """
    found, under = error, error.__cause__ or error.__context__
    while under is not None:
        if isinstance(under, sqlite3.Error | OSError):
            found = under
        under = under.__cause__ or under.__context__
    return found


def trouble(error: BaseException, path: Path | None = None, *, copying: bool = False) -> RipresaError:
    """Return what to tell of an error of SQLite or of the system.

    Args:
        path: The file it is about; the open data if left out.
        copying: Whether a copy was being made.
    """
    file = str(path) if path else "Ripresa’s data"
    # The lowest byte is the family of the error, the rest its member (SQLite, Result and Error Codes).
    code = (getattr(error, "sqlite_errorcode", None) or 0) & 0xFF
    number = error.errno if isinstance(error, OSError) else None
    if code in _FULL or number in {errno.ENOSPC, errno.EDQUOT}:
        return Unkept(
            f"The disk is full: {file} cannot be kept there. Make room, then try again; what was kept is safe."
        )
    if code in _BUSY:
        return Unkept(f"Another program holds {file}, perhaps another Ripresa. Stop that one, then try again.")
    if code in _NO_DATABASE:
        return Unreadable(f"{file} is not a database of Ripresa. Move it away, or restore a backup.")
    if code in _DAMAGED or isinstance(error, UnicodeDecodeError):
        return Unreadable(f"{file} is damaged. Restore a backup; it keeps what is there now beside it.")
    if code in _FORBIDDEN or number in {errno.EACCES, errno.EPERM, errno.EROFS, errno.EISDIR, errno.ENOTDIR}:
        wanted = (
            "The folder has to be one that you may write to."
            if copying
            else ("Check that you may write to the file and to its folder, and that the disk is not write-protected.")
        )
        return Unkept(f"{file} cannot be opened for writing. {wanted}")
    said = getattr(error, "strerror", None) or str(error)
    return Unkept(f"The disk failed while {file} was written: {said}. What was kept before is safe; try again.")
