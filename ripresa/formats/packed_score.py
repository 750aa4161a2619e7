"""Compressed MusicXML (.mxl): the score inside that its container names (MusicXML 4.0, Compressed .mxl files)."""

import io
import zipfile
from xml.etree import ElementTree

from ripresa.core.errors import Unreadable

LARGEST_UNPACKED = 20_000_000
_CONTAINER, _LARGEST_CONTAINER = "META-INF/container.xml", 100_000


def unpacked(data: bytes) -> bytes:
    """Return the score of a packed file; any other file as it is.

    Raises:
        Unreadable: It is packed and damaged, too large unpacked, or holds no score.
    """
    if not data.startswith(b"PK"):
        return data
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as packed:
            inside = packed.infolist()
            if sum(one.file_size for one in inside) > LARGEST_UNPACKED:
                raise Unreadable(
                    f"This packed score is over {LARGEST_UNPACKED // 1_000_000} MB unpacked. Save a part of it.",
                    field="file",
                )
            scores = [
                one.filename
                for one in inside
                if not one.filename.startswith("META-INF/") and one.filename.endswith((".xml", ".musicxml"))
            ]
            if not scores:
                raise Unreadable("This packed file holds no score. Choose a .mxl file.", field="file")
            with packed.open(_named(packed) or scores[0]) as score:
                # What it says of its size is not believed.
                return score.read(LARGEST_UNPACKED)
    except Unreadable:
        raise
    except Exception as error:
        # Whatever a library makes of a damaged archive: it cannot be opened.
        raise Unreadable("This packed score cannot be opened. Save it as plain MusicXML.", field="file") from error


def _named(packed: zipfile.ZipFile) -> str:
    """Return the file that the container names first; empty where it names none that is there."""
    inside = set(packed.namelist())
    if _CONTAINER not in inside:
        return ""
    with packed.open(_CONTAINER) as container:
        text = container.read(_LARGEST_CONTAINER)
    if b"<!" in text.replace(b"<!--", b""):
        # A container needs no entities, and what has them may be made to grow.
        return ""
    try:
        root = ElementTree.fromstring(text)
    except ElementTree.ParseError:
        return ""
    names = (one.get("full-path", "") for one in root.iter() if one.tag.rpartition("}")[2] == "rootfile")
    return next((name for name in names if name in inside), "")
