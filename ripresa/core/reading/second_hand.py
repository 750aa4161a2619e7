"""The second hand, laid under the first: they share the beats of each leg, and not the notes."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from ripresa.core.drill import Drill, parse_fingers
from ripresa.core.drill.material import NotePass, scale_of
from ripresa.core.drill.second import First, filled
from ripresa.core.exact import Fraction
from ripresa.core.grid import Cursor, Event, LegReading, Place, Slot, Touch, altered, slot_numbers
from ripresa.core.pitch import Instrument
from ripresa.core.reading.fingering import second_touches, with_own
from ripresa.core.rhythm import Meter

#: Written MIDI note at which the right hand is at home where a left one plays too: middle C.
RIGHT_HOME = 60


@dataclass(frozen=True, slots=True)
class Laid:
    """The first hand as it was laid on a leg: its places, its pass, and what the leg came to."""

    leg: LegReading
    places: Sequence[Place]
    notes: NotePass


def with_right_home(instrument: Instrument) -> Instrument:
    """Return an instrument on which the right hand begins about middle C."""
    return replace(instrument, home=max(instrument.home, RIGHT_HOME), hand=instrument.hand or "right")


def lay_second(drill: Drill, instrument: Instrument, meter: Meter, legs: Sequence[Laid]) -> Iterator[Place]:
    """Yield the places of the second hand, leg by leg; they tile the time of the first.

    Raises:
        OutOfRange: What it plays does not go with the material.
        Unreadable: A chord of it cannot be read.
    """
    for laid in legs:
        leg = laid.leg
        grid = list(_grid(drill, meter, laid))
        end = leg.start + leg.pass_beats
        scale = scale_of(drill.material)
        first = First(
            pitches=laid.notes.notes,
            closing=laid.notes.closing,
            tonic=scale[0] if scale else None,
            tones=scale[1] if scale else None,
            closes=leg.plays_closing and any(place.onset == end and place.kind == "note" for place in grid),
            start=leg.start,
            instrument=instrument,
            meter=meter,
        )
        yield from _fingered(drill, instrument, drill.second.plays.fill(grid, first))


def _grid(drill: Drill, meter: Meter, laid: Laid) -> Iterator[Place]:
    """Yield the places that are to be filled: those of the first hand, or a slot for each of its own divisions."""
    own = divisions_of(drill, laid.leg)
    if own is None:
        yield from laid.places
        return
    leg = laid.leg
    end, over = leg.start + leg.pass_beats, leg.start + leg.beats
    cursor = Cursor(meter, drill.swing)
    cursor.go_to(leg.start)
    numbers = slot_numbers(own)
    slots: list[Place] = []
    while cursor.at < end:
        slots += cursor.lay(leg.index, Slot(*next(numbers)))
    at, last = min(cursor.at, over), cursor.laid
    yield from _cut(slots, over)
    # What closes the pass of the first hand is met where it falls on a slot of the second; else that one holds on.
    closing = next((place for place in laid.places if place.onset == at and place.kind == "note"), None)
    if closing and leg.plays_closing and at == end:
        yield filled(closing)
        at, last = closing.onset + closing.length, (closing.division, closing.slot)
    rest = next((place.onset for place in laid.places if place.onset >= end and place.kind == "rest"), over)
    cursor = Cursor(meter, drill.swing, span=meter.beat_at(at) if at < over else Fraction(1), laid=last)
    cursor.go_to(at)
    yield from cursor.fill(leg.index, own[0], max(Fraction(0), rest - at), "hold")
    yield from cursor.fill(leg.index, own[0], over - max(at, rest), "rest")


def divisions_of(drill: Drill, leg: LegReading) -> tuple[Fraction, ...] | None:
    """Return the divisions of the second hand on a leg; None where it has the rhythm of the first."""
    own = drill.second.own_divisions(leg.index)
    if own:
        return own
    return None if drill.second.plays.follows else (Fraction(1),)


def left_divisions(drill: Drill, leg: LegReading) -> tuple[Fraction, ...]:
    """Return the divisions of the left hand on a leg of the right one: its own, or the same."""
    return divisions_of(drill, leg) or leg.divisions


def _cut(places: Sequence[Place], end: Fraction) -> Iterator[Place]:
    for place in places:
        if place.onset < end:
            yield altered(place, length=min(place.length, end - place.onset))


def _fingered(drill: Drill, instrument: Instrument, places: Sequence[Place]) -> Iterator[Place]:
    """Yield places with their fingers where these are wanted: what plays says its own, or they are found by rule."""
    notes = [place for place in places if place.kind == "note"]
    pitches = [place.pitch for place in notes]
    found: list[Touch | None] = [None] * len(notes)
    if drill.knows_fingering and any(place.touch for place in places):
        found = [place.touch for place in notes]
    elif drill.knows_fingering:
        found = list(second_touches(drill.material if drill.second.plays.follows else None, pitches))
    own = parse_fingers(drill.second.fingers, "second.fingers")
    touched = iter(with_own(found, own, instrument, pitches) if own else found)
    for place in places:
        yield altered(place, touch=next(touched) if place.kind == "note" else None)


def second_leg(drill: Drill, leg: LegReading, events: Sequence[Event]) -> LegReading:
    """Return what a leg of the first hand comes to for the second alone."""
    divisions = left_divisions(drill, leg)
    notes = [event for event in events if event.leg == leg.index and event.kind == "note"]
    last = notes[-1] if notes else None
    return replace(
        leg,
        divisions=divisions,
        last=(last.onset - leg.start, last.division, last.slot) if last else (Fraction(0), divisions[0], 0),
        notes=len(notes),
        pass_notes=sum(event.onset < leg.start + leg.pass_beats for event in notes),
        out_of_range=0,
        rhythm=(),
    )
