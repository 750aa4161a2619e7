"""What a MusicXML part holds beside its notes: tempi, swing, transposition, strokes; and what of it is told."""

import re
from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Any, Literal

from ripresa.core.drill.hands import LONGEST_SYMBOL
from ripresa.core.errors import OutOfRange, Unreadable
from ripresa.core.exact import Fraction, fraction_of, plural, round_half_up
from ripresa.core.rhythm import Swing
from ripresa.formats.musicxml_bars import RawBar
from ripresa.formats.parts import STRAIGHT, later_tempi

#: A number as MusicXML writes it (xs:decimal), of no more digits than a score needs.
_DECIMAL = re.compile(r"[+-]?\d{1,9}(\.\d{1,6})?")
USUAL_TEMPO = Fraction(120)
#: Quarters of the note that a metronome mark counts.
_QUARTERS = {
    "whole": Fraction(4),
    "half": Fraction(2),
    "quarter": Fraction(1),
    "eighth": Fraction(1, 2),
    "16th": Fraction(1, 4),
    "32nd": Fraction(1, 8),
}
_BOWS = {"down-bow": "D", "up-bow": "U"}
#: What stands over a note as the letter of a hand or a tongue: one to four signs without a space, no word of a page.
_HAND = re.compile(r"[^\W\d_]{1,4}")
#: Words that send a player back, where nothing but the words says so.
_JUMP = re.compile(r"\b(?:da capo|dal segno|d\. ?[cs]\.)", re.IGNORECASE)
#: Signs of such words that are looked at.
_LONGEST_WORDS = 500
#: Semitones that a part may be heard from where it is written.
_FARTHEST_TRANSPOSED = 48


@dataclass(slots=True)
class Told:
    """What a part has that a drill cannot take, counted."""

    grace: int = 0
    cue: int = 0
    quarter_tones: int = 0
    jumps: int = 0
    meters: list[str] = field(default_factory=list)
    tempi: int = 0
    late_tempo: str = ""
    swings: int = 0
    transpositions: int = 0

    def sentences(self) -> Iterator[str]:
        """Yield what was left out or changed."""
        if self.grace:
            yield f"{plural(self.grace, 'grace note')} left out: they have no time of their own."
        if self.cue:
            yield f"{plural(self.cue, 'cue note')} left out: others play them."
        if self.quarter_tones:
            yield f"{plural(self.quarter_tones, 'note')} between two keys moved to the nearest semitone."
        if self.jumps:
            yield "Jumps (da capo, dal segno, coda) are not played out."
        if self.late_tempo:
            yield f"Its first tempo stands in bar {self.late_tempo}; it is taken from the beginning."
        if self.tempi:
            yield later_tempi(self.tempi)
        if self.swings:
            yield "Swing that cannot be read, or that changes later, is left out."
        if self.transpositions:
            yield "Its transposition changes on the way; the first one is taken."
        if self.meters:
            yield f"The meter {self.meters[0]} cannot be read, and the one before it stays."


@dataclass(slots=True)
class State:
    """What goes on from bar to bar."""

    divisions: Fraction = Fraction(1)
    signature: tuple[int, int] = (4, 4)
    tempo: Fraction | None = None
    transposes: tuple[int, int] | None = None
    swing: Swing | None = None
    finest: int = 1
    last_tempo: Fraction | None = None
    changes: int = 0
    staves: int = 1
    letter: str = ""
    stroke: str = ""
    tabs: set[str] = field(default_factory=set)
    notes: int = 0


def take_transposition(element: Any, state: State, told: Told) -> None:
    """Take the first transposition; the one of a later instrument of the same part is told."""
    octaves = number_of(element.findtext("octave-change"), Fraction(0))
    steps = number_of(element.findtext("diatonic"), Fraction(0)) + 7 * octaves
    semitones = number_of(element.findtext("chromatic"), Fraction(0)) + 12 * octaves
    if abs(semitones) > _FARTHEST_TRANSPOSED:
        raise Unreadable("A part of this score transposes by more than four octaves.", field="file")
    found = (round_half_up(steps), round_half_up(semitones))
    told.transpositions += state.transposes not in (None, found)
    state.transposes = state.transposes or found


