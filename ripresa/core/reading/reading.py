"""The reading: a drill worked out into events with exact places, once, for everyone who needs them.

Rail, sums, sound, MIDI, hand-out and matching all consume this; none of them
works it out again. A reading has no tempo: its positions are beats.
"""

from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from math import ceil

from ripresa.core.drill import REDUCTIONS, Drill, Leg, reduced
from ripresa.core.drill.accents import Mark
from ripresa.core.drill.click import Click, ClickCycle, ClickSlot
from ripresa.core.drill.hands import SLUR
from ripresa.core.drill.material import NotePass, own_rhythm
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import plural
from ripresa.core.grid import Cursor, Event, LegReading, Place, Slot, Touch, slot_numbers
from ripresa.core.pitch import Instrument, instrument_named
from ripresa.core.reading.fingering import touches
from ripresa.core.rhythm import Meter, SlotKind, leg_meters

MOST_NOTES = 20_000


@dataclass(frozen=True, slots=True)
class Reading:
    """A drill worked out.

    Args:
        drill: What was read.
        events: Every slot in order; they tile the time from 0 to ``beats`` without gap or overlap.
        legs: One for each leg of the drill, in order.
        click_cycle: The click over the whole drill.
        second: Onsets of a second layer that is counted under the first, in beats.
        body: (onset in beats, word) of each movement of the body.
        beats: Length of the drill.
    """

    drill: Drill
    meter: Meter
    instrument: Instrument
    events: tuple[Event, ...]
    legs: tuple[LegReading, ...]
    click_cycle: ClickCycle
    second: tuple[Fraction, ...]
    body: tuple[tuple[Fraction, str], ...]
    beats: Fraction

    @property
    def notes(self) -> tuple[Event, ...]:
        """The events that are notes."""
        return tuple(event for event in self.events if event.kind == "note")

    @property
    def bars(self) -> Fraction:
        """Length in bars."""
        return self.meter.bars_passed(self.beats)

    @property
    def bar_count(self) -> int:
        """How many bars it has, begun ones too."""
        return ceil(self.bars)

    @property
    def loop_beats(self) -> Fraction:
        """Length of one turn of the loop: the whole drill, which ends on a bar line so that each turn starts on 1."""
        return self.beats

    def lasts(self, length: Fraction) -> Fraction:
        """Return how much of a note's length sounds, in beats: its share by the articulation."""
        return length * self.drill.articulation

    def heard(self, event: Event) -> tuple[int, ...]:
        """Return the MIDI notes that are heard when an event is played, from the lowest; none without pitch."""
        return tuple(pitch.midi + self.instrument.sounds for pitch in event.tones)

    def sounding(self) -> Iterator[tuple[Event, Fraction]]:
        """Yield each note with its length in beats, the held parts added."""
        current: Event | None = None
        length = Fraction(0)
        for event in self.events:
            if event.kind == "hold":
                length += event.length
                continue
            if current is not None:
                yield current, length
            current, length = (event, event.length) if event.kind == "note" else (None, Fraction(0))
        if current is not None:
            yield current, length


def read(drill: Drill) -> Reading:
    """Return the reading of a drill.

    Raises:
        OutOfRange: It would have more than 20,000 notes.

    >>> from ripresa.core.drill.material import OneNote
    >>> reading = read(Drill(material=OneNote(beats=4), legs=(Leg(Fraction(3)),)))
    >>> [str(event.onset) for event in reading.events][:4]
    ['0', '1/3', '2/3', '1']
    """
    meters = leg_meters(drill.meter)
    instrument = instrument_named(drill.instrument)
    passes = _passes(drill, instrument, meters)
    fingered = {id(one): _fingered(drill, instrument, one) for one in passes}
    cursor = Cursor(meters[0], drill.swing)
    places: list[Place] = []
    legs = []
    for index, notes in enumerate(passes):
        if len(meters) > 1:
            # What was laid stays; from here on the bars are those of this leg.
            cursor.change(meters[index % len(meters)].after(cursor.meter.laid(cursor.bar - 1)))
        legs.append(_lay_leg(drill, instrument, cursor, places, index, notes, fingered[id(notes)]))
    meter = cursor.meter if len(meters) == 1 else _as_laid(drill.meter, cursor)
    events = reduced(_events(drill, places), drill.reduce, legs)
    if drill.reduce.part != "everything":
        if not any(event.kind == "note" for event in events):
            raise OutOfRange(
                f"Nothing is left to play of {REDUCTIONS[drill.reduce.part][0]}"
                + (f", “{drill.reduce.hand}”" if drill.reduce.part == "hand" else "")
                + ". Accent some notes, name a hand that plays, or play everything.",
                field="reduce",
            )
        played = Counter(event.leg for event in events if event.kind == "note")
        legs = [replace(leg, notes=played[leg.index]) for leg in legs]
    return Reading(
        drill=drill,
        meter=meter,
        instrument=instrument,
        events=events,
        legs=tuple(legs),
        click_cycle=_click(drill.click, meter, events, cursor.at),
        second=tuple(_second(legs, passes)),
        body=tuple(drill.body.marks(cursor.at)),
        beats=cursor.at,
    )


