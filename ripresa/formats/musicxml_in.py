"""MusicXML read: the parts of a score, plain (.musicxml, .xml) or packed (.mxl), as MusicXML 4.0 describes them."""

import re
from collections.abc import Iterator
from dataclasses import dataclass, field
from functools import lru_cache
from math import lcm
from typing import Any, Literal
from xml.etree import ElementTree

from ripresa.core.drill.hands import LONGEST_SYMBOL
from ripresa.core.errors import OutOfRange, Unreadable
from ripresa.core.exact import Fraction, fraction_of, plural, round_half_up
from ripresa.core.pitch import LETTERS, Pitch
from ripresa.core.rhythm import Level, Swing
from ripresa.formats.bounds import MOST_METERS, check_end, check_meter, check_notes, check_parts
from ripresa.formats.musicxml_bars import RawBar, Struck, played, times_of
from ripresa.formats.packed_score import unpacked
from ripresa.formats.parts import STRAIGHT, Part, later_tempi

#: Tags of a score of 50,000 notes, rich in detail; more take too long to be looked through.
MOST_TAGS = 1_500_000
#: What the lengths of a score may divide the quarter into, all of them together.
_FINEST = 10**9
#: The beginning of an entity, in the encodings of scores.
_ENTITY = tuple("<!ENTITY".encode(encoding) for encoding in ("utf-8", "utf-16-le", "utf-16-be"))
#: A number as MusicXML writes it (xs:decimal), of no more digits than a score needs.
_DECIMAL = re.compile(r"[+-]?\d{1,9}(\.\d{1,6})?")
_OCTAVE = re.compile(r"[0-9]{1,2}")
_SIGNATURE = re.compile(r"[0-9]{1,3}")
_USUAL_TEMPO = Fraction(120)
#: Into how many groups a meter that is a sum may fall.
_MOST_GROUPS = 32
#: Quarters of the note that a metronome mark counts.
_QUARTERS = {
    "whole": Fraction(4),
    "half": Fraction(2),
    "quarter": Fraction(1),
    "eighth": Fraction(1, 2),
    "16th": Fraction(1, 4),
    "32nd": Fraction(1, 8),
}
_LONGEST_NAME = 100
_BOWS = {"down-bow": "D", "up-bow": "U"}
#: What stands over a note as the letter of a hand or a tongue: one to four signs without a space, no word of a page.
_HAND = re.compile(r"[^\W\d_]{1,4}")
#: Semitones that a part may be heard from where it is written.
_FARTHEST_TRANSPOSED = 48


def read_musicxml(data: bytes) -> tuple[Part, ...]:
    """Return the parts of a score that have notes.

    Raises:
        Unreadable: It is not MusicXML by parts, is packed in a way that cannot be opened, or has no notes.
    """
    try:
        text = unpacked(data)
        if text.count(b"<") > MOST_TAGS:
            raise Unreadable("This score is too large to be read at once. Save a part of it.", field="file")
        if any(form in text for form in _ENTITY):
            raise ValueError("entities are for other files than scores")
        # Nothing outside the text is ever opened; what slips in here in a rare encoding, expat stops from growing.
        root = ElementTree.fromstring(text)
    except (ElementTree.ParseError, ValueError, LookupError) as error:
        raise Unreadable(
            "This is not MusicXML that can be read. Save the score as MusicXML again.", field="file"
        ) from error
    if root.tag != "score-partwise":
        raise Unreadable(
            f"This file holds “{root.tag[:40]}”, not a score by parts. Save it as MusicXML, partwise.", field="file"
        )
    names = {one.get("id"): (one.findtext("part-name") or "").strip() for one in root.iter("score-part")}
    parts: list[Part] = []
    notes = 0
    # Rests count here too: what is too much is refused before it is looked through.
    check_notes(sum(1 for _ in root.iter("note")))
    for number, one in enumerate(root.findall("part"), start=1):
        part = _part(one, (names.get(one.get("id")) or f"Part {number}")[:_LONGEST_NAME])
        notes += len(part.notes)
        check_notes(notes)
        parts += [part] if part.notes else []
        check_parts(len(parts))
    if not parts:
        raise Unreadable("This score has no notes.", field="file")
    return tuple(parts)


@dataclass(slots=True)
class _Told:
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


