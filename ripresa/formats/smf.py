"""Standard MIDI Files, event by event: as much of them as a part needs, every number bounded before it is used.

Our own, and not the library that writes them: that one reads byte by byte, takes a number of any length for a time,
and needs most of a minute for a file of five megabytes (docs/decisions/0011-hostile-files.md).
"""

from collections.abc import Iterator
from typing import NamedTuple

from ripresa.core.errors import Unreadable

MOST_EVENTS = 250_000
MOST_TRACKS = 200
#: Ticks from the start to the last event: at 480 a quarter more than 500,000 quarters.
_FARTHEST = 1 << 28
#: Data bytes behind each kind of channel message (MIDI 1.0, Channel Voice Messages), by its upper four bits.
_DATA_BYTES = {0x8: 2, 0x9: 2, 0xA: 2, 0xB: 2, 0xC: 1, 0xD: 1, 0xE: 2}
_META, _SYSEX, _ESCAPE = 0xFF, 0xF0, 0xF7
_END_OF_TRACK = 0x2F
#: A number of variable length has up to four bytes (Standard MIDI Files 1.0).
_LONGEST_NUMBER = 4


class Event(NamedTuple):
    """What a track says at a tick.

    Args:
        kind: 0x80 to 0xE0 for a channel message; 0xFF for meta, whose type is then ``first``.
        first, second: Its data bytes, 0 where there is none.
        data: What a meta event holds.
    """

    tick: int
    kind: int
    channel: int
    first: int
    second: int
    data: bytes = b""


class Song(NamedTuple):
    """The division of a file (ticks a quarter) and the bytes of its tracks."""

    ticks_a_quarter: int
    tracks: tuple[bytes, ...]

    def events(self) -> Iterator[tuple[int, Iterator[Event]]]:
        """Yield the number of each track, from 1, with its events.

        Raises:
            Unreadable: A track breaks off or holds what is none, or there are too many events.
        """
        left = [MOST_EVENTS]
        for number, track in enumerate(self.tracks, start=1):
            yield number, _events(track, left)


def read_song(data: bytes) -> Song:
    """Return the tracks of a Standard MIDI File.

    Raises:
        Unreadable: It is none, counts time in frames, or has too many tracks.
    """
    if len(data) < 14 or data[:4] != b"MThd":
        raise broken()
    length, division = int.from_bytes(data[4:8]), int.from_bytes(data[12:14])
    if not 0 < division <= 0x7FFF:
        raise Unreadable("This MIDI file counts frames, not beats. Save it with ticks a quarter.", field="file")
    at, tracks = 8 + length, []
    while at + 8 <= len(data):
        size = int.from_bytes(data[at + 4 : at + 8])
        # Other chunks are passed over (Standard MIDI Files 1.0, Chunks).
        if data[at : at + 4] == b"MTrk":
            tracks.append(data[at + 8 : at + 8 + size])
        if len(tracks) > MOST_TRACKS:
            raise Unreadable(f"This MIDI file has more than {MOST_TRACKS} tracks. Save a part of it.", field="file")
        at += 8 + size
    return Song(division, tuple(tracks))


def broken() -> Unreadable:
    """Return the refusal of a file that cannot be read."""
    return Unreadable("This is not a MIDI file that can be read. Save it again as type 0 or 1.", field="file")


def _events(track: bytes, left: list[int]) -> Iterator[Event]:
    at, tick, running = 0, 0, 0
    try:
        while at < len(track):
            left[0] -= 1
            if left[0] < 0:
                raise Unreadable(
                    f"This MIDI file has more than {MOST_EVENTS:,} events. Save a part of it.", field="file"
                )
            delta, at = _number(track, at)
            tick += delta
            if tick > _FARTHEST:
                raise Unreadable("A note of this MIDI file lies too far from its start to be read.", field="file")
            status = track[at]
            if status in {_META, _SYSEX, _ESCAPE}:
                kind = track[at + 1] if status == _META else 0
                size, begin = _number(track, at + (2 if status == _META else 1))
                at = begin + size
                if at > len(track):
                    raise broken()
                if status == _META:
                    yield Event(tick, _META, 0, kind, 0, track[begin:at])
                    if kind == _END_OF_TRACK:
                        return
                continue
            if status >= 0x80:
                running, at = status, at + 1
            needed = _DATA_BYTES.get(running >> 4)
            if needed is None:
                raise broken()
            first, second = track[at], track[at + 1] if needed == 2 else 0
            if first > 0x7F or second > 0x7F:
                raise broken()
            at += needed
            yield Event(tick, running & 0xF0, running & 0x0F, first, second)
    except IndexError as error:
        raise broken() from error


def _number(track: bytes, at: int) -> tuple[int, int]:
    """Return a number of variable length, and where it ends."""
    found = 0
    for _ in range(_LONGEST_NUMBER):
        byte = track[at]
        at += 1
        found = found << 7 | byte & 0x7F
        if byte < 0x80:
            return found, at
    raise broken()
