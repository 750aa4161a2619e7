"""The commands of takes: judge, play, listen."""

import argparse
import json
import sys
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from ripresa.cli.files import amount, bytes_of, show, write
from ripresa.core.drill import Drill
from ripresa.core.errors import NotFound, OutOfRange, RipresaError, Unreadable
from ripresa.core.exact import Fraction
from ripresa.core.listening import PROFILES, listen
from ripresa.core.playing import most_due
from ripresa.core.reading import read
from ripresa.core.rhythm import check_bpm, span_seconds
from ripresa.core.takes import (
    EVENNESS,
    FAULTS,
    MOST_MEASURED,
    STAND_INS,
    HeardNote,
    Limits,
    changed_player,
    delayed,
    due_notes,
    heard_in,
    judge_file,
    parse_faults,
    play,
    shortest_gap,
    usual_sound,
)
from ripresa.formats.drill_file import read_drill
from ripresa.formats.judged_json import judged_values, unmeasured_values
from ripresa.formats.listened_json import listened_values
from ripresa.formats.midi_take import midi_take, write_midi_take
from ripresa.formats.recording import recorded
from ripresa.formats.sound_in import read_sound
from ripresa.formats.take_file import LatencyLine, check_passes, judged_take, takes_of, write_take


def add_take_commands(commands: Any) -> None:
    """Add the commands to a parser."""
    judging = commands.add_parser("judge", help="judge takes of a drill: a take file, a recording, or a MIDI file")
    judging.add_argument("drill", help="a drill file, or - for standard input")
    takes = judging.add_mutually_exclusive_group(required=True)
    takes.add_argument("--takes", help="a take file, a line of JSON each, or - for standard input")
    takes.add_argument("--recording", help="a recording: WAV, FLAC, Ogg or MP3")
    takes.add_argument("--midi", help="a Standard MIDI File, or - for standard input")
    judging.add_argument("--bpm", type=amount, help="of a file: its tempo; the drill’s own if left out")
    judging.add_argument("--as", dest="sounds_as", choices=tuple(PROFILES), help="of a recording: how its notes begin")
    judging.add_argument("--evenness", choices=tuple(EVENNESS), default="working", help="of a file: what it is held to")
    judging.set_defaults(run=_judge)

    hearing = commands.add_parser("listen", help="print the onsets of a recording as JSON")
    hearing.add_argument("recording", help="WAV, FLAC, Ogg or MP3, or - for standard input")
    hearing.add_argument("--as", dest="sounds_as", choices=tuple(PROFILES), default="plucked", help="how notes begin")
    hearing.add_argument("--gap", type=float, help="the shortest time between notes, in seconds, where it is known")
    hearing.set_defaults(run=_listen)

    playing = commands.add_parser("play", help="print a take of the stand-in player, as a line of a take file")
    playing.add_argument("drill", help="a drill file, or - for standard input")
    playing.add_argument("--player", choices=tuple(STAND_INS), default="steady")
    playing.add_argument("--seed", type=int, default=1)
    playing.add_argument("--bpm", type=amount, help="tempo; the drill’s own if left out")
    playing.add_argument("--passes", type=int, default=2)
    playing.add_argument("--bias", type=float, help="ms by which all is late, early below 0")
    playing.add_argument("--faults", default="", metavar="NAME=NUMBER,…", help=", ".join(FAULTS))
    playing.add_argument("--latency", type=float, default=0.0, help="ms that the device adds, and is known to add")
    playing.add_argument("--unknown-latency", action="store_true", help="do not say what the device adds")
    playing.add_argument("--evenness", choices=tuple(EVENNESS), default="working")
    playing.add_argument("--recording", type=Path, metavar="TAKE.wav", help="write it as a recording, too")
    playing.add_argument("--midi", type=Path, metavar="TAKE.mid", help="write it as a MIDI file, too")
    playing.set_defaults(run=_play)


