"""Pressing what a teacher writes by hand: fingers over the notes, where phrases begin, another grip of a chord."""

import re
from dataclasses import replace

from ripresa.core.changes.pressing import bare_of, event_at
from ripresa.core.drill import Drill, PhraseStart, parse_fingers, parse_phrases, write_fingers
from ripresa.core.drill.material import Picked, Strum
from ripresa.core.errors import OutOfRange, RipresaError
from ripresa.core.grid import CHORD_WORD, Touch
from ripresa.core.pitch import ALL_STRINGS, parse_chord, shape_of, shapes_of
from ripresa.core.reading import read

#: Fingers that a press goes through: on keys the thumb is 1; on strings there are four.
_FINGERS_OF = {"keys": 5, "pluck": 4}


def finger_pressed(drill: Drill, number: int) -> Drill:
    """Return a drill in which a note has another finger of the teacher's own: 1, then 2, and after the last none.

    Raises:
        OutOfRange: There is no note at that place, or the instrument is not fingered.
    """
    reading = read(bare_of(drill))
    most = _FINGERS_OF.get(reading.instrument.voice)
    at = event_at(reading.every, number)
    if at.kind != "note" or most is None:
        raise OutOfRange("A finger stands over a note of keys or strings. Press one.", field="tool.event")
    row = reading.other if at.hand == "L" and reading.other else reading.events
    notes = [event for event in row if event.kind == "note" and event.leg == at.leg]
    place = next(count for count, event in enumerate(notes) if event.onset == at.onset)
    is_second = row is reading.other
    own = list(parse_fingers(drill.second.fingers if is_second else drill.fingers))
    own += [None] * (place + 1 - len(own))
    now = own[place]
    finger = (now.finger if now else 0) + 1
    own[place] = None if finger > most else replace(now or Touch(finger), finger=finger)
    text = write_fingers(tuple(own))
    return replace(drill, second=replace(drill.second, fingers=text)) if is_second else replace(drill, fingers=text)


def grip_pressed(drill: Drill, number: int) -> Drill:
    """Return a drill in which a chord is gripped another way: the next that a hand can hold, then the usual one again.

    Args:
        number: Of the grip among those of the reading, from 0.

    Raises:
        OutOfRange: There is no such grip, or no other way.
    """
    reading = read(bare_of(drill))
    material = drill.material
    if not isinstance(material, Strum | Picked) or getattr(material, "strings", ALL_STRINGS) != ALL_STRINGS:
        raise OutOfRange("Grips are chosen for chords on all strings. Strum or pick a progression.", field="tool.event")
    if not 0 <= number < len(reading.shapes):
        raise OutOfRange(f"There is no grip {number + 1}. Press one that is drawn.", field="tool.event")
    old, instrument = reading.shapes[number], reading.instrument

    def other(found: re.Match[str]) -> str:
        try:
            chord = parse_chord(found[0])
            if chord.is_none or chord.is_grip or shape_of(chord, instrument) != old:
                return found[0]
        except RipresaError:
            return found[0]
        offered = shapes_of(chord, instrument)
        now = next((place for place, one in enumerate(offered) if one.frets == old.frets), -1)
        following = offered[(now + 1) % len(offered)]
        return chord.symbol if following == offered[0] else f"{chord.symbol}={following.text}"

    chords = CHORD_WORD.sub(other, material.chords)
    return replace(drill, material=replace(material, chords=chords))


def phrase_pressed(drill: Drill, number: int) -> Drill:
    """Return a drill in which a phrase begins with a note, or does so no more.

    Raises:
        OutOfRange: There is no note at that place.
    """
    at = event_at(read(drill).events, number)
    if at.kind != "note":
        raise OutOfRange("A phrase begins with a note. Press one.", field="tool.event")
    here, known = PhraseStart(at.bar, at.beat, at.slot + 1), parse_phrases(drill.phrases)
    kept = [one for one in known if one != here] if here in known else [*known, here]
    return replace(drill, phrases=" ".join(one.text for one in parse_phrases(" ".join(one.text for one in kept))))
