"""A drill in one line: what is understood is seen at once, taken by Enter, said, and taken back."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.e2e.access import violations, with_checker
from tests.e2e.server import Served


@pytest.mark.parametrize("width", [1280, 820, 390])
def test_a_line_of_words_makes_a_drill_and_changes_it_by_keyboard_alone(page: Page, own: Served, width: int) -> None:
    with_checker(page)
    page.set_viewport_size({"width": width, "height": 844})
    page.goto(own.home)
    expect(page.get_by_label("Say it")).to_be_visible()
    page.keyboard.press("/")
    expect(page.get_by_label("Say it")).to_be_focused()
    page.keyboard.type("d dorian two octaves triplets then sixteenths groups of five 84 xyzzy")
    chips = page.get_by_label("Understood").get_by_role("listitem")
    expect(chips).to_have_text(
        [
            re.compile(f"{one}$")
            for one in ("D", "dorian", "2 octaves", "triplets", "sixteenths", "groups of 5", "84 bpm")
        ]
    )
    expect(page.get_by_text("Not understood: “xyzzy”")).to_be_visible()
    assert violations(page) == []
    page.keyboard.press("Enter")
    expect(page.get_by_label("scale", exact=True)).to_have_value("dorian")
    expect(page.get_by_label("tempo in bpm")).to_have_value("84")

    page.keyboard.press("/")
    page.keyboard.type("in A, slower by 10")
    expect(chips).to_have_count(2)
    page.keyboard.press("Enter")
    expect(page.get_by_label("tonic")).to_have_value("A")
    expect(page.get_by_text("tempo 84 → 74")).to_be_visible()
    assert violations(page) == []
    page.get_by_role("button", name="Take it back").click()
    expect(page.get_by_label("tonic")).to_have_value("D")
    expect(page.get_by_label("tempo in bpm")).to_have_value("84")


def test_what_cannot_be_meant_is_said_and_nothing_is_lost(page: Page, own: Served) -> None:
    page.goto(f"{own.home}/bench")
    field = page.get_by_label("Say it")
    field.fill("bananas in pyjamas")
    expect(page.get_by_text("Not understood: “bananas”")).to_be_visible()
    expect(page.get_by_role("button", name="Make this drill")).to_have_count(0)
    field.press("Enter")
    expect(field).to_have_value("bananas in pyjamas")
    expect(page.get_by_text("No drill yet.")).to_be_visible()
