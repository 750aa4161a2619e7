"""MIDI: a reading at a tempo as a Standard MIDI File.

10080 ticks to the quarter make divisions 1 to 9 exact for every beat in use
(it is 2⁵ · 3² · 5 · 7). Where that is not enough they are made for the drill, up
to the 32767 that a file can say; where no number is, onsets are drawn to the
nearest tick and the file says so. The tempo event holds whole microseconds a
quarter (Standard MIDI Files 1.0, Set Tempo), so the file's tempo may be off by
less than one part in 100,000. Where notes end, and where a click falls, is the
nearest tick, off by less than a tenth of a millisecond at 60.
"""

import io
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from math import lcm, sqrt

import mido

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction, label, round_half_up
from ripresa.core.grid import Event
from ripresa.core.playing import ROLL
from ripresa.core.reading import Reading, sounding_of
from ripresa.core.rhythm import check_bpm
from ripresa.formats.drums import SECOND, drum_of
from ripresa.formats.notation import key_of_reading, program_of

TICKS_A_QUARTER = 10080
#: A file says its ticks in 15 bits (Standard MIDI Files 1.0, division).
_MOST_TICKS = 0x7FFF
#: What the track of a hand is called.
_HAND_TRACKS = {"right": "right hand", "left": "left hand"}
_VELOCITY = {"accent": 120, "plain": 80, "ghost": 40}
_CLICK_VELOCITY = {"strong": 110, "plain": 80, "division": 50}
# General MIDI 1 percussion key map, on channel 10: high and low wood block, side stick.
_PERCUSSION = 9
_CLICK_NOTE = {"strong": 76, "plain": 77, "division": 77}
#: Microseconds a quarter that a tempo event holds: three bytes.
_SLOWEST_TEMPO = 0xFFFFFF
#: Quarters that a click or a stroke of the second layer lasts.
_SHORT = Fraction(1, 8)
#: Sharps or flats → the key as mido names it, major and minor.
_MAJOR = ("Cb", "Gb", "Db", "Ab", "Eb", "Bb", "F", "C", "G", "D", "A", "E", "B", "F#", "C#")
_MINOR = ("Abm", "Ebm", "Bbm", "Fm", "Cm", "Gm", "Dm", "Am", "Em", "Bm", "F#m", "C#m", "G#m", "D#m", "A#m")


def write_midi(reading: Reading, bpm: Fraction, *, with_click: bool = True) -> bytes:
    """Return a MIDI file of one turn of the loop: tempo, meter and key, notes, click.

    Raises:
        OutOfRange: A tempo that cannot be played, or a note that MIDI does not have.
    """
    check_bpm(bpm)
    ticks = _Ticks(reading)
    # The standard knows Latin-1 alone; what programs write and read today is UTF-8.
    file = mido.MidiFile(type=1, ticks_per_beat=ticks.quarter, charset="utf-8")
    file.tracks.append(_conductor(reading, bpm, ticks))
    end = ticks.at(reading.loop_beats)
    for channel, events in enumerate(reading.hands):
        name = _HAND_TRACKS.get(events[0].layer, "notes")
        track = _track(name, _note_messages(reading, bpm, events, channel, ticks), end)
        track.insert(1, mido.Message("program_change", channel=channel, program=program_of(reading) - 1, time=0))
        file.tracks.append(track)
    if reading.second:
        file.tracks.append(_track("second layer", _second_messages(reading, ticks), end))
    if with_click:
        file.tracks.append(_track("click", _click_messages(reading, ticks), end))
    target = io.BytesIO()
    file.save(file=target)
    return target.getvalue()


@dataclass(frozen=True)
class _Ticks:
    """How a reading is counted in ticks."""

    reading: Reading

    @cached_property
    def _needed(self) -> int:
        """The least ticks of a quarter with which every onset is exact."""
        quarters = {(event.onset * self._whole).denominator for event in self.reading.every}
        return lcm(*quarters, (self.reading.loop_beats * self._whole).denominator)

    @property
    def _whole(self) -> Fraction:
        return self.reading.meter.counted * 4

    @cached_property
    def quarter(self) -> int:
        """Ticks of a quarter: the usual ones, as many as the drill needs, or the most that a file can say."""
        if TICKS_A_QUARTER % self._needed == 0:
            return TICKS_A_QUARTER
        return _MOST_TICKS // self._needed * self._needed or _MOST_TICKS

    @property
    def is_exact(self) -> bool:
        """Whether every onset falls on a tick."""
        return self.quarter % self._needed == 0

    def at(self, beats: Fraction) -> int:
        """Return the tick nearest to a position; the one that equals it for onsets of all but the oddest drills."""
        return round_half_up(beats * self._whole * self.quarter)


