"""The click: a layer of its own, a cycle of exact positions that knows nothing of the drill's grid.

Each kind of plan is a frozen dataclass with a ``kind`` of its own, its ``words``
and a method ``cycle``; to add one, write it and add it to ``Click`` below.
"""

from typing import Annotated

from ripresa.core.click.cycle import ClickCycle, ClickSlot
from ripresa.core.click.dial import Dial, dial
from ripresa.core.click.ladders import CLICK_LADDERS, ClickLadder, laid
from ripresa.core.click.made import DropOut, OfTheSlots, Thinned, TypedClick
from ripresa.core.click.plans import CLICK_PLANS, ClickPlan, NamedClick, click_words
from ripresa.core.exact import ByKind

Click = Annotated[NamedClick | Thinned | DropOut | OfTheSlots | TypedClick, ByKind()]

__all__ = [
    "CLICK_LADDERS",
    "CLICK_PLANS",
    "Click",
    "ClickCycle",
    "ClickLadder",
    "ClickPlan",
    "ClickSlot",
    "Dial",
    "DropOut",
    "NamedClick",
    "OfTheSlots",
    "Thinned",
    "TypedClick",
    "click_words",
    "dial",
    "laid",
]
