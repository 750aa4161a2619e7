"""The click: a layer of its own, a cycle of exact positions that knows nothing of the drill's grid."""

from typing import Annotated

from ripresa.core.click.dial import Dial, dial
from ripresa.core.click.plans import CLICK_PLANS, ClickCycle, ClickPlan, NamedClick, cycle_of
from ripresa.core.exact import ByKind

Click = Annotated[NamedClick, ByKind()]

__all__ = ["CLICK_PLANS", "Click", "ClickCycle", "ClickPlan", "Dial", "NamedClick", "cycle_of", "dial"]
