"""The whole path, as a teacher walks it: with the mouse, and with the keyboard alone."""

import json
import re
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.e2e.server import Served
from tests.e2e.stand import by_ear, heard_by, more_of, quick_climb


def kept(page: Page) -> None:
    expect(page.get_by_text(re.compile(r"✓ kept, version \d+"))).to_be_visible()


def test_from_an_empty_bench_to_the_log(page: Page, demo: Served, tmp_path: Path) -> None:
    page.goto(demo.home)
    expect(page.get_by_role("heading", level=1)).to_contain_text("six lessons")
    page.get_by_role("button", name="New drill", exact=True).click()
    page.get_by_label("title of the drill").fill("Lock gates")
    page.get_by_label("material").select_option("one_note")
    page.get_by_label("beats a leg").fill("4")
    page.get_by_label(re.compile("^divisions")).click()
    page.get_by_label("Or write them in order", exact=False).fill("2 4")
    page.keyboard.press("Escape")
    page.get_by_label("accents").select_option("every_nth")
    page.get_by_label("notes in a group").fill("3")
    page.get_by_label("tempo in bpm").fill("180")
    page.get_by_label("hands", exact=True).select_option("D U")
    sums = page.get_by_label("Sums of this drill")
    expect(sums.get_by_text("8 beats, 2 bars, 24 notes, 2.7 s a pass")).to_be_visible()
    expect(sums.get_by_text("Groups of 3 come home")).to_be_visible()
    expect(page.get_by_role("img", name=re.compile("^4 a beat, bar 2: 1 D accent, e U"))).to_be_visible()
    # What is saved is what stands there, even in the moment before it is kept.
    with page.expect_download() as midi:
        page.get_by_label("Save as").select_option("MIDI")
    assert midi.value.path().read_bytes().startswith(b"MThd")
    with page.expect_download() as file:
        page.get_by_label("Save as").select_option("a drill file")
    saved = tmp_path / "lock-gates.json"
    file.value.save_as(saved)
    assert json.loads(saved.read_text())["title"] == "Lock gates"

    page.get_by_role("button", name="Start a climb").click()
    page.get_by_label("student", exact=True).select_option(label="Ilse Havn")
    page.get_by_label("start tempo in bpm").fill("180")
    page.get_by_label("target tempo in bpm").fill("220")
    page.get_by_text("and more …").click()
    page.get_by_label("clean takes in a row that lead up").select_option("1")
    expect(page.get_by_text("6 steps, 7 rungs from 180 to 220.")).to_be_visible()
    page.get_by_role("button", name="Start this climb").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Ilse Havn: Lock gates")

    page.get_by_role("link", name=re.compile("^Put on the stand")).click()
    page.get_by_label("bars of listening").select_option("0")
    heard_by(page, "steady")
    page.get_by_role("button", name="Start", exact=False).click()
    expect(page.get_by_text("pass 1 of 2")).to_be_visible()
    expect(page.get_by_text("Where each note of the beat fell")).to_be_visible(timeout=30_000)
    page.get_by_text("All of it in numbers").click()
    expect(page.get_by_text(re.compile(r"48 of 48 notes, 0 missed, 0 extra"))).to_be_visible()
    expect(page.get_by_text("No slip in 48 notes (limit 3 %).")).to_be_visible()
    # So few notes are clean, or too near to call: an ear decides in one press, and counts.
    by_ear(page, "Clean")
    page.get_by_role("button", name=re.compile("^Up to 187")).click()
    expect(page.get_by_text("rung 2 of 7")).to_be_visible()

    page.goto(f"{demo.home}/log")
    page.get_by_label("student", exact=True).select_option(label="Ilse Havn")
    expect(page.get_by_text("up one rung: rung 1 → 2").first).to_be_visible()
    expect(page.get_by_text("clean at 180 bpm").first).to_be_visible()
    more_of(page)
    with page.expect_download() as log:
        page.get_by_role("link", name="Save as CSV", exact=True).click()
    assert "Lock gates" in log.value.path().read_text()


