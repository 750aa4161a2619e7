"""Changes: what a press does to a drill. Each takes a drill and gives another; none touches a reading."""

from ripresa.core.changes.cells import with_cells
from ripresa.core.changes.compare import Compared, differences, others, turned, turned_told
from ripresa.core.changes.mirror import mirrored
from ripresa.core.changes.named import TOOLS, Tool, Where, changed
from ripresa.core.changes.overrides import Foot, Overrides, overridden, told_overrides
from ripresa.core.changes.part import (
    Bars,
    Part,
    layers_of,
    part_named,
    practised,
    present_layers,
    told_part,
    window_of,
    with_division,
)
from ripresa.core.changes.pressing import click_pressed, gridded, is_pressable, pressed
from ripresa.core.changes.tools import arriving, backwards, doubled, halved, lengthened, trimmed
from ripresa.core.changes.variants import TURNED, Turned, Variant, VariantSet, variant_set
from ripresa.core.changes.written_out import as_line

__all__ = [
    "TOOLS",
    "TURNED",
    "Bars",
    "Compared",
    "Foot",
    "Overrides",
    "Part",
    "Tool",
    "Turned",
    "Variant",
    "VariantSet",
    "Where",
    "arriving",
    "as_line",
    "backwards",
    "changed",
    "click_pressed",
    "differences",
    "doubled",
    "gridded",
    "halved",
    "is_pressable",
    "layers_of",
    "lengthened",
    "mirrored",
    "others",
    "overridden",
    "part_named",
    "practised",
    "present_layers",
    "pressed",
    "told_overrides",
    "told_part",
    "trimmed",
    "turned",
    "turned_told",
    "variant_set",
    "window_of",
    "with_cells",
    "with_division",
]
