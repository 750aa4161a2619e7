"""What a drill can be saved as: each format once. The route, “Save as” and ``ripresa export`` read it.

Sound takes its time and is made beside: its formats are those of ``play_along_file.FORMATS``.
"""

from collections.abc import Callable
from dataclasses import dataclass

from ripresa.core.exact import Fraction
from ripresa.core.reading import Reading
from ripresa.formats.drill_file import write_drill
from ripresa.formats.midi import write_midi
from ripresa.formats.notation import Form, pack, write_musicxml


@dataclass(frozen=True, slots=True)
class Asked:
    """How a file is to be: its tempo in bpm, with or without the click; of a score its staves, folded or played out."""

    bpm: Fraction
    with_click: bool = True
    staves: Form | None = None
    folded: bool = True


@dataclass(frozen=True, slots=True)
class Export:
    """A format: what menus call it, its type for the browser, and who writes it."""

    name: str
    mimetype: str
    write: Callable[[Reading, Asked], bytes]


def _score(reading: Reading, asked: Asked) -> bytes:
    return write_musicxml(reading, asked.bpm, asked.staves, folded=asked.folded)


#: Ending of the file → format.
EXPORTS = {
    "json": Export("a drill file", "application/json", lambda reading, _: write_drill(reading.drill).encode()),
    "mid": Export(
        "MIDI", "audio/midi", lambda reading, asked: write_midi(reading, asked.bpm, with_click=asked.with_click)
    ),
    "musicxml": Export("MusicXML", "application/vnd.recordare.musicxml+xml", _score),
    "mxl": Export("MusicXML, packed (mxl)", "application/vnd.recordare.musicxml", lambda *asked: pack(_score(*asked))),
}
