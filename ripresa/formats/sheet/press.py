"""The press: a hand-out set as pages, for the screen, the printer and the file alike.

Set by typst, which is a library here: it opens no network, and no file but its own page and our fonts.
"""

import re
from functools import lru_cache
from pathlib import Path
from typing import Literal

import typst

from ripresa.formats.sheet.content import Sheet, as_text, write_sheet

_PAGE = Path(__file__).with_name("page.typ")
FONTS = Path(__file__).parent.parent / "fonts"
#: Sizes in points, the largest first: a sheet takes the largest with which it is one page.
_SIZES = (10.5, 10.0, 9.5, 9.0)
_LARGE = (15.0,)
#: Dots of an inch of the pictures: as many as a screen that is looked at closely has.
_DOTS = 144.0
_FONT = "Atkinson Hyperlegible Next"
#: Letters up to here are in our own font; and one that is in none (Unicode, noncharacters).
_OURS, _NOBODYS = 0x024F, "\U0010fffe"
_OUTLINE, _MOST_LISTED = re.compile(rb'<path d="[^"]+"'), 8


@lru_cache(maxsize=1)
def _fonts() -> typst.Fonts:
    # What ours lack, such as other scripts, is taken from the machine's where it has them.
    return typst.Fonts(include_system_fonts=True, include_embedded_fonts=True, font_paths=[str(FONTS)])


def press_pdf(sheet: Sheet) -> bytes:
    """Return a sheet as a PDF, its fonts inside."""
    found = _set(sheet, _size_of(sheet), "pdf")
    assert isinstance(found, bytes)
    return found


def press_pages(sheet: Sheet) -> list[bytes]:
    """Return the pages of a sheet as pictures (PNG): the same as in the PDF."""
    return _pages(_set(sheet, _size_of(sheet), "png"))


def without_letters(sheet: Sheet) -> str:
    """Return what is to be said of signs for which this computer has no letter; empty where it has all of them."""
    known = (letter for letter in dict.fromkeys(as_text(sheet)) if ord(letter) > _OURS and letter.isprintable())
    missing = [letter for letter in known if _drawn(letter) == _drawn(_NOBODYS)]
    if not missing:
        return ""
    listed = " ".join(missing[:_MOST_LISTED]) + (" …" if len(missing) > _MOST_LISTED else "")
    return f"This computer has no letter for {listed}: a box stands there on paper. Write it otherwise, or add a font."


@lru_cache(maxsize=4096)
def _drawn(letter: str) -> bytes:
    """Return the outline by which a letter is drawn; all that have none share the box of the first font."""
    page = f'#set text(font: "{_FONT}")\n#text(sys.inputs.letter)'
    found = typst.compile(page.encode(), format="svg", font_paths=_fonts(), sys_inputs={"letter": letter})
    outline = _OUTLINE.search(found) if isinstance(found, bytes) else None
    # What is drawn as a picture is drawn.
    return outline[0] if outline else letter.encode()


def _size_of(sheet: Sheet) -> float:
    sizes = _LARGE if sheet.large else _SIZES
    fits = (size for size in sizes if len(_pages(_set(sheet, size, "svg"))) == 1)
    if len(_pages(_set(sheet, sizes[-1], "svg"))) > 1:
        # No size makes one page of it: then it may as well be read with ease.
        return sizes[0]
    return next(fits)


def _pages(found: bytes | list[bytes]) -> list[bytes]:
    return found if isinstance(found, list) else [found]


@lru_cache(maxsize=32)
def _set(sheet: Sheet, size: float, kind: Literal["pdf", "png", "svg"]) -> bytes | list[bytes]:
    inputs = {"sheet": write_sheet(sheet), "size": str(size)}
    found: bytes | list[bytes] = typst.compile(
        str(_PAGE), format=kind, font_paths=_fonts(), sys_inputs=inputs, root=str(_PAGE.parent), ppi=_DOTS
    )
    return found
