"""MusicXML written: a reading as one part, as MusicXML 4.0 describes it.

Every length is exact: the divisions of the quarter are made for the drill. A
beat that is cut into another number than its note value allows is a tuplet.
Swing is written straight, as it is in print.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from itertools import groupby
from math import lcm

from lxml import etree

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import division_label, label, plural
from ripresa.core.grid import Event
from ripresa.core.pitch import LETTERS, Pitch
from ripresa.core.reading import Reading
from ripresa.core.rhythm import Bar

_TYPES = {
    Fraction(8): "breve",
    Fraction(4): "whole",
    Fraction(2): "half",
    Fraction(1): "quarter",
    Fraction(1, 2): "eighth",
    Fraction(1, 4): "16th",
    Fraction(1, 8): "32nd",
    Fraction(1, 16): "64th",
    Fraction(1, 32): "128th",
    Fraction(1, 64): "256th",
}
#: What a note without pitch is drawn on, and below which key a part, or a left hand, has the low clef.
_UNPITCHED = ("B", "4")
_BASS_BELOW, _LEFT_BELOW = 53, 60
_SILENT = {"rest", "air"}
#: What a part of a hand is called, after the instrument.
_HAND_NAMES = {"right": ", right hand", "left": ", left hand"}


@dataclass(frozen=True, slots=True)
class _Piece:
    """A written note.

    Args:
        length: In quarters. span: Quarters of the whole tuplet, or of the beat.
        tuplet: (actual, normal) notes, None without.
        begins: Whether it is struck here, not tied from before. goes_on: Whether it is tied to the next.
    """

    length: Fraction
    span: Fraction
    tuplet: tuple[int, int] | None
    event: Event
    begins: bool
    goes_on: bool


def write_musicxml(reading: Reading, bpm: Fraction) -> bytes:
    """Return a reading as a MusicXML file: one part, or one for each hand."""
    root = etree.Element("score-partwise", version="4.0")
    etree.SubElement(etree.SubElement(root, "work"), "work-title").text = _text(reading.drill.title)
    list_of_parts = etree.SubElement(root, "part-list")
    for number, events in enumerate(reading.hands, start=1):
        listed = etree.SubElement(list_of_parts, "score-part", id=f"P{number}")
        hand = _HAND_NAMES.get(events[0].layer, "")
        etree.SubElement(listed, "part-name").text = f"{reading.instrument.name}{hand}"
    for number, events in enumerate(reading.hands, start=1):
        _part(etree.SubElement(root, "part", id=f"P{number}"), reading, events, bpm)
    body: bytes = etree.tostring(root, xml_declaration=True, encoding="UTF-8", pretty_print=True)
    return body


def _part(part: etree._Element, reading: Reading, events: Sequence[Event], bpm: Fraction) -> None:
    quarter = reading.meter.counted * 4
    bars = [(bar, _pieces(reading, list(inside), quarter)) for bar, inside in groupby(events, key=lambda one: one.bar)]
    divisions = lcm(*(piece.length.denominator for _, pieces in bars for piece in pieces))
    for bar, pieces in bars:
        measure = etree.SubElement(part, "measure", number=str(bar))
        if bar == 1:
            _attributes(measure, reading, events, divisions)
            _tempo(measure, reading, bpm)
        elif reading.meter.bar(bar).signature != reading.meter.bar(bar - 1).signature:
            _time(etree.SubElement(measure, "attributes"), reading.meter.bar(bar))
        for number, piece in enumerate(pieces):
            ends = _tuplet_ends(pieces, number)
            for place, tone in enumerate(piece.event.tones or (None,)):
                _note(measure, piece, divisions, ends if not place else (False, False), tone, bool(place))


def _pieces(reading: Reading, events: list[Event], quarter: Fraction) -> list[_Piece]:
    """Return the written notes of a bar; what is held is tied, and joined where one note value can say it."""
    pieces: list[_Piece] = []
    for number, event in enumerate(events):
        length = (_written_at(reading, event, event.length) - _written_at(reading, event, Fraction(0))) * quarter
        span = quarter * event.span
        tuplet = _tuplet(event.division, span) if length != span else None
        last = pieces[-1] if pieces else None
        silent = event.kind in _SILENT
        joins = event.kind == "hold" or (silent and last and last.event.kind in _SILENT)
        same_beat = number > 0 and events[number - 1].beat == event.beat and events[number - 1].leg == event.leg
        if last and joins and same_beat and last.tuplet == tuplet and _type(last.length + length, tuplet):
            pieces[-1] = replace(last, length=last.length + length)
        elif last and event.kind == "hold" and last.event.kind == "note":
            pieces[-1] = replace(last, goes_on=True)
            pieces += _split(_Piece(length, span, tuplet, last.event, False, False))
        else:
            pieces += _split(_Piece(length, span, tuplet, event, True, False))
    return pieces


def _written_at(reading: Reading, event: Event, after: Fraction) -> Fraction:
    """Return where so many beats after an onset are written: swing is taken out."""
    _, _, inside = reading.meter.place(event.onset)
    length = reading.meter.beat_at(event.onset)
    share = (inside + after) / length
    return length * reading.drill.swing.written(event.division, share)


def _split(whole: _Piece) -> list[_Piece]:
    """Return the fewest tied notes that last as long as a piece."""
    found: list[_Piece] = []
    left, ratio = whole.length, Fraction(*whole.tuplet) if whole.tuplet else Fraction(1)
    while left:
        # The largest note value that fits; what is left is tied to it.
        smaller = [one / ratio for one in _TYPES if one / ratio < left]
        if not smaller and not _type(left, whole.tuplet):
            raise OutOfRange(
                f"{division_label(whole.event.division)} over {plural(whole.span, 'quarter')} cannot be written in "
                "note values where the bar line cuts it. Take a division that the beats share.",
                field="legs",
            )
        length = left if _type(left, whole.tuplet) else max(smaller)
        left -= length
        found.append(replace(whole, length=length, begins=whole.begins and not found, goes_on=bool(left)))
    return found


def _tuplet(division: Fraction, quarters: Fraction) -> tuple[int, int] | None:
    """Return (actual, normal) notes of a division over so many quarters; None where note values can say it.

    >>> _tuplet(Fraction(3), Fraction(1)), _tuplet(Fraction(3), Fraction(3, 2)), _tuplet(Fraction(7), Fraction(1))
    ((3, 2), None, (7, 4))
    """
    notes = division.numerator
    one = quarters / notes
    if _type(one, None) or not one.denominator & (one.denominator - 1):
        # Halves of halves are note values, tied where one alone cannot say it.
        return None
    normal = quarters.numerator if quarters.numerator % 3 == 0 else 1
    while normal * 2 <= notes:
        normal *= 2
    return notes, normal


def _type(quarters: Fraction, tuplet: tuple[int, int] | None) -> tuple[str, bool] | None:
    """Return the note value and whether it is dotted; None where no single one lasts so long."""
    plain = quarters * Fraction(*tuplet) if tuplet else quarters
    if plain in _TYPES:
        return _TYPES[plain], False
    dotted = plain * Fraction(2, 3)
    return (_TYPES[dotted], True) if dotted in _TYPES else None


def _tuplet_ends(pieces: list[_Piece], number: int) -> tuple[bool, bool]:
    """Return whether a tuplet bracket starts and stops at a piece: where its span begins and ends."""
    piece = pieces[number]
    if not piece.tuplet:
        return False, False
    start = number
    while start and pieces[start - 1].tuplet == piece.tuplet:
        start -= 1
    gone = sum((one.length for one in pieces[start:number]), Fraction(0))
    is_last = number + 1 == len(pieces) or pieces[number + 1].tuplet != piece.tuplet
    return gone % piece.span == 0, (gone + piece.length) % piece.span == 0 or is_last


def _attributes(measure: etree._Element, reading: Reading, events: Sequence[Event], divisions: int) -> None:
    attributes = etree.SubElement(measure, "attributes")
    _child(attributes, "divisions", divisions)
    _child(etree.SubElement(attributes, "key"), "fifths", 0)
    _time(attributes, reading.meter.bar(1))
    pitches = [tone.midi for event in events if event.kind == "note" for tone in event.tones[:1]]
    below = _LEFT_BELOW if events[0].hand == "L" else _BASS_BELOW
    low = bool(pitches) and sorted(pitches)[len(pitches) // 2] < below
    clef = etree.SubElement(attributes, "clef")
    _child(clef, "sign", "F" if low else "G")
    _child(clef, "line", 4 if low else 2)
    if reading.instrument.sounds:
        transpose = etree.SubElement(attributes, "transpose")
        _child(transpose, "chromatic", reading.instrument.sounds)


def _time(attributes: etree._Element, bar: Bar) -> None:
    time = etree.SubElement(attributes, "time")
    above, below = bar.signature
    _child(time, "beats", above)
    _child(time, "beat-type", below)


def _tempo(measure: etree._Element, reading: Reading, bpm: Fraction) -> None:
    direction = etree.SubElement(measure, "direction", placement="above")
    kind = etree.SubElement(direction, "direction-type")
    etree.SubElement(kind, "words").text = f"{reading.meter.counted_name} = {label(bpm)}"
    quarters = bpm * reading.meter.counted * 4
    etree.SubElement(direction, "sound", tempo=f"{float(quarters):.6g}")


def _note(
    measure: etree._Element, piece: _Piece, divisions: int, ends: tuple[bool, bool], tone: Pitch | None, in_chord: bool
) -> None:
    event = piece.event
    note = etree.SubElement(measure, "note")
    sounds = event.kind == "note"
    if in_chord:
        etree.SubElement(note, "chord")
    if not sounds:
        etree.SubElement(note, "rest")
    elif tone:
        _pitch(note, tone)
    else:
        unpitched = etree.SubElement(note, "unpitched")
        _child(unpitched, "display-step", _UNPITCHED[0])
        _child(unpitched, "display-octave", _UNPITCHED[1])
    _child(note, "duration", int(piece.length * divisions))
    ties = [kind for kind, there in (("stop", not piece.begins), ("start", piece.goes_on)) if sounds and there]
    for kind in ties:
        etree.SubElement(note, "tie", type=kind)
    _child(note, "voice", 1)
    value = _type(piece.length, piece.tuplet)
    assert value
    _child(note, "type", value[0])
    if value[1]:
        etree.SubElement(note, "dot")
    if piece.tuplet:
        changed = etree.SubElement(note, "time-modification")
        _child(changed, "actual-notes", piece.tuplet[0])
        _child(changed, "normal-notes", piece.tuplet[1])
    if sounds and event.accent == "ghost":
        etree.SubElement(note, "notehead", parentheses="yes").text = "normal"
    _notations(note, piece, ties, ends)


def _notations(note: etree._Element, piece: _Piece, ties: list[str], ends: tuple[bool, bool]) -> None:
    accented = piece.event.kind == "note" and piece.event.accent == "accent" and piece.begins
    if not ties and not accented and not any(ends):
        return
    notations = etree.SubElement(note, "notations")
    for kind in ties:
        etree.SubElement(notations, "tied", type=kind)
    for kind, there in zip(("start", "stop"), ends, strict=True):
        if there:
            etree.SubElement(notations, "tuplet", type=kind)
    if accented:
        etree.SubElement(etree.SubElement(notations, "articulations"), "accent")


def _pitch(note: etree._Element, pitch: Pitch) -> None:
    element = etree.SubElement(note, "pitch")
    _child(element, "step", LETTERS[pitch.letter])
    if pitch.alter:
        _child(element, "alter", pitch.alter)
    _child(element, "octave", pitch.octave)


def _child(parent: etree._Element, name: str, value: object) -> None:
    etree.SubElement(parent, name).text = str(value)


def _text(text: str) -> str:
    """Return a text without the signs that XML forbids."""
    return "".join(sign for sign in text if sign.isprintable())
