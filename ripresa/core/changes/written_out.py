"""Written out: a run, a sequence, an arpeggio or a count as the line of its notes, to be changed by hand."""

from dataclasses import replace

from ripresa.core.changes.pressing import bare_of
from ripresa.core.drill import Drill
from ripresa.core.drill.hands import NoHands
from ripresa.core.drill.material import Cells, Count, Line, LineNote, own_rhythm, write_line
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction
from ripresa.core.reading import read, sounding_of

MOST_NOTES = 1_000


def as_line(drill: Drill) -> Drill:
    """Return a drill whose material is the line of its first leg, note by note; the same where it is a line already.

    What brings a rhythm of its own is a line in its own rhythm, with its accents; silences stay.

    Raises:
        OutOfRange: Its material is more than one line: chords, strings, long notes.
    """
    material = drill.material
    if isinstance(material, Line):
        return drill
    if own_rhythm(material) and not isinstance(material, Count | Cells):
        raise OutOfRange(
            "This is done with notes one after the other. Choose a scale, a sequence, an arpeggio, a count or a line.",
            field="material",
        )
    # What is left out, or enters later, is written all the same.
    whole = replace(bare_of(drill), voicing="as_written", register=0, folded=False)
    bare = replace(whole, legs=drill.legs[:1], hands=NoHands())
    reading = read(bare)
    if len(reading.notes) > MOST_NOTES:
        raise OutOfRange(f"Up to {MOST_NOTES:,} notes are written out, not {len(reading.notes):,}.", field="material")
    tonic = getattr(material, "tonic", "C")
    if own_rhythm(material):
        text = write_line(_in_beats(bare))
        return replace(drill, material=Line(text=text, tonic=tonic, rhythm="own"))
    leg = reading.legs[0]
    notes = [LineNote(event.pitch) for event in reading.notes[: leg.pass_notes + leg.plays_closing]]
    return replace(drill, material=Line(text=write_line(notes), tonic=tonic))


def _in_beats(drill: Drill) -> list[LineNote]:
    """Return the notes and silences of a rhythm with their lengths in beats, what is held added."""
    events = read(drill).events
    notes: list[LineNote] = []
    lengths = {id(event): length for event, length in sounding_of(events)}
    silent = Fraction(0)
    sounds = False
    for event in events:
        if event.kind == "note":
            notes += [LineNote(None, silent, silent=True)] * (silent > 0)
            silent, sounds = Fraction(0), True
            notes.append(LineNote(event.pitch, lengths[id(event)], event.accent))
        elif event.kind != "hold" or not sounds:
            silent, sounds = silent + event.length, False
    return notes + [LineNote(None, silent, silent=True)] * (silent > 0)
