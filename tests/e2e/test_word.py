"""The word after a take in the real browser: the fault, its remedy in one press, practice that is measured, an ear."""

import re

from playwright.sync_api import Page, Route, expect

from tests.e2e.server import Served
from tests.e2e.stand import by_ear, heard_by, quick_climb


def play(page: Page, who: str, passes: str = "1") -> None:
    heard_by(page, who)
    page.get_by_label("bars of listening").select_option("0")
    page.get_by_label("passes", exact=True).select_option(passes)
    page.get_by_role("button", name=re.compile("^Start")).click()


#: A pass of it lasts six seconds, and whoever stumbles at changes does so in it.
CHANGING = {
    "material": {"kind": "one_note", "beats": 4},
    "legs": [{"division": "2"}, {"division": "3"}, {"division": "2"}],
    "bpm": "120",
}


def test_from_the_fault_by_its_remedy_back_to_the_rung(page: Page, demo: Served) -> None:
    climb = quick_climb(page, demo.home, CHANGING)
    page.goto(f"{demo.home}/stand/climb/{climb['id']}")
    play(page, "stumbling")
    word = page.locator(".word-open")
    expect(word).to_contain_text("late at the change", timeout=90_000)
    expect(word).to_contain_text(re.compile(r"\d+ ± \d+ ms late after (2 → 3|3 → 2), heard once \(limit \d+\)"))
    # Nothing has to be scrolled for: the word, where it fell, and through the take.
    for name in ("Where each note of the beat fell", "Through the take"):
        expect(page.get_by_role("heading", name=name)).to_be_in_viewport()
    # Every slot of the triplet is there, and the table leads to a note on the rail.
    assert page.get_by_role("img", name=re.compile(r"^(1|trip|let): ")).count() == 3
    page.get_by_text("All of it in numbers").click()
    page.get_by_role("button", name="show “let”").last.click()
    expect(page.locator(".peg-lit")).to_have_count(1)

    page.get_by_role("button", name=re.compile("^Loop the change at")).click()
    status = page.get_by_role("status").filter(has_text="Loop the change")
    expect(status).to_contain_text("is measured, on a line of its own in the log")
    page.goto(f"{demo.home}/climbs/{climb['id']}")
    expect(page.get_by_text("The climb waits for: Loop the change")).to_be_visible()
    page.get_by_role("link", name=re.compile("^Loop the change at")).click()
    expect(status).to_be_visible()

    # Practice goes round until it is stopped.
    play(page, "steady")
    expect(page.get_by_text(re.compile("^pass 3"))).to_be_visible(timeout=60_000)
    page.get_by_role("button", name=re.compile("^Stop")).click()
    expect(page.get_by_text("practice, on a line of its own in the log")).to_be_visible(timeout=30_000)
    by_ear(page, "Clean")
    expect(page.get_by_text(re.compile(r"Clean: rung \d+ is offered again"))).to_be_visible()
    page.get_by_role("button", name=re.compile(r"^Back to rung")).first.click()
    expect(page.get_by_role("status").filter(has_text="Practice")).to_have_count(0)
    page.goto(f"{demo.home}/log/{climb['student']['id']}")
    expect(page.get_by_text("Parts practised by themselves")).to_be_visible()
    expect(page.get_by_text(re.compile("the change 2 → 3, 1 take, last clean at"))).to_be_visible()


def test_what_is_too_near_is_played_as_often_as_would_settle_it(page: Page, demo: Served) -> None:
    def too_near(route: Route) -> None:
        answer = route.fetch()
        body = answer.json()
        offer = {"bpm": None, "division": None, "drill": None}
        body["take"] |= {
            "mark": "near",
            "machine": "near",
            "says": ["Too near to call: uneven.", "A take of 5 passes would settle it."],
            "offers": [{**offer, "kind": "again", "label": "Play 5 passes", "passes": 5}],
        }
        route.fulfill(response=answer, json=body)

    climb = quick_climb(page, demo.home, CHANGING)
    page.goto(f"{demo.home}/stand/climb/{climb['id']}")
    page.route("**/api/takes", too_near)
    play(page, "steady")
    page.get_by_role("button", name="Play 5 passes").click(timeout=90_000)
    expect(page.get_by_text("pass 1 of 5")).to_be_visible()
    page.get_by_role("button", name=re.compile("^Stop")).click()
    expect(page.get_by_label("passes", exact=True)).to_have_value("5")


def test_what_a_take_is_held_to_is_changed_in_the_brief(page: Page, demo: Served) -> None:
    page.goto(f"{demo.home}/climbs/2")
    page.get_by_text("Held to evenness working", exact=True).click()
    page.get_by_label("but another evenness for one figure").select_option("but changes, landings and places …")
    page.get_by_role("button", name="Hold takes to this from now on").click()
    expect(
        page.get_by_text("Held to evenness working, but changes, landings and places easy", exact=True)
    ).to_be_visible()
    page.reload()
    expect(
        page.get_by_text("Held to evenness working, but changes, landings and places easy", exact=True)
    ).to_be_visible()


def test_a_take_of_old_is_judged_again_beside_what_was_said(page: Page, demo: Served) -> None:
    page.goto(f"{demo.home}/log/2")
    page.get_by_text("Judge it again, by today’s rule").first.click()
    expect(page.get_by_text(re.compile("^Said then: "))).to_be_visible()
    expect(page.get_by_text(re.compile("^Said today: "))).to_be_visible()
