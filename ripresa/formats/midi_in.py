"""MIDI read: the parts of a Standard MIDI File, one for each channel of each track that has notes."""

import io
from dataclasses import replace
from fractions import Fraction
from statistics import median

import mido

from ripresa.core.errors import Unreadable
from ripresa.core.pitch import LETTERS, Pitch
from ripresa.formats.parts import Part, Sounded

MOST_NOTES = 200_000
_PERCUSSION = 9
#: The usual spelling of the twelve notes: MIDI does not say it.
_SPELT = ("C", "C#", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B")
#: Standard MIDI Files 1.0: without a tempo event a quarter lasts half a second.
_USUAL_TEMPO = 500_000
#: How far above the middle velocity of its part a note counts as accented: our choice.
_LOUDER = 16


def read_midi(data: bytes) -> tuple[Part, ...]:
    """Return the parts of a MIDI file that have notes.

    Raises:
        Unreadable: It is not a MIDI file, counts time in frames, or has no notes.
    """
    try:
        file = mido.MidiFile(file=io.BytesIO(data))
    except (OSError, EOFError, ValueError, KeyError, IndexError, TypeError) as error:
        raise Unreadable(
            "This is not a MIDI file that can be read. Save it again as type 0 or 1.", field="file"
        ) from error
    if file.ticks_per_beat <= 0 or file.ticks_per_beat > 0x7FFF:
        raise Unreadable("This MIDI file counts frames, not beats. Save it with ticks a quarter.", field="file")
    meters: dict[Fraction, tuple[int, int]] = {Fraction(0): (4, 4)}
    tempo: int | None = None
    found: list[tuple[str, int, list[tuple[Sounded, int]]]] = []
    for number, track in enumerate(file.tracks, start=1):
        name, by_channel = f"Track {number}", dict[int, list[tuple[Sounded, int]]]()
        waiting: dict[tuple[int, int], list[tuple[Fraction, int]]] = {}
        tick = 0
        for message in track:
            tick += message.time
            at = Fraction(tick, file.ticks_per_beat)
            match message.type:
                case "track_name" if message.name.strip():
                    name = message.name.strip()
                case "time_signature":
                    meters[at] = (message.numerator, message.denominator)
                case "set_tempo":
                    tempo = tempo or message.tempo
                case "note_on" if message.velocity:
                    waiting.setdefault((message.channel, message.note), []).append((at, message.velocity))
                case "note_on" | "note_off":
                    begun = waiting.get((message.channel, message.note))
                    if begun:
                        onset, velocity = begun.pop(0)
                        by_channel.setdefault(message.channel, []).append(
                            (_sounded(onset, at - onset, message.note, message.channel), velocity)
                        )
        found += [(name, channel, notes) for channel, notes in sorted(by_channel.items())]
    if not found:
        raise Unreadable("This MIDI file has no notes.", field="file")
    if sum(len(notes) for _, _, notes in found) > MOST_NOTES:
        raise Unreadable(f"This MIDI file has more than {MOST_NOTES:,} notes. Save a part of it.", field="file")
    signatures = tuple((at, *signature) for at, signature in sorted(meters.items()))
    return tuple(
        Part(
            f"{name} (percussion)" if channel == _PERCUSSION and "percussion" not in name.lower() else name,
            _accented(notes),
            signatures,
            Fraction(60_000_000, tempo or _USUAL_TEMPO),
        )
        for name, channel, notes in found
    )


def _accented(notes: list[tuple[Sounded, int]]) -> tuple[Sounded, ...]:
    """Return notes in order, those accented that are clearly louder than most."""
    usual = median(velocity for _, velocity in notes)
    return tuple(
        replace(note, accent="accent" if velocity >= usual + _LOUDER else "plain")
        for note, velocity in sorted(notes, key=lambda pair: pair[0].onset)
    )


def _sounded(onset: Fraction, length: Fraction, note: int, channel: int) -> Sounded:
    name = _SPELT[note % 12]
    pitch = Pitch(LETTERS.index(name[0]), {"#": 1, "b": -1}.get(name[1:], 0), note // 12 - 1)
    # Notes that end as they begin still sound: they last to the next.
    return Sounded(onset, length or Fraction(1, 96), None if channel == _PERCUSSION else pitch)
