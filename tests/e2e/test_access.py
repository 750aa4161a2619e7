"""Every place under an accessibility checker, in both themes; and at the widths that are promised."""

from pathlib import Path
from typing import Literal

import pytest
from playwright.sync_api import Page, expect

from tests.e2e.access import too_wide, violations, with_checker
from tests.e2e.server import Served
from tests.e2e.stand import heard_by, more_of, set_up
from tests.e2e.test_nothing_is_lost import climb_of

#: Where each place is, and what its tab is called.
PLACES = {
    "desk": ("/", "Today"),
    "bench": ("/bench/1", "Drills"),
    "drills": ("/bench", "Drills"),
    "shelf": ("/bench/shelf", "Drills"),
    "climbs": ("/climbs", "Climbs"),
    "climb": ("/climbs/2", "Climbs"),
    "sheet": ("/climbs/2/sheet", "Climbs"),
    "sheet of a drill": ("/bench/1/sheet", "Drills"),
    "new climb": ("/climbs/new", "Climbs"),
    "stand": ("/stand/climb/2", "Stand"),
    "drill on the stand": ("/stand/drill/1", "Stand"),
    "log": ("/log/1", "Log"),
    "map": ("/climbs/7?view=map", "Climbs"),
    "students": ("/students", "Students"),
    "student": ("/students/1", "Students"),
    "group": ("/groups/1", "Groups"),
    "settings": ("/settings", "Settings"),
    "nowhere": ("/nowhere", "Nothing here"),
    "guide": ("/guide", "Guide"),
}


@pytest.mark.parametrize("place", PLACES)
def test_each_place_is_clear_in_both_themes_and_fits_every_screen(page: Page, demo: Served, place: str) -> None:
    with_checker(page)
    path, title = PLACES[place]
    page.goto(demo.home + path)
    expect(page.get_by_role("heading", level=1)).to_be_attached()
    expect(page).to_have_title(f"{title} – Ripresa")
    page.wait_for_load_state("networkidle")
    for width in (1280, 820, 390):
        page.set_viewport_size({"width": width, "height": 844})
        assert violations(page) == [], width
    assert too_wide(page) == []


def test_what_is_written_out_summed_up_and_shared_is_clear(page: Page, demo: Served) -> None:
    with_checker(page)
    page.goto(f"{demo.home}/bench/1")
    page.get_by_label("Written out:").select_option("notes")
    page.get_by_role("checkbox", name="where it lies").check()
    expect(page.get_by_label("The notation").locator("svg").first).to_be_visible()
    assert violations(page) == []
    page.goto(f"{demo.home}/students/1")
    more_of(page)
    page.get_by_role("button", name="Recap").click()
    expect(page.get_by_label("What was played")).to_be_visible()
    assert violations(page) == []
    page.goto(f"{demo.home}/bench")
    page.get_by_role("button", name="Share").click()
    page.get_by_role("checkbox").first.check()
    assert violations(page) == []
    page.goto(f"{demo.home}/log/1")
    page.get_by_text("Results of a practice file").click()
    assert violations(page) == []


def test_a_practice_file_is_clear_by_day_and_by_night(page: Page, demo: Served, tmp_path: Path) -> None:
    file = tmp_path / "practice.html"
    file.write_bytes(page.request.get(f"{demo.home}/api/practice-file.html?climb=2").body())
    with_checker(page)
    page.goto(file.as_uri())
    expect(page.get_by_role("heading", level=1)).to_be_attached()
    schemes: tuple[Literal["light", "dark"], ...] = ("light", "dark")
    for scheme in schemes:
        page.emulate_media(color_scheme=scheme)
        assert violations(page) == []


def test_a_take_and_a_drawer_are_clear(page: Page, demo: Served) -> None:
    with_checker(page)
    page.goto(f"{demo.home}/stand/climb/{climb_of(page, demo.home)}")
    heard_by(page, "steady")
    page.get_by_label("bars of listening").select_option("0")
    page.get_by_label("passes", exact=True).select_option("1")
    page.get_by_role("button", name="Start").click()
    page.get_by_text("Where each note of the beat fell").wait_for(timeout=90_000)
    assert violations(page) == []
    page.keyboard.press("u")
    expect(page.get_by_role("heading", name="Inner pulse")).to_be_visible()
    assert violations(page) == []


def test_what_opens_of_a_climb_and_of_the_stand_is_clear(page: Page, demo: Served) -> None:
    with_checker(page)
    page.goto(f"{demo.home}/climbs/4")
    page.get_by_text("The click ladder: as in the drill").click()
    page.get_by_role("button", name="One more click").click()
    page.get_by_label("Clicks in order").get_by_label("click", exact=True).select_option("drop_out")
    more_of(page)
    page.get_by_role("button", name="Play-along file").click()
    page.get_by_label("Passes of each").select_option("1")
    page.get_by_role("button", name="Make the file").click()
    expect(page.get_by_role("link", name="Save the file")).to_be_visible(timeout=60_000)
    assert violations(page) == []
    page.goto(f"{demo.home}/stand/climb/4")
    with set_up(page) as drawer:
        for part in ("each division said first", "the last words of the count", "the inner pulse"):
            page.get_by_label("and more before playing").select_option(part)
        page.get_by_label("what the voice says").select_option("slots")
        page.get_by_text("The click, role by role").click()
        assert violations(page) == []
        drawer.get_by_role("button", name="Foot switch").click()
        assert violations(page) == []
        page.get_by_role("dialog", name="Foot switch").get_by_role("button", name="Close").click()
    assert violations(page) == []
    page.get_by_role("button", name="All limits").click()
    assert violations(page) == []
    page.keyboard.press("Escape")
    page.keyboard.press("l")
    assert violations(page) == []


#: A drill that uses every part of the brief.
EVERYTHING = {
    "title": "Everything at once, with a title that is as long as titles of real drills tend to become over the years",
    "material": {"kind": "line", "text": "1*2 3*1 >5 (6) /7", "through": "C | Am F", "shift": "1"},
    "legs": [{"division": "4"}, {"division": "3"}],
    "hands": {"kind": "economy"},
    "click": {"kind": "drop_out"},
    "instrument": "guitar",
    "swing": {"ratio": "2"},
    "counting": {"system": "own", "own": "2: # and; 3: # o la"},
    "articulation": "1/2",
    "breath": "2",
    "body": {"movement": "step"},
    "voice": "talk",
    "way_in": ["listen", "say", "first_half", "whole"],
    "tags": ["long", "left hand"],
    "fingering": "usual",
    "register": 1,
    "folded": True,
}


@pytest.mark.parametrize("place", ["bench", "stand/drill"])
def test_a_drill_that_uses_everything_is_clear_and_fits(page: Page, demo: Served, place: str) -> None:
    kept = page.request.post(f"{demo.home}/api/drills", data={"drill": EVERYTHING}).json()
    opened_is_clear_and_fits(page, f"{demo.home}/{place}/{kept['id']}")


def opened_is_clear_and_fits(page: Page, address: str) -> None:
    """Open all that opens on a page, and hold it to the checker and to every width, on a wide and a narrow screen."""
    with_checker(page)
    page.goto(address)
    expect(page.get_by_role("img").first).to_be_visible()
    for summary in page.locator("summary").all():
        summary.click()
    page.wait_for_load_state("networkidle")
    assert violations(page) == []
    assert too_wide(page) == []
    # Colours are those of a wide screen.
    page.set_viewport_size({"width": 390, "height": 800})
    assert violations(page, both=False) == []
