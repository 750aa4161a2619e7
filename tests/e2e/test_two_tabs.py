"""Two tabs on one studio, two studios on one address, and what a server does not take: nobody loses anything."""

import json
import re
from pathlib import Path
from typing import Any

from playwright.sync_api import Page, Route, expect

from tests.e2e.access import violations, with_checker
from tests.e2e.server import Local, Served
from tests.e2e.stand import quick_climb
from tests.e2e.test_nothing_is_lost import climb_of, new_drill


def kept_here(page: Page) -> list[str]:
    """Return the kinds of what lies in the outbox of this browser."""
    found: list[str] = page.evaluate(
        "Object.entries(localStorage).filter(([key]) => key.includes('.out.')).map(([, it]) => JSON.parse(it).kind)"
    )
    return found


def play_by_ear(page: Page, home: str, climb: int) -> None:
    """Play a take that an ear is to mark."""
    page.goto(f"{home}/stand/climb/{climb}")
    page.get_by_label("heard by").select_option("by_ear")
    page.get_by_label("bars of listening").select_option("0")
    page.get_by_label("passes", exact=True).select_option("1")
    page.get_by_role("button", name="Start").click()
    expect(page.get_by_role("button", name="Clean")).to_be_visible()


def test_a_tab_in_conflict_keeps_its_draft_when_the_other_one_saves(page: Page, own: Served) -> None:
    new_drill(page, own.home)
    other = page.context.new_page()
    other.goto(page.url)
    expect(other.get_by_text("✓ kept, version 1")).to_be_visible()
    page.get_by_label("title of the drill").fill("Theirs")
    expect(page.get_by_text("✓ kept, version 2")).to_be_visible()
    other.get_by_label("title of the drill").fill("Mine")
    expect(other.get_by_role("alert")).to_contain_text("changed elsewhere")
    page.get_by_label("title of the drill").fill("Theirs, and on")
    expect(page.get_by_text("✓ kept, version 3")).to_be_visible()
    # The draft of the tab in conflict is its own, and a reload finds it.
    other.reload()
    expect(other.get_by_label("title of the drill")).to_have_value("Mine")
    expect(other.get_by_role("alert")).to_contain_text("at version 3")
    other.get_by_role("button", name="Take theirs").click()
    expect(other.get_by_label("title of the drill")).to_have_value("Theirs, and on")
    expect(other.get_by_text("✓ kept, version 3")).to_be_visible()
    other.reload()
    expect(other.get_by_label("title of the drill")).to_have_value("Theirs, and on")
    assert kept_here(other) == []
    # Mine is one step of undo away as long as the bench is open: taking theirs once more loses nothing.
    other.get_by_label("title of the drill").fill("Mine again")
    expect(other.get_by_text("✓ kept, version 4")).to_be_visible()


def test_a_slow_answer_is_no_conflict_with_oneself(page: Page, own: Served) -> None:
    new_drill(page, own.home)

    held: list[Route] = []

    def hold(route: Route) -> None:
        if route.request.method == "PUT" and not held:
            held.append(route)
        else:
            route.continue_()

    page.route(re.compile(r"/api/drills/\d+$"), hold)
    with page.expect_request(lambda request: request.method == "PUT"):
        page.get_by_label("title of the drill").fill("Slow")
    page.get_by_label("tempo in bpm").fill("91")
    page.get_by_label("title of the drill").fill("Slow and slower")
    expect(page.get_by_text("keeping it …")).to_be_visible()
    held[0].continue_()
    expect(page.get_by_text("✓ kept, version 3")).to_be_visible()
    expect(page.get_by_role("alert")).to_have_count(0)
    kept = page.request.get(f"{own.home}/api/drills/1").json()["drill"]
    assert (kept["title"], kept["bpm"]) == ("Slow and slower", "91")


def test_takes_of_two_tabs_wait_side_by_side_and_go_out_once(page: Page, own: Local) -> None:
    climb = climb_of(page, own.home)
    other = page.context.new_page()
    for tab in (page, other):
        play_by_ear(tab, own.home, climb)
    own.stop()
    for tab in (page, other):
        tab.get_by_role("button", name="Clean").click()
    for tab in (page, other):
        expect(tab.get_by_text("2 takes are kept on this computer")).to_be_visible()
    own.start()
    for tab in (page, other):
        expect(tab.get_by_text("kept on this computer")).to_have_count(0)
    takes = page.request.get(f"{own.home}/api/takes").json()["takes"]
    assert [take["mark"] for take in takes] == ["clean", "clean"]
    assert kept_here(page) == []


