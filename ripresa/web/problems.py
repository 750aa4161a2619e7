"""One shape for every refusal, and one table from error class to HTTP status."""

import logging

from flask import Flask, Response
from flask_openapi import OpenAPI
from pydantic import BaseModel, ValidationError
from werkzeug.exceptions import HTTPException

from ripresa.core.errors import Conflict, NotFound, OutOfRange, RipresaError, Unreadable
from ripresa.formats.sentences import explain

_STATUS: dict[type[RipresaError], int] = {OutOfRange: 422, Unreadable: 422, NotFound: 404, Conflict: 409}
_SENTENCES = {
    404: "There is nothing at this address.",
    405: "This address does not take that kind of request.",
    413: "That is too large to send: 8 MB at most.",
    415: "This address takes JSON only.",
}
log = logging.getLogger(__name__)


class Problem(BaseModel):
    """A refusal: a sentence to show as it stands, and the field to blame."""

    message: str
    field: str | None


def problem(message: str, status: int, field: str | None = None) -> Response:
    """Return a refusal as an answer."""
    return Response(Problem(message=message, field=field).model_dump_json(), status, mimetype="application/json")


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

    @app.errorhandler(HTTPException)
    def http_error(error: HTTPException) -> Response:
        if isinstance(error.response, Response):
            return error.response
        code = error.code or 500
        return problem(_SENTENCES.get(code, error.description or "This cannot be done."), code)

    @app.errorhandler(Exception)
    def bug(error: Exception) -> Response:
        log.exception("an error of ours", exc_info=error)
        return problem("Something went wrong inside Ripresa. What was kept is safe; please try again.", 500)
