"""The few commands that a person or a pipe types."""

import argparse
import sys
import tempfile
from collections.abc import Callable, Sequence
from pathlib import Path
from typing import Any

import ripresa
from ripresa.cli.files import amount, bytes_of, show, write, writing
from ripresa.cli.plans import add_commands
from ripresa.cli.sheets import add_sheet_command
from ripresa.cli.start import add_start, database_of
from ripresa.cli.takes import add_take_commands
from ripresa.core.drill import Drill
from ripresa.core.errors import OutOfRange, RipresaError
from ripresa.core.exact import Fraction, label, plural
from ripresa.core.playing import score
from ripresa.core.reading import Reading, read
from ripresa.core.rhythm import check_bpm
from ripresa.core.say import say
from ripresa.formats.drill_file import read_drill, schema, write_drill
from ripresa.formats.exports import EXPORTS, Asked
from ripresa.formats.judged_json import judged_schema
from ripresa.formats.listened_json import listened_schema
from ripresa.formats.notation import FORMS as STAVES
from ripresa.formats.play_along import Heard, Rung, rendered
from ripresa.formats.play_along_file import ARTIST, FORMATS, SoundFormat, Tags, save_sound
from ripresa.formats.reading_json import reading_values
from ripresa.formats.sums_json import sums_schema, sums_values
from ripresa.formats.take_file import take_schema
from ripresa.store.files import DATABASE_NAME, backup, restore
from ripresa.store.set_aside import only_there
from ripresa.store.trouble import trouble

_SUFFIXES = tuple(f".{ending}" for ending in (*EXPORTS, *FORMATS))


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
    except OSError as error:
        # A folder that may not be looked into, wherever it was met.
        print(f"ripresa: {trouble(error, Path(error.filename) if error.filename else None).message}", file=sys.stderr)
        return 1
    return 0


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(
        prog="ripresa",
        description="Builds, plays, measures and plans drills. Without a command it starts, and opens the browser.",
    )
    parser.add_argument("--version", action="version", version=f"Ripresa {ripresa.__version__}")
    add_start(parser, opens=True)
    commands = parser.add_subparsers(metavar="COMMAND")

    reading = commands.add_parser("read", help="print the reading of a drill file as JSON")
    reading.add_argument("drill", help="a drill file, or - for standard input")
    reading.add_argument("--bpm", type=amount, help="tempo; the drill’s own if left out")
    reading.set_defaults(run=_read)

    told = commands.add_parser("sums", help="print all numbers that are told of a drill file as JSON")
    told.add_argument("drill", help="a drill file, or - for standard input")
    told.add_argument("--bpm", type=amount, help="tempo; the drill’s own if left out")
    told.set_defaults(run=_sums)

    saying = commands.add_parser("say", help="print the drill that a line of a teacher’s words means, as a drill file")
    saying.add_argument("words", nargs="+", help="“D dorian two octaves triplets then sixteenths 84”")
    saying.add_argument("--drill", help="a drill file that they change, or - for standard input; else a new one")
    saying.set_defaults(run=_say)

    add_take_commands(commands)

    export = commands.add_parser("export", help="write a drill file as MIDI, MusicXML, sound, or whole as a drill file")
    export.add_argument("drill", help="a drill file, or - for standard input")
    export.add_argument("--bpm", type=amount, help="tempo; the drill’s own if left out")
    export.add_argument("--to", type=Path, required=True, help=f"file to write, ending in {', '.join(_SUFFIXES)}")
    export.add_argument("--no-click", action="store_true", help="leave the click out")
    export.add_argument("--staves", choices=STAVES, help="of MusicXML, on strings: notes, TAB, or both")
    export.add_argument("--played-out", action="store_true", help="of MusicXML: no repeat signs, each bar is written")
    export.set_defaults(run=_export)
    add_sheet_command(commands)

    add_commands(commands)

    add_start(commands.add_parser("serve", help="start the app for a browser on this computer"), opens=False)

    for name, action, text in (
        ("backup", _backup, "copy all data into one file"),
        ("restore", _restore, "put such a copy in place of the data"),
    ):
        command = commands.add_parser(name, help=text)
        command.add_argument("file", type=Path)
        command.add_argument("--data", type=Path, default=argparse.SUPPRESS, help="folder of the data")
        command.set_defaults(run=action)

    for name, printed, text in (
        ("schema", _print_schema, "print the JSON Schema of drill files"),
        ("sums-schema", _print_sums_schema, "print the JSON Schema of what “sums” prints"),
        ("take-schema", _print_take_schema, "print the JSON Schemas of take files, of what “judge” and “listen” print"),
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


def _say(chosen: argparse.Namespace) -> None:
    said = say(" ".join(chosen.words), _drill(chosen.drill) if chosen.drill else None)
    for one in said.unknown:
        meant = f" Near to it: {', '.join(one.near)}." if one.near else ""
        print(f"ripresa: “{one.text}” is not understood, and is left out.{meant}", file=sys.stderr)
    if said.refused:
        print(f"ripresa: {said.refused}", file=sys.stderr)
    if not said.chips:
        raise OutOfRange("Nothing of it is understood. Say a key, a scale, a division, a tempo: D dorian triplets 84.")
    print(write_drill(said.drill), end="")


def _export(chosen: argparse.Namespace) -> None:
    drill = _drill(chosen.drill)
    reading, bpm = read(drill), drill.bpm if chosen.bpm is None else chosen.bpm
    kind = chosen.to.suffix.lower().removeprefix(".")
    if kind in FORMATS:
        _sound(reading, bpm, kind, chosen)
    elif kind in EXPORTS:
        asked = Asked(bpm, not chosen.no_click, chosen.staves, not chosen.played_out)
        write(chosen.to, EXPORTS[kind].write(reading, asked))
    else:
        raise OutOfRange(f"{chosen.to} does not end in one of {', '.join(_SUFFIXES)}.")


def _sound(reading: Reading, bpm: Fraction, kind: SoundFormat, chosen: argparse.Namespace) -> None:
    blocks = rendered([Rung(score(reading, bpm), bpm)], reading.instrument.voice, 2, Heard(click=not chosen.no_click))
    tags = Tags(reading.drill.title, ARTIST, comment=f"{label(bpm)} bpm")
    with writing(chosen.to):
        save_sound(blocks, chosen.to, kind, tags)


def _backup(chosen: argparse.Namespace) -> None:
    backup(database_of(chosen), chosen.file)
    print(f"All data is in {chosen.file}.")


def _restore(chosen: argparse.Namespace) -> None:
    kept = restore(chosen.file, database_of(chosen))
    print(f"{chosen.file} is in place." + (f" What was there before is in {kept}." if kept else ""))
    more = only_there(kept, database_of(chosen)) if kept else 0
    if more:
        print(
            f"{plural(more, 'recording')} that only that copy knows: kept beside it until the day that was said, or "
            "until you delete the copy. Restore the copy, and they are heard again."
        )


def _print_schema(_chosen: argparse.Namespace) -> None:
    show(schema())


def _print_sums_schema(_chosen: argparse.Namespace) -> None:
    show(sums_schema())


def _print_take_schema(_chosen: argparse.Namespace) -> None:
    show({"take": take_schema(), "judged": judged_schema(), "listened": listened_schema()})


def _print_openapi(_chosen: argparse.Namespace) -> None:
    from ripresa.web.app import create_app

    with tempfile.TemporaryDirectory() as folder:
        show(create_app(Path(folder) / DATABASE_NAME).api_doc)
