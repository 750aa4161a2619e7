"""Hand-outs: seen as they are before they are printed, issued, and fetched as they were."""

from base64 import b64encode
from typing import Any, cast

from flask import Response
from pydantic import Field

from ripresa.core.studio import Paper
from ripresa.formats.notation import Form
from ripresa.formats.sheet import Sheet, Shows, as_text, press_pages, press_pdf, without_letters
from ripresa.formats.wire import Shape
from ripresa.store.sheets import KeptSheet, find_sheet
from ripresa.web.answers import answer, download, engraver, file_name, now
from ripresa.web.blueprint import blueprint
from ripresa.web.numbers import Id, Once
from ripresa.web.query import Query
from ripresa.work.sheets import (
    LONGEST_NOTE,
    Options,
    Subject,
    compose,
    differs_from,
    issue,
    issued_of,
    number_of,
    subject_of,
)

api = blueprint("sheets", "/api/sheets")


class SheetBody(Once):
    """Of what a sheet is to be, and how: a climb, or a version of a drill."""

    climb_id: Id | None = None
    drill_id: Id | None = None
    version: Id | None = None
    shows: Shows = "rail"
    form: Form | None = None
    paper: Paper = "A4"
    large: bool = False
    note: str = Field(default="", max_length=LONGEST_NOTE)


class OfWhat(Query):
    """A climb, or a drill."""

    climb_id: Id | None = None
    drill_id: Id | None = None


class IssuedShape(Shape):
    """A sheet that was issued."""

    id: int
    number: int
    version: int
    issued_at: str


class IssuedList(Shape):
    """The sheets that were issued, the newest first; how what stands now differs from that one, in words."""

    sheets: list[IssuedShape]
    differs: str


class PagesShape(Shape):
    """A sheet as it looks: its pages as pictures (data addresses of PNG), and all of it as text.

    Args:
        missing: What this computer has no letters for, in a sentence; empty where it has all.
    """

    pages: list[str]
    text: str
    missing: str


class SheetPath(Shape):
    """Which sheet."""

    sheet_id: Id


@api.post("/preview", responses={200: PagesShape})
def preview(body: SheetBody) -> Response:
    """A sheet as it would be issued now."""
    subject = _subject(body)
    sheet = compose(subject, _options(body), now(), engraver())
    return answer(_pages(sheet.numbered(number_of(subject))))


@api.post("", responses={201: IssuedShape})
def issue_sheet(body: SheetBody) -> Response:
    """A sheet that is handed out: kept as it is, under the next number."""
    subject = _subject(body)
    sheet = compose(subject, _options(body), now(), engraver())
    return answer(_issued(issue(subject, sheet, now(), body.key)), 201)


@api.get("", responses={200: IssuedList})
def list_sheets(query: OfWhat) -> Response:
    """The sheets of a climb's drill and student, or of a drill, that were issued."""
    subject = subject_of(query.climb_id, query.drill_id, None)
    return answer(IssuedList(sheets=[_issued(one) for one in issued_of(subject)], differs=differs_from(subject)))


@api.get("/<int:sheet_id>", responses={200: PagesShape})
def show_sheet(path: SheetPath) -> Response:
    """A sheet as it was issued."""
    return answer(_pages(_sheet(path)))


@api.get("/<int:sheet_id>/file.pdf")
def fetch_pdf(path: SheetPath) -> Any:
    """A sheet as it was issued, as a PDF."""
    kept, sheet = find_sheet(path.sheet_id), _sheet(path)
    return download(press_pdf(sheet), f"{file_name(sheet.title)}-sheet-{kept.number}.pdf", "application/pdf")


def _subject(body: SheetBody) -> Subject:
    return subject_of(body.climb_id, body.drill_id, body.version)


def _options(body: SheetBody) -> Options:
    return Options(shows=body.shows, form=body.form, paper=body.paper, large=body.large, note=body.note)


def _sheet(path: SheetPath) -> Sheet:
    return cast(Sheet, find_sheet(path.sheet_id).sheet)


def _pages(sheet: Sheet) -> PagesShape:
    pages = [f"data:image/png;base64,{b64encode(page).decode()}" for page in press_pages(sheet)]
    return PagesShape(pages=pages, text=as_text(sheet), missing=without_letters(sheet))


def _issued(kept: KeptSheet) -> IssuedShape:
    return IssuedShape(id=kept.id, number=kept.number, version=kept.version, issued_at=kept.issued_at.isoformat())