def says_jump(direction: Any) -> bool:
    """Return whether the words of a direction send the player back: ``Menuetto da capo``, ``D.C. al Fine``.

    >>> from xml.etree.ElementTree import fromstring
    >>> words = "<direction><direction-type><words>{}</words></direction-type></direction>"
    >>> [says_jump(fromstring(words.format(told))) for told in ("D.C. al Fine", "a cappella")]
    [True, False]
    """
    texts = (one.text or "" for one in direction.iterfind("direction-type/words"))
    return any(_JUMP.search(" ".join(text[:_LONGEST_WORDS].split())) for text in texts)


def take_tempo(one: Any, state: State, told: Told, bar: RawBar | None) -> None:
    """Take the first tempo: what the file is played at, else the mark that readers see; others are told.

    Args:
        bar: Where it stands, if not at the beginning.
    """
    sound = one if one.tag == "sound" else one.find("sound")
    found = None
    if sound is not None:
        told.jumps += any(sound.get(jump) for jump in ("dacapo", "dalsegno", "tocoda"))
        if sound.find("swing") is not None:
            _swing(sound.find("swing"), state, told)
        if sound.get("tempo"):
            found = number_of(sound.get("tempo"), USUAL_TEMPO)
    mark = one.find("direction-type/metronome") if one.tag == "direction" else None
    if found is None and mark is not None and mark.find("beat-unit") is not None:
        found = _marked(mark)
    if found is None or found == state.last_tempo:
        return
    if state.tempo is None:
        state.tempo = found
        told.late_tempo = bar.name if bar else ""
    else:
        told.tempi += 1
    state.last_tempo = found


def _marked(mark: Any) -> Fraction | None:
    """Return the quarters a minute of a metronome mark; None where it cannot be read."""
    unit = _QUARTERS.get(mark.findtext("beat-unit") or "")
    figure = (mark.findtext("per-minute") or "").strip()
    if not unit or not _DECIMAL.fullmatch(figure):
        return None
    dots = len(mark.findall("beat-unit-dot"))
    return fraction_of(figure) * unit * (2 - Fraction(1, 2 ** min(dots, 3)))


def _swing(element: Any, state: State, told: Told) -> None:
    """Take the first swing (MusicXML 4.0, ``swing``): long to short of eighths, or of 16ths."""
    long, short = (number_of(element.findtext(name), Fraction(0)) for name in ("first", "second"))
    on: Literal[2, 4] = 4 if element.findtext("swing-type") == "16th" else 2
    straight = element.find("straight") is not None
    try:
        found = STRAIGHT if straight else Swing(long / short, on) if short else None
    except OutOfRange:
        found = None
    if found is None or state.swing not in (None, found):
        told.swings += 1
        return
    state.swing = found


def stroke_of(note: Any) -> str:
    """Return how a note is struck, where it has a sign for that."""
    technical = note.find("notations/technical")
    if technical is None:
        return ""
    bow = next((letter for name, letter in _BOWS.items() if technical.find(name) is not None), "")
    plucked = (technical.findtext("pluck") or "").strip()
    return bow or (plucked if 0 < len(plucked) <= LONGEST_SYMBOL else "")


def letter_of(direction: Any) -> str:
    """Return the letter of a hand that stands over the note that follows; empty for other words."""
    words = (direction.findtext("direction-type/words") or "").strip()
    return words if _HAND.fullmatch(words) else ""


def number_of(text: str | None, otherwise: Fraction) -> Fraction:
    """Return a number as it is written; another one where none is.

    Raises:
        Unreadable: It is none.
    """
    if text is None:
        return otherwise
    if not _DECIMAL.fullmatch(text.strip()):
        raise Unreadable(f"“{text[:20]}” in this score is not a number that can be read.", field="file")
    return fraction_of(text.strip())
