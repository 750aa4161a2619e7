"""Pressing places on the rail: a rhythm that is typed as a count, or the click, is changed where one presses."""

from dataclasses import replace

from ripresa.core.drill import Drill, Reduce
from ripresa.core.drill.accents import NoAccents
from ripresa.core.drill.click import NamedClick, TypedClick, click_text
from ripresa.core.drill.hands import NoHands
from ripresa.core.drill.material import Count, Strum
from ripresa.core.errors import OutOfRange
from ripresa.core.grid import Event
from ripresa.core.reading import count_text, on_grid, read
from ripresa.core.rhythm import parse_count


def is_pressable(drill: Drill) -> bool:
    """Return whether the notes of a drill can be pressed on and off: a rhythm that is typed as a count."""
    return isinstance(drill.material, Count | Strum)


def pressed(drill: Drill, number: int) -> Drill:
    """Return a drill in which a place that sounded is silent, or the other way round.

    Args:
        number: Index of the event in the reading. In another leg, or another bar of a progression,
            it stands for the place of the pattern that is played there.

    Raises:
        OutOfRange: There is no such place, the rhythm is not a count, or nothing would be left of it.
    """
    _, bars = _typed(drill)
    # Hands and accents are laid over the count; what is written back is the count alone.
    bare = read(replace(drill, accents=NoAccents(), hands=NoHands(), reduce=Reduce()))
    if not 0 <= number < len(bare.events):
        raise OutOfRange("There is no such place on the rail. Press one that is drawn.", field="tool.event")
    at = bare.events[number]
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


def click_pressed(drill: Drill, number: int) -> Drill:
    """Return a drill whose click sounds at a place where it was silent, or the other way round; typed from then on.

    Args:
        number: Index of the event in the reading whose onset is meant.

    Raises:
        OutOfRange: There is no such place, or the click cannot be written as a count.
    """
    reading = read(drill)
    if not 0 <= number < len(reading.events):
        raise OutOfRange("There is no such place on the rail. Press one that is drawn.", field="tool.event")
    cycle = reading.click_cycle
    # A cycle is laid from the first bar line on; pressed in a later turn, the click changes in every turn.
    at = reading.events[number].onset % cycle.length
    clicks = dict(cycle.clicks)
    if at in clicks:
        del clicks[at]
    else:
        clicks[at] = "plain"
    text = click_text(replace(cycle, clicks=tuple(sorted(clicks.items()))), reading.meter)
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
        played = read(replace(drill, legs=drill.legs[:1], reduce=Reduce()))
        return material.text, played.events[-1].bar
    if isinstance(material, Strum):
        return material.pattern, parse_count(material.pattern)[-1].bar
    raise OutOfRange(
        "Places are pressed in a rhythm that is typed as a count. Choose “the rhythm” or “the chords” as material.",
        field="material",
    )


def _with_text(drill: Drill, text: str) -> Drill:
    material = drill.material
    if isinstance(material, Strum):
        return replace(drill, material=replace(material, pattern=text))
    assert isinstance(material, Count)
    return replace(drill, material=replace(material, text=text, shift=0))


def _turned(event: Event) -> Event:
    return replace(event, kind="rest" if event.kind == "note" else "note")