def _part(element: Any, name: str) -> Part:
    bars: list[RawBar] = []
    told = _Told()
    state = _State()
    for measure in element.findall("measure"):
        bars.append(_bar(measure, state, told, len(bars)))
    found = played(_with_endings(bars, element))
    check_end(found.notes[-1].onset if found.notes else Fraction(0), found.meters)
    said = (*found.told, *told.sentences())
    tempo, swing = state.tempo or _USUAL_TEMPO, state.swing or STRAIGHT
    return Part(name, found.notes, found.meters, tempo, said, state.transposes or (0, 0), swing)


@dataclass(slots=True)
class _State:
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


def _bar(measure: Any, state: _State, told: _Told, number: int) -> RawBar:
    """Return a bar of the file, its notes counted from its beginning."""
    name = measure.get("number", str(number + 1))[:20]
    bar = RawBar(name, state.signature, is_pickup=measure.get("implicit") == "yes" or name == "0")
    now = onset = Fraction(0)
    for one in measure:
        if one.tag == "attributes":
            state.divisions = _number(one.findtext("divisions"), state.divisions)
            if state.divisions <= 0:
                raise Unreadable("A bar of this score has no divisions of the quarter.", field="file")
            # Tablature under notes says them once more.
            state.tabs |= {clef.get("number", "1") for clef in one.findall("clef") if clef.findtext("sign") == "TAB"}
            if int(_number(one.findtext("staves"), Fraction(1))) > 1:
                state.staves = 2
            if one.find("time") is not None:
                _change_meter(one.find("time"), bar, state, told)
            if one.find("transpose") is not None:
                _transpose(one.find("transpose"), state, told)
        elif one.tag == "note":
            if one.find("grace") is not None:
                told.grace += 1
                continue
            length = _length(one.findtext("duration"), state.divisions)
            state.finest = _check_finest(state.finest, length)
            if one.find("chord") is None:
                onset = now
                now += length
            _add(bar, one, onset, length, state, told)
        elif one.tag in {"backup", "forward"}:
            length = _length(one.findtext("duration"), state.divisions)
            state.finest = _check_finest(state.finest, length)
            now = now + length if one.tag == "forward" else max(Fraction(0), now - length)
        elif one.tag == "barline":
            _bar_line(one, bar)
        elif one.tag == "direction":
            state.letter = _letter(one) or state.letter
        _tempo(one, state, told, bar if now or number else None)
        bar.filled = max(bar.filled, now)
    return bar


def _change_meter(time: Any, bar: RawBar, state: _State, told: _Told) -> None:
    try:
        state.signature = _signature(time, bar.name, state.changes)
    except _OddMeter as odd:
        # One bar that nobody can count is no reason to refuse all the others.
        told.meters.append(odd.shown)
        return
    state.changes += 1
    bar.signature = state.signature


def _transpose(element: Any, state: _State, told: _Told) -> None:
    """Take the first transposition; the one of a later instrument of the same part is told."""
    octaves = _number(element.findtext("octave-change"), Fraction(0))
    steps = _number(element.findtext("diatonic"), Fraction(0)) + 7 * octaves
    semitones = _number(element.findtext("chromatic"), Fraction(0)) + 12 * octaves
    if abs(semitones) > _FARTHEST_TRANSPOSED:
        raise Unreadable("A part of this score transposes by more than four octaves.", field="file")
    found = (round_half_up(steps), round_half_up(semitones))
    told.transpositions += state.transposes not in (None, found)
    state.transposes = state.transposes or found


def _tempo(one: Any, state: _State, told: _Told, bar: RawBar | None) -> None:
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
            found = _number(sound.get("tempo"), _USUAL_TEMPO)
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


def _swing(element: Any, state: _State, told: _Told) -> None:
    """Take the first swing (MusicXML 4.0, ``swing``): long to short of eighths, or of 16ths."""
    long, short = (_number(element.findtext(name), Fraction(0)) for name in ("first", "second"))
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


def _bar_line(line: Any, bar: RawBar) -> None:
    repeat = line.find("repeat")
    if repeat is not None and repeat.get("direction") == "forward":
        bar.opens = True
    elif repeat is not None:
        bar.closes = True
        bar.times = times_of(repeat.get("times"))


def _with_endings(bars: list[RawBar], element: Any) -> list[RawBar]:
    """Return bars with the passes in which each is played, where first and second endings are marked."""
    open_for: tuple[int, ...] = ()
    for bar, measure in zip(bars, element.findall("measure"), strict=True):
        marks = [mark for line in measure.findall("barline") for mark in line.findall("ending")]
        for mark in marks:
            if mark.get("type") == "start":
                numbers = re.findall(r"[0-9]{1,2}", (mark.get("number") or "")[:40])
                open_for = tuple(int(number) for number in numbers)
        bar.endings = open_for
        if any(mark.get("type") in {"stop", "discontinue"} for mark in marks):
            open_for = ()
    return bars


