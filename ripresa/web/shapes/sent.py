"""Shapes of which an answer holds thousands: compiled records, each made by us and never read in."""

from typing import Any

import msgspec
from pydantic import BaseModel

from ripresa.web.shapes.table import Table


class Sent(msgspec.Struct, frozen=True, gc=False):
    """A part of an answer; nothing of it is checked."""


def as_json(shape: Sent) -> bytes:
    """Return a shape as JSON: tables column by column, fractions as text."""
    return _ENCODER.encode(shape)


def _plain(value: Any) -> Any:
    if isinstance(value, Table):
        return value.columns()
    return value.model_dump(mode="json") if isinstance(value, BaseModel) else str(value)


_ENCODER = msgspec.json.Encoder(enc_hook=_plain)
