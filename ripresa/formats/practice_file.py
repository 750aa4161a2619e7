"""The practice file: one HTML file with a climb in it, that needs no network, no account and no server.

The page is built beside the app; what it plays and shows is put into it here, all times worked out already. That is
JSON, compressed, as text in a place of its own: nothing in it can be taken for a part of the page.
"""

import gzip
from base64 import b64encode
from html import escape
from pathlib import Path

from ripresa.core.errors import NotFound, OutOfRange
from ripresa.formats.words import SOUND

#: Where the page keeps what is put into it.
_DATA, _WORDS, _TITLE = "<!--practice-->", "<!--words-->", "<title>Ripresa</title>"
LARGEST = 3_000_000
#: Rungs that go home: nobody climbs more between two lessons.
MOST_RUNGS = 12
#: How a browser names the sound of the words.
FLAC = "data:audio/flac;base64,"


def write_practice_file(page: Path, values: str, title: str) -> bytes:
    """Return a practice file.

    Args:
        page: The page as it was built. values: What stands in it, as JSON.

    Raises:
        NotFound: The page is not built yet. OutOfRange: It would be over 3 MB.
    """
    if not page.is_file():
        raise NotFound("The practice file’s page is not built yet. Run “make build” and start again.")
    text = page.read_text("utf-8")
    # Without a moment of its own: the same climb is the same file.
    packed = b64encode(gzip.compress(values.encode(), mtime=0)).decode()
    words = FLAC + b64encode(SOUND.read_bytes()).decode()
    found = text.replace(_TITLE, f"<title>{escape(title)}</title>", 1)
    found = found.replace(_DATA, packed, 1).replace(_WORDS, words, 1)
    body = found.encode()
    if len(body) > LARGEST:
        raise OutOfRange(
            f"This practice file would have {len(body) / 1e6:.1f} MB, and a phone opens up to {LARGEST / 1e6:.0f}. "
            "Take fewer climbs.",
            field="climb",
        )
    return body