def _drill(name: str) -> Drill:
    return read_drill(bytes_of(name))


def _judge(chosen: argparse.Namespace) -> None:
    if chosen.drill == "-" and "-" in {chosen.takes, chosen.midi}:
        raise OutOfRange("Only one of the two can come from standard input.")
    drill = _drill(chosen.drill)
    if chosen.takes is None:
        _judge_file(drill, chosen)
        return
    reading = read(drill)
    bad: list[int] = []
    with _lines(chosen.takes) as lines:
        for number, take in takes_of(lines):
            try:
                if isinstance(take, RipresaError):
                    raise take
                due, judged, unmeasured = judged_take(reading, take)
                values = judged_values(due, judged, take.limits) if judged else unmeasured_values(unmeasured)
            except RipresaError as error:
                bad.append(number)
                values = {"line": number, "error": error.message, "field": error.field}
            print(json.dumps(values, ensure_ascii=False), flush=True)
    if bad:
        raise Unreadable(f"Line {', '.join(map(str, bad[:10]))} could not be judged; the answer says why.")


def _judge_file(drill: Drill, chosen: argparse.Namespace) -> None:
    reading = read(drill)
    bpm = check_bpm(chosen.bpm if chosen.bpm is not None else drill.bpm)
    limits = Limits(chosen.evenness)
    notes: Sequence[HeardNote]
    if chosen.midi is not None:
        notes = midi_take(bytes_of(chosen.midi))
    else:
        sounds_as = chosen.sounds_as or usual_sound(reading)
        sound = read_sound(Path(chosen.recording))
        notes = heard_in(listen(sound, sounds_as, shortest_gap(reading, bpm)))
    found = judge_file(reading, bpm, notes, limits, "file" if chosen.midi is None else "midi")
    print(json.dumps(judged_values(found.due, found.judged, limits), ensure_ascii=False))


def _listen(chosen: argparse.Namespace) -> None:
    source = bytes_of("-") if chosen.recording == "-" else Path(chosen.recording)
    show(listened_values(listen(read_sound(source), chosen.sounds_as, chosen.gap)))


@contextmanager
def _lines(name: str) -> Iterator[Iterator[str]]:
    """Give the lines of a text file; what is not UTF-8 in them is shown as such, and refused as no JSON."""
    if name == "-":
        yield iter(sys.stdin)
        return
    try:
        with open(name, encoding="utf-8", errors="replace") as found:
            yield iter(found)
    except FileNotFoundError as error:
        raise NotFound(f"{name} does not exist.") from error
    except OSError as error:
        raise Unreadable(f"{name} cannot be read: {error.strerror}.") from error


def _play(chosen: argparse.Namespace) -> None:
    drill = _drill(chosen.drill)
    bpm: Fraction = check_bpm(chosen.bpm if chosen.bpm is not None else drill.bpm)
    reading = read(drill)
    passes = check_passes(chosen.passes)
    end = float(span_seconds(passes * reading.loop_beats, bpm))
    if most_due(reading, bpm, end) > MOST_MEASURED:
        raise OutOfRange(f"The stand-in plays up to {MOST_MEASURED:,} notes. Take fewer passes.")
    faults = parse_faults(chosen.faults)
    if chosen.bias is not None:
        faults["bias_ms"] = chosen.bias
    due = due_notes(reading, bpm, 0.0, end)
    performed = delayed(
        play(changed_player(STAND_INS[chosen.player][1], chosen.seed, faults), due), chosen.latency / 1000
    )
    if chosen.recording is not None:
        write(chosen.recording, recorded(performed.notes, reading.instrument.voice))
    if chosen.midi is not None:
        write(chosen.midi, write_midi_take(performed.notes))
    known = None if chosen.unknown_latency else LatencyLine(ms=chosen.latency, half_width=0.0)
    print(json.dumps(write_take(due, performed, passes, "stand_in", known, chosen.evenness), ensure_ascii=False))
