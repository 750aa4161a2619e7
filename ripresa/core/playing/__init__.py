"""Playing: a reading at a tempo, with what comes before it, goes with it and is said over it.

Beats become seconds here and nowhere else, each from its own position, so that nothing drifts.
"""

from ripresa.core.playing.backing import ACCOMPANIMENTS, Accompaniment
from ripresa.core.playing.cueing import cues_at
from ripresa.core.playing.due import expected_onsets, most_due
from ripresa.core.playing.guess import Guess, guess_of
from ripresa.core.playing.lead import COUNT_A_BAR, MEANWHILE, Before, lead_of
from ripresa.core.playing.performance import (
    ROLL,
    BackTone,
    BarSpan,
    Performance,
    PulseTick,
    TimedLead,
    TimedSaid,
    TimedTick,
    TimedTone,
    perform,
    score,
    timed,
)
from ripresa.core.playing.practice import (
    SLOWS,
    at_step,
    bars_window,
    beat_window,
    before_it_was_moved,
    is_drill_itself,
    seams,
    slowed,
)
from ripresa.core.playing.pulse import SCHOOLS, Pulse
from ripresa.core.playing.score import Score, Window, in_turn
from ripresa.core.playing.sounding import Sounding, soundings
from ripresa.core.playing.speech import SILENT, WHATS, WORDS, Spoken, voice_row
from ripresa.core.playing.struck import Drum

__all__ = [
    "ACCOMPANIMENTS",
    "COUNT_A_BAR",
    "MEANWHILE",
    "ROLL",
    "SCHOOLS",
    "SILENT",
    "SLOWS",
    "WHATS",
    "WORDS",
    "Accompaniment",
    "BackTone",
    "BarSpan",
    "Before",
    "Drum",
    "Guess",
    "Performance",
    "Pulse",
    "PulseTick",
    "Score",
    "Sounding",
    "Spoken",
    "TimedLead",
    "TimedSaid",
    "TimedTick",
    "TimedTone",
    "Window",
    "at_step",
    "bars_window",
    "beat_window",
    "before_it_was_moved",
    "cues_at",
    "expected_onsets",
    "guess_of",
    "in_turn",
    "is_drill_itself",
    "lead_of",
    "most_due",
    "perform",
    "score",
    "seams",
    "slowed",
    "soundings",
    "timed",
    "voice_row",
]
