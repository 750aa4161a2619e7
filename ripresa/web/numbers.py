"""Numbers and keys as requests bring them: each bounded where it is read, before anything is done with it."""

from typing import Annotated

from pydantic import Field, StringConstraints

from ripresa.core.studio import MOST_NUMBER
from ripresa.formats.sentences import KEY_PATTERN
from ripresa.formats.wire import Shape

#: The number of a row: what JavaScript holds exactly, and well below what SQLite does.
Id = Annotated[int, Field(ge=1, le=MOST_NUMBER)]
#: A number of bars, beats, passes and the like; what makes sense is said by the core.
Count = Annotated[int, Field(ge=-100_000, le=100_000)]
#: A moment on a clock that a browser counts from when it was opened: up to some months.
Seconds = Annotated[float, Field(ge=-1e7, le=1e7)]
#: Made by a browser for one press or one page, so that what arrives twice is done once.
Key = Annotated[str, StringConstraints(pattern=KEY_PATTERN)]


class Once(Shape):
    """A key for one press: what is asked for with the same key again is made once."""

    key: Key | None = None
