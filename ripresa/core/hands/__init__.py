"""Which hand, pick direction or tongue syllable plays a note: each law is one module here.

A law is a frozen dataclass with a ``kind`` of its own and a method
``strokes``; to add one, write its module and add it to ``Hands`` below.
"""

from typing import Annotated

from ripresa.core.exact import ByKind
from ripresa.core.hands.by_order import ByOrder
from ripresa.core.hands.by_place import ByPlace
from ripresa.core.hands.economy import Economy
from ripresa.core.hands.none import NoHands

Hands = Annotated[ByOrder | ByPlace | Economy | NoHands, ByKind()]

__all__ = ["ByOrder", "ByPlace", "Economy", "Hands", "NoHands"]
