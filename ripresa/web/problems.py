"""One shape for every refusal, and one table from error class to HTTP status."""

import logging
import sqlite3

from flask import Flask, Response
from flask_openapi import OpenAPI
from peewee import DatabaseError, IntegrityError, OperationalError
from pydantic import ValidationError
from werkzeug.exceptions import HTTPException

from ripresa.core.errors import Conflict, NotFound, OutOfRange, RipresaError, Unkept, Unreadable
from ripresa.formats.sentences import explain
from ripresa.formats.wire import Shape
from ripresa.store.trouble import cause, trouble

_STATUS: dict[type[RipresaError], int] = {OutOfRange: 422, Unreadable: 422, NotFound: 404, Conflict: 409, Unkept: 503}
_SENTENCES = {
    404: "There is nothing at this address.",
    405: "This address does not take that kind of request.",
    413: "That is too large to send: 8 MB at most.",
    415: "This address takes JSON only.",
}
log = logging.getLogger(__name__)


class Problem(Shape):
    """A refusal: a sentence to show as it stands, and the field to blame."""

    message: str
    field: str | None


def problem(message: str, status: int, field: str | None = None) -> Response:
    """Return a refusal as an answer; halves of signs, which a text can bring along, become question marks."""
    shown = Problem(message=_whole(message), field=None if field is None else _whole(field))
    return Response(shown.model_dump_json(), status, mimetype="application/json")


def _whole(text: str) -> str:
    return text.encode("utf-8", "replace").decode("utf-8")


def refuse_malformed(error: ValidationError) -> Response:
    """Return the refusal of a request whose shape is wrong."""
    message, field = explain(error.errors(include_url=False))
    return problem(message, 422, field)


def handle_problems(app: OpenAPI) -> None:
    """Make an app answer every error in the one shape."""
    _register(app)


def _register(app: Flask) -> None:
    @app.errorhandler(RipresaError)
    def refused(error: RipresaError) -> Response:
        return problem(error.message, _STATUS[type(error)], error.field)

    @app.errorhandler(OperationalError)
    @app.errorhandler(DatabaseError)
    @app.errorhandler(sqlite3.Error)
    def not_kept(error: Exception) -> Response:
        log.exception("the database failed", exc_info=error)
        return problem(trouble(cause(error)).message, 503)

    @app.errorhandler(HTTPException)
    def http_error(error: HTTPException) -> Response:
        if isinstance(error.response, Response):
            return error.response
        code = error.code or 500
        return problem(_SENTENCES.get(code, error.description or "This cannot be done."), code)

    # What contradicts what is kept is asked for by a mistake of ours, and no trouble of the disk.
    @app.errorhandler(IntegrityError)
    @app.errorhandler(Exception)
    def bug(error: Exception) -> Response:
        log.exception("an error of ours", exc_info=error)
        return problem("Something went wrong inside Ripresa. What was kept is safe; please try again.", 500)
