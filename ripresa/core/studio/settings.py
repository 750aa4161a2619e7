"""Settings of the whole studio: where schools differ, which one this teacher takes to begin with."""

import re
from dataclasses import dataclass
from typing import Literal

from ripresa.core.climbs import Moving
from ripresa.core.errors import OutOfRange, Unreadable
from ripresa.core.exact import Exact
from ripresa.core.pitch import own_instrument
from ripresa.core.rhythm import MIDDLE_RATE, Counting
from ripresa.core.rhythm import Settings as Metronome
from ripresa.core.studio.words import USUAL_GLOSSARY, parse_glossary
from ripresa.core.takes import Evenness

MOST_INSTRUMENTS = 60
_LANGUAGE = re.compile(r"^[a-z]{2,4}(-[a-z0-9]{1,12}){0,3}$")
Paper = Literal["A4", "letter"]
PAPERS: dict[Paper, tuple[str, str]] = {
    "A4": ("A4", "210 × 297 mm."),
    "letter": ("US letter", "8½ × 11 inches."),
}
SOUND_FIRST: dict[str, tuple[str, str]] = {
    "no": ("sums first", "Figures stand beside everything from the start: for who likes to know."),
    "yes": ("sound first", "On the stand figures stay hidden until they are asked for: the ear decides first."),
}


@dataclass(frozen=True, slots=True)
class StudioSettings:
    """What new drills, climbs and pages begin with.

    Args:
        metronome: Which tempi can be set. evenness, moving: Of new climbs.
        middle_rate: Pulses a minute that the inner pulse stays near, 40 to 300.
        counting: Count words of new drills.
        most_more: By how many per cent the notes of a week may grow before it is flagged, 0 to 100.
        paper: Of what is printed.
        glossary: Words that go home with a student, as ``parse_glossary`` reads them.
        language: In which count words of one's own are spoken: ``"de"``, ``"en-us"``.
        instruments: Instruments of one's own, a line each, as ``own_instrument`` reads them.
        sound_first: Whether figures on the stand stay hidden until they are asked for.

    Raises:
        OutOfRange: A number out of its range. Unreadable: A line of the glossary is none.
    """

    metronome: Metronome = "whole"
    evenness: Evenness = "working"
    moving: Moving = "stay_until_clean"
    middle_rate: Exact = MIDDLE_RATE
    counting: Counting = Counting()
    most_more: int = 10
    paper: Paper = "A4"
    sound_first: bool = False
    glossary: str = USUAL_GLOSSARY
    language: str = "en-us"
    instruments: str = ""

    @property
    def own_instruments(self) -> tuple[str, ...]:
        """The lines of the instruments of one's own, each once."""
        return tuple(dict.fromkeys(line.strip() for line in self.instruments.splitlines() if line.strip()))

    def __post_init__(self) -> None:
        if len(self.own_instruments) > MOST_INSTRUMENTS:
            raise OutOfRange(f"Up to {MOST_INSTRUMENTS} instruments of one’s own are kept.", field="instruments")
        if not 40 <= self.middle_rate <= 300:
            raise OutOfRange("The middle rate of an inner pulse is 40 to 300 a minute.", field="middle_rate")
        parse_glossary(self.glossary)
        for line in self.own_instruments:
            try:
                own_instrument(line)
            except Unreadable as error:
                raise Unreadable(error.message, field="instruments") from error
        if not _LANGUAGE.match(self.language):
            raise OutOfRange(
                f"“{self.language[:20]}” is no language. Write its code, such as de, fr or en-us.", field="language"
            )
        if not 0 <= self.most_more <= 100:
            raise OutOfRange("The notes of a week may grow by 0 to 100 %.", field="most_more")
