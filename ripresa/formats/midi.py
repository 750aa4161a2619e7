"""MIDI: a reading at a tempo as a Standard MIDI File.

10080 ticks to the quarter make divisions 1 to 9 exact for every beat in use
(it is 2⁵ · 3² · 5 · 7). The tempo event holds whole microseconds a quarter
(Standard MIDI Files 1.0, Set Tempo), so the file's tempo may be off by less
than one part in 100,000; where notes begin, in beats, is exact. Where they
end, and where a click falls, is the nearest tick, off by less than a tenth of a
millisecond at 60.
"""

import io
from collections.abc import Sequence
from fractions import Fraction
from math import sqrt

import mido

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import label, round_half_up
from ripresa.core.grid import Event
from ripresa.core.playing import ROLL
from ripresa.core.reading import Reading, sounding_of
from ripresa.core.rhythm import check_bpm

TICKS_A_QUARTER = 10080
#: What the track of a hand is called.
_HAND_TRACKS = {"right": "right hand", "left": "left hand"}
_VELOCITY = {"accent": 120, "plain": 80, "ghost": 40}
_CLICK_VELOCITY = {"strong": 110, "plain": 80, "division": 50}
# General MIDI 1 percussion key map, on channel 10: high and low wood block, side stick.
_PERCUSSION = 9
_CLICK_NOTE = {"strong": 76, "plain": 77, "division": 77}
_UNPITCHED_NOTE = 37
#: Bass drum 1.
_SECOND_NOTE = 36
#: Microseconds a quarter that a tempo event holds: three bytes.
_SLOWEST_TEMPO = 0xFFFFFF
#: Ticks that a click or a stroke of the second layer lasts.
_SHORT = 1260


def write_midi(reading: Reading, bpm: Fraction, *, with_click: bool = True) -> bytes:
    """Return a MIDI file of one turn of the loop: tempo and meter, notes, click.

    Raises:
        OutOfRange: A tempo that cannot be played, or a division that ticks cannot hold exactly.
    """
    check_bpm(bpm)
    file = mido.MidiFile(type=1, ticks_per_beat=TICKS_A_QUARTER)
    file.tracks.append(_conductor(reading, bpm))
    for channel, events in enumerate(reading.hands):
        name = _HAND_TRACKS.get(events[0].layer, "notes")
        messages = _note_messages(reading, bpm, events, channel)
        file.tracks.append(_track(name, messages, _ticks(reading, reading.loop_beats)))
    if reading.second:
        file.tracks.append(_track("second layer", _second_messages(reading), _ticks(reading, reading.loop_beats)))
    if with_click:
        file.tracks.append(_track("click", _click_messages(reading), _ticks(reading, reading.loop_beats)))
    target = io.BytesIO()
    file.save(file=target)
    return target.getvalue()


def _ticks(reading: Reading, beats: Fraction) -> int:
    ticks = beats * reading.meter.counted * 4 * TICKS_A_QUARTER
    if ticks.denominator != 1:
        raise OutOfRange("This division, or its swing, cannot be written exactly in MIDI ticks.", field="legs")
    return int(ticks)


def _near(reading: Reading, beats: Fraction) -> int:
    """Return the tick nearest to a position: for the ends of notes and for clicks, which need not be exact."""
    return round_half_up(beats * reading.meter.counted * 4 * TICKS_A_QUARTER)


def _conductor(reading: Reading, bpm: Fraction) -> mido.MidiTrack:
    quarters_a_minute = bpm * reading.meter.counted * 4
    microseconds = round(60_000_000 / quarters_a_minute)
    if microseconds > _SLOWEST_TEMPO:
        raise OutOfRange(
            f"MIDI cannot hold {label(quarters_a_minute)} quarters a minute: 3.6 is the slowest. Take a faster tempo.",
            field="bpm",
        )
    track = mido.MidiTrack()
    # MIDI text is Latin-1; what it cannot hold is written as a question mark.
    title = reading.drill.title.encode("latin-1", "replace").decode("latin-1")
    track.append(mido.MetaMessage("track_name", name=title, time=0))
    above, below = reading.meter.signature
    track.append(mido.MetaMessage("time_signature", numerator=above, denominator=below, time=0))
    track.append(mido.MetaMessage("set_tempo", tempo=microseconds, time=0))
    at = 0
    for bar in range(2, reading.bar_count + 1):
        above, below = reading.meter.bar(bar).signature
        if (above, below) != reading.meter.bar(bar - 1).signature:
            tick = _near(reading, reading.meter.bar_start(bar))
            track.append(mido.MetaMessage("time_signature", numerator=above, denominator=below, time=tick - at))
            at = tick
    return track


def _note_messages(
    reading: Reading, bpm: Fraction, events: Sequence[Event], row: int
) -> list[tuple[int, mido.Message]]:
    """Return the notes of a row; each hand has a channel of its own, so that both may strike one key."""
    messages = []
    for event, length in sounding_of(events):
        start = _ticks(reading, event.onset)
        end = max(start + 1, _near(reading, event.onset + reading.lasts(event, length)))
        heard = reading.heard(event)
        channel = row if heard else _PERCUSSION
        # Loudness goes with the square of velocity.
        velocity = max(1, round(_VELOCITY[event.accent] * sqrt(reading.loudness(event))))
        apart = _near(reading, ROLL * bpm / 60) if event.how.rolled else 0
        for number, note in enumerate(heard or (_UNPITCHED_NOTE,)):
            if not 0 <= note <= 127:
                raise OutOfRange(
                    "A note of this drill lies outside what MIDI can hold. Take fewer octaves.", field="material"
                )
            begin = min(start + number * apart, end - 1)
            messages.append((begin, mido.Message("note_on", note=note, velocity=velocity, channel=channel)))
            messages.append((end, mido.Message("note_off", note=note, velocity=0, channel=channel)))
    return messages


def _second_messages(reading: Reading) -> list[tuple[int, mido.Message]]:
    messages = []
    for onset in reading.second:
        messages += _struck(_near(reading, onset), _SECOND_NOTE, _VELOCITY["plain"])
    return messages


def _click_messages(reading: Reading) -> list[tuple[int, mido.Message]]:
    messages = []
    for onset, level in reading.click_cycle.within(reading.loop_beats):
        messages += _struck(_near(reading, onset), _CLICK_NOTE[level], _CLICK_VELOCITY[level])
    return messages


def _struck(start: int, note: int, velocity: int) -> list[tuple[int, mido.Message]]:
    """Return one short stroke of a percussion sound, from its tick on."""
    on = mido.Message("note_on", note=note, velocity=velocity, channel=_PERCUSSION)
    off = mido.Message("note_off", note=note, velocity=0, channel=_PERCUSSION)
    return [(start, on), (start + _SHORT, off)]


def _track(name: str, messages: list[tuple[int, mido.Message]], end: int) -> mido.MidiTrack:
    track = mido.MidiTrack([mido.MetaMessage("track_name", name=name, time=0)])
    at = 0
    # At one tick a note ends before the next begins.
    for tick, message in sorted(messages, key=lambda pair: (pair[0], pair[1].type == "note_on")):
        track.append(message.copy(time=tick - at))
        at = tick
    track.append(mido.MetaMessage("end_of_track", time=max(0, end - at)))
    return track
