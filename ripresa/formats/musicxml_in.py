"""MusicXML read: the parts of a score, plain (.musicxml, .xml) or packed (.mxl), as MusicXML 4.0 describes them."""

import re
from functools import lru_cache
from math import lcm
from typing import Any
from xml.etree import ElementTree

from ripresa.core.errors import Unreadable
from ripresa.core.exact import Fraction, round_half_up
from ripresa.core.pitch import LETTERS, Pitch
from ripresa.core.rhythm import Level
from ripresa.formats.bounds import MOST_METERS, check_end, check_meter, check_notes, check_parts
from ripresa.formats.musicxml_bars import RawBar, Struck, played, times_of
from ripresa.formats.musicxml_marks import (
    USUAL_TEMPO,
    State,
    Told,
    letter_of,
    number_of,
    says_jump,
    stroke_of,
    take_tempo,
    take_transposition,
)
from ripresa.formats.packed_score import unpacked
from ripresa.formats.parts import STRAIGHT, Part

#: Tags of a score of 50,000 notes, rich in detail; more take too long to be looked through.
MOST_TAGS = 1_500_000
#: What the lengths of a score may divide the quarter into, all of them together.
_FINEST = 10**9
#: The beginning of an entity, in the encodings of scores.
_ENTITY = tuple("<!ENTITY".encode(encoding) for encoding in ("utf-8", "utf-16-le", "utf-16-be"))
_OCTAVE = re.compile(r"[0-9]{1,2}")
_SIGNATURE = re.compile(r"[0-9]{1,3}")
_LONGEST_NAME = 100
#: Into how many groups a meter that is a sum may fall.
_MOST_GROUPS = 32


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


def _part(element: Any, name: str) -> Part:
    bars: list[RawBar] = []
    told = Told()
    state = State()
    for measure in element.findall("measure"):
        bars.append(_bar(measure, state, told, len(bars)))
    found = played(_with_endings(bars, element))
    check_end(found.notes[-1].onset if found.notes else Fraction(0), found.meters)
    said = (*found.told, *told.sentences())
    tempo, swing = state.tempo or USUAL_TEMPO, state.swing or STRAIGHT
    return Part(name, found.notes, found.meters, tempo, said, state.transposes or (0, 0), swing)


def _bar(measure: Any, state: State, told: Told, number: int) -> RawBar:
    """Return a bar of the file, its notes counted from its beginning."""
    name = measure.get("number", str(number + 1))[:20]
    bar = RawBar(name, state.signature, is_pickup=measure.get("implicit") == "yes" or name == "0")
    now = onset = Fraction(0)
    for one in measure:
        if one.tag == "attributes":
            state.divisions = number_of(one.findtext("divisions"), state.divisions)
            if state.divisions <= 0:
                raise Unreadable("A bar of this score has no divisions of the quarter.", field="file")
            # Tablature under notes says them once more.
            state.tabs |= {clef.get("number", "1") for clef in one.findall("clef") if clef.findtext("sign") == "TAB"}
            if int(number_of(one.findtext("staves"), Fraction(1))) > 1:
                state.staves = 2
            if one.find("time") is not None:
                _change_meter(one.find("time"), bar, state, told)
            if one.find("transpose") is not None:
                take_transposition(one.find("transpose"), state, told)
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
            state.letter = letter_of(one) or state.letter
            told.jumps += says_jump(one)
        take_tempo(one, state, told, bar if now or number else None)
        bar.filled = max(bar.filled, now)
    return bar


def _change_meter(time: Any, bar: RawBar, state: State, told: Told) -> None:
    try:
        state.signature = _signature(time, bar.name, state.changes)
    except _OddMeter as odd:
        # One bar that nobody can count is no reason to refuse all the others.
        told.meters.append(odd.shown)
        return
    state.changes += 1
    bar.signature = state.signature


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


def _add(bar: RawBar, one: Any, onset: Fraction, length: Fraction, state: State, told: Told) -> None:
    """Add a note to its bar."""
    staff = (one.findtext("staff") or "1")[:5]
    if one.find("rest") is not None or not length or (staff in state.tabs and state.staves > 1):
        return
    if one.find("cue") is not None:
        told.cue += 1
        return
    voice = (one.findtext("voice") or "")[:5]
    ties = {tie.get("type") for tie in one.findall("tie")}
    level: Level = "accent" if one.find("notations/articulations/accent") is not None else "plain"
    pitch = _pitch(one.find("pitch"), told)
    if one.find("chord") is None:
        # It stands at the first tone of a chord, and is the stroke of all of them.
        state.stroke, state.letter = stroke_of(one) or state.letter, ""
    bar.notes.append(Struck(staff, onset, length, pitch, level, "stop" in ties, "start" in ties, state.stroke, voice))
    state.notes += 1
    check_notes(state.notes)


def _pitch(element: Any, told: Told) -> Pitch | None:
    if element is None:
        return None
    altered = element.findtext("alter")
    told.quarter_tones += number_of(altered, Fraction(0)).denominator != 1
    return _spelt(element.findtext("step") or "C", altered, element.findtext("octave") or "4")


@lru_cache(maxsize=1024)
def _spelt(step: str, altered: str | None, octave: str) -> Pitch:
    alter = round_half_up(number_of(altered, Fraction(0)))
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
    return number_of(text, Fraction(0)) / divisions
