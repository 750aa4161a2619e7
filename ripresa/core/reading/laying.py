"""Laying a leg: its pass slot by slot, the closing tonic, the seam, each added up by the cursor."""

from collections.abc import Iterator

from ripresa.core.drill import Drill, parse_fingers
from ripresa.core.drill.hands import ByPlace
from ripresa.core.drill.material import NotePass, own_rhythm
from ripresa.core.exact import Fraction
from ripresa.core.grid import Cursor, LegReading, Place, Slot, Touch, altered, slot_numbers
from ripresa.core.pitch import Instrument
from ripresa.core.reading.fingering import touches, with_own
from ripresa.core.rhythm import Meter, SlotKind


def fingered(drill: Drill, instrument: Instrument, notes: NotePass) -> tuple[Touch | None, ...]:
    """Return how each note of a pass is fingered, the closing tonic in; what the teacher wrote stands over the rule."""
    found: tuple[Touch | None, ...] = (None,) * len(notes.sounded)
    if drill.knows_fingering:
        found = touches(drill.material, instrument, notes.sounded, drill.fingering, drill.place)
    own = parse_fingers(drill.fingers)
    return with_own(found, own, instrument, notes.sounded) if own else found


def lay_leg(
    drill: Drill,
    instrument: Instrument,
    cursor: Cursor,
    places: list[Place],
    index: int,
    notes: NotePass,
    fingered: tuple[Touch | None, ...],
) -> LegReading:
    """Append the places of one leg, and return what it came to."""
    start, leg = cursor.at, drill.legs[index]
    is_last = index == len(drill.legs) - 1
    numbers = slot_numbers(leg.divisions)
    last = (Fraction(0), leg.division, 0)
    rhythm = notes.rhythm or (Slot(*next(numbers), "note", pitch) for pitch in notes.notes)
    touch = iter(fingered)
    for slot in rhythm:
        if slot.kind == "note":
            last = (cursor.at - start, slot.division, slot.number)
            worked_out = next(touch)
            if worked_out and not slot.touch:
                slot = altered(slot, touch=worked_out)
        places += cursor.lay(index, slot)
    pass_beats = cursor.at - start
    division, number = _after_last(cursor) if notes.rhythm else next(numbers)
    closes = _plays_closing(drill, notes, cursor.meter, cursor.at, is_last=is_last)
    if closes:
        places += cursor.lay(index, Slot(division, number, "note", notes.closing, touch=fingered[-1]))
    places += _seam(drill, cursor, index, division, places[-1].kind_that_goes_on)
    if is_last:
        # Every drill ends on a bar line, so that each of its turns starts on 1.
        to_line = cursor.meter.to_bar_line(cursor.at)
        places += _fill(drill, cursor, index, division, to_line, places[-1].kind_that_goes_on)
    sounded = notes.notes + ((notes.closing,) if closes else ())
    return LegReading(
        index=index,
        divisions=tuple(dict.fromkeys(slot.division for slot in notes.rhythm))
        if own_rhythm(drill.material)
        else leg.divisions,
        start=start,
        beats=cursor.at - start,
        pass_beats=pass_beats,
        last=last,
        end=(pass_beats, division, number),
        notes=len(sounded),
        pass_notes=len(notes.notes),
        has_closing=notes.closing is not None,
        plays_closing=closes,
        described=notes.described,
        out_of_range=sum(1 for pitch in sounded if pitch and not instrument.holds(pitch.midi)),
        rhythm=() if notes.goes_on else notes.rhythm,
    )


def _after_last(cursor: Cursor) -> tuple[Fraction, int]:
    """Return division and number of the slot that follows what was laid: on a beat a new one begins."""
    division, number = cursor.laid
    return (division, number + 1) if cursor.inside else (division, 0)


def _plays_closing(drill: Drill, notes: NotePass, meter: Meter, end: Fraction, *, is_last: bool) -> bool:
    if notes.closing is None:
        return False
    match drill.closing, drill.seam:
        case "own", _:
            return True
        case "shared", _:
            return False
        case _, "straight_on" if not is_last:
            return False
        case _, "hold" | "straight_on":
            return bool(meter.to_bar_line(end))
        case _:
            return True


def _seam(drill: Drill, cursor: Cursor, index: int, division: Fraction, ending: SlotKind) -> Iterator[Place]:
    """Yield what lies between two legs; a note that ends the pass is held, a silence goes on."""
    meter = cursor.meter
    match drill.seam:
        case "hold":
            yield from _fill(drill, cursor, index, division, meter.to_bar_line(cursor.at), ending)
        case "straight_on":
            # The next leg starts on a beat: a note that ends inside one is held to its end.
            yield from _fill(drill, cursor, index, division, meter.to_beat(cursor.at), ending)
        case "bar_rest":
            yield from _fill(drill, cursor, index, division, meter.to_bar_line(cursor.at), ending)
            yield from _fill(drill, cursor, index, division, meter.bar(cursor.bar).length, "rest")
        case "breath":
            yield from _fill(drill, cursor, index, division, meter.to_beat(cursor.at), ending)
            yield from _fill(drill, cursor, index, division, meter.beats_of(cursor.bar)[cursor.beat - 1], "rest")


def _fill(
    drill: Drill, cursor: Cursor, index: int, division: Fraction, length: Fraction, kind: SlotKind
) -> Iterator[Place]:
    """Yield what goes on for so many beats: beat by beat, and slot by slot where an arm moves on through them."""
    if not isinstance(drill.hands, ByPlace) or division.denominator > 1:
        yield from cursor.fill(index, division, length, kind)
        return
    end = cursor.at + length
    while cursor.at < end:
        place = _after_last(cursor) if cursor.inside else (division, 0)
        yield from cursor.lay(index, Slot(*place, kind))
