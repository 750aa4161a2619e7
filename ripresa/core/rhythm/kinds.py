"""What can fill a slot, and how loud it is played."""

from typing import Literal

SlotKind = Literal["note", "rest", "air", "hold"]
Level = Literal["accent", "plain", "ghost"]
