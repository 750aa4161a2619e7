"""A MIDI file as a take: what was struck, in seconds from its start; and a take as a MIDI file."""

from collections import defaultdict, deque
from collections.abc import Sequence
from io import BytesIO

import mido

from ripresa.core.errors import Unreadable
from ripresa.core.takes import HeardNote
from ripresa.formats.bounds import MOST_METERS, check_notes
from ripresa.formats.smf import read_song

#: Standard MIDI Files 1.0: without a tempo event a quarter lasts half a second.
_USUAL_TEMPO = 500_000
# Meta events, and the messages that begin and end a note (MIDI 1.0).
_NOTE_OFF, _NOTE_ON, _META, _SET_TEMPO = 0x80, 0x90, 0xFF, 0x51
_LONGEST_SECONDS = 7_200
#: What a take is written with: a thousand ticks a second.
_TICKS_A_QUARTER, _USUAL_VELOCITY, _PAD, _SHORT = 500, 80, 76, 0.05


def midi_take(data: bytes) -> tuple[HeardNote, ...]:
    """Return the notes of a MIDI file in order, all tracks and channels together; pedals are ignored.

    Raises:
        Unreadable: It is not a MIDI file, counts time in frames, has no notes, too many, or lasts too long.
    """
    song = read_song(data)
    tempi: list[tuple[int, int]] = [(0, _USUAL_TEMPO)]
    struck: list[tuple[int, int | None, int, int]] = []
    for _, events in song.events():
        waiting = defaultdict[tuple[int, int], deque[int]](deque)
        for event in events:
            if event.kind == _META and event.first == _SET_TEMPO and len(event.data) == 3:
                tempi.append((event.tick, max(1, int.from_bytes(event.data))))
                if len(tempi) > MOST_METERS:
                    raise Unreadable(f"This file changes its tempo more than {MOST_METERS:,} times.", field="file")
            elif event.kind == _NOTE_ON and event.second:
                waiting[event.channel, event.first].append(len(struck))
                struck.append((event.tick, None, event.first, event.second))
                check_notes(len(struck))
            elif event.kind in {_NOTE_ON, _NOTE_OFF} and waiting[event.channel, event.first]:
                index = waiting[event.channel, event.first].popleft()
                struck[index] = (struck[index][0], event.tick, *struck[index][2:])
    if not struck:
        raise Unreadable("This MIDI file has no notes.", field="file")
    seconds = _Clock(sorted(tempi), song.ticks_a_quarter)
    if seconds.at(max(tick for tick, *_ in struck)) > _LONGEST_SECONDS:
        raise Unreadable("This MIDI file lasts longer than two hours. Save a part of it.", field="file")
    found = [
        HeardNote(seconds.at(on), None, midi, float(velocity), None if off is None else seconds.at(off))
        for on, off, midi, velocity in struck
    ]
    return tuple(sorted(found, key=lambda note: note.at))


def write_midi_take(notes: Sequence[HeardNote]) -> bytes:
    """Return a take as a MIDI file, to a thousandth of a second; what has no pitch is struck on one pad a key."""
    pads = {key: _PAD + number for number, key in enumerate(dict.fromkeys(note.key for note in notes))}
    first = min(0.0, *(note.at for note in notes), 0.0)
    moments: list[tuple[int, int, int, int]] = []
    for note in notes:
        midi = pads[note.key] if note.pitch is None else note.pitch
        velocity = round(note.level) if note.level is not None and 1 <= note.level <= 127 else _USUAL_VELOCITY
        begin = round((note.at - first) * 1000)
        end = max(begin + 1, round(((note.until if note.until is not None else note.at + _SHORT) - first) * 1000))
        moments += [(begin, 1, midi, velocity), (end, 0, midi, 0)]
    track = mido.MidiTrack([mido.MetaMessage("set_tempo", tempo=_USUAL_TEMPO)])
    before = 0
    for tick, kind, midi, velocity in sorted(moments):
        name = "note_on" if kind else "note_off"
        track.append(mido.Message(name, note=midi, velocity=velocity, time=tick - before))
        before = tick
    target = BytesIO()
    mido.MidiFile(type=0, ticks_per_beat=_TICKS_A_QUARTER, tracks=[track]).save(file=target)
    return target.getvalue()


class _Clock:
    """Ticks as seconds, over changes of tempo."""

    def __init__(self, tempi: Sequence[tuple[int, int]], ticks_a_quarter: int) -> None:
        self._quarter = ticks_a_quarter
        self._known: list[tuple[int, float, int]] = []
        for tick, tempo in tempi:
            self._known.append((tick, self.at(tick) if self._known else 0.0, tempo))

    def at(self, tick: int) -> float:
        """Return the second of a tick."""
        begin, second, tempo = next(one for one in reversed(self._known) if one[0] <= tick)
        return second + (tick - begin) * tempo / 1e6 / self._quarter
