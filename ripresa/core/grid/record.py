"""Records: what a reading has thousands of, frozen and compiled."""

from msgspec import Struct
from msgspec.structs import replace

__all__ = ["Record", "altered"]


class Record(Struct, frozen=True, gc=False):
    """A frozen value that refers to no other that refers back: made and altered in a tenth of a dataclass's time."""


#: Return a record with some of its fields altered.
altered = replace
