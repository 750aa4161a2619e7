"""The hand-out: what stands on it as plain values, its rail in black, and the press that sets it."""

from ripresa.formats.sheet.content import (
    SHOWS,
    DayBox,
    Picture,
    RungLine,
    Sheet,
    Shows,
    as_text,
    read_sheet,
    write_sheet,
)
from ripresa.formats.sheet.press import press_pages, press_pdf, without_letters
from ripresa.formats.sheet.rail import MOST_ROWS, rail_rows

__all__ = [
    "MOST_ROWS",
    "SHOWS",
    "DayBox",
    "Picture",
    "RungLine",
    "Sheet",
    "Shows",
    "as_text",
    "press_pages",
    "press_pdf",
    "rail_rows",
    "read_sheet",
    "without_letters",
    "write_sheet",
]
