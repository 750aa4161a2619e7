"""What a studio keeps: students and groups, drills with versions, climbs, takes and moves."""

from ripresa.core.studio.care import care_for
from ripresa.core.studio.kept import (
    Climb,
    Ear,
    KeptDrill,
    KeptRemedy,
    Move,
    PartStanding,
    Standing,
    Take,
    TakeLine,
)
from ripresa.core.studio.moments import check_lasting, check_moment
from ripresa.core.studio.people import (
    LONGEST_NAME,
    LONGEST_NOTE,
    MOST_KEEP_DAYS,
    MOST_NUMBER,
    Group,
    GroupDetails,
    Guardian,
    Hand,
    Member,
    StandSettings,
    Student,
    StudentDetails,
)
from ripresa.core.studio.settings import MOST_INSTRUMENTS, PAPERS, SOUND_FIRST, Paper, StudioSettings
from ripresa.core.studio.setups import PRESSES, Delay, Setup, Way
from ripresa.core.studio.words import LONGEST_GLOSSARY, Meaning, parse_glossary, words_used

__all__ = [
    "LONGEST_GLOSSARY",
    "LONGEST_NAME",
    "LONGEST_NOTE",
    "MOST_INSTRUMENTS",
    "MOST_KEEP_DAYS",
    "MOST_NUMBER",
    "PAPERS",
    "PRESSES",
    "SOUND_FIRST",
    "Climb",
    "Delay",
    "Ear",
    "Group",
    "GroupDetails",
    "Guardian",
    "Hand",
    "KeptDrill",
    "KeptRemedy",
    "Meaning",
    "Member",
    "Move",
    "Paper",
    "PartStanding",
    "Setup",
    "StandSettings",
    "Standing",
    "Student",
    "StudentDetails",
    "StudioSettings",
    "Take",
    "TakeLine",
    "Way",
    "care_for",
    "check_lasting",
    "check_moment",
    "parse_glossary",
    "words_used",
]
