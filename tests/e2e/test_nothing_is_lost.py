"""Refused input, a reload, a killed server: what was made stays."""

import re

import pytest
from playwright.sync_api import Dialog, Page, expect

from tests.e2e.server import Served, Server
from tests.e2e.stand import quick_climb


def new_drill(page: Page, home: str) -> None:
    page.goto(home)
    page.get_by_role("button", name="New drill", exact=True).click()
    expect(page.get_by_text("✓ kept, version 1")).to_be_visible()


def climb_of(page: Page, home: str) -> int:
    """Make a student with a short drill and a climb; return the number of the climb."""
    short = {"title": "Short", "material": {"kind": "one_note", "beats": 4}, "bpm": "200"}
    return int(quick_climb(page, home, short, "Ada Brink")["id"])


def test_refused_words_stay_as_typed_and_the_rail_stands(page: Page, demo: Served) -> None:
    new_drill(page, demo.home)
    rail = page.get_by_role("img", name=re.compile("^2 a beat, bar 1"))
    expect(rail).to_be_visible()
    page.get_by_label("accents").select_option("every_nth")
    page.get_by_label("notes in a group").fill("99")
    expect(page.get_by_role("alert")).to_have_text("A group has 2 to 64 notes, not 99.")
    expect(page.get_by_label("notes in a group")).to_have_attribute("aria-invalid", "true")
    expect(page.get_by_label("notes in a group")).to_have_value("99")
    expect(rail).to_be_visible()
    page.get_by_label("tempo in bpm").fill("fast")
    expect(page.get_by_role("alert")).to_contain_text("“fast” is not a number. Write 84, 84.5 or 84½.")
    expect(page.get_by_label("tempo in bpm")).to_have_value("fast")
    page.get_by_label("tempo in bpm").fill("90")
    page.get_by_label("notes in a group").fill("7")
    expect(page.get_by_role("alert")).to_have_count(0)
    expect(page.get_by_text(re.compile("✓ kept, version"))).to_be_visible()


def test_a_count_is_refused_at_its_place_and_stays(page: Page, demo: Served) -> None:
    new_drill(page, demo.home)
    page.get_by_label("material").select_option("count")
    rhythm = page.get_by_label("rhythm as a count")
    rhythm.fill("1 & 2 boom 3")
    expect(page.get_by_role("alert").first).to_contain_text("Word 4 of the count, “boom”, is not a word of a count")
    expect(rhythm).to_have_value("1 & 2 boom 3")
    rhythm.fill("1 & (2) & 3")
    page.get_by_label("times").select_option("1")
    page.get_by_label("hands", exact=True).select_option("by_place")
    expect(page.get_by_role("alert")).to_have_count(0)
    expect(page.get_by_text("As a count:")).to_contain_text(">1 & (2) & >3")
    page.get_by_label("Other sums").get_by_role("button", name="Hands").click()
    expect(page.get_by_label("Other sums")).to_contain_text("D 2 of 4 motions, U 2 of 4 motions")


def test_a_refused_plan_leaves_the_last_treads_standing(page: Page, demo: Served) -> None:
    page.goto(f"{demo.home}/climbs/new")
    expect(page.get_by_text("rungs from 72 to 120.")).to_be_visible()
    page.get_by_label("target tempo in bpm").fill("60")
    expect(page.get_by_role("alert")).to_have_text("The target, 60 bpm, has to be above the start, 72 bpm.")
    expect(page.get_by_role("button", name="Start this climb")).to_be_disabled()
    expect(page.get_by_role("img", name=re.compile("^Staircase of"))).to_be_visible()


def test_a_reload_in_the_middle_of_a_change_loses_nothing(page: Page, demo: Served) -> None:
    new_drill(page, demo.home)
    page.get_by_label("title of the drill").fill("Half said")
    page.reload()
    expect(page.get_by_label("title of the drill")).to_have_value("Half said")
    expect(page.get_by_text("✓ kept, version 2")).to_be_visible()


def test_an_earlier_version_is_taken_back(page: Page, demo: Served) -> None:
    new_drill(page, demo.home)
    page.get_by_label("title of the drill").fill("Second thought")
    page.get_by_text("✓ kept, version 2").click()
    page.get_by_role("button", name="Take this one").click()
    expect(page.get_by_label("title of the drill")).to_have_value("New drill")
    expect(page.get_by_text("✓ kept, version 3")).to_be_visible()


def test_a_change_made_while_the_server_is_gone_is_sent_later(page: Page, apart: Server) -> None:
    new_drill(page, apart.home)
    apart.kill()
    page.get_by_label("title of the drill").fill("Made in the dark")
    expect(page.get_by_text("kept on this computer; sent when the server answers")).to_be_visible()
    apart.start()
    expect(page.get_by_text("✓ kept, version 2")).to_be_visible()
    page.reload()
    expect(page.get_by_label("title of the drill")).to_have_value("Made in the dark")


