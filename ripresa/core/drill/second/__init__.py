"""The second hand of a drill for keys: each thing that it may play is one module here.

What it plays is a frozen dataclass with a ``kind`` of its own and a method ``fill``; beside it stands its ``KIND``.
To add one, write its module and add it to ``Plays`` and ``PLAYS`` in ``second``.
"""

from ripresa.core.drill.second.chords import FIGURES, ChordsBelow
from ripresa.core.drill.second.contrary import STARTS, Contrary
from ripresa.core.drill.second.first import SEVEN, First, filled, held
from ripresa.core.drill.second.line import OwnLine
from ripresa.core.drill.second.none import NoSecond
from ripresa.core.drill.second.one_note import HOLDS, OneKey
from ripresa.core.drill.second.parallel import INTERVALS, Parallel
from ripresa.core.drill.second.second import BALANCES, PLAYS, Balance, Plays, SecondHand

__all__ = [
    "BALANCES",
    "FIGURES",
    "HOLDS",
    "INTERVALS",
    "PLAYS",
    "SEVEN",
    "STARTS",
    "Balance",
    "ChordsBelow",
    "Contrary",
    "First",
    "NoSecond",
    "OneKey",
    "OwnLine",
    "Parallel",
    "Plays",
    "SecondHand",
    "filled",
    "held",
]
