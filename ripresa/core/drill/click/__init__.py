"""The click: a layer of its own, a cycle of exact positions that knows nothing of the drill's grid.

Each kind of plan is a frozen dataclass with a ``kind`` of its own, its ``words`` and a method ``cycle``; to add one,
write it in ``made``, add it to ``KINDS`` there and to ``Click`` below.
"""

from typing import Annotated

from ripresa.core.drill.click import made, plans
from ripresa.core.drill.click.cycle import ClickCycle, ClickLevel, ClickSlot
from ripresa.core.drill.click.made import ByMeter, DropOut, OfTheSlots, Thinned, TypedClick
from ripresa.core.drill.click.plans import CLICK_PLANS, ClickPlan, NamedClick, click_words
from ripresa.core.drill.click.text import click_text
from ripresa.core.exact import ByKind
from ripresa.core.kind import Kind

Click = Annotated[NamedClick | Thinned | DropOut | OfTheSlots | ByMeter | TypedClick, ByKind()]
#: All kinds, in the order in which they are offered.
CLICKS: tuple[Kind[Click], ...] = (*plans.KINDS, *made.KINDS)

__all__ = [
    "CLICKS",
    "CLICK_PLANS",
    "ByMeter",
    "Click",
    "ClickCycle",
    "ClickLevel",
    "ClickPlan",
    "ClickSlot",
    "DropOut",
    "NamedClick",
    "OfTheSlots",
    "Thinned",
    "TypedClick",
    "click_text",
    "click_words",
]
