"""The rows of a reading: one, or the right hand and the left; with their hits, and as much of them as is played."""

from collections.abc import Sequence
from dataclasses import replace
from itertools import islice

from ripresa.core.drill import NO_HITS, Drill, Reduce, reduced, voiced_by_level
from ripresa.core.drill.hands import ByPlace, Letters, NoHands
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction, plural
from ripresa.core.grid import HANDS_OF, Event, LegReading, Place
from ripresa.core.pitch import Instrument
from ripresa.core.reading.composite import composite
from ripresa.core.reading.events import events_of
from ripresa.core.reading.second_hand import Laid, lay_second
from ripresa.core.rhythm import Meter

MOST_NOTES = 20_000
#: Slots, held ones and cut ones too, that another hand may have.
MOST_PLACES = 3 * MOST_NOTES


def rows_of(
    drill: Drill, instrument: Instrument, meter: Meter, laid: Sequence[Laid], places: Sequence[Place]
) -> list[tuple[Event, ...]]:
    """Return the events of each hand: one row, or the right hand and the left."""
    if not drill.second.is_there:
        return [_dressed(drill, instrument, meter, events_of(drill, places, drill.hands, drill.accents, meter))]
    under = list(islice(lay_second(drill, instrument, meter, laid), MOST_PLACES + 1))
    if len(under) > MOST_PLACES:
        raise OutOfRange(
            f"The other hand has more than {plural(MOST_PLACES, 'slot')}. Take fewer legs or slower divisions.",
            field="second.legs",
        )
    return [
        _dressed(drill, instrument, meter, events_of(drill, places, drill.hands, drill.accents, meter, "right")),
        events_of(drill, under, NoHands(), drill.second.accents, meter, "left"),
    ]


def _dressed(drill: Drill, instrument: Instrument, meter: Meter, events: tuple[Event, ...]) -> tuple[Event, ...]:
    """Return events with their hits, and in the register of their loudness."""
    return voiced_by_level(drill.hits.hitting(events, meter, drill.swing), drill.voicing, instrument)


def beside_of(hands: Sequence[tuple[Event, ...]], drill: Drill) -> tuple[Fraction, ...]:
    """Return the onsets of the hand that a drill leaves out, or of the second where both play."""
    if len(hands) < 2:
        return ()
    left_out = hands[0] if drill.reduce.part == "hand" and drill.reduce.hand == "L" else hands[1]
    return tuple(event.onset for event in left_out if event.kind == "note")


def played_rows(
    hands: Sequence[tuple[Event, ...]], drill: Drill, legs: Sequence[LegReading], meter: Meter
) -> list[tuple[Event, ...]]:
    """Return the rows that are played: a hand alone is a row alone, and so are both in one."""
    reduce, enters = drill.reduce, drill.enters.hands
    swings = isinstance(drill.hands, ByPlace | Letters)
    # The layer of hits is the first hand's; whoever enters later does so with both.
    hands = [
        reduced(events, Reduce(), legs, meter, drill.hits if number == 0 else NO_HITS, enters, swings=swings)
        for number, events in enumerate(hands)
    ]
    if len(hands) > 1 and reduce.part == "composite":
        return [tuple(composite(hands[0], hands[1], drill.second.phrase))]
    if len(hands) > 1 and reduce.part == "hand" and reduce.hand in HANDS_OF.values():
        return [events for events in hands if events[0].hand == reduce.hand]
    return [reduced(events, reduce, legs, meter, replace(drill.hits, fills=()), swings=swings) for events in hands]
