"""Changes: what a press does to a drill. Each takes a drill and gives another; none touches a reading."""

from ripresa.core.changes.named import TOOLS, Tool, Where, changed
from ripresa.core.changes.overrides import Foot, Overrides, overridden, told_overrides
from ripresa.core.changes.part import Bars, Part, part_named, practised, told_part, window_of, with_division
from ripresa.core.changes.pressing import click_pressed, gridded, is_pressable, pressed
from ripresa.core.changes.tools import arriving, backwards, doubled, halved, lengthened, mirrored, trimmed, with_cells
from ripresa.core.changes.variants import TURNED, Turned, Variant, VariantSet, variant_set

__all__ = [
    "TOOLS",
    "TURNED",
    "Bars",
    "Foot",
    "Overrides",
    "Part",
    "Tool",
    "Turned",
    "Variant",
    "VariantSet",
    "Where",
    "arriving",
    "backwards",
    "changed",
    "click_pressed",
    "doubled",
    "gridded",
    "halved",
    "is_pressable",
    "lengthened",
    "mirrored",
    "overridden",
    "part_named",
    "practised",
    "pressed",
    "told_overrides",
    "told_part",
    "trimmed",
    "variant_set",
    "window_of",
    "with_cells",
    "with_division",
]
