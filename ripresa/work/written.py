"""A drill written out: its notation, engraved, and where its notes lie."""

import re
from dataclasses import dataclass
from itertools import groupby

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import plural
from ripresa.core.grid import Event
from ripresa.core.reading import Reading
from ripresa.core.reports import Keys, Neck, keys, names, necks
from ripresa.formats.engraver import Engraver
from ripresa.formats.notation import FORMS, Form, has_strings, strung, write_score

#: Notes that are engraved at once: more take too long to look at, and to draw.
MOST_NOTES = 3000
_STYLE = re.compile(r"<style.*?</style>", re.DOTALL)
#: Bars that are put into words.
_MOST_BARS_SAID = 64


@dataclass(frozen=True, slots=True)
class WrittenOut:
    """A drill as it is printed.

    Args:
        picture: SVG; each note has an id that begins with ``e``, the number of its event and ``-``.
        drawn_as: Number of an event that stands between repeat signs → number of the one that is drawn for it.
        words: What the picture shows, bar by bar.
    """

    picture: str
    drawn_as: dict[int, int]
    words: str


@dataclass(frozen=True, slots=True)
class Lies:
    """Where notes lie: on the neck, on the keys, or by written and sounding name; and the staves that can be drawn."""

    forms: tuple[Form, ...]
    necks: tuple[Neck, ...]
    keys: Keys | None
    names: tuple[tuple[str, str], ...]


def write_out(engraver: Engraver, reading: Reading, form: Form, width: int) -> WrittenOut:
    """Return a reading as it is printed.

    Raises:
        OutOfRange: It has too many notes, or no strings for TAB.
    """
    if len(reading.every) > MOST_NOTES:
        raise OutOfRange(
            f"Up to {MOST_NOTES:,} notes and rests are written out, not {len(reading.every):,}. The rail shows all of "
            "them, and so does the MusicXML file.",
            field="form",
        )
    found = write_score(reading, reading.drill.bpm, form, for_drawing=True)
    # On the screen its rules stand in the app's own style sheet.
    picture = _STYLE.sub("", engraver.draw(found.body, width))
    return WrittenOut(picture, found.drawn_as, in_words(reading))


def lies(reading: Reading) -> Lies:
    """Return where the notes of a reading lie; on strings by the usual fingering where the drill asks for none."""
    found = strung(reading)
    forms: tuple[Form, ...] = tuple(FORMS) if has_strings(found) else ("notes",)
    return Lies(forms, necks(found), keys(reading), names(reading))


def in_words(reading: Reading) -> str:
    """Return what is written, bar by bar, for people who listen."""
    hands = []
    for row in reading.hands:
        bars = [
            f"bar {number}: " + ", ".join(_said(event) for event in inside if event.kind == "note")
            for number, inside in groupby(row, key=lambda event: event.bar)
            if number <= _MOST_BARS_SAID
        ]
        hand = f"{row[0].layer} hand: " if row[0].hand else ""
        hands.append(hand + "; ".join(bars))
    more = reading.bar_count - _MOST_BARS_SAID
    return ". ".join(hands) + (f"; and {plural(more, 'bar')} more" if more > 0 else "") + "."


def _said(event: Event) -> str:
    what = event.chord.symbol if event.chord and not event.pitch else " ".join(tone.shown for tone in event.tones)
    return " ".join(word for word in (event.count, what, "accent" if event.accent == "accent" else "") if word)
