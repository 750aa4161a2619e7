"""Playing: a reading at a tempo, with what comes before it, goes with it and is said over it.

Beats become seconds here and nowhere else, each from its own position, so that nothing drifts.
"""

from ripresa.core.playing.backing import PARTS, Drum, Part
from ripresa.core.playing.lead import COUNT_A_BAR, MEANWHILE, Before, Said, lead_of
from ripresa.core.playing.performance import (
    BackTone,
    Performance,
    Tone,
    expected_onsets,
    most_due,
    onsets_within,
    perform,
)
from ripresa.core.playing.practice import (
    SLOWS,
    Window,
    at_step,
    bars_window,
    before_it_was_moved,
    in_turn,
    seams,
    slowed,
    within,
)
from ripresa.core.playing.pulse import SCHOOLS, Pulse
from ripresa.core.playing.speech import SILENT, WHATS, WORDS, Spoken

__all__ = [
    "COUNT_A_BAR",
    "MEANWHILE",
    "PARTS",
    "SCHOOLS",
    "SILENT",
    "SLOWS",
    "WHATS",
    "WORDS",
    "BackTone",
    "Before",
    "Drum",
    "Part",
    "Performance",
    "Pulse",
    "Said",
    "Spoken",
    "Tone",
    "Window",
    "at_step",
    "bars_window",
    "before_it_was_moved",
    "expected_onsets",
    "in_turn",
    "lead_of",
    "most_due",
    "onsets_within",
    "perform",
    "seams",
    "slowed",
    "within",
]
