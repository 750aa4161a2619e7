"""The command of hand-outs: sheet."""

import argparse
import sys
from pathlib import Path
from typing import Any

from ripresa.cli.files import amount, bytes_of, write
from ripresa.core.errors import OutOfRange
from ripresa.core.studio import PAPERS
from ripresa.formats.drill_file import read_drill
from ripresa.formats.engraver import Engraver
from ripresa.formats.notation import FORMS
from ripresa.formats.sheet import SHOWS, as_text, press_pdf, without_letters
from ripresa.work.sheets import Options, of_drill, plan_to


def add_sheet_command(commands: Any) -> None:
    """Add the command to a parser."""
    sheet = commands.add_parser("sheet", help="write the hand-out of a drill file as PDF or plain text")
    sheet.add_argument("drill", help="a drill file, or - for standard input")
    sheet.add_argument("--to", type=Path, required=True, help="file to write, ending in .pdf or .txt")
    sheet.add_argument("--shows", choices=SHOWS, default="rail", help="the rail, notation, or both")
    sheet.add_argument("--staves", choices=FORMS, help="of the notation, on strings")
    sheet.add_argument("--paper", choices=PAPERS, default="A4")
    sheet.add_argument("--large", action="store_true", help="large print")
    sheet.add_argument("--note", default="", help="what the teacher writes in")
    sheet.add_argument("--from", dest="start", type=amount, help="first rung; the drill’s own tempo if left out")
    sheet.add_argument("--target", type=amount, help="last rung; without it there are no rungs")
    sheet.set_defaults(run=_sheet)


def _sheet(chosen: argparse.Namespace) -> None:
    drill = read_drill(bytes_of(chosen.drill))
    options = Options(chosen.shows, chosen.staves, chosen.paper, chosen.large, chosen.note)
    plan = plan_to(drill, chosen.start, chosen.target) if chosen.target is not None else None
    kind = chosen.to.suffix.lower()
    if kind not in {".pdf", ".txt"}:
        raise OutOfRange(f"{chosen.to} does not end in .pdf or .txt.")
    engraver = Engraver()
    try:
        sheet = of_drill(drill, options, engraver, plan)
    finally:
        engraver.close()
    missing = without_letters(sheet) if kind == ".pdf" else ""
    if missing:
        print(f"ripresa: {missing}", file=sys.stderr)
    write(chosen.to, press_pdf(sheet) if kind == ".pdf" else as_text(sheet).encode())
