"""What is played, before any rhythm: each kind of material is one module here.

A kind is a frozen dataclass with a ``kind`` of its own and a method
``pass_for``; to add one, write its module and add it to ``Material`` below.
"""

from typing import Annotated

from ripresa.core.exact import ByKind
from ripresa.core.material.arpeggio import Arpeggio
from ripresa.core.material.count import Count
from ripresa.core.material.notes import NotePass
from ripresa.core.material.one_note import OneNote
from ripresa.core.material.scale_run import ScaleRun
from ripresa.core.material.sequence import Sequence
from ripresa.core.material.strum import Strum

#: Kinds that bring their own rhythm: the legs only say how often they are played.
OwnRhythm = Count | Strum
Material = Annotated[ScaleRun | Arpeggio | Sequence | OneNote | Count | Strum, ByKind()]

__all__ = ["Arpeggio", "Count", "Material", "NotePass", "OneNote", "OwnRhythm", "ScaleRun", "Sequence", "Strum"]