def test_a_take_survives_the_server_being_killed_in_the_middle(page: Page, apart: Server) -> None:
    climb = climb_of(page, apart.home)
    page.goto(f"{apart.home}/stand/climb/{climb}")
    page.get_by_label("heard by").select_option("by_ear")
    page.get_by_label("bars of listening").select_option("0")
    page.get_by_role("button", name="Start").click()
    expect(page.get_by_text("pass 1 of 2")).to_be_visible()
    apart.kill()
    page.get_by_role("button", name="Clean").click()
    expect(page.get_by_text("One take is kept on this computer")).to_be_visible()
    apart.start()
    expect(page.get_by_text("One take is kept on this computer")).to_have_count(0)
    takes = page.request.get(f"{apart.home}/api/takes").json()["takes"]
    assert [(take["mark"], take["bpm"]) for take in takes] == [("clean", "200")]


def test_with_full_storage_and_a_dead_server_nothing_is_called_kept(page: Page, apart: Server) -> None:
    new_drill(page, apart.home)
    page.evaluate("() => void (Storage.prototype.setItem = () => { throw new Error('full') })")
    apart.kill()
    page.get_by_label("title of the drill").fill("Made in the dark")
    expect(page.get_by_text("not kept yet: this browser has no room for it.")).to_be_visible()
    expect(page.get_by_text("kept on this computer")).to_have_count(0)
    apart.start()
    expect(page.get_by_text("✓ kept, version 2")).to_be_visible()


def test_the_network_is_not_the_server(page: Page, demo: Served) -> None:
    """The room's wireless goes: the browser says that it is offline, and the server on this computer answers."""
    new_drill(page, demo.home)
    page.evaluate(
        """() => {
            Object.defineProperty(navigator, "onLine", { get: () => false });
            window.dispatchEvent(new Event("offline"));
        }"""
    )
    sums = page.get_by_label("Sums of this drill")
    before = sums.inner_text()
    page.get_by_label("tempo in bpm").fill("97")
    expect(page.get_by_text("✓ kept, version 2")).to_be_visible()
    expect(sums).not_to_have_text(before)
    page.get_by_role("link", name="Today").click()
    page.get_by_role("link", name="Settings").click()
    expect(page.get_by_text("on this computer and nowhere else.")).to_be_visible()
    page.get_by_text("Where everything lies").click()
    expect(page.get_by_text("Recordings that are kept", exact=True)).to_be_visible()


def test_a_page_that_is_left_in_the_middle_of_a_take_asks(page: Page, demo: Served) -> None:
    climb = climb_of(page, demo.home)
    page.goto(f"{demo.home}/stand/climb/{climb}")
    asked: list[str] = []

    def stay(dialog: Dialog) -> None:
        asked.append(dialog.type)
        dialog.dismiss()

    page.on("dialog", stay)
    page.get_by_role("button", name="Start").click()
    expect(page.get_by_role("button", name="Stop")).to_be_visible()
    page.close(run_before_unload=True)
    expect(page.get_by_role("button", name="Stop")).to_be_visible()
    assert asked == ["beforeunload"]
    page.get_by_role("button", name="Stop").click()
    expect(page.get_by_role("button", name="Start")).to_be_visible()


@pytest.mark.parametrize(("missing", "says"), [("AudioContext", "make sound by itself"), ("Worker", "keep the beat")])
def test_start_says_what_a_browser_lacks(page: Page, demo: Served, missing: str, says: str) -> None:
    climb = climb_of(page, demo.home)
    page.add_init_script(f"delete window.{missing}")
    page.goto(f"{demo.home}/stand/climb/{climb}")
    page.get_by_role("button", name="Start").click()
    expect(page.get_by_text(f"This browser cannot {says}")).to_be_visible()


def test_a_browser_that_is_too_old_says_so(page: Page, demo: Served) -> None:
    page.route("**/assets/*.js", lambda route: route.fulfill(body="let let;", content_type="text/javascript"))
    page.goto(demo.home)
    said = page.get_by_text("This browser is too old for this page, or did not load all of it.")
    # Not at once, where a page is only on its way.
    expect(said).to_be_hidden()
    expect(said).to_be_visible()
    expect(said).to_have_css("font-size", "17.6px")


def test_a_drill_of_three_hundred_legs_is_still_a_drill(page: Page, demo: Served) -> None:
    divisions = [{"division": str(2 + index % 5)} for index in range(300)]
    kept = page.request.post(f"{demo.home}/api/drills", data={"drill": {"title": "Long haul", "legs": divisions}})
    page.goto(f"{demo.home}/bench/{kept.json()['id']}")
    expect(page.get_by_text("and 292 more stages")).to_be_visible()
    drawn = page.get_by_role("region", name="The rail").get_by_role("img")
    assert drawn.count() < 20
    page.get_by_role("region", name="The rail").evaluate("box => { box.scrollTop = box.scrollHeight }")
    expect(page.get_by_role("img", name=re.compile(r"^6 a beat, bar \d+: 1 ")).last).to_be_visible()
