"""The log as CSV, read: the columns of our own export. Rows that cannot be read are listed, none is guessed."""

import codecs
import csv
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import UTC, datetime
from io import StringIO

from ripresa.core.errors import RipresaError, Unreadable
from ripresa.core.exact import Fraction, parse_amount
from ripresa.core.studio import check_lasting, check_moment
from ripresa.core.takes import MARKS, SOURCES, Mark

LARGEST_FILE, MOST_ROWS = 40_000_000, 200_000
NEEDED = ("played_at", "bpm", "mark")
_LONGEST = 2000
_SOURCES = {name: words for name, (words, _) in SOURCES.items()}


@dataclass(frozen=True, slots=True)
class LoggedRow:
    """A take of a log.

    Args:
        line: In the file, from 1.
        played_at: With its time zone; UTC where it says none.
        nps: Notes a second; None where the column is empty.
        seconds: How long it lasted; None where it is not said.
        rung: Of its climb; None where it says none. source: What heard it, in words; empty where it is not said.
        is_measured: Whether it has figures, which stand on notes that a log does not hold.
    """

    line: int
    played_at: datetime
    student: str
    drill: str
    bpm: Fraction
    nps: Fraction | None
    click: str
    mark: Mark
    seconds: float | None
    note: str
    rung: int | None
    source: str
    is_measured: bool


@dataclass(frozen=True, slots=True)
class UnreadRow:
    """A row that cannot be read: its line, from 1, and why."""

    line: int
    why: str


@dataclass(frozen=True, slots=True)
class ReadLog:
    """A log, in the order of its file, and what of it cannot be read."""

    rows: tuple[LoggedRow, ...]
    unread: tuple[UnreadRow, ...]


def read_log(data: bytes) -> ReadLog:
    """Return the takes of a log.

    Raises:
        Unreadable: It is too long, not UTF-8, or has not the columns that are needed: played_at, bpm and mark.
    """
    if len(data) > LARGEST_FILE:
        raise Unreadable(f"A log has up to {LARGEST_FILE // 1_000_000} MB.", field="file")
    text = _text(data)
    if "\0" in text:
        raise Unreadable("This is no text: it holds a zero byte.", field="file")
    reader = csv.DictReader(StringIO(text, newline=""), delimiter=_delimiter(text))
    try:
        named = reader.fieldnames or ()
    except csv.Error as error:
        raise Unreadable(f"The first line of this log is no CSV: {error}.", field="file") from error
    missing = [name for name in NEEDED if name not in named]
    if missing:
        raise Unreadable(
            f"The first line of this log does not name the column {missing[0]}. Needed are {', '.join(NEEDED)}.",
            field="file",
        )
    rows: list[LoggedRow] = []
    unread: list[UnreadRow] = []
    for found in _each(reader):
        (rows if isinstance(found, LoggedRow) else unread).append(found)  # type: ignore[arg-type]
    return ReadLog(tuple(rows), tuple(unread))


def _text(data: bytes) -> str:
    """Return the text of a file in UTF-8, or in UTF-16 where its first bytes say so, as some spreadsheets save it."""
    is_wide = data.startswith((codecs.BOM_UTF16_LE, codecs.BOM_UTF16_BE))
    try:
        return data.decode("utf-16" if is_wide else "utf-8-sig")
    except UnicodeDecodeError as error:
        raise Unreadable("This log is in neither UTF-8 nor UTF-16. Save it as CSV in UTF-8.", field="file") from error


def _delimiter(text: str) -> str:
    """Return what parts the columns: a spreadsheet writes a semicolon or a tab where it is set up so."""
    first = text.partition("\n")[0]
    return max(",;\t", key=first.count)


def _each(reader: "csv.DictReader[str]") -> Iterator[LoggedRow | UnreadRow]:
    count = 0
    while True:
        try:
            row = next(reader)
        except StopIteration:
            return
        except csv.Error as error:
            yield UnreadRow(reader.line_num, f"This line is no CSV: {error}.")
            continue
        count += 1
        if count > MOST_ROWS:
            yield UnreadRow(reader.line_num, f"A log is read up to {MOST_ROWS:,} takes; what follows is left out.")
            return
        try:
            yield _row(reader.line_num, row)
        except RipresaError as error:
            yield UnreadRow(reader.line_num, error.message)


def _row(line: int, row: dict[str, str | None]) -> LoggedRow:
    def cell(name: str) -> str:
        found = row.get(name) or ""
        if len(found) > _LONGEST:
            raise Unreadable(f"“{name}” has up to {_LONGEST} signs.")
        # Our own export keeps a spreadsheet from running a cell that begins like a formula.
        return found[1:] if found[:1] == "'" and found[1:2] in {"=", "+", "-", "@", "\t", "\r"} else found

    mark = cell("mark")
    if mark not in MARKS:
        raise Unreadable(f"“{mark}” is no mark. It should be one of {', '.join(MARKS)}.")
    bpm = _number(cell("bpm"), "bpm")
    if bpm is None or not 1 <= bpm <= 1000:
        raise Unreadable(f"“{cell('bpm')}” is no tempo. It should be 1 to 1000 bpm.")
    nps = _number(cell("notes_a_second"), "notes_a_second")
    if nps is not None and not 0 < nps <= 1000:
        raise Unreadable(f"“{cell('notes_a_second')}” are no notes a second.")
    seconds = _number(cell("seconds"), "seconds")
    rung = _number(cell("rung"), "rung")
    return LoggedRow(
        line=line,
        played_at=check_moment(_moment(cell("played_at"))),
        student=cell("student"),
        drill=cell("drill"),
        bpm=bpm,
        nps=nps,
        click=cell("click"),
        mark=mark,
        seconds=None if seconds is None else check_lasting(float(seconds)),
        note=cell("note"),
        rung=None if rung is None else int(rung),
        source=_SOURCES.get(cell("source"), ""),
        is_measured=bool(cell("matched")),
    )


def _number(text: str, name: str) -> Fraction | None:
    if not text.strip():
        return None
    try:
        return parse_amount(text)
    except Unreadable as error:
        raise Unreadable(f"{name}: {error.message}") from error


def _moment(text: str) -> datetime:
    try:
        found = datetime.fromisoformat(text)
        return found if found.tzinfo else found.replace(tzinfo=UTC)
    except ValueError as error:
        raise Unreadable(f"“{text}” is no moment. Write it as 2026-11-25T17:30:00+01:00.") from error
