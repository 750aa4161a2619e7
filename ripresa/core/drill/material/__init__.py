"""What is played, before any rhythm: each kind of material is one module here.

A kind is a frozen dataclass with a ``kind`` of its own, a ``title``, an ``own_division`` and a method ``pass_for``;
beside it stands its ``KIND``. To add one, write its module and add it to ``Material`` and ``MATERIALS`` below.
"""

from typing import Annotated

from ripresa.core.drill.material import (
    arpeggio,
    cells,
    count,
    line,
    one_note,
    scale_run,
    sequence,
    strum,
)
from ripresa.core.drill.material.arpeggio import Arpeggio
from ripresa.core.drill.material.cells import MIXES, Cells
from ripresa.core.drill.material.count import Count
from ripresa.core.drill.material.line import AFTERS, RHYTHMS, Line
from ripresa.core.drill.material.line_text import LineNote, parse_line, without_bars, write_line
from ripresa.core.drill.material.notes import NotePass
from ripresa.core.drill.material.one_note import SAYS, OneNote
from ripresa.core.drill.material.onto_beats import FINEST
from ripresa.core.drill.material.run import SHAPES, TOPS
from ripresa.core.drill.material.scale_run import MOST_OCTAVES, OWN, ScaleRun
from ripresa.core.drill.material.sequence import FIGURES, WAYS, Sequence
from ripresa.core.drill.material.strum import PATTERNS, Strum
from ripresa.core.exact import ByKind
from ripresa.core.kind import Kind

Material = Annotated[ScaleRun | Arpeggio | Sequence | OneNote | Count | Cells | Strum | Line, ByKind()]
#: All kinds, in the order in which they are offered.
MATERIALS: tuple[Kind[Material], ...] = (
    scale_run.KIND,
    arpeggio.KIND,
    sequence.KIND,
    line.KIND,
    count.KIND,
    cells.KIND,
    strum.KIND,
    one_note.KIND,
)


def own_rhythm(material: Material) -> bool:
    """Return whether a material brings its own rhythm, so that the legs only say how often it is played."""
    return material.own_division is not None


__all__ = [
    "AFTERS",
    "FIGURES",
    "FINEST",
    "MATERIALS",
    "MIXES",
    "MOST_OCTAVES",
    "OWN",
    "PATTERNS",
    "RHYTHMS",
    "SAYS",
    "SHAPES",
    "TOPS",
    "WAYS",
    "Arpeggio",
    "Cells",
    "Count",
    "Line",
    "LineNote",
    "Material",
    "NotePass",
    "OneNote",
    "ScaleRun",
    "Sequence",
    "Strum",
    "own_rhythm",
    "parse_line",
    "without_bars",
    "write_line",
]
