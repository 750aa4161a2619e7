"""The family of refusals: something a teacher asked for that cannot be done.

Each carries a sentence that is shown as it stands (what is wrong, where, what
would be right) and the field to blame. What HTTP makes of them is decided in
``ripresa.web.problems``; a bug is not one of these.
"""


class RipresaError(Exception):
    """Something that was asked for and cannot be done.

    Args:
        message: A sentence for the person who asked.
        field: The field to blame, as a path such as ``"legs.2.division"``.
    """

    def __init__(self, message: str, *, field: str | None = None) -> None:
        super().__init__(message)
        self.message = message
        self.field = field


class OutOfRange(RipresaError):
    """A value that music, or a limit of ours, does not allow."""


class Unreadable(RipresaError):
    """A text or a file that cannot be understood."""


class NotFound(RipresaError):
    """A thing that does not exist (any more)."""


class Conflict(RipresaError):
    """A change made on top of a state that has moved on."""


class Unkept(RipresaError):
    """A thing that could not be kept, for a reason outside: a full disk, a file that another program holds."""