def _as_laid(name: str, cursor: Cursor) -> Meter:
    """Return the meter of bars that were laid leg by leg; after the last they begin again."""
    bars = cursor.meter.laid(cursor.bar - 1)
    return Meter(name, bars, cursor.meter.counted)


def with_click(reading: Reading, click: Click) -> Reading:
    """Return a reading under another click; all else stays.

    Raises:
        OutOfRange: A click that the drill cannot have.
    """
    cycle = _click(click, reading.meter, reading.events, reading.beats)
    return replace(reading, drill=replace(reading.drill, click=click), click_cycle=cycle)


def _click(click: Click, meter: Meter, events: Sequence[Event], beats: Fraction) -> ClickCycle:
    """Return the cycle of a click over some events."""
    slots = [ClickSlot(event.onset, event.kind == "note") for event in events]
    return click.cycle(meter, slots, beats)


def _second(legs: Sequence[LegReading], passes: Sequence[NotePass]) -> Iterator[Fraction]:
    """Yield the onsets of the second layer, on and on through each leg."""
    for leg, notes in zip(legs, passes, strict=True):
        start = leg.start
        while notes.second and start < leg.start + leg.beats:
            yield from (start + at for at in notes.second if start + at < leg.start + leg.beats)
            start += notes.second_beats


def _fingered(drill: Drill, instrument: Instrument, notes: NotePass) -> tuple[Touch | None, ...]:
    """Return how each note of a pass is fingered, the closing tonic in."""
    if drill.knows_fingering:
        return touches(drill.material, instrument, notes.sounded)
    return (None,) * len(notes.sounded)


def _lay_leg(
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
            slot = replace(slot, touch=next(touch)) if drill.knows_fingering else slot
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
        places += cursor.fill(index, division, to_line, places[-1].kind_that_goes_on)
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


def _passes(drill: Drill, instrument: Instrument, meters: Sequence[Meter]) -> list[NotePass]:
    # Legs of one division play the same pass; a drill may have hundreds of them.
    known: dict[tuple[Leg, int], NotePass] = {}
    total = 0
    found: list[NotePass] = []
    for index, leg in enumerate(drill.legs):
        key = leg, index % len(meters)
        if key not in known:
            made = drill.material.pass_for(leg.divisions, instrument, meters[key[1]]).moved(drill.register)
            known[key] = made.folded(instrument) if drill.folded else made
        found.append(known[key])
        # What is silent or held takes its slots too.
        total += max(len(found[-1].notes), len(found[-1].rhythm))
        if total > MOST_NOTES:
            silent = len(found[-1].rhythm) > len(found[-1].notes)
            raise OutOfRange(
                f"This drill has more than {plural(MOST_NOTES, 'slot' if silent else 'note')}. "
                f"Take fewer legs or {'a shorter line' if silent else 'fewer octaves'}.",
                field="legs",
            )
    return found


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
            yield from cursor.fill(index, division, meter.to_bar_line(cursor.at), ending)
        case "straight_on":
            # The next leg starts on a beat: a note that ends inside one is held to its end.
            yield from cursor.fill(index, division, meter.to_beat(cursor.at), ending)
        case "bar_rest":
            yield from cursor.fill(index, division, meter.to_bar_line(cursor.at), ending)
            yield from cursor.fill(index, division, meter.bar(cursor.bar).length, "rest")
        case "breath":
            yield from cursor.fill(index, division, meter.to_beat(cursor.at), ending)
            yield from cursor.fill(index, division, meter.beats_of(cursor.bar)[cursor.beat - 1], "rest")


def _events(drill: Drill, places: list[Place]) -> tuple[Event, ...]:
    strokes = list(drill.hands.strokes(places))
    marks = list(drill.accents.marks(places))
    inside = _in_groups(places, marks)
    return tuple(
        Event(
            onset=place.onset,
            length=place.length,
            leg=place.leg,
            bar=place.bar,
            beat=place.beat,
            slot=place.slot,
            division=place.division,
            count=place.word or drill.counting.word(place.division, place.beat, place.slot, place.span),
            span=place.span,
            kind="air" if place.kind == "rest" and stroke else place.kind,
            pitch=place.pitch,
            stroke=None if stroke == SLUR else stroke,
            accent=place.accent or mark.level,
            group=mark.group,
            slurred=stroke == SLUR and index > 0 and places[index - 1].kind in {"note", "hold"},
            chord=place.chord,
            statement=place.statement,
            in_group=inside[index],
            touch=place.touch,
        )
        for index, (place, stroke, mark) in enumerate(zip(places, strokes, marks, strict=True))
    )


def _in_groups(places: Sequence[Place], marks: Sequence[Mark]) -> list[int | None]:
    """Return which note of its group each place is, from 1; of its statement where there are no groups."""
    found: list[int | None] = []
    before: tuple[int, int] | None = None
    number = 0
    for place, mark in zip(places, marks, strict=True):
        if place.kind != "note" or mark.number is not None or place.statement is None:
            found.append(mark.number)
            continue
        number = number + 1 if before == (place.leg, place.statement) else 1
        before = place.leg, place.statement
        found.append(number)
    return found
