"""The few commands that a person or a pipe types."""

import argparse
import json
import sys
import tempfile
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager
from datetime import datetime
from fractions import Fraction
from pathlib import Path
from typing import Any

import platformdirs

from ripresa.cli.files import amount, bytes_of, show, write
from ripresa.cli.plans import add_commands
from ripresa.cli.sheets import add_sheet_command
from ripresa.core.drill import Drill
from ripresa.core.errors import NotFound, OutOfRange, RipresaError, Unreadable
from ripresa.core.exact import label
from ripresa.core.playing import most_due, score
from ripresa.core.reading import Reading, read
from ripresa.core.rhythm import check_bpm, span_seconds
from ripresa.core.takes import (
    EVENNESS,
    FAULTS,
    MOST_MEASURED,
    STAND_INS,
    changed_player,
    delayed,
    due_notes,
    parse_faults,
    play,
)
from ripresa.formats.drill_file import read_drill, schema
from ripresa.formats.judged_json import judged_schema, judged_values, unmeasured_values
from ripresa.formats.midi import write_midi
from ripresa.formats.notation import FORMS as STAVES
from ripresa.formats.notation import pack, write_musicxml
from ripresa.formats.play_along import Heard, Rung, render
from ripresa.formats.play_along_file import ARTIST, FORMATS, Tags, write_sound
from ripresa.formats.reading_json import reading_values
from ripresa.formats.sums_json import sums_schema, sums_values
from ripresa.formats.take_file import LatencyLine, check_passes, judged_take, take_schema, takes_of, write_take
from ripresa.store.files import DATABASE_NAME, backup, restore

_SUFFIXES = (".mid", ".musicxml", ".mxl", *(f".{kind}" for kind in FORMATS))
DEFAULT_PORT = 8765


def main(arguments: Sequence[str] | None = None) -> int:
    """Run one command; return 0, or 1 after a sentence on the error stream."""
    chosen = _parser().parse_args(arguments)
    run: Callable[[Any], None] = chosen.run
    try:
        run(chosen)
    except RipresaError as error:
        print(f"ripresa: {error.message}", file=sys.stderr)
        return 1
    except BrokenPipeError:
        sys.stderr.close()
    return 0


def data_folder() -> Path:
    """Return where a teacher's own data is kept on this computer."""
    return Path(platformdirs.user_data_dir("ripresa", appauthor=False))


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="ripresa", description="Builds, plays, measures and plans drills.")
    commands = parser.add_subparsers(required=True, metavar="COMMAND")

    reading = commands.add_parser("read", help="print the reading of a drill file as JSON")
    reading.add_argument("drill", help="a drill file, or - for standard input")
    reading.add_argument("--bpm", type=amount, help="tempo; the drill’s own if left out")
    reading.set_defaults(run=_read)

    told = commands.add_parser("sums", help="print all numbers that are told of a drill file as JSON")
    told.add_argument("drill", help="a drill file, or - for standard input")
    told.add_argument("--bpm", type=amount, help="tempo; the drill’s own if left out")
    told.set_defaults(run=_sums)

    judging = commands.add_parser("judge", help="judge the takes of a take file, a line of JSON each")
    judging.add_argument("drill", help="a drill file, or - for standard input")
    judging.add_argument("--takes", required=True, help="a take file, or - for standard input")
    judging.set_defaults(run=_judge)

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
    playing.set_defaults(run=_play)

    export = commands.add_parser("export", help="write a drill file as MIDI, MusicXML or sound")
    export.add_argument("drill", help="a drill file, or - for standard input")
    export.add_argument("--bpm", type=amount, help="tempo; the drill’s own if left out")
    export.add_argument("--to", type=Path, required=True, help=f"file to write, ending in {', '.join(_SUFFIXES)}")
    export.add_argument("--no-click", action="store_true", help="leave the click out")
    export.add_argument("--staves", choices=STAVES, help="of MusicXML, on strings: notes, TAB, or both")
    export.add_argument("--played-out", action="store_true", help="of MusicXML: no repeat signs, each bar is written")
    export.set_defaults(run=_export)
    add_sheet_command(commands)

    add_commands(commands)

    serve = commands.add_parser("serve", help="start the app for a browser on this computer")
    serve.add_argument("--port", type=int, default=DEFAULT_PORT)
    serve.add_argument("--data", type=Path, default=None, help="folder of the data; your own data folder if left out")
    serve.add_argument("--demo", action="store_true", help="start with a throwaway demo studio")
    serve.set_defaults(run=_serve)

    for name, action, text in (
        ("backup", _backup, "copy all data into one file"),
        ("restore", _restore, "put such a copy in place of the data"),
    ):
        command = commands.add_parser(name, help=text)
        command.add_argument("file", type=Path)
        command.add_argument("--data", type=Path, default=None, help="folder of the data")
        command.set_defaults(run=action)

    for name, printed, text in (
        ("schema", _print_schema, "print the JSON Schema of drill files"),
        ("sums-schema", _print_sums_schema, "print the JSON Schema of what “sums” prints"),
        ("take-schema", _print_take_schema, "print the JSON Schemas of a take file and of what “judge” prints"),
        ("openapi", _print_openapi, "print the description of the API"),
    ):
        command = commands.add_parser(name, help=text)
        command.set_defaults(run=printed)
    return parser


