"""The drill: what the teacher wrote, and nothing that follows from it.

It is composed of material, legs, hands, accents, click and more. Each part refuses what it cannot be, with the field
to blame. What follows from a drill is worked out by ``ripresa.core.reading``.
"""

from ripresa.core.drill.body import MOVEMENTS, USUAL_RATES, VOICES, Body
from ripresa.core.drill.drill import (
    ARTICULATIONS,
    CLOSINGS,
    COMES_WITH,
    DIVISIONS,
    FINGERINGS,
    LONGEST_TEXT,
    NOTES_A_STRING,
    SEAMS,
    Drill,
    Fingering,
    Seam,
)
from ripresa.core.drill.leg import Leg
from ripresa.core.drill.reduce import REDUCTIONS, Reduce, reduced
from ripresa.core.drill.way_in import FOR_TWO_HANDS, SCHOOLS, STEPS, Step, reduce_of

__all__ = [
    "ARTICULATIONS",
    "CLOSINGS",
    "COMES_WITH",
    "DIVISIONS",
    "FINGERINGS",
    "FOR_TWO_HANDS",
    "LONGEST_TEXT",
    "MOVEMENTS",
    "NOTES_A_STRING",
    "REDUCTIONS",
    "SCHOOLS",
    "SEAMS",
    "STEPS",
    "USUAL_RATES",
    "VOICES",
    "Body",
    "Drill",
    "Fingering",
    "Leg",
    "Reduce",
    "Seam",
    "Step",
    "reduce_of",
    "reduced",
]
