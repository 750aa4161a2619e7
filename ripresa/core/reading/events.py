"""Events: what is laid, with its hand, its accent, its group and the word that is said there."""

from collections.abc import Sequence
from dataclasses import replace
from itertools import groupby

from ripresa.core.drill import Drill, ornamented
from ripresa.core.drill.accents import Accents, Mark
from ripresa.core.drill.hands import SLUR, Hands
from ripresa.core.grid import Event, Layer, Place
from ripresa.core.rhythm import EIGHT, Meter


def events_of(
    drill: Drill, places: Sequence[Place], hands: Hands, accents: Accents, meter: Meter, layer: Layer = "notes"
) -> tuple[Event, ...]:
    """Return the events of places that were laid in a meter, under a hand law and a way of setting accents."""
    if layer != "left":
        places = ornamented(places, drill.ornaments)
    numbers = _beat_numbers(drill, places, meter)
    # What is not struck takes no stroke of the hand, and uses none up.
    struck = [replace(place, kind="hold") if place.how.ornament and place.kind == "note" else place for place in places]
    strokes = list(hands.strokes(struck))
    marks = list(accents.marks(places))
    inside = _in_groups(places, marks)
    found = []
    for index, (place, law, mark) in enumerate(zip(places, strokes, marks, strict=True)):
        stroke = None if place.how.ornament else place.how.stroke or law
        follows = index > 0 and places[index - 1].kind in {"note", "hold"}
        found.append(
            Event(
                onset=place.onset,
                length=place.length,
                leg=place.leg,
                bar=place.bar,
                beat=place.beat,
                slot=place.slot,
                division=place.division,
                count=place.word or drill.counting.word(place.division, numbers[index], place.slot, place.span),
                span=place.span,
                kind="air" if place.kind == "rest" and stroke else place.kind,
                pitch=place.pitch,
                stroke=None if stroke == SLUR else stroke,
                accent=place.accent or mark.level,
                group=mark.group,
                slurred=(stroke == SLUR or place.how.ornament is not None) and follows,
                chord=place.chord,
                statement=place.statement,
                in_group=inside[index],
                touch=place.touch,
                layer=layer,
                how=place.how,
            )
        )
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