def _drill(name: str) -> Drill:
    return read_drill(bytes_of(name))


def _bpm(chosen: argparse.Namespace, drill: Drill) -> Fraction:
    """Return the tempo that was asked for, or else the one of the drill."""
    return check_bpm(chosen.bpm if chosen.bpm is not None else drill.bpm)


def _read(chosen: argparse.Namespace) -> None:
    drill = _drill(chosen.drill)
    bpm = _bpm(chosen, drill)
    show(reading_values(read(drill), bpm))


def _sums(chosen: argparse.Namespace) -> None:
    drill = _drill(chosen.drill)
    bpm = _bpm(chosen, drill)
    show(sums_values(read(drill), bpm))


def _judge(chosen: argparse.Namespace) -> None:
    if chosen.drill == "-" and chosen.takes == "-":
        raise OutOfRange("Only one of the two can come from standard input.")
    reading = read(_drill(chosen.drill))
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
    bpm = _bpm(chosen, drill)
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
    known = None if chosen.unknown_latency else LatencyLine(ms=chosen.latency, half_width=0.0)
    print(json.dumps(write_take(due, performed, passes, "stand_in", known, chosen.evenness), ensure_ascii=False))


def _export(chosen: argparse.Namespace) -> None:
    drill = _drill(chosen.drill)
    body = _written(read(drill), drill.bpm if chosen.bpm is None else chosen.bpm, chosen)
    write(chosen.to, body)


def _written(reading: Reading, bpm: Fraction, chosen: argparse.Namespace) -> bytes:
    """Return a reading in the format that the name of a file asks for."""
    target: Path = chosen.to
    with_click = not chosen.no_click
    kind = target.suffix.lower().removeprefix(".")
    if kind == "mid":
        return write_midi(reading, bpm, with_click=with_click)
    if kind in {"musicxml", "mxl"}:
        body = write_musicxml(reading, bpm, chosen.staves, folded=not chosen.played_out)
        return pack(body) if kind == "mxl" else body
    for sound in FORMATS:
        if kind == sound:
            levels = Heard(click=with_click)
            made = render(Rung(score(reading, bpm), bpm), reading.instrument.voice, 2, levels)
            return write_sound(made, sound, Tags(reading.drill.title, ARTIST, comment=f"{label(bpm)} bpm"))
    raise OutOfRange(f"{target} does not end in one of {', '.join(_SUFFIXES)}.")


def _database(chosen: argparse.Namespace) -> Path:
    folder: Path = chosen.data or data_folder()
    if folder.exists() and not folder.is_dir():
        raise NotFound(f"{folder} is a file. Name the folder that holds the data.")
    return folder / DATABASE_NAME


def _backup(chosen: argparse.Namespace) -> None:
    backup(_database(chosen), chosen.file)
    print(f"All data is in {chosen.file}.")


def _restore(chosen: argparse.Namespace) -> None:
    kept = restore(chosen.file, _database(chosen))
    print(f"{chosen.file} is in place." + (f" What was there before is in {kept}." if kept else ""))


def _serve(chosen: argparse.Namespace) -> None:
    from ripresa.web.server import serve

    if not chosen.demo:
        serve(_database(chosen), chosen.port)
        return
    from ripresa.demo import fill_demo_studio

    with tempfile.TemporaryDirectory(prefix="ripresa-demo-") as folder:
        serve(
            Path(folder) / DATABASE_NAME,
            chosen.port,
            fill=lambda: fill_demo_studio(datetime.now().astimezone()),
        )


def _print_schema(_chosen: argparse.Namespace) -> None:
    show(schema())


def _print_sums_schema(_chosen: argparse.Namespace) -> None:
    show(sums_schema())


def _print_take_schema(_chosen: argparse.Namespace) -> None:
    show({"take": take_schema(), "judged": judged_schema()})


def _print_openapi(_chosen: argparse.Namespace) -> None:
    from ripresa.web.app import create_app

    with tempfile.TemporaryDirectory() as folder:
        show(create_app(Path(folder) / DATABASE_NAME).api_doc)