def _sounding(fifths: int, reading: Reading) -> int:
    """Return the sharps of the key that is heard where one of so many is written: a semitone higher is seven more."""
    sounds = reading.instrument.sounds
    return (fifths + 7 * sounds + 5) % 12 - 5 if sounds % 12 else fifths


def _conductor(reading: Reading, bpm: Fraction, ticks: _Ticks) -> mido.MidiTrack:
    quarters_a_minute = bpm * reading.meter.counted * 4
    microseconds = round(60_000_000 / quarters_a_minute)
    if microseconds > _SLOWEST_TEMPO:
        raise OutOfRange(
            f"MIDI cannot hold {label(quarters_a_minute)} quarters a minute: 3.6 is the slowest. Take a faster tempo.",
            field="bpm",
        )
    track = mido.MidiTrack()
    track.append(mido.MetaMessage("track_name", name=reading.drill.title, time=0))
    if not ticks.is_exact:
        text = f"Onsets are drawn to the nearest of {ticks.quarter} ticks a quarter: no number of ticks holds them all."
        track.append(mido.MetaMessage("text", text=text, time=0))
    above, below = reading.meter.signature
    track.append(mido.MetaMessage("time_signature", numerator=above, denominator=below, time=0))
    key = key_of_reading(reading)
    names = _MINOR if key.mode == "minor" else _MAJOR
    track.append(mido.MetaMessage("key_signature", key=names[_sounding(key.fifths, reading) + 7], time=0))
    track.append(mido.MetaMessage("set_tempo", tempo=microseconds, time=0))
    at = 0
    for bar in range(2, reading.bar_count + 1):
        above, below = reading.meter.bar(bar).signature
        if (above, below) != reading.meter.bar(bar - 1).signature:
            tick = ticks.at(reading.meter.bar_start(bar))
            track.append(mido.MetaMessage("time_signature", numerator=above, denominator=below, time=tick - at))
            at = tick
    return track


def _note_messages(
    reading: Reading, bpm: Fraction, events: Sequence[Event], row: int, ticks: _Ticks
) -> list[tuple[int, mido.Message]]:
    """Return the notes of a row; each hand has a channel of its own, so that both may strike one key."""
    messages = []
    for event, length in sounding_of(events):
        start = ticks.at(event.onset)
        end = max(start + 1, ticks.at(event.onset + reading.lasts(event, length)))
        heard = reading.heard(event)
        channel = row if heard else _PERCUSSION
        # Loudness goes with the square of velocity.
        velocity = max(1, round(_VELOCITY[event.accent] * sqrt(reading.loudness(event))))
        apart = ticks.at(ROLL * bpm / 60) if event.how.rolled else 0
        for number, note in enumerate(heard or (drum_of(event).key,)):
            if not 0 <= note <= 127:
                raise OutOfRange(
                    "A note of this drill lies outside what MIDI can hold. Take fewer octaves.", field="material"
                )
            begin = min(start + number * apart, end - 1)
            messages.append((begin, _message("note_on", note, velocity, channel)))
            messages.append((end, _message("note_off", note, 0, channel)))
    return messages


def _second_messages(reading: Reading, ticks: _Ticks) -> list[tuple[int, mido.Message]]:
    messages = []
    for onset in reading.second:
        messages += _struck(ticks, onset, SECOND.key, _VELOCITY["plain"])
    return messages


def _click_messages(reading: Reading, ticks: _Ticks) -> list[tuple[int, mido.Message]]:
    messages = []
    for onset, level in reading.click_cycle.within(reading.loop_beats):
        messages += _struck(ticks, onset, _CLICK_NOTE[level], _CLICK_VELOCITY[level])
    return messages


def _struck(ticks: _Ticks, onset: Fraction, note: int, velocity: int) -> list[tuple[int, mido.Message]]:
    """Return one short stroke of a percussion sound."""
    start = ticks.at(onset)
    on = _message("note_on", note, velocity, _PERCUSSION)
    off = _message("note_off", note, 0, _PERCUSSION)
    return [(start, on), (start + round_half_up(_SHORT * ticks.quarter), off)]


def _message(kind: str, note: int, velocity: int, channel: int) -> mido.Message:
    # All of it is in range by now: to check it again is half of the time that a long drill takes.
    return mido.Message(kind, skip_checks=True, note=note, velocity=velocity, channel=channel)


def _track(name: str, messages: list[tuple[int, mido.Message]], end: int) -> mido.MidiTrack:
    track = mido.MidiTrack([mido.MetaMessage("track_name", name=name, time=0)])
    at = 0
    # At one tick a note ends before the next begins.
    for tick, message in sorted(messages, key=lambda pair: (pair[0], pair[1].type == "note_on")):
        track.append(message.copy(skip_checks=True, time=tick - at))
        at = tick
    track.append(mido.MetaMessage("end_of_track", time=max(0, end - at)))
    return track
