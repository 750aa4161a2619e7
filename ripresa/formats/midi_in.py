"""MIDI read: the parts of a Standard MIDI File, one for each channel of each track that has notes."""

from collections import defaultdict, deque
from collections.abc import Iterator, Sequence
from dataclasses import replace
from itertools import pairwise
from statistics import median

from ripresa.core.errors import Unreadable
from ripresa.core.exact import Fraction
from ripresa.core.pitch import usually_spelt
from ripresa.formats.bounds import check_end, check_meter, check_notes, check_parts
from ripresa.formats.parts import Part, Sounded, later_tempi
from ripresa.formats.smf import read_song

_PERCUSSION = 9
#: Standard MIDI Files 1.0: without a tempo event a quarter lasts half a second.
_USUAL_TEMPO = 500_000
#: How far above the middle velocity of its part a note counts as accented: our choice.
_LOUDER = 16
# Standard MIDI Files 1.0: meta events, and the messages that begin and end a note.
_NOTE_OFF, _NOTE_ON, _META = 0x80, 0x90, 0xFF
_TRACK_NAME, _SET_TEMPO, _TIME_SIGNATURE = 0x03, 0x51, 0x58

_LONGEST_NAME = 100
#: Onset, length (ticks), MIDI note, velocity.
_Struck = tuple[int, int, int, int]


def read_midi(data: bytes) -> tuple[Part, ...]:
    """Return the parts of a MIDI file that have notes.

    Raises:
        Unreadable: It is not a MIDI file, counts time in frames, has no notes, or more of them, of parts or of
            meters than can be read.
    """
    song = read_song(data)
    meters: dict[int, tuple[int, int]] = {0: (4, 4)}
    tempi: dict[int, int] = {}
    found: list[tuple[str, int, list[_Struck]]] = []
    notes = 0
    for number, events in song.events():
        name, by_channel = f"Track {number}", defaultdict[int, list[_Struck]](list)
        waiting = defaultdict[tuple[int, int], deque[tuple[int, int]]](deque)
        for event in events:
            if event.kind == _META:
                if event.first == _TRACK_NAME:
                    name = _text(event.data).strip()[:_LONGEST_NAME] or name
                elif event.first == _TIME_SIGNATURE and len(event.data) >= 2:
                    meters[event.tick] = check_meter(event.data[0], 1 << min(event.data[1], 16), len(meters))
                elif event.first == _SET_TEMPO and len(event.data) == 3:
                    tempi[event.tick] = int.from_bytes(event.data)
            elif event.kind == _NOTE_ON and event.second:
                waiting[event.channel, event.first].append((event.tick, event.second))
            elif event.kind in {_NOTE_ON, _NOTE_OFF}:
                begun = waiting.get((event.channel, event.first))
                if begun:
                    onset, velocity = begun.popleft()
                    by_channel[event.channel].append((onset, event.tick - onset, event.first, velocity))
                    notes += 1
                    check_notes(notes)
        found += [(name, channel, struck) for channel, struck in sorted(by_channel.items())]
        check_parts(len(found))
    if not found:
        raise Unreadable("This MIDI file has no notes.", field="file")
    quarter = song.ticks_a_quarter
    signatures = tuple((Fraction(tick, quarter), *signature) for tick, signature in sorted(meters.items()))
    check_end(Fraction(max(onset for *_, struck in found for onset, *_ in struck), quarter), signatures)
    in_order = [one for _, one in sorted(tempi.items())]
    tempo = next(iter(in_order), 0)
    told = list(_of_tempi(in_order, min(tempi, default=0)))
    return tuple(
        Part(
            f"{name} (percussion)" if channel == _PERCUSSION and "percussion" not in name.lower() else name,
            _accented(struck, quarter, channel),
            signatures,
            Fraction(60_000_000, tempo or _USUAL_TEMPO),
            tuple(told),
        )
        for name, channel, struck in found
    )


def _text(data: bytes) -> str:
    """Return a text of a file: UTF-8, as most programs write it today, or Latin-1, as the standard says."""
    try:
        return data.decode("utf-8")
    except UnicodeDecodeError:
        return data.decode("latin-1")


def _of_tempi(tempi: Sequence[int], first: int) -> Iterator[str]:
    """Yield what of the tempi of a file a drill cannot take."""
    if first:
        yield "Its first tempo does not stand at its beginning; it is taken from there."
    later = sum(before != after for before, after in pairwise(tempi))
    if later:
        yield later_tempi(later)


def _accented(struck: list[_Struck], quarter: int, channel: int) -> tuple[Sounded, ...]:
    """Return notes in order, those accented that are clearly louder than most."""
    usual = median(velocity for *_, velocity in struck)
    return tuple(
        replace(
            _sounded(Fraction(onset, quarter), Fraction(length, quarter), note, channel),
            accent="accent" if velocity >= usual + _LOUDER else "plain",
        )
        for onset, length, note, velocity in sorted(struck, key=lambda one: one[0])
    )


def _sounded(onset: Fraction, length: Fraction, note: int, channel: int) -> Sounded:
    # Notes that end as they begin still sound: they last to the next.
    return Sounded(onset, length or Fraction(1, 96), None if channel == _PERCUSSION else usually_spelt(note))
