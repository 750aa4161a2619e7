"""Which hand, pick direction or tongue syllable plays a note: each law is one module here.

A law is a frozen dataclass with a ``kind`` of its own and a method ``strokes``; beside it stands its ``KIND``.
To add one, write its module and add it to ``Hands`` and ``HANDS`` below.
"""

from typing import Annotated

from ripresa.core.drill.hands import articulated, by_order, by_place, economy, letters, none
from ripresa.core.drill.hands.articulated import CIRCUITS, Articulated
from ripresa.core.drill.hands.articulated import PATTERNS as ARTICULATION_PATTERNS
from ripresa.core.drill.hands.by_order import CYCLES, LONGEST_CYCLE, LONGEST_SYMBOL, RESTARTS, SLUR, ByOrder
from ripresa.core.drill.hands.by_place import LEADS, ODD_SCHOOLS, ByPlace
from ripresa.core.drill.hands.economy import Economy
from ripresa.core.drill.hands.letters import HAND_LEADS, Letters
from ripresa.core.drill.hands.none import NoHands
from ripresa.core.exact import ByKind
from ripresa.core.kind import Kind

Hands = Annotated[ByOrder | ByPlace | Letters | Economy | Articulated | NoHands, ByKind()]
#: All kinds, in the order in which they are offered.
HANDS: tuple[Kind[Hands], ...] = (none.KIND, by_place.KIND, letters.KIND, economy.KIND, articulated.KIND, by_order.KIND)

__all__ = [
    "ARTICULATION_PATTERNS",
    "CIRCUITS",
    "CYCLES",
    "HANDS",
    "HAND_LEADS",
    "LEADS",
    "LONGEST_CYCLE",
    "LONGEST_SYMBOL",
    "ODD_SCHOOLS",
    "RESTARTS",
    "SLUR",
    "Articulated",
    "ByOrder",
    "ByPlace",
    "Economy",
    "Hands",
    "Letters",
    "NoHands",
]
