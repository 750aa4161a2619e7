"""What is heard in a recording, as plain values: documented in docs/listening.md."""

from typing import Any, Literal

from pydantic import ConfigDict, Field

from ripresa.core.exact import rounded
from ripresa.core.listening import Listened
from ripresa.formats.wire import Shape


class _Shape(Shape):
    model_config = ConfigDict(extra="forbid")


class OnsetLine(_Shape):
    """The beginning of a note: seconds from the start of the recording; its level in dB below full scale."""

    at: float
    level: float


class QualityLine(_Shape):
    """Whether a recording could be listened to.

    ``is_good`` or what is wrong with it, the worst first, each with a sentence; levels in dB below full scale, −120
    for nothing at all; how long it lasts, in seconds.
    """

    is_good: bool
    troubles: list[Literal["silent", "soft", "clipping", "hum", "noise"]]
    sentences: list[str]
    peak_db: float
    level_db: float
    noise_db: float
    seconds: float


class ListenedLine(_Shape):
    """What “ripresa listen” prints."""

    quality: QualityLine
    onsets: list[OnsetLine] = Field(description="In order.")


def listened_values(listened: Listened) -> dict[str, Any]:
    """Return what was heard as plain values: seconds to a tenth of a millisecond, levels to a tenth of a dB."""
    return ListenedLine(
        quality=quality_line(listened),
        onsets=[OnsetLine(at=rounded(one.at, 4), level=rounded(one.level, 1)) for one in listened.onsets],
    ).model_dump()


def quality_line(listened: Listened) -> QualityLine:
    """Return how a recording is, as it is told."""
    quality = listened.quality
    return QualityLine(
        is_good=quality.is_good,
        troubles=list(quality.troubles),
        sentences=list(quality.sentences),
        peak_db=rounded(quality.peak_db, 1),
        level_db=rounded(quality.level_db, 1),
        noise_db=rounded(quality.noise_db, 1),
        seconds=rounded(quality.seconds, 3),
    )


def listened_schema() -> dict[str, Any]:
    """Return the JSON Schema of what “ripresa listen” prints."""
    found = ListenedLine.model_json_schema()
    found["$schema"] = "https://json-schema.org/draft/2020-12/schema"
    found["title"] = "What Ripresa hears in a recording"
    return found
