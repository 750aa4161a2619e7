"""Which notes are stressed: each way of setting accents is one module here.

A way is a frozen dataclass with a ``kind`` of its own and a method ``marks``;
to add one, write its module and add it to ``Accents`` below.
"""

from typing import Annotated

from ripresa.core.accents.each_beat import EachBeat
from ripresa.core.accents.every_nth import EveryNth
from ripresa.core.accents.mark import Level, Mark
from ripresa.core.accents.none import NoAccents
from ripresa.core.accents.typed import TypedAccents
from ripresa.core.accents.walk import Walk
from ripresa.core.exact import ByKind

Accents = Annotated[EachBeat | EveryNth | Walk | TypedAccents | NoAccents, ByKind()]

__all__ = ["Accents", "EachBeat", "EveryNth", "Level", "Mark", "NoAccents", "TypedAccents", "Walk"]