def _add(bar: RawBar, one: Any, onset: Fraction, length: Fraction, state: _State, told: _Told) -> None:
    """Add a note to its bar."""
    staff = (one.findtext("staff") or "1")[:5]
    if one.find("rest") is not None or not length or (staff in state.tabs and state.staves > 1):
        return
    if one.find("cue") is not None:
        told.cue += 1
        return
    ties = {tie.get("type") for tie in one.findall("tie")}
    level: Level = "accent" if one.find("notations/articulations/accent") is not None else "plain"
    pitch = _pitch(one.find("pitch"), told)
    if one.find("chord") is None:
        # It stands at the first tone of a chord, and is the stroke of all of them.
        state.stroke, state.letter = _stroke(one) or state.letter, ""
    bar.notes.append(Struck(staff, onset, length, pitch, level, "stop" in ties, "start" in ties, state.stroke))
    state.notes += 1
    check_notes(state.notes)


def _stroke(note: Any) -> str:
    """Return how a note is struck, where it has a sign for that."""
    technical = note.find("notations/technical")
    if technical is None:
        return ""
    bow = next((letter for name, letter in _BOWS.items() if technical.find(name) is not None), "")
    plucked = (technical.findtext("pluck") or "").strip()
    return bow or (plucked if 0 < len(plucked) <= LONGEST_SYMBOL else "")


def _letter(direction: Any) -> str:
    """Return the letter of a hand that stands over the note that follows; empty for other words."""
    words = (direction.findtext("direction-type/words") or "").strip()
    return words if _HAND.fullmatch(words) else ""


def _pitch(element: Any, told: _Told) -> Pitch | None:
    if element is None:
        return None
    altered = element.findtext("alter")
    told.quarter_tones += _number(altered, Fraction(0)).denominator != 1
    return _spelt(element.findtext("step") or "C", altered, element.findtext("octave") or "4")


@lru_cache(maxsize=1024)
def _spelt(step: str, altered: str | None, octave: str) -> Pitch:
    alter = round_half_up(_number(altered, Fraction(0)))
    if step not in LETTERS or not step or not _OCTAVE.fullmatch(octave) or abs(alter) > 2:
        shown = f"{step[:5]}{octave[:5]}"
        raise Unreadable(f"A note of this score has the pitch “{shown}”, which cannot be read.", field="file")
    return Pitch(LETTERS.index(step), alter, int(octave))


class _OddMeter(Exception):
    """A meter that cannot be read."""

    def __init__(self, shown: str) -> None:
        super().__init__(shown)
        self.shown = shown


def _signature(element: Any, bar: str, so_far: int) -> tuple[int, int]:
    """Return a meter; ``2+2+3`` over 8 is 7/8.

    Raises:
        _OddMeter: It is none. Unreadable: There are too many.
    """
    above, below = (element.findtext("beats") or "").strip(), (element.findtext("beat-type") or "").strip()
    shown = f"{above[:10]}/{below[:10]} in bar {bar}"
    groups = [group.strip() for group in above.split("+", _MOST_GROUPS)]
    if not all(_SIGNATURE.fullmatch(group) for group in (*groups, below)):
        raise _OddMeter(shown)
    try:
        return check_meter(sum(int(group) for group in groups), int(below), so_far)
    except Unreadable:
        if so_far >= MOST_METERS:
            raise
        raise _OddMeter(shown) from None


def _check_finest(finest: int, length: Fraction) -> int:
    """Return what all lengths so far divide the quarter into.

    Raises:
        Unreadable: They have no common measure that is of use, and would take ever longer to be added up.
    """
    found = lcm(finest, length.denominator)
    if found > _FINEST:
        raise Unreadable("The bars of this score divide the quarter in too many ways to be read.", field="file")
    return found


@lru_cache(maxsize=4096)
def _length(text: str | None, divisions: Fraction) -> Fraction:
    """Return a duration in quarters."""
    return _number(text, Fraction(0)) / divisions


def _number(text: str | None, otherwise: Fraction) -> Fraction:
    if text is None:
        return otherwise
    if not _DECIMAL.fullmatch(text.strip()):
        raise Unreadable(f"“{text[:20]}” in this score is not a number that can be read.", field="file")
    return fraction_of(text.strip())
