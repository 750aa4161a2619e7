"""Material of every kind in the real browser: typed, refused, pressed, opened from a score, practised."""

import re
from pathlib import Path

from playwright.sync_api import Page, expect

from ripresa.core.drill import Drill
from ripresa.core.drill.material import Line
from ripresa.core.reading import read
from ripresa.formats.notation import write_musicxml
from tests.e2e.server import Served
from tests.e2e.stand import set_up
from tests.strategies import legs


def test_a_line_is_typed_refused_cut_and_lands(page: Page, demo: Served) -> None:
    page.goto(f"{demo.home}/bench")
    page.get_by_role("button", name="New drill", exact=True).click()
    page.get_by_label("material").select_option("line")
    notes = page.get_by_label("notes of the line")
    notes.fill("1 2 3 4 5 4 3 2 H4")
    expect(page.get_by_role("alert").get_by_text("Word 9 of the line, “H4”")).to_be_visible()
    expect(notes).to_have_value("1 2 3 4 5 4 3 2 H4")
    notes.fill("1 2 3 4 5 4 3 2 1")
    sums = page.get_by_label("Other sums")
    sums.get_by_role("button", name=re.compile("Landing")).first.click()
    expect(sums.get_by_text("home after 9 bars, 8 statements", exact=False)).to_be_visible()
    page.get_by_text("Change it in one press").click()
    page.get_by_role("button", name="Cut the last note").click()
    expect(notes).to_have_value("1 2 3 4 5 4 3 2 /1")
    page.get_by_role("button", name="Undo").click()
    expect(notes).to_have_value("1 2 3 4 5 4 3 2 1")
    expect(page.get_by_text(re.compile(r"✓ kept, version \d"))).to_be_visible()
    page.reload()
    expect(page.get_by_label("notes of the line")).to_have_value("1 2 3 4 5 4 3 2 1")


def test_a_rhythm_is_pressed_with_the_keyboard_alone(page: Page, demo: Served) -> None:
    drill = {"title": "Pressed", "material": {"kind": "count", "text": "1 & 2 & 3 & 4 &"}, "legs": [{"division": "1"}]}
    kept = page.request.post(f"{demo.home}/api/drills", data={"drill": drill}).json()
    page.goto(f"{demo.home}/bench/{kept['id']}")
    page.get_by_role("region", name="The rail").focus()
    for _ in range(4):
        page.keyboard.press("ArrowRight")
    expect(page.get_by_text("bar 1: &", exact=True)).to_be_attached()
    page.keyboard.press("Enter")
    expect(page.get_by_label("rhythm as a count")).to_have_value("1 & 2 (&) 3 & 4 &")


def test_bars_of_a_score_become_a_drill(page: Page, demo: Served, tmp_path: Path) -> None:
    line = Line("D4*1/2 E4 F4*1 A4*2 | G4*1 F4 E4 D4", rhythm="own")
    file = tmp_path / "Sea lane.musicxml"
    file.write_bytes(write_musicxml(read(Drill(material=line, legs=legs(1))), Drill().bpm))
    page.goto(f"{demo.home}/bench")
    page.get_by_label("A file to open").set_input_files(file)
    page.get_by_label("to bar").fill("7")
    page.get_by_role("button", name="Make a drill of it").click()
    expect(page.get_by_text("Choose bars from 1 to 2")).to_be_visible()
    page.get_by_label("From bar").fill("2")
    page.get_by_label("to bar").fill("2")
    page.get_by_role("button", name="Make a drill of it").click()
    expect(page.get_by_label("title of the drill")).to_have_value("Sea lane")
    expect(page.get_by_label("notes of the line")).to_have_value(">G4 >F4 >E4 >D4")
    page.get_by_label("Save as").select_option("sound to play along, WAV")
    with page.expect_download() as sound:
        page.get_by_role("link", name="Save the file").click()
    assert sound.value.path().read_bytes().startswith(b"RIFF")


def test_a_part_goes_round_in_turn_and_is_not_measured(page: Page, demo: Served) -> None:
    drill = {
        "title": "In turn",
        "material": {"kind": "one_note", "beats": 4},
        "legs": [{"division": "2"}, {"division": "3"}],
        "bpm": "240",
        "way_in": ["hits", "whole"],
    }
    kept = page.request.post(f"{demo.home}/api/drills", data={"drill": drill}).json()
    page.goto(f"{demo.home}/stand/drill/{kept['id']}")
    page.get_by_role("button", name="1 the hits").click()
    page.get_by_label("part that goes round").select_option("seam 0")
    with set_up(page):
        page.get_by_label("who plays").select_option("1")
    expect(page.get_by_text("nothing is measured", exact=False).first).to_be_visible()
    page.get_by_label("bars of listening").select_option("0")
    page.get_by_role("button", name="Start").click()
    expect(page.get_by_text("your turn:", exact=False)).to_be_visible()
    with set_up(page):
        page.get_by_role("button", name="Hide the beat").click()
    expect(page.get_by_text("The rail is hidden.", exact=False)).to_be_visible()
    with set_up(page):
        page.get_by_role("button", name="Reveal").click()
    expect(page.get_by_role("img", name=re.compile("a beat, bar")).first).to_be_visible()
    page.get_by_role("button", name="Stop").click()
    expect(page.get_by_role("button", name="Start")).to_be_visible()
