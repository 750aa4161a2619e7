"""What is played, before any rhythm: each kind of material is one module here.

A kind is a frozen dataclass with a ``kind`` of its own, a ``title``, an ``own_division`` and a method ``pass_for``;
beside it stands its ``KIND``. To add one, write its module and add it to ``Material`` and ``MATERIALS`` below.
"""

from typing import Annotated

from ripresa.core.drill.material import (
    arpeggio,
    cells,
    count,
    finger_order,
    line,
    long_notes,
    one_note,
    picked,
    scale_run,
    sequence,
    strum,
)
from ripresa.core.drill.material.arpeggio import Arpeggio
from ripresa.core.drill.material.cells import MIXES, Cells
from ripresa.core.drill.material.count import Count, moved_beats
from ripresa.core.drill.material.finger_order import ALL, LEGATOS, ORDERS, PATHS, FingerOrder
from ripresa.core.drill.material.line import AFTERS, FITS, RHYTHMS, Line
from ripresa.core.drill.material.line_text import LineNote, parse_line, without_bars, write_line
from ripresa.core.drill.material.long_notes import LongNotes
from ripresa.core.drill.material.notes import AS_ON_STRINGS, NotePass
from ripresa.core.drill.material.one_note import SAYS, OneNote
from ripresa.core.drill.material.onto_beats import FINEST
from ripresa.core.drill.material.picked import AGAINS, BASSES, PICKS, Picked
from ripresa.core.drill.material.run import SHAPES, TOPS
from ripresa.core.drill.material.scale_run import MOST_OCTAVES, NAMED_OCTAVES, OWN, ScaleRun, octaves_words
from ripresa.core.drill.material.sequence import FIGURES, WAYS, Sequence
from ripresa.core.drill.material.strum import PATTERNS, Strum
from ripresa.core.exact import ByKind
from ripresa.core.kind import Kind
from ripresa.core.pitch import Pitch, Scale, parse_tonic

Material = Annotated[
    ScaleRun | Arpeggio | Sequence | OneNote | Count | Cells | Strum | Line | Picked | FingerOrder | LongNotes,
    ByKind(),
]
#: All kinds, in the order in which they are offered.
MATERIALS: tuple[Kind[Material], ...] = (
    scale_run.KIND,
    arpeggio.KIND,
    sequence.KIND,
    line.KIND,
    count.KIND,
    cells.KIND,
    strum.KIND,
    picked.KIND,
    finger_order.KIND,
    long_notes.KIND,
    one_note.KIND,
)


def own_rhythm(material: Material) -> bool:
    """Return whether a material brings its own rhythm, so that the legs only say how often it is played."""
    return material.own_division is not None


def scale_of(material: Material) -> tuple[Pitch, Scale] | None:
    """Return the tonic, in octave 4, and the tones that the degrees of a material count in; None without."""
    tonic, tones = getattr(material, "tonic", None), getattr(material, "tones", None)
    return (parse_tonic(tonic), tones) if tonic and isinstance(tones, Scale) else None


__all__ = [
    "AFTERS",
    "AGAINS",
    "ALL",
    "AS_ON_STRINGS",
    "BASSES",
    "FIGURES",
    "FINEST",
    "FITS",
    "LEGATOS",
    "MATERIALS",
    "MIXES",
    "MOST_OCTAVES",
    "NAMED_OCTAVES",
    "ORDERS",
    "OWN",
    "PATHS",
    "PATTERNS",
    "PICKS",
    "RHYTHMS",
    "SAYS",
    "SHAPES",
    "TOPS",
    "WAYS",
    "Arpeggio",
    "Cells",
    "Count",
    "FingerOrder",
    "Line",
    "LineNote",
    "LongNotes",
    "Material",
    "NotePass",
    "OneNote",
    "Picked",
    "ScaleRun",
    "Sequence",
    "Strum",
    "moved_beats",
    "octaves_words",
    "own_rhythm",
    "parse_line",
    "scale_of",
    "without_bars",
    "write_line",
]
