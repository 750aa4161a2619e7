"""Layers, comparing, guessing and circuits in the real browser, by mouse and by keys."""

import re
from typing import Any

from playwright.sync_api import Page, expect

from tests.e2e.server import Served
from tests.e2e.stand import set_up

BARS: dict[str, Any] = {
    "title": "Pier bell",
    "material": {"kind": "one_note", "beats": 8},
    "legs": [{"division": "4"}],
    "bpm": "240",
    "hands": {"kind": "by_order", "cycle": ["R", "L"]},
}


def kept(page: Page, demo: Served, **more: Any) -> int:
    made = page.request.post(f"{demo.home}/api/drills", data={"drill": {**BARS, **more}}).json()
    return int(made["id"])


def test_hits_are_pressed_with_the_keyboard_filled_and_counted(page: Page, demo: Served) -> None:
    page.goto(f"{demo.home}/bench/{kept(page, demo, accents={'kind': 'none'})}")
    rail = page.get_by_role("region", name="The rail: arrow keys")
    rail.focus()
    page.keyboard.press("ArrowRight")
    page.keyboard.press("h")
    hits = page.get_by_label("hits as a count")
    expect(hits).to_have_value("1")
    sums = page.get_by_label("Other sums")
    sums.get_by_role("button", name="Hits and fills").click()
    expect(sums.get_by_text("1 full hit in 32 notes.")).to_be_visible()
    page.get_by_label("notes that fill each section").fill("3 five")
    expect(page.get_by_role("alert").get_by_text("“3 five” is no list of numbers", exact=False)).to_be_visible()
    page.get_by_label("notes that fill each section").fill("3 5")
    expect(sums.get_by_text("3 of 15, 5 of 16", exact=False)).to_be_visible()
    page.get_by_text("Change it in one press").click()
    page.get_by_role("button", name="Fill what is left").click()
    expect(page.get_by_label("notes that fill each section")).to_have_value("")
    expect(page.get_by_text(re.compile(r"✓ kept, version \d"))).to_be_visible()
    page.reload()
    expect(page.get_by_label("hits as a count")).to_have_value("1")


def test_what_turned_round_is_ringed_and_said(page: Page, demo: Served) -> None:
    drill = kept(page, demo, hands={"kind": "by_place"}, legs=[{"division": "2"}])
    page.goto(f"{demo.home}/bench/{drill}")
    page.get_by_text("Change it in one press").click()
    page.get_by_role("button", name="Twice as fast").click()
    expect(page.get_by_text("The stroke turns round on &: down instead of up.", exact=False)).to_be_visible()
    expect(page.get_by_text("Ringed: the stroke turned round.", exact=False)).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_text("Ringed: the stroke turned round.", exact=False)).to_have_count(0)


def test_cells_are_woven_by_hand(page: Page, demo: Served) -> None:
    drill = kept(page, demo, material={"kind": "cells", "text": "1; 1 &"}, legs=[{"division": "1"}])
    page.goto(f"{demo.home}/bench/{drill}")
    page.get_by_role("region", name="The rail: arrow keys").focus()
    page.keyboard.press("ArrowRight")
    page.keyboard.press("Enter")
    expect(page.get_by_label("how cells are mixed")).to_have_value("by_hand")
    page.get_by_role("button", name="Keep this beside it as").click()
    expect(page.get_by_role("link", name=re.compile("’s own: Pier bell"))).to_be_visible()


def test_layers_come_one_by_one_and_a_cue_stands_beside_the_word(page: Page, demo: Served) -> None:
    drill = kept(
        page,
        demo,
        foot={"which": "left"},
        enters={"hands": 2},
        cues=[{"text": "loose ankle", "where": "leg", "number": 1}],
    )
    page.goto(f"{demo.home}/stand/drill/{drill}")
    expect(page.get_by_text("loose ankle (in leg 1)")).to_be_visible()
    page.get_by_role("button", name="the foot", exact=True).click()
    expect(page.get_by_text("The others keep their time in silence.")).to_be_visible()
    expect(page.get_by_role("button", name="+ the hands from bar 2")).to_have_attribute("aria-pressed", "false")
    page.get_by_label("bars of listening").select_option("0")
    page.get_by_role("button", name="Start").click()
    expect(page.get_by_text("loose ankle", exact=True)).to_be_visible()
    page.get_by_role("button", name="Stop").click()


