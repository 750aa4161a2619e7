"""Voicing: in which register each slot lies by how loud it is, on identical onsets."""

from collections.abc import Sequence
from dataclasses import replace
from typing import Literal

from ripresa.core.grid import Event, altered
from ripresa.core.pitch import ChordSound, Instrument, Pitch
from ripresa.core.rhythm import Level

Voicing = Literal["as_written", "low_soft", "high_soft"]

VOICINGS: dict[Voicing, tuple[str, str]] = {
    "as_written": ("as it is written", "Each note where it lies."),
    "low_soft": ("low for soft, high for loud", "The ear hears the accents as a line of their own above the rest."),
    "high_soft": ("high for soft, low for loud", "The accents ground it: a bass line under the rest."),
}
#: Octaves by which a level is moved; a plain note stays.
_MOVES: dict[Voicing, dict[Level, int]] = {
    "as_written": {},
    "low_soft": {"ghost": -1, "accent": 1},
    "high_soft": {"ghost": 1, "accent": -1},
}
#: Tones of a chord that a soft or a loud stroke keeps, from the side on which it lies: our choice.
_TONES = 3


def voiced_by_level(events: Sequence[Event], voicing: Voicing, instrument: Instrument) -> tuple[Event, ...]:
    """Return events with their notes in the register of their loudness; a chord keeps its low or its high strings.

    Where no ghost is written, plain notes are the soft ones. What would leave the instrument stays where it is.
    """
    if voicing == "as_written":
        return tuple(events)
    levels = {event.accent for event in events if event.kind == "note"}
    moves = _MOVES[voicing]
    if "ghost" not in levels:
        moves = {**moves, "plain": moves["ghost"]}
    return tuple(_moved(event, moves.get(event.accent, 0), instrument) for event in events)


def _moved(event: Event, octaves: int, instrument: Instrument) -> Event:
    if event.kind != "note" or not octaves:
        return event
    if any(pluck.finger for pluck in event.how.plucks):
        # A picked pattern says its strings itself.
        return event
    if event.chord and event.chord.tones:
        return _part(event, event.chord, octaves, instrument)
    if event.pitch is None or not instrument.holds(event.pitch.midi):
        return event
    moved = Pitch(event.pitch.letter, event.pitch.alter, event.pitch.octave + octaves)
    # String and fret were worked out for the note as it was written.
    return altered(event, pitch=moved, touch=None) if instrument.holds(moved.midi) else event


def _part(event: Event, chord: ChordSound, octaves: int, instrument: Instrument) -> Event:
    """Return a stroke over a few strings, the thick or the thin ones; of a few tones where there are no strings."""
    low = octaves < 0
    plucks = event.how.plucks[:_TONES] if low else event.how.plucks[-_TONES:]
    if plucks:
        heard = {instrument.fretted(pluck.string, pluck.fret) for pluck in plucks}
        tones = tuple(tone for tone in chord.tones if tone.midi in heard)
        return altered(event, chord=replace(chord, tones=tones), how=replace(event.how, plucks=plucks))
    ordered = sorted(chord.tones, key=lambda pitch: pitch.midi)
    return altered(event, chord=replace(chord, tones=tuple(ordered[:_TONES] if low else ordered[-_TONES:])))
