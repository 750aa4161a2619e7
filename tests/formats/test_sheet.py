"""The hand-out on paper: one page or two, its fonts inside, nothing that people wrote run as source."""

import io
from dataclasses import replace
from functools import partial
from typing import Any

import pytest
from pypdf import PdfReader

from ripresa.core.drill import Drill
from ripresa.core.drill.accents import NoAccents
from ripresa.core.drill.click import CLICK_PLANS, NamedClick
from ripresa.core.drill.material import Count, Line, ScaleRun
from ripresa.core.exact import Fraction as F
from ripresa.core.reading import read
from ripresa.core.reports import brief, brief_runs
from ripresa.core.shelf import SHELF
from ripresa.formats.engraver import Engraver
from ripresa.formats.sheet import (
    MOST_ROWS,
    Sheet,
    as_text,
    press_pages,
    press_pdf,
    rail_rows,
    read_sheet,
    without_letters,
    write_sheet,
)
from ripresa.formats.sheet.press import _drawn
from ripresa.work.sheets import MOST_RUNGS, Options, of_drill, plan_to
from tests.strategies import legs

HOSTILE = '#read("/etc/passwd") *bold* $x$ \\ " <b> // @preview \u0000\u202e'


def pdf_of(sheet: Sheet) -> PdfReader:
    return PdfReader(io.BytesIO(press_pdf(sheet)))


@pytest.mark.parametrize("drill", [pytest.param(entry.drill, id=entry.drill.title) for entry in SHELF[::4]])
def test_a_shelf_drill_is_one_page_or_two_and_never_a_widow(drill: Drill, engraver: Engraver) -> None:
    sheet = of_drill(drill, Options(), engraver, plan_to(drill, None, drill.bpm * F(6, 5)))
    pages = pdf_of(sheet).pages
    assert 1 <= len(pages) <= 2
    # What goes over stands there as a whole: more than a line.
    assert len((pages[-1].extract_text() or "").split()) > 30


def test_its_fonts_are_inside_and_its_text_can_be_searched(engraver: Engraver) -> None:
    drill = Drill(title="Łódź ♭ harbour", material=ScaleRun(tonic="Bb"), purpose="To begin.")
    pages: Any = pdf_of(of_drill(drill, Options(), engraver)).pages
    (page,) = pages
    fonts = [font.get_object() for font in page["/Resources"]["/Font"].values()]
    assert fonts
    for font in fonts:
        described = font["/DescendantFonts"][0].get_object()["/FontDescriptor"].get_object()
        assert any(name in described for name in ("/FontFile2", "/FontFile3"))
    text = " ".join((page.extract_text() or "").split())
    assert "Łódź" in text
    assert "To begin." in text


def test_what_people_write_is_data(engraver: Engraver) -> None:
    drill = Drill(title=HOSTILE[:60], purpose=HOSTILE[:60], material=Line(text="1 2 3", tonic="C"))
    sheet = replace(of_drill(drill, Options(note=HOSTILE), engraver), whom=f"for {HOSTILE}")
    text = " ".join(page.extract_text() or "" for page in pdf_of(sheet).pages)
    assert text.count('#read("/etc/passwd")') == 4
    assert "*bold*" in text
    assert "root:" not in text


def test_the_pages_of_the_screen_are_those_of_the_file(engraver: Engraver) -> None:
    sheet = of_drill(SHELF[0].drill, Options(), engraver)
    pages = press_pages(sheet)
    assert len(pages) == len(pdf_of(sheet).pages)
    assert all(page.startswith(b"\x89PNG") for page in pages)


@pytest.mark.parametrize(("paper", "width"), [("A4", 595), ("letter", 612)])
def test_paper_is_as_large_as_it_is_said(paper: str, width: int, engraver: Engraver) -> None:
    sheet = of_drill(SHELF[0].drill, Options(paper=paper), engraver)  # type: ignore[arg-type]
    assert round(pdf_of(sheet).pages[0].mediabox.width) == width


def _note_height(heights: list[float], text: str, _: object, matrix: list[float], __: object, size: float) -> None:
    if text.strip():
        heights.append(abs(matrix[3]) * size)


def test_large_print_is_larger(engraver: Engraver) -> None:
    sizes = []
    for large in (False, True):
        page = pdf_of(of_drill(SHELF[0].drill, Options(large=large), engraver)).pages[0]
        heights: list[float] = []
        page.extract_text(visitor_text=partial(_note_height, heights))
        sizes.append(max(heights))
    assert sizes[1] > 1.2 * sizes[0]


