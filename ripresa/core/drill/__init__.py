"""The drill: what the teacher wrote, and nothing that follows from it.

It is composed of material, legs, hands, accents, click and more. Each part refuses what it cannot be, with the field
to blame. What follows from a drill is worked out by ``ripresa.core.reading``.
"""

from ripresa.core.drill.body import FEET, MOVEMENTS, OTHER_FOOT, USUAL_RATES, VOICES, Body, FootLayer, VoiceRow
from ripresa.core.drill.by_hand import PhraseStart, parse_fingers, parse_phrases, write_fingers
from ripresa.core.drill.cues import WHERES, Cue
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
    NeckPlace,
    Seam,
)
from ripresa.core.drill.enters import ENTERING, Entering, Enters
from ripresa.core.drill.hits import FROMS, MOST_FILLS, Hits, grown, is_hit
from ripresa.core.drill.leg import Leg
from ripresa.core.drill.ornament import IN_TURN, Ornamented, ornamented
from ripresa.core.drill.reduce import NO_HITS, REDUCTIONS, Reduce, reduced
from ripresa.core.drill.voicing import VOICINGS, Voicing, voiced_by_level
from ripresa.core.drill.way_in import FOR_TWO_HANDS, SCHOOLS, STEPS, StageCount, Step, reduce_of

__all__ = [
    "ARTICULATIONS",
    "CLOSINGS",
    "COMES_WITH",
    "DIVISIONS",
    "ENTERING",
    "FEET",
    "FINGERINGS",
    "FOR_TWO_HANDS",
    "FROMS",
    "IN_TURN",
    "LONGEST_TEXT",
    "MOST_FILLS",
    "MOVEMENTS",
    "NOTES_A_STRING",
    "NO_HITS",
    "OTHER_FOOT",
    "REDUCTIONS",
    "SCHOOLS",
    "SEAMS",
    "STEPS",
    "USUAL_RATES",
    "VOICES",
    "VOICINGS",
    "WHERES",
    "Body",
    "Cue",
    "Drill",
    "Entering",
    "Enters",
    "Fingering",
    "FootLayer",
    "Hits",
    "Leg",
    "NeckPlace",
    "Ornamented",
    "PhraseStart",
    "Reduce",
    "Seam",
    "StageCount",
    "Step",
    "VoiceRow",
    "Voicing",
    "grown",
    "is_hit",
    "ornamented",
    "parse_fingers",
    "parse_phrases",
    "reduce_of",
    "reduced",
    "voiced_by_level",
    "write_fingers",
]
