"""A reading as MusicXML 4.0, such as a publisher would take: beams, few and right values, signs where they are needed.

Every length is exact: the divisions of the quarter are made for the drill. Swing is written straight and marked, as it
is in print. What would be said again bar for bar is said once, between repeat signs.
"""

import io
import re
import zipfile
from dataclasses import dataclass

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction
from ripresa.core.reading import Reading
from ripresa.formats.notation import heads
from ripresa.formats.notation.folding import Block, blocks
from ripresa.formats.notation.marks import printable
from ripresa.formats.notation.strings import Form, has_strings, strung
from ripresa.formats.notation.writer import Writer

_ID = re.compile(r' id="e(\d+)-')
_HIGHEST_OCTAVE = 9
#: What differs between two bars that are the same to a reader.
_NAMES = re.compile(r' id="[^"]*"')


@dataclass(frozen=True, slots=True)
class Score:
    """A written score.

    Args:
        body: The MusicXML.
        drawn_as: For each note that stands between repeat signs and is played again: number of its event in
            ``reading.every`` → number of the event that is drawn for it.
    """

    body: bytes
    drawn_as: dict[int, int]


def write_musicxml(reading: Reading, bpm: Fraction, form: Form | None = None, *, folded: bool = True) -> bytes:
    """Return a reading as a MusicXML file.

    Args:
        form: The staves, on an instrument with strings; notes and TAB where all strings are known, if nobody says.
        folded: Whether bars that come again are written once, between repeat signs.

    Raises:
        OutOfRange: TAB is asked for, and not every note has its string; or a note lies above all octaves.
    """
    for event in reading.every:
        for tone in event.tones:
            if not 0 <= tone.octave <= _HIGHEST_OCTAVE:
                raise OutOfRange(
                    f"MusicXML has no note {tone.shown}: its octaves go from 0 to {_HIGHEST_OCTAVE}. Choose another "
                    "register.",
                    field="register",
                )
    return write_score(reading, bpm, form, folded=folded).body


def pack(body: bytes) -> bytes:
    """Return a score as a compressed MusicXML file, ``.mxl``."""
    packed = io.BytesIO()
    with zipfile.ZipFile(packed, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, inside in (("META-INF/container.xml", _CONTAINER), ("score.musicxml", body)):
            # Without a date of its own: the same drill is the same file.
            archive.writestr(zipfile.ZipInfo(name), inside, zipfile.ZIP_DEFLATED)
    return packed.getvalue()


_CONTAINER = (
    b'<?xml version="1.0" encoding="UTF-8"?><container><rootfiles><rootfile full-path="score.musicxml" '
    b'media-type="application/vnd.recordare.musicxml+xml"/></rootfiles></container>'
)


def write_score(
    reading: Reading, bpm: Fraction, form: Form | None = None, *, folded: bool = True, for_drawing: bool = False
) -> Score:
    """Return a reading as MusicXML, with what stands for what where bars are said once.

    Args:
        for_drawing: For our own engraver, which knows no slash notation: one slash for each stroke, without its tones;
            and without the tempo.

    Raises:
        OutOfRange: As ``write_musicxml``.
    """
    reading = strung(reading) if form in {"tab", "both"} else reading
    known = has_strings(reading)
    if form in {"tab", "both"} and not known:
        raise OutOfRange(
            "TAB needs the string of every note. Take an instrument with strings, and notes that lie on them.",
            field="form",
        )
    writer = Writer(reading, bpm, form or ("both" if known else "notes"), for_drawing)
    bodies = [writer.bar(number) for number in range(len(writer.ticks.bars))]
    # A new meter makes a bar another one.
    alike = [writer.change_of_meter(place) + _NAMES.sub("", body) for place, body in enumerate(bodies)]
    laid = blocks(alike) if folded else [Block(0, len(bodies), 1)]
    measures: list[str] = []
    drawn_as: dict[int, int] = {}
    for block in laid:
        for place in range(block.start, block.start + block.length):
            is_first, is_last = place == block.start, place + 1 == block.start + block.length
            left, right = _repeat_signs(block, is_first=is_first, is_last=is_last)
            head = writer.head() if not place else writer.change_of_meter(place)
            measures.append(f'<measure number="{len(measures) + 1}">{head}{left}{bodies[place]}{right}</measure>')
            for turn in range(1, block.times):
                again = bodies[place + turn * block.length]
                drawn_as |= dict(zip(_numbers(again), _numbers(bodies[place]), strict=True))
    title = printable(reading.drill.title)
    text = (
        '<?xml version="1.0" encoding="UTF-8"?>\n'
        '<!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 4.0 Partwise//EN" '
        '"http://www.musicxml.org/dtds/partwise.dtd">\n'
        f'<score-partwise version="4.0"><work><work-title>{title}</work-title></work>'
        "<identification><encoding><software>Ripresa</software>"
        '<supports element="accidental" type="yes"/><supports element="beam" type="yes"/></encoding></identification>'
        f"<part-list>{heads.listed_part(reading, writer.drums, is_named=not for_drawing)}</part-list>"
        f'<part id="P1">{"".join(measures)}</part></score-partwise>\n'
    )
    return Score(text.encode(), drawn_as)


def _numbers(body: str) -> list[int]:
    return [int(number) for number in _ID.findall(body)]


def _repeat_signs(block: Block, *, is_first: bool, is_last: bool) -> tuple[str, str]:
    if block.times == 1:
        return "", ""
    left = '<barline location="left"><repeat direction="forward"/></barline>' if is_first else ""
    right = (
        f'<barline location="right"><repeat direction="backward" times="{block.times}"/></barline>' if is_last else ""
    )
    return left, right
