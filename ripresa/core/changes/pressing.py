"""Pressing places on the rail: a rhythm that is typed as a count, or the click, is altered where one presses."""

from collections.abc import Mapping, Sequence
from dataclasses import replace

from ripresa.core.drill import (
    IN_TURN,
    MOST_FILLS,
    Drill,
    Enters,
    Hits,
    Ornamented,
    Reduce,
    grown,
)
from ripresa.core.drill.accents import NoAccents
from ripresa.core.drill.click import NamedClick, TypedClick, click_text
from ripresa.core.drill.hands import NoHands
from ripresa.core.drill.material import Cells, Count, Strum
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction
from ripresa.core.grid import Event, Hit, altered
from ripresa.core.reading import Reading, count_text, on_grid, read
from ripresa.core.rhythm import CountedBeat, Filled, Level, coarse, parse_count, write_count


def is_pressable(drill: Drill) -> bool:
    """Return whether places of a drill can be pressed: a rhythm that is typed as a count, or cells beat by beat."""
    return isinstance(drill.material, Count | Strum | Cells)


def pressed(drill: Drill, number: int) -> Drill:
    """Return a drill in which a place that sounded is silent, or the other way round.

    Args:
        number: Index of the event in the reading. In another leg, or another bar of a progression,
            it stands for the place of the pattern that is played there.

    Raises:
        OutOfRange: There is no such place, the rhythm is not a count, or nothing would be left of it.
    """
    if isinstance(drill.material, Cells):
        return _flipped(drill, drill.material, number)
    _, bars = _typed(drill)
    # Hands and accents are laid over the count; what is written back is the count alone.
    bare = _count_alone(drill)
    at = event_at(bare.events, number)
    first = next(event.bar for event in bare.events if event.leg == at.leg)
    # A leg plays the count again and again: what is pressed in any round stands for its place in the first.
    wanted = ((at.bar - first) % bars + 1, at.beat, at.slot)
    events = [
        _turned(event) if (event.bar, event.beat, event.slot) == wanted else event
        for event in bare.events
        if event.leg == 0 and event.bar <= bars
    ]
    written = count_text(events)
    if not written or not any(event.kind == "note" for event in events):
        raise OutOfRange("One note has to stay. Press another place first.", field="tool.event")
    return _with_text(drill, written)


def bare_of(drill: Drill) -> Drill:
    """Return a drill with all of its notes, from the first bar on, without its layer of hits."""
    return replace(drill, reduce=Reduce(), hits=Hits(), enters=Enters())


def _count_alone(drill: Drill) -> Reading:
    """Return the reading of a typed rhythm without what is laid over it."""
    return read(bare_of(replace(drill, accents=NoAccents(), hands=NoHands())))


def hit_pressed(drill: Drill, number: int) -> Drill:
    """Return a drill in which a note between the hits is a full hit, a full one light, a light one none any more.

    Without a layer of hits the first press makes this one hit, and no other. In a layer that comes round the place is
    pressed in every round.

    Raises:
        OutOfRange: There is no note at that place, or the hits cannot be written as a count.
    """
    whole = read(replace(bare_of(drill), hits=replace(drill.hits, fills=())))
    at = event_at(whole.events, number)
    if at.kind != "note":
        raise OutOfRange("A hit is a note. Press one that sounds.", field="tool.event")
    bars = whole.bar_count
    if drill.hits.is_written:
        bars = int(whole.meter.bars_passed(min(drill.hits.laid(whole.meter, whole.swing).length, whole.beats)))
    wanted = at.onset % whole.meter.bar_start(bars + 1)
    hits: dict[tuple[int, int, Fraction], dict[int, Hit]] = {}
    for event in whole.notes:
        hit = _NEXT_HIT[event.hit] if event.onset == wanted else event.hit
        if hit and event.bar <= bars:
            hits.setdefault((event.bar, event.beat, event.division), {})[event.slot] = hit
    if any(division.denominator > 1 and max(slots) for (_, _, division), slots in hits.items()):
        raise OutOfRange("Slots that span beats cannot be written as hits. Type the hits instead.", field="tool.event")
    text = _hits_text(hits, straight=drill.swing.ratio == 1)
    said = max((bar for bar, _, _ in hits), default=bars)
    return replace(drill, hits=replace(drill.hits, text=text, again=bars if said < bars else 0))


def _hits_text(hits: Mapping[tuple[int, int, Fraction], Mapping[int, Hit]], *, straight: bool) -> str:
    """Return hits by bar, beat, division and slot as they are typed; a bar that has none is empty."""
    if not hits:
        return ""
    beats = []
    for (bar, beat, division), slots in hits.items():
        said = [Filled()] * division.numerator
        for slot, hit in slots.items():
            said[slot] = Filled("note", _LEVEL_OF[hit])
        first, *more = coarse(tuple(said)) if straight else said
        beats.append(CountedBeat(bar, beat, 1 + len(more), (first if first.kind else Filled("rest"), *more)))
    return write_count(beats)


#: What a press makes of a hit, in turn.
_NEXT_HIT: dict[Hit | None, Hit | None] = {None: "full", "full": "light", "light": None}
_LEVEL_OF: dict[Hit, Level | None] = {"full": None, "light": "ghost"}


