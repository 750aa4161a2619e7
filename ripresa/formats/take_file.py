"""The take file: takes of one drill as lines of JSON, documented in docs/take-format.md.

Each line is a take: what was heard, how fast it was to be, and how late the source is known to be.
"""

import json
from collections.abc import Iterator
from typing import Annotated, Any, Literal

from pydantic import ConfigDict, Field, ValidationError

from ripresa.core.errors import OutOfRange, RipresaError, Unreadable
from ripresa.core.playing import most_due
from ripresa.core.reading import Reading
from ripresa.core.rhythm import check_bpm, span_seconds
from ripresa.core.takes import (
    MOST_MEASURED,
    But,
    Due,
    Evenness,
    Figure,
    HeardNote,
    Judged,
    Limits,
    Performed,
    Source,
    due_notes,
    judge,
    too_long,
)
from ripresa.formats.sentences import explain
from ripresa.formats.wire import Shape, WireExact

FORMAT = "ripresa.take/1"
LARGEST_LINE = 8_000_000
MOST_NOTES = 50_000
MOST_PASSES = 1000

_Number = Annotated[float, Field(allow_inf_nan=False)]


class _Shape(Shape):
    """What a line may hold, and nothing else."""

    model_config = ConfigDict(extra="forbid")


class NoteLine(_Shape):
    """A heard note: seconds from the first beat of the first pass; the sounding MIDI number; velocity or dB."""

    at: _Number
    key: str | None = Field(default=None, max_length=20)
    pitch: int | None = Field(default=None, ge=0, le=127)
    level: _Number | None = None
    until: _Number | None = None


class LatencyLine(_Shape):
    """How late the source is known to be, in ms, with the half-width of that."""

    ms: float = Field(ge=-1000, le=1000, allow_inf_nan=False)
    half_width: float = Field(default=0.0, ge=0, le=500, allow_inf_nan=False)


class ButLine(_Shape):
    """A figure that is held to another school than the rest."""

    figure: Figure
    evenness: Evenness


class TakeLine(_Shape):
    """A take of a take file."""

    format: Literal["ripresa.take/1"]
    bpm: WireExact
    passes: int = Field(default=1, ge=1, le=MOST_PASSES)
    source: Source = "midi"
    latency: LatencyLine | None = None
    evenness: Evenness = "working"
    but: list[ButLine] = Field(default_factory=list, max_length=7)
    notes: list[NoteLine] = Field(max_length=MOST_NOTES)

    @property
    def limits(self) -> Limits:
        """What it is held to."""
        return Limits(self.evenness, tuple(But(one.figure, one.evenness) for one in self.but))

    @property
    def heard(self) -> tuple[HeardNote, ...]:
        """Its notes, in the order of the line."""
        return tuple(HeardNote(one.at, one.key, one.pitch, one.level, one.until) for one in self.notes)


def read_take(line: str) -> TakeLine:
    """Return the take of a line.

    Raises:
        Unreadable: It is too long, not JSON, or a part of it is malformed; the sentence names the part.
    """
    if len(line) > LARGEST_LINE:
        raise Unreadable(f"A line has up to {LARGEST_LINE // 1_000_000} MB.", field="file")
    try:
        found = json.loads(line)
    except (ValueError, RecursionError) as error:
        raise Unreadable("This line is not JSON. A take file has one JSON object a line.", field="file") from error
    if not isinstance(found, dict):
        raise Unreadable(f"This line is no take. It should be an object with the format “{FORMAT}”.", field="format")
    if found.get("format") != FORMAT:
        raise Unreadable(f"This line is of another format. It should say “format”: “{FORMAT}”.", field="format")
    try:
        return TakeLine.model_validate(found)
    except ValidationError as error:
        message, field = explain(error.errors(include_url=False))
        raise Unreadable(message, field=field) from error


def judged_take(reading: Reading, take: TakeLine) -> tuple[Due, Judged | None, str]:
    """Return what was due of a take, the take as it is judged, and why it is not measured where it is too long.

    Raises:
        OutOfRange: A tempo, a time or a number out of range.
    """
    bpm = check_bpm(take.bpm)
    end = float(span_seconds(take.passes * reading.loop_beats, bpm))
    most = max(most_due(reading, bpm, end), len(take.notes))
    if most > MOST_MEASURED:
        return due_notes(reading, bpm, 0.0, 0.0), None, too_long(most).reasons[0]
    due = due_notes(reading, bpm, 0.0, end)
    latency = (take.latency.ms / 1000, take.latency.half_width / 1000) if take.latency else None
    return due, judge(due, take.heard, take.limits, take.source, latency), ""


def takes_of(lines: Iterator[str]) -> Iterator[tuple[int, TakeLine | RipresaError]]:
    """Yield (number of the line, its take, or what is wrong with it), empty lines left out."""
    for number, line in enumerate(lines, start=1):
        if not line.strip():
            continue
        try:
            yield number, read_take(line)
        except RipresaError as error:
            yield number, error


def write_take(
    due: Due, performed: Performed, passes: int, source: Source, latency: LatencyLine | None, evenness: Evenness
) -> dict[str, Any]:
    """Return the line of a take that the stand-in player played, as plain values."""
    notes = [
        {
            key: round(value, 6) if isinstance(value, float) else value
            for key, value in (
                ("at", note.at),
                ("key", note.key),
                ("pitch", note.pitch),
                ("level", note.level),
                ("until", note.until),
            )
            if value is not None
        }
        for note in performed.notes
    ]
    return {
        "format": FORMAT,
        "bpm": str(due.bpm),
        "passes": passes,
        "source": source,
        "latency": latency.model_dump() if latency else None,
        "evenness": evenness,
        "notes": notes,
    }


def take_schema() -> dict[str, Any]:
    """Return the JSON Schema of a line of a take file."""
    found = TakeLine.model_json_schema()
    found["$schema"] = "https://json-schema.org/draft/2020-12/schema"
    found["title"] = "A line of a Ripresa take file"
    return found


def check_passes(passes: int) -> int:
    """Return a number of passes that can be played.

    Raises:
        OutOfRange: It cannot.
    """
    if not 1 <= passes <= MOST_PASSES:
        raise OutOfRange(f"A take has 1 to {MOST_PASSES} passes, not {passes}.")
    return passes
