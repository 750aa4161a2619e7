"""Soundings: everything that sounds in a number of passes, each in exact beats from the start of the lead.

A file is made of these. The browser, which goes round until someone stops it, has its own loop over the same score;
both are held to the same list (``tools/drift.py`` makes it, the player's tests read it).
"""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from ripresa.core.exact import Fraction
from ripresa.core.playing.backing import BackNote
from ripresa.core.playing.score import Said, Score, Tone

ClickRole = Literal["strong", "plain", "division", "count", "pulse"]


@dataclass(frozen=True, slots=True)
class Sounding:
    """One thing to sound: where, and what of the four it is; ``loud`` is a share of the loudness of a click."""

    at: Fraction
    click: ClickRole | None = None
    loud: float = 1.0
    tone: Tone | None = None
    said: Said | None = None
    back: BackNote | None = None


def soundings(score: Score, passes: int) -> Iterator[Sounding]:
    """Yield what sounds from the start of the lead to the end of so many passes; in order of kind, not of time."""
    lead, end = score.lead, passes * score.beats
    for tick in lead.ticks:
        yield Sounding(tick.at, click=tick.level)
    for at, loud in score.pulse:
        if at < end:
            yield Sounding(lead.beats + at, click="pulse", loud=loud)
    # The click goes round by itself: once in four bars is once in four, however short the drill.
    for number in range(int(end / score.click_beats) + 1):
        for tick in score.ticks:
            at = number * score.click_beats + tick.at
            if at < end:
                yield Sounding(lead.beats + at, click=tick.level)
    for word in lead.said:
        yield Sounding(word.at, said=word)
    for number in range(passes):
        start = lead.beats + number * score.beats
        for tone in score.tones:
            yield Sounding(start + tone.at, tone=tone)
        for word in score.said:
            # Where the count-in is spoken up to a pickup, nothing else is said meanwhile.
            if not lead.said or start + word.at >= lead.until:
                yield Sounding(start + word.at, said=word)
        for back in score.backing:
            yield Sounding(start + back.at, back=back)