def ornament_pressed(drill: Drill, number: int) -> Drill:
    """Return a drill in which a note is hammered, then pulled off, then slid to, then struck again.

    Raises:
        OutOfRange: There is no note at that place, or none before it to come from.
    """
    events = read(drill).events
    at = event_at(events, number)
    if at.kind != "note" or number == 0 or events[number - 1].kind not in {"note", "hold"}:
        raise OutOfRange(
            "An ornament comes from the note before it. Press a note that follows another one.", field="tool.event"
        )
    place = (at.bar, at.beat, at.slot)
    now = next((one.ornament for one in drill.ornaments if one.at == place), None)
    rest = tuple(one for one in drill.ornaments if one.at != place)
    following = IN_TURN[(IN_TURN.index(now) + 1) % len(IN_TURN)]
    return replace(drill, ornaments=rest if following is None else (*rest, Ornamented(*place, following)))


def filled(drill: Drill) -> Drill:
    """Return a drill in which what is left is filled: all between the hits is played.

    A rhythm that is typed gets a note in each of its empty places, and what it had becomes the layer of hits.

    Raises:
        OutOfRange: Nothing is left to fill.
    """
    material = drill.material
    if isinstance(material, Count | Strum):
        text, bars = _typed(drill)
        bare = _count_alone(drill)
        first = [event for event in bare.events if event.leg == 0 and event.bar <= bars]
        written = count_text([altered(event, kind="note") for event in first])
        hits = drill.hits if drill.hits.is_written else replace(drill.hits, text=text)
        made = replace(_with_text(drill, written or text), hits=replace(hits, fills=()), reduce=Reduce())
    else:
        made = replace(drill, hits=replace(drill.hits, fills=()), reduce=Reduce())
    if made == drill:
        raise OutOfRange("Nothing is left to fill: every place has its note.", field="material")
    return made


def growing(drill: Drill, total: int, sections: int) -> Drill:
    """Return a drill whose fills grow from section to section and are so many notes together: 30 over 4 is 5 6 8 11.

    Raises:
        OutOfRange: No section, or more than there may be; or no note.
    """
    if not 1 <= total <= MOST_FILLS:
        raise OutOfRange(f"Fills are 1 to {MOST_FILLS} notes together, not {total}.", field="tool.count")
    return replace(drill, hits=replace(drill.hits, fills=grown(total, sections)))


def _flipped(drill: Drill, cells: Cells, number: int) -> Drill:
    """Return a drill whose beat of that place goes over to the next cell; woven by hand from then on."""
    reading = read(bare_of(drill))
    at = event_at(reading.events, number)
    first = next(event.bar for event in reading.events if event.leg == at.leg)
    order = [cell for bar in cells.order(reading.meter) for cell in bar]
    beats = len(reading.meter.beats_of(1))
    place = ((at.bar - first) * beats + at.beat - 1) % len(order)
    order[place] = (order[place] + 1) % len(cells.cells)
    return replace(drill, material=replace(cells, mix="by_hand", chosen=tuple(cell + 1 for cell in order)))


def event_at(events: Sequence[Event], number: int) -> Event:
    """Return the event of a number, from 0.

    Raises:
        OutOfRange: There is no such place.
    """
    if not 0 <= number < len(events):
        raise OutOfRange("There is no such place on the rail. Press one that is drawn.", field="tool.event")
    return events[number]


def click_pressed(drill: Drill, number: int) -> Drill:
    """Return a drill whose click sounds at a place where it was silent, or the other way round; typed from then on.

    Args:
        number: Index of the event in the reading whose onset is meant.

    Raises:
        OutOfRange: There is no such place, or the click cannot be written as a count.
    """
    reading = read(drill)
    cycle = reading.click_cycle
    # A cycle is laid from the first bar line on; pressed in a later turn, the click changes in every turn.
    at = event_at(reading.events, number).onset % cycle.length
    clicks = dict(cycle.clicks)
    if at in clicks:
        del clicks[at]
    else:
        clicks[at] = "plain"
    text = click_text(replace(cycle, clicks=tuple(sorted(clicks.items()))), reading.meter, reading.beats)
    return replace(drill, click=TypedClick(text=text) if text else NamedClick(plan="none"))


def gridded(drill: Drill, division: int) -> Drill:
    """Return a drill whose bare beats have so many places to press.

    Raises:
        OutOfRange: The rhythm is not a count.
    """
    text, _ = _typed(drill)
    return _with_text(drill, on_grid(text, division))


def _typed(drill: Drill) -> tuple[str, int]:
    """Return the count that a drill is made of, and its bars."""
    material = drill.material
    if isinstance(material, Count):
        played = read(bare_of(replace(drill, legs=drill.legs[:1])))
        return material.text, played.events[-1].bar
    if isinstance(material, Strum):
        return material.pattern, parse_count(material.pattern)[-1].bar
    raise OutOfRange(
        "Places are pressed in a rhythm that is typed as a count. Choose “the rhythm” or “the chords” as material.",
        field="material",
    )


def typed_in_place(drill: Drill) -> Drill:
    """Return a drill whose typed rhythm is written where it is moved to, so that its beats can be changed.

    Cells that are mixed into bars are written out as one count.
    """
    if isinstance(drill.material, Cells):
        mixed = _count_alone(replace(drill, legs=drill.legs[:1]))
        return replace(drill, material=Count(count_text(mixed.events) or ""))
    if not isinstance(drill.material, Count) or not drill.material.shift:
        return drill
    _, bars = _typed(drill)
    bare = _count_alone(drill)
    return _with_text(drill, count_text(event for event in bare.events if not event.leg and event.bar <= bars) or "")


def _with_text(drill: Drill, text: str) -> Drill:
    material = drill.material
    if isinstance(material, Strum):
        return replace(drill, material=replace(material, pattern=text))
    assert isinstance(material, Count)
    return replace(drill, material=replace(material, text=text, shift=0))


def _turned(event: Event) -> Event:
    return altered(event, kind="rest" if event.kind == "note" else "note")
