"""Files that nobody wrote by hand: each was met, or is what one would send to bring a reader down."""

import io
import zipfile
from collections.abc import Iterable


def midi(*tracks: bytes, division: int = 480) -> bytes:
    """Return a MIDI file of tracks of raw events."""
    head = b"MThd" + (6).to_bytes(4) + (1).to_bytes(2) + len(tracks).to_bytes(2) + division.to_bytes(2)
    return head + b"".join(b"MTrk" + len(track).to_bytes(4) + track for track in tracks)


def meta(kind: int, data: bytes, delta: bytes = b"\0") -> bytes:
    return delta + bytes([0xFF, kind, len(data)]) + data


NOTE = b"\x00\x90\x3c\x40\x60\x80\x3c\x40"


def score(*measures: str) -> bytes:
    """Return a MusicXML score of one part."""
    bars = "".join(f'<measure number="{n}">{one}</measure>' for n, one in enumerate(measures, start=1))
    return f'<score-partwise><part id="P1">{bars}</part></score-partwise>'.encode()


def note(length: str = "1", step: str = "C", octave: str = "4", more: str = "") -> str:
    pitch = f"<pitch><step>{step}</step><octave>{octave}</octave></pitch>"
    return f"<note>{pitch}<duration>{length}</duration>{more}</note>"


def time(above: str, below: str) -> str:
    return f"<attributes><time><beats>{above}</beats><beat-type>{below}</beat-type></time></attributes>"


def divisions(text: str) -> str:
    return f"<attributes><divisions>{text}</divisions></attributes>"


def packed(name: str, data: bytes) -> bytes:
    target = io.BytesIO()
    with zipfile.ZipFile(target, "w", zipfile.ZIP_DEFLATED) as file:
        file.writestr(name, data)
    return target.getvalue()


def _damaged(data: bytes) -> bytes:
    """Return an archive whose contents were turned over, its directory whole."""
    start = data.index(b"score.xml") + len("score.xml")
    return data[:start] + bytes(byte ^ 0x5A for byte in data[start : start + 40]) + data[start + 40 :]


def _long_lines() -> Iterable[str]:
    # A prime of divisions for each bar: their common measure has thousands of digits.
    primes = [n for n in range(1000, 9000) if all(n % d for d in range(2, int(n**0.5) + 1))]
    return (divisions(str(prime)) + note() for prime in primes)


#: Name → file, and what its refusal says.
HOSTILE: dict[str, tuple[bytes, str]] = {
    "MIDI in 0/4": (midi(meta(0x58, bytes([0, 2, 24, 8])) + NOTE), "the meter 0/4"),
    "MIDI in 4/2³⁰": (midi(meta(0x58, bytes([4, 30, 24, 8])) + NOTE), "cannot be read. A bar has"),
    "a note 2²⁸ ticks away": (midi(b"\xff\xff\xff\x7f\x90\x3c\x40" + NOTE), "too far from its start"),
    "a note behind the last bar": (midi(b"\xbf\xff\xff\x7f\x90\x3c\x40\x60\x80\x3c\x40", division=1), "5,000 bars"),
    "a time of endless length": (midi(b"\x80" * 200_000 + NOTE), "not a MIDI file that can be read"),
    "4.9 MB of notes": (midi(NOTE + b"\x00\x3c\x40\x00\x3c\x00" * 800_000), "more than 250,000 events"),
    "4.9 MB of other events": (midi(b"\x00\xb0\x07\x40" * 1_200_000), "more than 250,000 events"),
    "thousands of meters": (midi(meta(0x58, b"\x04\x02\x18\x08", b"\x01") * 4000 + NOTE), "changes its meter"),
    "thousands of tracks": (midi(*[NOTE] * 5000), "more than 200 tracks"),
    "frames": (midi(NOTE, division=0xE728), "counts frames"),
    "a track that breaks off": (midi(NOTE[:-1] + b"\xff"), "not a MIDI file that can be read"),
    "a status that is none": (midi(b"\x00\xf4\x00"), "not a MIDI file that can be read"),
    "divisions of 1e10000000": (score(divisions("1e10000000") + note()), "not a number that can be read"),
    "a duration without bound": (score(note("9" * 400)), "not a number that can be read"),
    "a duration of years": (score(note("999999999"), note()), "5,000 bars"),
    "an octave of ²": (score(note(octave="²")), "the pitch “C²”"),
    "5,000 digits of octave": (score(note(octave="4" * 5000)), "the pitch “C44444”"),
    "an infinite alteration": (score(note().replace("<octave>", "<alter>1e999</alter><octave>")), "not a number"),
    "bars without a common measure": (score(*_long_lines()), "too many ways"),
    "60,000 notes": (score(note() * 60_000), "more than 50,000 notes"),
    "millions of tags": (score("<a/>" * 1_600_000), "too large to be read at once"),
    "an unknown encoding": (b'<?xml version="1.0" encoding="klingon"?>' + score(note()), "not MusicXML"),
    "an encoding of several bytes": (b'<?xml version="1.0" encoding="utf-7"?>' + score(note()), "not MusicXML"),
    "entities that grow": (b'<!DOCTYPE a [<!ENTITY b "bbbb">]><score-partwise>&b;</score-partwise>', "not MusicXML"),
    "an archive whose contents are damaged": (_damaged(packed("score.xml", score(note()))), "cannot be opened"),
    "an archive that breaks off": (packed("score.xml", score(note()))[:60], "cannot be opened"),
    "an archive of 30 MB": (packed("score.xml", b" " * 30_000_000), "over 20 MB unpacked"),
    "an archive without a score": (packed("a.txt", b""), "holds no score"),
}
#: Name → file whose meter cannot be read, which is told; its notes are no worse for it.
ODD_METERS: dict[str, tuple[bytes, str]] = {
    "a beat-type of 2³⁰": (score(time("4", str(2**30)) + note()), "The meter 4/1073741824"[:20]),
    "a beat of ²": (score(time("²", "4") + note()), "The meter ²/4 in bar 1"),
    "5,000 digits of beats": (score(time("4" * 5000, "4") + note()), "The meter 4444444444/4"),
    "no beats at all": (score(time("0", "4") + note()), "The meter 0/4"),
    "a sum without end": (score(time("+".join("1" * 5000), "4") + note()), "The meter 1+1+1"),
}
