"""Three readers of scores that others made: what each finds in a file, told alike: (onset, length, pitches)."""

import io
import warnings
from collections import defaultdict
from collections.abc import Iterator
from functools import cache
from importlib import import_module
from typing import Any

import verovio
from lxml import etree

from ripresa.core.exact import Fraction as F
from ripresa.core.grid import Event
from ripresa.core.reading import Reading, sounding_of
from ripresa.formats.drums import SECOND

#: Onset and length in quarters, and the written MIDI notes from the lowest; none without pitch.
Found = tuple[F, F, tuple[int, ...]]
#: What a reader that counts in floats is drawn to: far finer than any place of a drill.
_FINEST = 10_000


@cache
def library(name: str) -> Any:
    """Return one of the libraries that read: loaded by the first who asks, since that takes seconds."""
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        return import_module(name)


def due(reading: Reading) -> list[Found]:
    """Return what every reader has to find: the notes of both hands, each with what its holds add."""
    quarter = reading.meter.counted * 4
    return sorted(
        (event.onset * quarter, length * quarter, _keys(event))
        for row in reading.hands
        for event, length in sounding_of(row)
    )


def _keys(event: Event) -> tuple[int, ...]:
    return tuple(sorted({tone.midi for tone in event.tones}))


def by_music21(body: bytes, staves: int) -> list[Found]:
    """Return what music21 finds on the first staves of a file."""
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        score: Any = library("music21").converter.parseData(body.decode(), format="musicxml")
        found: list[Found] = []
        for part in list(score.parts)[:staves]:
            for one in part.flatten().notes:
                if isinstance(one, library("music21").harmony.ChordSymbol) or _is_second(one):
                    continue
                # Its own MIDI number is folded into the range of MIDI.
                keys = tuple(sorted({round(pitch.ps) for pitch in one.pitches}))
                start, length = F(one.offset), F(one.quarterLength)
                # Its own joining of ties leaves some chains of three in two.
                if one.tie and one.tie.type != "start":
                    start, before, _ = found.pop()
                    length += before
                found.append((start, length, keys))
    return sorted(found)


def _is_second(one: Any) -> bool:
    """Return whether it belongs to the second layer, whose drum alone stands on F."""
    return isinstance(one, library("music21").note.Unpitched) and one.displayStep == SECOND.step


def by_partitura(body: bytes, staves: int) -> list[Found]:
    """Return what partitura finds on the first staves of a file."""
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        score: Any = library("partitura").load_musicxml(io.BytesIO(body), force_note_ids="keep")
    (part,) = score.parts
    chords: dict[tuple[F, F, int], set[int]] = defaultdict(set)
    for one in part.iter_all(library("partitura").score.GenericNote, include_subclasses=True):
        is_rest = isinstance(one, library("partitura").score.Rest)
        if is_rest or one.tie_prev or (one.staff or 1) > staves or one.voice == 2:
            continue
        start, end = (F(float(part.quarter_map(at))).limit_denominator(_FINEST) for at in (one.start.t, one.end_tied.t))
        pitches = chords[start, end - start, one.staff or 1]
        if not isinstance(one, library("partitura").score.UnpitchedNote):
            pitches.add(one.midi_pitch)
    return sorted((start, length, tuple(sorted(keys))) for (start, length, _), keys in chords.items())


def by_verovio(body: bytes, staves: int) -> list[Found]:
    """Return what verovio finds in its map of times; what is rolled begins together there as well."""
    body = body.replace(b"<arpeggiate/>", b"")
    toolkit = verovio.toolkit()
    toolkit.setOptions({"breaks": "none"})
    assert toolkit.loadData(body.decode())
    events = toolkit.renderToTimemap({"includeRests": False})
    return sorted(_from_timemap(events, body, staves))


def _from_timemap(events: Any, body: bytes, staves: int) -> Iterator[Found]:
    written = {note.get("id"): note for note in etree.fromstring(body).iter("note") if note.get("id")}
    begun: dict[str, F] = {}
    #: By staff and pitch: where the note that was heard last began and ended.
    lasting: dict[tuple[str, int | None], tuple[F, F]] = {}
    chords: dict[tuple[str, F], dict[int | None, F]] = defaultdict(dict)
    for event in events:
        at = F(event["qstamp"]).limit_denominator(_FINEST)
        for name in event.get("off", ()):
            note = written.get(name)
            if note is None or name not in begun or int(note.findtext("staff") or 1) > staves:
                continue
            staff, key, begin = note.findtext("staff") or "1", _key_of(note), begun.pop(name)
            # Its map tells the parts of a tied note one by one.
            if note.xpath("tie[@type='stop']") and lasting.get((staff, key), (F(0), F(-1)))[1] == begin:
                begin = lasting[staff, key][0]
            lasting[staff, key] = begin, at
            chords[staff, begin][key] = at
        for name in event.get("on", ()):
            begun[name] = at
    for (_, begin), ends in chords.items():
        keys = tuple(sorted(key for key in ends if key is not None))
        yield begin, max(ends.values()) - begin, keys


def _key_of(note: Any) -> int | None:
    if note.find("pitch") is None:
        return None
    steps = dict(zip("CDEFGAB", (0, 2, 4, 5, 7, 9, 11), strict=True))
    octave = int(note.findtext("pitch/octave"))
    return 12 * (octave + 1) + steps[note.findtext("pitch/step")] + int(note.findtext("pitch/alter") or 0)
