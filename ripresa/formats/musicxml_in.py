"""MusicXML read: the parts of a score, plain (.musicxml, .xml) or packed (.mxl), as MusicXML 4.0 describes them."""

import io
import zipfile
from dataclasses import replace
from fractions import Fraction
from typing import Any

from defusedxml import ElementTree
from defusedxml.common import DefusedXmlException

from ripresa.core.errors import Unreadable
from ripresa.core.pitch import LETTERS, Pitch
from ripresa.core.place import Level
from ripresa.formats.parts import Part, Sounded

LARGEST_UNPACKED = 20_000_000
_USUAL_TEMPO = Fraction(120)


def read_musicxml(data: bytes) -> tuple[Part, ...]:
    """Return the parts of a score that have notes.

    Raises:
        Unreadable: It is not MusicXML by parts, is packed in a way that cannot be opened, or has no notes.
    """
    try:
        root = ElementTree.fromstring(_unpacked(data))
    except (ElementTree.ParseError, DefusedXmlException, ValueError) as error:
        raise Unreadable(
            "This is not MusicXML that can be read. Save the score as MusicXML again.", field="file"
        ) from error
    if root.tag != "score-partwise":
        raise Unreadable(
            f"This file holds “{root.tag[:40]}”, not a score by parts. Save it as MusicXML, partwise.", field="file"
        )
    names = {one.get("id"): (one.findtext("part-name") or "").strip() for one in root.iter("score-part")}
    parts = [
        part
        for number, one in enumerate(root.findall("part"), start=1)
        if (part := _part(one, names.get(one.get("id")) or f"Part {number}")).notes
    ]
    if not parts:
        raise Unreadable("This score has no notes.", field="file")
    return tuple(parts)


def _unpacked(data: bytes) -> bytes:
    if not data.startswith(b"PK"):
        return data
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as packed:
            inside = packed.infolist()
            if sum(one.file_size for one in inside) > LARGEST_UNPACKED:
                raise Unreadable(
                    f"This packed score is over {LARGEST_UNPACKED // 1_000_000} MB unpacked. Save a part of it.",
                    field="file",
                )
            scores = [
                one.filename
                for one in inside
                if not one.filename.startswith("META-INF/") and one.filename.endswith((".xml", ".musicxml"))
            ]
            if not scores:
                raise Unreadable("This packed file holds no score. Choose a .mxl file.", field="file")
            return packed.read(scores[0])
    except (zipfile.BadZipFile, NotImplementedError, RuntimeError, EOFError) as error:
        raise Unreadable("This packed score cannot be opened. Save it as plain MusicXML.", field="file") from error


def _part(element: Any, name: str) -> Part:
    at, divisions = Fraction(0), Fraction(1)
    tempo: Fraction | None = None
    meters: dict[Fraction, tuple[int, int]] = {}
    notes: list[Sounded] = []
    tied: dict[int | None, int] = {}
    pickup = Fraction(0)
    for number, measure in enumerate(element.findall("measure")):
        now = furthest = at
        for one in measure:
            if one.tag == "attributes":
                divisions = _number(one.findtext("divisions"), divisions)
                if divisions <= 0:
                    raise Unreadable("A bar of this score has no divisions of the quarter.", field="file")
                if one.find("time") is not None:
                    meters[at] = _signature(one.find("time"), measure.get("number", "?"))
            elif one.tag == "note" and one.find("grace") is None:
                length = _number(one.findtext("duration"), Fraction(0)) / divisions
                onset = notes[-1].onset if one.find("chord") is not None and notes else now
                _add(notes, tied, one, onset, length)
                if one.find("chord") is None:
                    now += length
            elif one.tag in {"backup", "forward"}:
                length = _number(one.findtext("duration"), Fraction(0)) / divisions
                now += length if one.tag == "forward" else -length
            sound = one if one.tag == "sound" else one.find("sound")
            if sound is not None and sound.get("tempo"):
                tempo = tempo or _number(sound.get("tempo"), _USUAL_TEMPO)
            furthest = max(furthest, now)
        at = furthest
        if number == 0 and measure.get("implicit") == "yes":
            pickup = at
    meters.setdefault(Fraction(0), (4, 4))
    signatures = tuple((start, *signature) for start, signature in sorted(meters.items()))
    ordered = tuple(sorted(notes, key=lambda note: note.onset))
    return _with_pickup(Part(name, ordered, signatures, tempo or _USUAL_TEMPO), pickup)


def _with_pickup(part: Part, length: Fraction) -> Part:
    """Return a part whose first bar is full: a pickup of so many quarters gets silence before it."""
    _, above, below = part.meters[0]
    silence = Fraction(4 * above, below) - length
    if not length or silence <= 0:
        return part
    notes = tuple(replace(note, onset=note.onset + silence) for note in part.notes)
    meters = tuple((start + silence if start else start, up, down) for start, up, down in part.meters)
    return replace(part, notes=notes, meters=meters)


def _add(notes: list[Sounded], tied: dict[int | None, int], one: Any, onset: Fraction, length: Fraction) -> None:
    """Append a note, or lengthen the one that it is tied to."""
    if one.find("rest") is not None or not length:
        return
    pitch = _pitch(one.find("pitch"))
    key = pitch.midi if pitch else None
    ties = {tie.get("type") for tie in one.findall("tie")}
    if "stop" in ties and key in tied:
        before = notes[tied[key]]
        notes[tied[key]] = replace(before, length=onset + length - before.onset)
    else:
        level: Level = "accent" if one.find("notations/articulations/accent") is not None else "plain"
        notes.append(Sounded(onset, length, pitch, level))
        tied[key] = len(notes) - 1
    if "start" not in ties:
        tied.pop(key, None)


def _pitch(element: Any) -> Pitch | None:
    if element is None:
        return None
    step, octave = element.findtext("step", "C"), element.findtext("octave", "4")
    alter = int(_number(element.findtext("alter"), Fraction(0)))
    if step not in LETTERS or not octave.isdigit() or abs(alter) > 2:
        raise Unreadable(f"A note of this score has the pitch “{step}{octave}”, which cannot be read.", field="file")
    return Pitch(LETTERS.index(step), alter, int(octave))


def _signature(element: Any, bar: str) -> tuple[int, int]:
    above, below = element.findtext("beats", ""), element.findtext("beat-type", "")
    if not above.isdigit() or not below.isdigit() or not int(above) or not int(below):
        raise Unreadable(f"Bar {bar} has the meter “{above}/{below}”, which cannot be read.", field="file")
    return int(above), int(below)


def _number(text: str | None, otherwise: Fraction) -> Fraction:
    if text is None:
        return otherwise
    try:
        found = Fraction(text.strip())
    except (ValueError, ZeroDivisionError) as error:
        raise Unreadable(f"“{text[:20]}” in this score is not a number.", field="file") from error
    return found
