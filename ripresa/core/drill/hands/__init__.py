"""Which hand, pick direction or tongue syllable plays a note: each law is one module here.

A law is a frozen dataclass with a ``kind`` of its own and a method
``strokes``; to add one, write its module and add it to ``Hands`` below.
"""

from typing import Annotated

from ripresa.core.drill.hands.by_order import CYCLES, RESTARTS, SLUR, ByOrder
from ripresa.core.drill.hands.by_place import LEADS, ODD_SCHOOLS, ByPlace
from ripresa.core.drill.hands.economy import Economy
from ripresa.core.drill.hands.none import NoHands
from ripresa.core.exact import ByKind

Hands = Annotated[ByOrder | ByPlace | Economy | NoHands, ByKind()]

__all__ = ["CYCLES", "LEADS", "ODD_SCHOOLS", "RESTARTS", "SLUR", "ByOrder", "ByPlace", "Economy", "Hands", "NoHands"]
