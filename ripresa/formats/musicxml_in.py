"""MusicXML read: the parts of a score, plain (.musicxml, .xml) or packed (.mxl), as MusicXML 4.0 describes them."""

import io
import re
import zipfile
from dataclasses import replace
from fractions import Fraction
from functools import lru_cache
from math import lcm
from typing import Any
from xml.etree import ElementTree

from ripresa.core.errors import Unreadable
from ripresa.core.pitch import LETTERS, Pitch
from ripresa.core.rhythm import Level
from ripresa.formats.bounds import check_end, check_meter, check_notes, check_parts
from ripresa.formats.parts import Part, Sounded

LARGEST_UNPACKED = 20_000_000
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
_LONGEST_NAME = 100


def read_musicxml(data: bytes) -> tuple[Part, ...]:
    """Return the parts of a score that have notes.

    Raises:
        Unreadable: It is not MusicXML by parts, is packed in a way that cannot be opened, or has no notes.
    """
    try:
        text = _unpacked(data)
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
            with packed.open(scores[0]) as score:
                # What it says of its size is not believed.
                return score.read(LARGEST_UNPACKED)
    except Unreadable:
        raise
    except Exception as error:
        # Whatever a library makes of a damaged archive: it cannot be opened.
        raise Unreadable("This packed score cannot be opened. Save it as plain MusicXML.", field="file") from error


def _part(element: Any, name: str) -> Part:
    at, divisions = Fraction(0), Fraction(1)
    tempo: Fraction | None = None
    meters: dict[Fraction, tuple[int, int]] = {}
    notes: list[Sounded] = []
    tied: dict[int | None, int] = {}
    pickup = Fraction(0)
    finest = 1
    for number, measure in enumerate(element.findall("measure")):
        now = furthest = at
        for one in measure:
            if one.tag == "attributes":
                divisions = _number(one.findtext("divisions"), divisions)
                if divisions <= 0:
                    raise Unreadable("A bar of this score has no divisions of the quarter.", field="file")
                if one.find("time") is not None:
                    meters[at] = _signature(one.find("time"), measure.get("number", "?")[:20], len(meters))
            elif one.tag == "note" and one.find("grace") is None:
                length = _length(one.findtext("duration"), divisions)
                finest = _check_finest(finest, length)
                onset = notes[-1].onset if one.find("chord") is not None and notes else now
                _add(notes, tied, one, onset, length)
                if one.find("chord") is None:
                    now += length
            elif one.tag in {"backup", "forward"}:
                length = _length(one.findtext("duration"), divisions)
                finest = _check_finest(finest, length)
                now = now + length if one.tag == "forward" else max(at, now - length)
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
    check_end(ordered[-1].onset if ordered else Fraction(0), signatures)
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
        check_notes(len(notes))
    if "start" not in ties:
        tied.pop(key, None)


def _pitch(element: Any) -> Pitch | None:
    if element is None:
        return None
    return _spelt(element.findtext("step") or "C", element.findtext("alter"), element.findtext("octave") or "4")


@lru_cache(maxsize=1024)
def _spelt(step: str, altered: str | None, octave: str) -> Pitch:
    alter = int(_number(altered, Fraction(0)))
    if step not in LETTERS or not step or not _OCTAVE.fullmatch(octave) or abs(alter) > 2:
        shown = f"{step[:5]}{octave[:5]}"
        raise Unreadable(f"A note of this score has the pitch “{shown}”, which cannot be read.", field="file")
    return Pitch(LETTERS.index(step), alter, int(octave))


def _signature(element: Any, bar: str, so_far: int) -> tuple[int, int]:
    above, below = (element.findtext("beats") or "").strip(), (element.findtext("beat-type") or "").strip()
    if not _SIGNATURE.fullmatch(above) or not _SIGNATURE.fullmatch(below):
        shown = f"{above[:10]}/{below[:10]}"
        raise Unreadable(f"Bar {bar} has the meter “{shown}”, which cannot be read.", field="file")
    return check_meter(int(above), int(below), so_far)


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
    return Fraction(text.strip())