def test_what_plays_keeps_its_version_and_the_newer_one_is_offered_after_the_word(page: Page, own: Served) -> None:
    climb = quick_climb(page, own.home)
    drill = page.request.get(f"{own.home}/api/drills/{climb['drill_id']}").json()["drill"]
    page.goto(f"{own.home}/stand/drill/{climb['drill_id']}")
    page.get_by_label("student", exact=True).select_option("Runa Holt")
    page.get_by_label("heard by").select_option("by_ear")
    page.get_by_label("bars of listening").select_option("0")
    page.get_by_label("passes", exact=True).select_option("4")
    page.get_by_role("button", name="Start").click()
    expect(page.get_by_text("pass 1 of 4")).to_be_visible()
    # Another tab keeps a version 2, and this one hears of it in the middle of the take.
    changed = {"drill": {**drill, "bpm": "90"}, "based_on": 1}
    page.request.put(f"{own.home}/api/drills/{climb['drill_id']}", data=changed)
    with page.expect_response(re.compile(r"/api/drills/\d+$")) as heard:
        # Whoever comes back to a page asks again what is older than some seconds.
        page.evaluate("setInterval(() => window.dispatchEvent(new Event('visibilitychange')), 500)")
    assert heard.value.json()["version"] == 2
    expect(page.get_by_label("student", exact=True)).to_have_value(str(climb["student"]["id"]))
    expect(page.get_by_label("tempo in bpm")).to_have_value("150")
    offer = page.get_by_role("button", name="Put version 2 on the stand")
    expect(page.get_by_text(re.compile("pass . of 4"))).to_be_visible()
    expect(page.get_by_role("button", name="Clean")).to_be_visible(timeout=20_000)
    expect(offer).to_have_count(0)
    page.get_by_role("button", name="Clean").click()
    expect(offer).to_be_visible()
    takes = page.request.get(f"{own.home}/api/takes").json()["takes"]
    assert [(take["version"], take["bpm"], take["mark"]) for take in takes] == [(1, "150", "clean")]
    offer.press("Enter")
    expect(page.get_by_label("tempo in bpm")).to_have_value("90")
    expect(page.get_by_label("student", exact=True)).to_have_value(str(climb["student"]["id"]))
    expect(offer).to_have_count(0)


def test_a_refused_take_stays_in_the_tray_with_its_reason(page: Page, own: Served) -> None:
    climb = climb_of(page, own.home)
    with_checker(page)
    play_by_ear(page, own.home, climb)

    def spoilt(route: Route) -> None:
        body: dict[str, Any] = json.loads(route.request.post_data or "")
        route.continue_(post_data=json.dumps({**body, "bpm": "0"}))

    page.route("**/api/takes", spoilt)
    page.get_by_role("button", name="Clean").click()
    expect(page.get_by_text("One thing was not taken by the server.")).to_be_visible()
    page.unroute("**/api/takes")
    page.reload()
    page.get_by_role("button", name="Look at it").click()
    tray = page.get_by_role("dialog", name="Not kept yet")
    expect(tray).to_contain_text("A take at 200 bpm")
    assert violations(page) == []
    expect(tray).to_contain_text("A tempo of 0 bpm cannot be played")
    with page.expect_download() as saved:
        tray.get_by_role("button", name="Save it as a file").click()
    assert json.loads(Path(saved.value.path()).read_text())["bpm"] == "200"
    # By the keyboard alone: what was spoilt on the way is sent again as it was.
    tray.get_by_role("button", name="Send it again").press("Enter")
    expect(tray).to_contain_text("Nothing is left here.")
    page.keyboard.press("Escape")
    expect(page.get_by_text("kept on this computer")).to_have_count(0)
    assert [take["bpm"] for take in page.request.get(f"{own.home}/api/takes").json()["takes"]] == ["200"]


def test_a_page_of_one_studio_writes_nothing_into_another(page: Page, own: Local, tmp_path: Path) -> None:
    climb = climb_of(page, own.home)
    play_by_ear(page, own.home, climb)
    bench = page.context.new_page()
    bench.goto(f"{own.home}/bench/1")
    expect(bench.get_by_text("✓ kept, version 1")).to_be_visible()
    own.stop()
    page.get_by_role("button", name="Clean").click()
    bench.get_by_label("title of the drill").fill("Made for the other studio")
    expect(page.get_by_text("One take is kept on this computer")).to_be_visible()
    # Another studio on the same address, as when the demo was started before.
    with own.instead(tmp_path / "another.sqlite3"):
        climb_of(page, own.home)
        expect(page.get_by_role("alert").first).to_contain_text("Another studio answers here now")
        page.get_by_role("button", name="Go on with the one that is here").click()
        expect(
            page.get_by_text(re.compile(r"wait here for another studio|waits here for another studio"))
        ).to_be_visible()
        assert page.request.get(f"{own.home}/api/takes").json() == {"takes": []}
        assert page.request.get(f"{own.home}/api/drills/1").json()["drill"]["title"] == "Short"
    page.goto(own.home)
    expect(page.get_by_text("kept on this computer")).to_have_count(0)
    assert len(page.request.get(f"{own.home}/api/takes").json()["takes"]) == 1


def test_no_rule_of_the_page_makes_the_browser_draw_all_of_it_anew(page: Page, demo: Served) -> None:
    page.goto(demo.home)
    rules = page.evaluate(
        """[...document.styleSheets].flatMap((sheet) => [...sheet.cssRules]).flatMap(function all(rule) {
             return [rule.selectorText ?? "", ...[...(rule.cssRules ?? [])].flatMap(all)];
           })"""
    )
    assert len(rules) > 100
    assert [rule for rule in rules if ":has(" in rule] == []
