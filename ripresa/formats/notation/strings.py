"""Where a note lies on strings, for tablature."""

from collections.abc import Iterator
from dataclasses import replace
from typing import Literal

from ripresa.core.grid import Event
from ripresa.core.pitch import Pitch, usually_spelt
from ripresa.core.reading import Reading, read

#: The staves of an instrument with strings.
Form = Literal["notes", "tab", "both"]
FORMS: dict[Form, tuple[str, str]] = {
    "notes": ("notes", "A staff of five lines, as every instrument reads it."),
    "tab": ("TAB", "A line for each string, with the frets on it."),
    "both": ("notes and TAB", "The notes, and under them where they lie."),
}


def has_strings(reading: Reading) -> bool:
    """Return whether every note of a reading lies on a string that is known."""
    notes = [event for event in reading.events if event.kind == "note"]
    return bool(reading.instrument.strings and notes) and all(_places(event) for event in notes)


def strung(reading: Reading) -> Reading:
    """Return a reading on strings with the usual fingering where its drill asks for none; the same elsewhere."""
    drill = reading.drill
    if not reading.instrument.strings or has_strings(reading) or drill.fingering != "none":
        return reading
    found = read(replace(drill, fingering="usual"))
    return found if has_strings(found) else reading


def on_strings(reading: Reading, event: Event) -> Iterator[tuple[int, int, Pitch]]:
    """Yield string (1 the thinnest), fret and written pitch of each string that sounds, the thickest first."""
    spelt = {tone.midi: tone for tone in event.tones}
    for string, fret in _places(event):
        midi = reading.instrument.fretted(string, fret)
        yield string, fret, spelt.get(midi) or usually_spelt(midi)


def _places(event: Event) -> list[tuple[int, int]]:
    if event.how.plucks:
        return [(pluck.string, pluck.fret) for pluck in event.how.plucks]
    if event.touch and event.touch.string is not None and event.touch.fret is not None:
        return [(event.touch.string, event.touch.fret)]
    return list(event.chord.shape.sounding) if event.chord and event.chord.shape and not event.pitch else []