def test_two_drills_are_compared_at_the_bar_line_without_stopping(page: Page, demo: Served) -> None:
    page.goto(f"{demo.home}/stand/drill/{kept(page, demo)}")
    page.get_by_label("bars of listening").select_option("0")
    page.get_by_role("button", name="Start").click()
    expect(page.get_by_text(re.compile(r"pass \d"))).to_be_visible()
    told = page.get_by_text("Accents on nothing instead of the beat. The tempo stays.", exact=False)
    with set_up(page):
        page.get_by_role("button", name="Compare …").click()
        page.get_by_label("what it is compared with").select_option(label="without accents")
        expect(told).to_be_visible()
        expect(page.get_by_role("button", name="Hear the drill again")).to_be_visible()
    # By its key, as with a hand on the instrument.
    page.keyboard.press("c")
    with set_up(page):
        expect(page.get_by_role("button", name="Hear it so")).to_be_visible()
    expect(page.get_by_role("button", name="Stop")).to_be_visible()
    page.get_by_role("button", name="Stop").click()


def test_a_guess_where_beat_one_is_says_how_far_off_and_is_counted(page: Page, demo: Served) -> None:
    page.goto(f"{demo.home}/stand/drill/{kept(page, demo)}")
    page.get_by_label("bars of listening").select_option("0")
    with set_up(page):
        page.get_by_role("button", name="Hide the beat").click()
    here = page.get_by_role("button", name="Here is 1")
    expect(here).to_be_disabled()
    page.get_by_role("button", name="Start").click()
    expect(here).to_be_enabled()
    expect(page.get_by_text(re.compile(r"pass \d"))).to_be_visible()
    here.click()
    expect(page.get_by_text(re.compile(r"On beat 1: |That was bar \d, beat \d"))).to_be_visible()
    expect(page.get_by_text(re.compile(r"Today: [01] of 1 on beat 1\."))).to_be_visible()
    page.reload()
    with set_up(page):
        page.get_by_role("button", name="Hide the beat").click()
    expect(page.get_by_text(re.compile(r"Today: [01] of 1 on beat 1\."))).to_be_visible()


def test_a_circuit_goes_on_by_itself_and_keeps_its_place(page: Page, demo: Served) -> None:
    drill = kept(page, demo, material={"kind": "one_note", "beats": 4})
    page.goto(f"{demo.home}/stand/drill/{drill}")
    page.get_by_label("bars of listening").select_option("0")
    page.get_by_label("passes").select_option("1")
    with set_up(page):
        page.get_by_label("what it is turned through").select_option("hand_letters_feet")
    expect(page.get_by_text("1 of 4: left foot.")).to_be_visible()
    expect(page.get_by_text("Next: right foot.")).to_be_visible()
    page.get_by_role("button", name="Start").click()
    expect(page.get_by_text("3 of 4: beginning with L, left foot.")).to_be_visible()
    page.get_by_role("button", name="Stop").click()
    place = page.get_by_text(re.compile(r"^\d of 4: ")).inner_text()
    page.reload()
    with set_up(page):
        page.get_by_label("what it is turned through").select_option("hand_letters_feet")
    expect(page.get_by_text(place)).to_be_visible()


def test_a_tempo_typed_too_high_while_playing_is_taken_back_in_one_press(page: Page, demo: Served) -> None:
    page.goto(f"{demo.home}/stand/drill/{kept(page, demo, bpm='120')}")
    page.get_by_label("bars of listening").select_option("0")
    page.get_by_label("passes").select_option("round")
    page.get_by_role("button", name="Start").click()
    expect(page.get_by_text(re.compile(r"pass \d"))).to_be_visible()
    page.get_by_label("tempo in bpm").fill("900")
    page.get_by_role("button", name="Back to 120 bpm").click()
    expect(page.get_by_label("tempo in bpm")).to_have_value("120")
    expect(page.get_by_role("button", name=re.compile("Back to"))).to_have_count(0)
    page.get_by_role("button", name="Stop").click()


def test_the_phone_shows_the_whole_bar_and_its_tables_are_reached(page: Page, demo: Served) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(f"{demo.home}/bench/{kept(page, demo)}")
    rail = page.get_by_role("region", name="The rail: arrow keys")
    expect(page.get_by_role("img", name=re.compile("4 a beat, bar 1")).first).to_be_visible()
    assert rail.evaluate("one => one.scrollWidth <= one.clientWidth")
    page.goto(f"{demo.home}/climbs/1")
    page.get_by_role("region", name="All rungs").focus()
    expect(page.get_by_role("region", name="All rungs")).to_be_focused()


def test_the_student_s_side_is_a_mirror_that_stays(page: Page, demo: Served) -> None:
    drill = kept(page, demo)
    page.goto(f"{demo.home}/bench/{drill}")
    first = page.locator("[data-event='0'] text").last
    expect(first).to_have_text("R")
    left = first.bounding_box()
    page.get_by_label("from the student’s side").check()
    expect(first).to_have_text("L")
    right = first.bounding_box()
    assert left
    assert right
    assert right["x"] > left["x"] + 300
    page.reload()
    expect(page.get_by_label("from the student’s side")).to_be_checked()