def test_a_drill_file_opens_in_another_empty_installation(page: Page, own: Served, tmp_path: Path) -> None:
    file = tmp_path / "stairs.json"
    file.write_text('{"format": "ripresa.drill/1", "title": "Brought along", "bpm": "169/2"}')
    page.goto(f"{own.home}/bench")
    expect(page.get_by_text("No drill yet.")).to_be_visible()
    page.get_by_label("A file to open").set_input_files(file)
    expect(page.get_by_label("title of the drill")).to_have_value("Brought along")
    expect(page.get_by_label("tempo in bpm")).to_have_value("84½")
    page.goto(f"{own.home}/bench")
    file.write_text("{")
    page.get_by_label("A file to open").set_input_files(file)
    expect(page.get_by_role("alert")).to_contain_text("not JSON at line 1")


def tab_to(page: Page, label: str) -> None:
    """Press Tab until the control of that name has the focus."""
    for _ in range(60):
        page.keyboard.press("Tab")
        name = page.evaluate("document.activeElement?.ariaLabel || document.activeElement?.innerText || ''")
        if re.match(label, name):
            return
    raise AssertionError(f"Tab does not reach {label}")


def test_with_the_keyboard_alone(page: Page, demo: Served) -> None:
    long = {"material": {"kind": "one_note", "beats": 32}}
    steps = {"target": {"kind": "bpm", "bpm": "190"}, "rule": {"kind": "even", "step": "5"}}
    climb = quick_climb(page, demo.home, long, "Abe Norrby", **steps)
    page.request.post(f"{demo.home}/api/climbs/{climb['id']}/moves", data={"decision": "up", "from_rung": 1})
    page.goto(demo.home)
    expect(page.get_by_role("heading", level=1)).to_contain_text("lessons")
    page.keyboard.press("n")
    expect(page.get_by_label("title of the drill")).to_have_value("New drill")
    tab_to(page, "material")
    page.keyboard.press("o")
    tab_to(page, "beats a leg")
    page.keyboard.type("4")
    tab_to(page, "divisions")
    page.keyboard.press("Enter")
    tab_to(page, "Take the last away")
    page.keyboard.press("Enter")
    page.keyboard.press("Enter")
    page.keyboard.press("Escape")
    tab_to(page, "tempo in bpm")
    page.keyboard.type("200")
    expect(page.get_by_label("Sums of this drill").get_by_text("8 notes, 1.2 s a pass")).to_be_visible()
    kept(page)
    page.keyboard.press("Tab")
    tab_to(page, "Undo")
    page.keyboard.press("Control+z")
    expect(page.get_by_label("tempo in bpm")).to_have_value("72")
    page.keyboard.press("Control+Shift+z")
    expect(page.get_by_label("tempo in bpm")).to_have_value("200")
    kept(page)

    page.keyboard.press("5")
    tab_to(page, "Abe Norrby")
    page.keyboard.press("Enter")
    expect(page.get_by_text("rung 2 of 9", exact=True)).to_be_visible()
    page.keyboard.press("[")
    expect(page.get_by_text("rung 1 of 9 (the climb stands on 2)")).to_be_visible()
    page.keyboard.press("]")
    page.keyboard.press("m")
    expect(page.get_by_role("button", name="Click off")).to_be_visible()
    page.keyboard.press("l")
    expect(page.get_by_role("button", name="Large")).to_have_attribute("aria-pressed", "true")
    page.keyboard.press("l")
    page.keyboard.press("Space")
    expect(page.get_by_text("Nobody plays: feel where beat 1 is.")).to_be_visible()
    expect(page.get_by_text("pass 1 of 2")).to_be_visible()
    for _ in range(4):
        page.keyboard.press("j")
        page.keyboard.press("f")
    expect(page.get_by_text(re.compile(r"^bar 2 of \d+$"))).to_be_visible()
    page.keyboard.press("Space")
    # What the taps measured depends on this machine's clock; that they were heard does not.
    heard = page.get_by_text(re.compile("No verdict|Shaky|Clean|sound clock jumped"))
    expect(heard.first).to_be_visible()

    page.keyboard.press("u")
    expect(page.get_by_role("dialog", name="Sums")).to_be_visible()
    page.keyboard.press("Escape")
    page.keyboard.press("?")
    expect(page.get_by_role("dialog", name="Keys")).to_be_visible()
    page.keyboard.press("Escape")
    page.keyboard.press("6")
    expect(page.get_by_role("heading", level=1)).to_contain_text("Log of")
    # Esc leaves no page; the browser’s own way back does.
    page.keyboard.press("Escape")
    expect(page.get_by_role("heading", level=1)).to_contain_text("Log of")
    page.go_back()
    expect(page.get_by_text("rung 2 of 9", exact=True)).to_be_visible()
