"""Answers, the clock and the engraver: what routes need of the app."""

import io
import re
from collections.abc import Callable
from datetime import datetime
from typing import cast

from flask import Response, current_app, send_file
from pydantic import BaseModel

from ripresa.formats.engraver import Engraver
from ripresa.web.incoming import Incoming
from ripresa.web.shapes.sent import Sent, as_json

Clock = Callable[[], datetime]


def answer(shape: BaseModel | Sent, status: int = 200) -> Response:
    """Return a shape as JSON."""
    body = as_json(shape) if isinstance(shape, Sent) else shape.model_dump_json()
    return Response(body, status, mimetype="application/json")


_DEVICE = re.compile("con|prn|aux|nul|(?:com|lpt)[0-9¹²³]")


def download(body: bytes | str, name: str, mimetype: str) -> Response:
    """Return a file to be saved under a name, in any script (RFC 6266: ``filename*``)."""
    data = body.encode() if isinstance(body, str) else body
    return send_file(io.BytesIO(data), mimetype, as_attachment=True, download_name=name)


def file_name(title: str) -> str:
    """Return a title as the beginning of a file's name, which every system takes.

    >>> file_name("Kelp & Foam: 3/4"), file_name("Con")
    ('kelp--foam-34', 'con-drill')
    """
    name = re.sub(r"[^\w -]", "", title).strip().replace(" ", "-").lower()[:60]
    # Windows keeps these words for devices, whatever the ending.
    return f"{name}-drill" if _DEVICE.fullmatch(name) else name or "drill"


def engraver() -> Engraver:
    """Return the studio's engraver."""
    return cast(Engraver, current_app.config["ENGRAVER"])


def incoming() -> Incoming:
    """Return where sound lies on its way in."""
    return cast(Incoming, current_app.config["INCOMING"])


def now() -> datetime:
    """Return the present moment, aware, in the studio's time zone."""
    return cast(Clock, current_app.config["CLOCK"])()
