"""What is played, before any rhythm: each kind of material is one module here.

A kind is a frozen dataclass with a ``kind`` of its own and a method
``pass_for``; to add one, write its module and add it to ``Material`` below.
"""

from typing import Annotated

from ripresa.core.exact import ByKind
from ripresa.core.material.arpeggio import Arpeggio
from ripresa.core.material.cells import Cells
from ripresa.core.material.count import Count
from ripresa.core.material.line import Line
from ripresa.core.material.notes import NotePass
from ripresa.core.material.one_note import OneNote
from ripresa.core.material.scale_run import ScaleRun
from ripresa.core.material.sequence import Sequence
from ripresa.core.material.strum import Strum

Material = Annotated[ScaleRun | Arpeggio | Sequence | OneNote | Count | Cells | Strum | Line, ByKind()]


def own_rhythm(material: Material) -> Count | Cells | Strum | Line | None:
    """Return a material that brings its own rhythm, so that the legs only say how often it is played; else None."""
    if isinstance(material, Line):
        return material if material.rhythm == "own" else None
    return material if isinstance(material, Count | Cells | Strum) else None


__all__ = [
    "Arpeggio",
    "Cells",
    "Count",
    "Line",
    "Material",
    "NotePass",
    "OneNote",
    "ScaleRun",
    "Sequence",
    "Strum",
    "own_rhythm",
]
