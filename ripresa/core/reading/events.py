"""Events: what is laid, with its hand, its accent, its group and the word that is said there."""

from collections.abc import Sequence
from itertools import groupby

from ripresa.core.drill import Drill, ornamented
from ripresa.core.drill.accents import Accents, Mark
from ripresa.core.drill.hands import SLUR, Hands
from ripresa.core.grid import Event, Layer, Place, altered
from ripresa.core.rhythm import EIGHT, Meter, SlotKind

#: What a slur can come from.
_SOUNDING = frozenset({"note", "hold"})


def events_of(
    drill: Drill, places: Sequence[Place], hands: Hands, accents: Accents, meter: Meter, layer: Layer = "notes"
) -> tuple[Event, ...]:
    """Return the events of places that were laid in a meter, under a hand law and a way of setting accents."""
    if layer != "left":
        places = ornamented(places, drill.ornaments)
    numbers = _beat_numbers(drill, places, meter)
    # What is not struck takes no stroke of the hand, and uses none up.
    struck = [altered(place, kind="hold") if place.how.ornament and place.kind == "note" else place for place in places]
    strokes = list(hands.strokes(struck))
    marks = list(accents.marks(places))
    inside = _in_groups(places, marks)
    word_of = drill.counting.word
    found = []
    before: SlotKind = "rest"
    for place, law, mark, number, in_group in zip(places, strokes, marks, numbers, inside, strict=True):
        how, kind = place.how, place.kind
        stroke = None if how.ornament else how.stroke or law
        is_slur = stroke == SLUR or how.ornament is not None
        found.append(
            # In the order of the fields: a long drill has twenty thousand of them.
            Event(
                place.onset,
                place.length,
                place.leg,
                place.bar,
                place.beat,
                place.slot,
                place.division,
                place.word or word_of(place.division, number, place.slot, place.span),
                "air" if kind == "rest" and stroke else kind,
                place.pitch,
                None if stroke == SLUR else stroke,
                place.accent or mark.level,
                mark.group,
                is_slur and before in _SOUNDING,
                place.chord,
                place.statement,
                in_group,
                place.touch,
                layer,
                place.span,
                how,
            )
        )
        before = kind
    return tuple(found)


def _beat_numbers(drill: Drill, places: Sequence[Place], meter: Meter) -> list[int]:
    """Return by which number the beat of each place is counted: in its bar, on to eight, or through its leg."""
    runs = drill.counting.runs
    if runs == "bar":
        return [place.beat for place in places]
    found = []
    for _, inside in groupby(places, key=lambda place: place.leg):
        first: int | None = None
        bar, before = 0, 0
        for place in inside:
            if place.bar != bar:
                bar, before = place.bar, int(meter.beats_passed(meter.bar_start(place.bar)))
            number = before + place.beat - 1
            first = number if first is None else first
            passed = number - first
            found.append((passed % EIGHT if runs == "eight" else passed) + 1)
    return found


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