@pytest.mark.parametrize(("divisions", "larger"), [((2, 3, 4), 1.5), ((6,), 1.2), ((8,), 1.0)])
def test_the_rail_of_large_print_is_larger_as_far_as_its_words_leave_room(
    divisions: tuple[int, ...], larger: float
) -> None:
    reading = read(Drill(material=ScaleRun(octaves=1), legs=legs(*divisions)))
    usual, large = (rail_rows(reading, large=large)[0][0].picture for large in (False, True))
    widths = [float(picture.split('viewBox="0 0 ')[1].split()[0]) for picture in (usual, large)]
    assert widths[0] / widths[1] == pytest.approx(larger, abs=0.01)


def test_a_sheet_is_read_as_it_was_kept(engraver: Engraver) -> None:
    sheet = of_drill(SHELF[0].drill, Options(shows="both", note="Slowly."), engraver)
    assert read_sheet(write_sheet(sheet)) == sheet


def test_the_text_says_what_the_page_shows(engraver: Engraver) -> None:
    drill = Drill(title="Quay", material=Count("1 & (2) & 3 & 4 &"), legs=legs(1), bpm=F(84), purpose="The & of 2.")
    text = as_text(of_drill(drill, Options(note="Slowly."), engraver, plan_to(drill, F(84), F(120))))
    for part in (
        "Quay\nfor any instrument",
        "What for: The & of 2.",
        "Play the rhythm 1 & (2) & 3 & 4 &, in 4/4.",
        "1. Listen to one bar of click and feel the 1.",
        "bar 1: 1 accent, &, &, 3 accent, &, 4 accent, &",
        "♩ = 84: metronome 84, 2.8 notes a second",
        "Up after 2 clean takes in a row, back one rung after 3 shaky ones in a row. Stay in between.",
        "From your teacher\nSlowly.",
        "Stop at pain",
    ):
        assert part in text, part


def test_a_click_that_is_thinned_is_told_for_an_ordinary_metronome(engraver: Engraver) -> None:
    drill = Drill(material=ScaleRun(octaves=1), legs=legs(2), click=NamedClick("two_and_four"), bpm=F(96))
    assert "two_and_four" in CLICK_PLANS
    sheet = of_drill(drill, Options(), engraver, plan_to(drill, None, F(100)))
    # DOMAIN §9: 2 and 4 at 96 is set to 48, and the first click is beat 2.
    assert sheet.rungs[0].metronome == "48"
    assert sheet.first_click == "The first click is beat 2."


def test_the_rail_has_a_row_for_each_leg_and_no_more_than_fit() -> None:
    rows, more = rail_rows(read(Drill(material=ScaleRun(octaves=1), legs=legs(2, 3, 4, 2))))
    assert [row.words.split(":")[0] for row in rows] == ["bar 1", "bar 3", "bar 5"]
    assert not more
    many = legs(*range(1, 13))
    rows, more = rail_rows(read(Drill(material=ScaleRun(octaves=1), legs=many, accents=NoAccents())))
    assert len(rows) == MOST_ROWS
    assert more == "4 more bars of another rhythm not shown"


def test_the_brief_leaves_out_what_is_usual_and_marks_its_words() -> None:
    reading = read(Drill(material=ScaleRun(tonic="Eb", octaves=1), legs=legs(5, 6), seam="straight_on", bpm=F(72)))
    assert brief(reading) == (
        "Play the scale of E♭ major there and back, 1 octave, in 4/4, stepping through fives → sixes, straight on. "
        "Click every beat at ♩ = 72."
    )
    words = [run.text for run in brief_runs(reading) if run.is_word]
    assert words[:4] == ["the scale of", "E♭", "major", "there and back"]


def test_signs_without_a_letter_are_told_before_they_are_printed(
    engraver: Engraver, monkeypatch: pytest.MonkeyPatch
) -> None:
    drawn = {"雨": b"box", "🎵": b"picture", "д": b"letter", "\U0010fffe": b"box"}
    monkeypatch.setattr("ripresa.formats.sheet.press._drawn", lambda letter: drawn.get(letter, b"ours"))
    sheet = of_drill(Drill(), Options(note="Größe д 🎵"), engraver)
    assert without_letters(sheet) == ""
    said = without_letters(replace(sheet, note="雨 and 雨, д"))
    assert said.startswith("This computer has no letter for 雨: a box stands there on paper.")


def test_what_is_no_letter_anywhere_is_drawn_as_a_box() -> None:
    assert _drawn("\U0010fffe") == _drawn("\U0010ffff")
    assert len({_drawn(letter) for letter in ("\U0010fffe", "д", "♭", "a")}) == 4


def test_without_a_climb_all_steps_are_on_it(engraver: Engraver) -> None:
    drill = Drill(bpm=F(60))
    sheet = of_drill(drill, Options(), engraver, plan_to(drill, F(60), F(130)))
    assert len(sheet.rungs) > MOST_RUNGS
    assert (sheet.rungs[0].tempo, sheet.rungs[-1].tempo, sheet.rungs_told) == ("60", "130", "")
