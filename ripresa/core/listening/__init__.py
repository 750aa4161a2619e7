"""Listening: onsets and levels in a recording, what is wrong with it, and what the click hides.

Knows nothing of drills: what was due is matched in ``takes``.
"""

from ripresa.core.listening.listening import Listened, listen
from ripresa.core.listening.onsets import Onset
from ripresa.core.listening.profiles import PROFILES, As, profile_named
from ripresa.core.listening.quality import Quality
from ripresa.core.listening.sound import LONGEST, RATES, Sound, check_seconds

__all__ = [
    "LONGEST",
    "PROFILES",
    "RATES",
    "As",
    "Listened",
    "Onset",
    "Quality",
    "Sound",
    "check_seconds",
    "listen",
    "profile_named",
]
