"""On paper and away: notation that lights, the sheet that is issued, and the practice file that comes back."""

import json
import re
from pathlib import Path
from typing import Any

from playwright.sync_api import Browser, Page, expect

from ripresa.core.drill import Drill
from ripresa.core.reading import read
from ripresa.core.reports import brief_runs
from ripresa.core.shelf import SHELF
from ripresa.formats.drill_file import plain
from tests.e2e.server import Served
from tests.e2e.stand import more_of, quick_climb, set_up

PLAN: dict[str, Any] = {"start": "150", "target": {"kind": "bpm", "bpm": "160"}, "clean_to_rise": 1, "evenness": "easy"}


def test_the_note_that_sounds_is_lit_in_the_notation(page: Page, own: Served) -> None:
    page.goto(f"{own.home}/stand/climb/{quick_climb(page, own.home, **PLAN)['id']}")
    with set_up(page):
        page.get_by_label("Written out:").select_option("notes")
    notation = page.get_by_label("The notation")
    expect(notation.locator("svg").first).to_be_visible()
    # It reads well for who does not see it.
    assert "bar 1: 1" in (page.get_by_label("Written out", exact=True).text_content() or "")
    page.get_by_label("bars of listening").select_option("0")
    page.get_by_role("button", name="Start").click()
    expect(notation.locator(".note-lit")).not_to_have_count(0)
    page.wait_for_function(
        """() => {
            const peg = document.querySelector(".peg-lit")?.getAttribute("data-event");
            const note = document.querySelector(".note-lit")?.id.match(/^e(\\d+)-/)?.[1];
            return peg !== undefined && Number(peg) % 4 === Number(note) % 4;
        }"""
    )
    page.get_by_role("button", name="Stop").click()
    # It is off for who never asked: what was chosen is this browser's.
    page.reload()
    with set_up(page):
        expect(page.get_by_label("Written out:")).to_have_value("notes")


def test_a_sheet_is_seen_issued_and_told_to_differ(page: Page, own: Served) -> None:
    climb = quick_climb(page, own.home, **PLAN)
    page.goto(f"{own.home}/climbs/{climb['id']}")
    more_of(page)
    page.get_by_role("link", name="Hand-out").click()
    expect(page.get_by_alt_text(re.compile("^Page 1 of 1"))).to_be_visible()
    page.get_by_label("What you write in").fill("Loose wrist.")
    page.get_by_text("The sheet as text").click()
    expect(page.locator("pre")).to_contain_text("From your teacher\nLoose wrist.")
    with page.expect_download() as download:
        page.get_by_role("button", name="Issue it as PDF").click()
    assert Path(download.value.path()).read_bytes().startswith(b"%PDF")
    expect(page.get_by_role("link", name="Sheet 1")).to_be_visible()
    page.request.put(
        f"{own.home}/api/climbs/{climb['id']}/limits", data={"limits": {"evenness": "strict"}, "based_on": 1}
    )
    page.reload()
    expect(page.get_by_text("It differs from sheet 1")).to_be_visible()


def test_a_practice_file_goes_away_and_comes_back(page: Page, own: Served, browser: Browser, tmp_path: Path) -> None:
    climb = quick_climb(page, own.home, **PLAN)
    page.goto(f"{own.home}/climbs/{climb['id']}")
    more_of(page)
    with page.expect_download() as download:
        page.get_by_role("link", name="Practice file").click()
    file = tmp_path / "practice.html"
    download.value.save_as(file)
    assert file.stat().st_size < 3_000_000
    home = browser.new_context(viewport={"width": 390, "height": 844}, offline=True)
    away = home.new_page()
    wrong: list[str] = []
    away.on("pageerror", lambda error: wrong.append(str(error)))
    away.goto(file.as_uri())
    assert away.evaluate("document.documentElement.scrollWidth") <= 390
    away.get_by_role("button", name="Start").click()
    expect(away.get_by_text("bar 1", exact=True).last).to_be_visible()
    for _ in range(4):
        away.get_by_role("button", name="Tap along").dispatch_event("pointerdown")
    # Start has the focus by the mouse: J and F tap all the same, as it says.
    expect(away.get_by_role("button", name="Tap along")).to_have_text(re.compile("J ?F"))
    for key in "jfj":
        away.keyboard.press(key)
    # It stops by itself after its passes.
    expect(away.get_by_text("7 taps are kept")).to_be_visible()
    away.get_by_role("button", name="Clean", exact=True).click()
    away.get_by_label("A question for the next lesson").fill("Which finger?")
    twice = home.new_page()
    twice.goto(file.as_uri())
    away.reload()
    expect(away.get_by_label("A question for the next lesson")).to_have_value("Which finger?")
    # Open twice, neither page takes away what the other one keeps.
    expect(twice.get_by_text("1 take is ready to go back.")).to_be_visible()
    twice.get_by_role("button", name="Start").click()
    twice.keyboard.press("f")
    expect(twice.get_by_text("bar 1", exact=True).last).to_be_visible()
    twice.keyboard.press("f")
    expect(twice.get_by_text("2 takes are ready to go back.")).to_be_visible()
    expect(away.get_by_text("2 takes are ready to go back.")).to_be_visible()
    twice.close()
    with away.expect_download() as saved:
        away.get_by_role("button", name="Save the results").click()
    text = Path(saved.value.path()).read_text("utf-8")
    home.close()
    assert not wrong
    first, second = json.loads(text)["takes"]
    assert (first["mark"], len(first["notes"]), second["mark"]) == ("clean", 7, None)
    page.goto(f"{own.home}/log/{climb['student']['id']}")
    page.get_by_text("Results of a practice file").click()
    page.get_by_label("Results as text").fill(text)
    page.get_by_role("button", name="Take them in").click()
    expect(page.get_by_text("2 takes of Runa Holt came back and are judged.")).to_be_visible()
    expect(page.get_by_text("Which finger?").first).to_be_visible()
    page.get_by_label("Results as text").fill(text)
    page.get_by_role("button", name="Take them in").click()
    expect(page.get_by_text("2 takes had come before, and count once.")).to_be_visible()
    page.get_by_label("Results as text").fill("Dear teacher")
    page.get_by_role("button", name="Take them in").click()
    expect(page.get_by_text("These are not the results of a practice file.")).to_be_visible()


#: One drill of the shelf for each kind of material.
KINDS: dict[str, Drill] = {entry.drill.material.kind: entry.drill for entry in reversed(SHELF)}


def test_the_brief_on_paper_says_what_the_bench_says(page: Page, demo: Served) -> None:
    for drill in KINDS.values():
        kept = page.request.post(f"{demo.home}/api/drills", data={"drill": plain(drill)}).json()
        page.goto(f"{demo.home}/bench/{kept['id']}")
        brief = page.get_by_label("The brief")
        expect(brief).to_be_visible()
        expect(page.get_by_label("tempo in bpm")).to_be_visible()
        shown: list[str] = brief.evaluate(
            """(brief) => [...brief.querySelectorAll("select, input, textarea, button")].map((word) =>
                word.selectedOptions?.[0]?.textContent || word.value || word.textContent)"""
        )
        on_screen = " ".join(" ".join(shown).lower().split())
        for run in brief_runs(read(drill)):
            if run.is_word and not _is_worked_out(run.text):
                assert _bare(run.text) in on_screen, (drill.title, run.text, on_screen)


def _is_worked_out(text: str) -> bool:
    """Return whether a word joins two of the bench's: a number with what it counts."""
    return bool(re.fullmatch(r"-?\d+ \w+|once|twice|.*→.*", text))


def _bare(text: str) -> str:
    return " ".join(text.lower().split())
