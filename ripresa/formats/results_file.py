"""The results file: what was done with a practice file, as it comes back; documented in docs/practice-file.md.

It is written on a student's own device, so every number in it is bounded before it is used.
"""

import json
import re
from typing import Annotated, Any, Literal

from pydantic import AwareDatetime, ConfigDict, Field, ValidationError

from ripresa.core.changes import Part
from ripresa.core.drill.click import Click
from ripresa.core.errors import RipresaError, Unreadable
from ripresa.core.studio import LONGEST_NOTE, MOST_NUMBER
from ripresa.formats.sentences import KEY_PATTERN, explain
from ripresa.formats.wire import Shape, WireExact

FORMAT = "ripresa.results/1"
LARGEST_FILE = 20_000_000
MOST_TAKES, MOST_NOTES = 2000, 50_000
#: So many braces of a message are tried as the beginning of the results.
_MOST_BEGINNINGS = 20
#: What stands before the lines of a message that is quoted.
_QUOTED = re.compile(r"^(?:> ?)+", re.MULTILINE)

_Number = Annotated[float, Field(allow_inf_nan=False, ge=-1e7, le=1e7)]
_Id = Annotated[int, Field(ge=1, le=MOST_NUMBER)]


class _Shape(Shape):
    """What a part of the file may hold; what a later Ripresa adds is passed over."""

    model_config = ConfigDict(extra="ignore")


class ResultNote(_Shape):
    """A tap: seconds from the first beat of the first pass, and which key."""

    at: _Number
    key: str | None = Field(default=None, max_length=20)


class ResultTake(_Shape):
    """A take as it was played: of which rung, when, what was tapped, and what the student said of it."""

    id: str = Field(pattern=KEY_PATTERN)
    climb_id: _Id
    drill_id: _Id
    version: _Id
    rung: int = Field(ge=1, le=1000)
    bpm: WireExact
    click: Click
    part: Part | None = None
    played_at: AwareDatetime
    start: float = Field(ge=0, le=1e5, allow_inf_nan=False)
    end: float = Field(gt=0, le=1e5, allow_inf_nan=False)
    notes: list[ResultNote] = Field(default_factory=list, max_length=MOST_NOTES)
    mark: Literal["clean", "shaky"] | None = None


class Results(_Shape):
    """What was done with one practice file."""

    format: Literal["ripresa.results/1"]
    studio: str = Field(max_length=64)
    student_id: _Id
    student: str = Field(default="", max_length=200)
    takes: list[ResultTake] = Field(default_factory=list, max_length=MOST_TAKES)
    question: str = Field(default="", max_length=LONGEST_NOTE)


def read_results(text: str) -> Results:
    """Return the results in a file, or in the text of a message that they were pasted into.

    Raises:
        Unreadable: They are none; the sentence says what stands where.
    """
    if len(text) > LARGEST_FILE:
        raise Unreadable(f"These results are over {LARGEST_FILE // 1_000_000} MB, and none that we write are.")
    values = _found(text)
    if values is None:
        raise Unreadable("These are not the results of a practice file. Choose the file that it saved, or its text.")
    if values["format"] != FORMAT:
        raise Unreadable(
            f"These results are of the kind “{str(values['format'])[:40]}”, and this Ripresa reads {FORMAT}. "
            "Make a new practice file, or start the Ripresa that made it."
        )
    try:
        return Results.model_validate(values)
    except RipresaError:
        raise
    except ValidationError as error:
        raise Unreadable(explain(error.errors())[0]) from error


def _found(text: str) -> dict[str, Any] | None:
    """Return the first values in a text that name their format, whatever a message says around them.

    A mail program may have broken lines anywhere, and quoted them. The time grows as the text does.
    """
    whole = _QUOTED.sub("", text).replace("\r", "").replace("\n", "")
    decoder, begin = json.JSONDecoder(), -1
    for _ in range(_MOST_BEGINNINGS):
        begin = whole.find("{", begin + 1)
        if begin < 0:
            return None
        try:
            values, _end = decoder.raw_decode(whole, begin)
        except (ValueError, RecursionError):
            continue
        if isinstance(values, dict) and "format" in values:
            return values
    return None
