"""Which notes are stressed: each way of setting accents is one module here.

A way is a frozen dataclass with a ``kind`` of its own and a method ``marks``; beside it stands its ``KIND``.
To add one, write its module and add it to ``Accents`` and ``ACCENTS`` below.
"""

from typing import Annotated

from ripresa.core.drill.accents import backbeat, each_beat, every_nth, none, typed, walk
from ripresa.core.drill.accents.backbeat import Backbeat
from ripresa.core.drill.accents.each_beat import EachBeat
from ripresa.core.drill.accents.every_nth import LARGEST_GROUP, EveryNth
from ripresa.core.drill.accents.mark import Mark
from ripresa.core.drill.accents.none import NoAccents
from ripresa.core.drill.accents.typed import TypedAccents
from ripresa.core.drill.accents.walk import Walk
from ripresa.core.exact import ByKind
from ripresa.core.kind import Kind
from ripresa.core.rhythm import Level

Accents = Annotated[EachBeat | Backbeat | EveryNth | Walk | TypedAccents | NoAccents, ByKind()]
#: All kinds, in the order in which they are offered.
ACCENTS: tuple[Kind[Accents], ...] = (each_beat.KIND, backbeat.KIND, every_nth.KIND, walk.KIND, typed.KIND, none.KIND)

__all__ = [
    "ACCENTS",
    "LARGEST_GROUP",
    "Accents",
    "Backbeat",
    "EachBeat",
    "EveryNth",
    "Level",
    "Mark",
    "NoAccents",
    "TypedAccents",
    "Walk",
]
