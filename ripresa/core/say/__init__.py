"""Say it: a drill in one line of a teacher's words."""

from ripresa.core.say.chip import Chip
from ripresa.core.say.finding import words_for
from ripresa.core.say.say import LONGEST, Said, Unknown, say

__all__ = ["LONGEST", "Chip", "Said", "Unknown", "say", "words_for"]
