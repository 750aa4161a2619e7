"""Two hands, the strings and a breath in the real browser: made, refused, kept, played and told."""

import re
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from tests.e2e.server import Local, Served
from tests.e2e.test_access import opened_is_clear_and_fits
from tests.e2e.test_word import play

HANDS = {
    "title": "Three against two, for both hands, with a long title that has to be broken somewhere",
    "material": {"kind": "scale_run", "tonic": "A", "scale": "harmonic_minor", "octaves": 1},
    "legs": [{"division": "3"}],
    "second": {
        "plays": {"kind": "contrary", "start": "same"},
        "legs": [{"division": "2"}],
        "balance": "softer",
        "phrase": "ne-ver hur-ry",
    },
    "instrument": "piano",
    "fingering": "usual",
    "bpm": "120",
    "way_in": ["right", "left", "composite", "whole"],
}
PICKED = {
    "title": "Lamps",
    "material": {"kind": "picked", "chords": "Am | Fmaj7=x03210 | C | G", "pattern": "p i m a m i p+a x"},
    "legs": [{"division": "2"}],
    "instrument": "guitar",
}
TONGUED = {
    "title": "Slurred across the break",
    "material": {"kind": "scale_run", "tonic": "C", "octaves": 2},
    "legs": [{"division": "4"}],
    "hands": {"kind": "articulated", "pattern": "slur_two_tongue_two"},
    "breath": "4",
    "instrument": "clarinet",
}


def made(page: Page, home: str, drill: dict[str, Any]) -> int:
    answer = page.request.post(f"{home}/api/drills", data={"drill": drill})
    assert answer.ok, answer.text()
    return int(answer.json()["id"])


def test_a_left_hand_is_given_with_the_keyboard_alone_and_kept(page: Page, demo: Served) -> None:
    page.goto(f"{demo.home}/bench/{made(page, demo.home, {'instrument': 'piano', 'legs': [{'division': '3'}]})}")
    expect(page.get_by_role("button", name="and more")).to_be_visible()
    page.keyboard.press("+")
    expect(page.get_by_label("find what else there is")).to_be_focused()
    # What is called so comes first, and is taken.
    page.keyboard.type("left hand")
    page.keyboard.press("Enter")
    plays = page.get_by_label("what the left hand plays")
    expect(plays).to_be_visible()
    plays.focus()
    page.keyboard.type("k")
    expect(page.get_by_label("note of the left hand")).to_have_value("C3")
    note = page.get_by_label("note of the left hand")
    note.focus()
    page.keyboard.press("Control+a")
    page.keyboard.type("H3")
    expect(page.get_by_role("alert").first).to_contain_text("“H3”")
    expect(note).to_have_value("H3")
    page.keyboard.press("Control+a")
    page.keyboard.type("G2")
    expect(page.get_by_role("alert")).to_have_count(0)
    expect(page.get_by_text(re.compile(r"✓ kept, version"))).to_be_visible()
    page.reload()
    expect(page.get_by_label("note of the left hand")).to_have_value("G2")
    plays.select_option("none")
    expect(page.get_by_label("note of the left hand")).to_have_count(0)


def test_n_against_m_is_told_seen_and_stepped_into(page: Page, demo: Served) -> None:
    number = made(page, demo.home, HANDS)
    page.goto(f"{demo.home}/bench/{number}")
    sums = page.get_by_label("Other sums")
    sums.get_by_role("button", name="3 against 2").click()
    expect(sums.get_by_text("4 strokes", exact=False).first).to_be_visible()
    expect(page.get_by_role("img", name=re.compile("left hand")).first).to_be_visible()
    page.get_by_label("divisions of the left hand").click()
    page.get_by_label("Or write them in order", exact=False).fill("4")
    page.keyboard.press("Escape")
    expect(sums.get_by_text("3 against 4", exact=False).first).to_be_visible()
    page.goto(f"{demo.home}/stand/drill/{number}")
    page.get_by_role("button", name=re.compile("^3 ")).click()
    # The composite goes round on one key: there is one place to tap.
    expect(page.get_by_role("button", name=re.compile("^Tap"))).to_be_visible()
    page.get_by_role("button", name=re.compile("^4 ")).click()
    for hand in ("Left", "Right"):
        expect(page.get_by_role("button", name=re.compile(f"^{hand}"))).to_be_visible()


def test_a_take_of_two_hands_is_measured_hand_by_hand_and_together(page: Page, demo: Served) -> None:
    page.goto(f"{demo.home}/stand/drill/{made(page, demo.home, HANDS)}")
    page.get_by_label("student", exact=True).select_option(label="Ilse Havn")
    play(page, "steady", "2")
    # Ten meetings of the hands are clean, or too near to call: no two takes of a player are the same.
    expect(page.get_by_role("heading", name=re.compile("^(Clean|Too near to call)$"))).to_be_visible(timeout=90_000)
    together = page.get_by_text(re.compile(r"^Together: the left hand .* after the right where they meet, 10 times"))
    expect(together).to_contain_text("dB louder, the left one was to be softer")
    for hand in ("R", "L"):
        expect(page.get_by_role("listitem").filter(has_text=re.compile(f"^{hand}: "))).to_be_visible()


#: A clock of the sound that goes with the clock of the screen: where there is no sound device it jumps, and then the
#: stand rightly takes no taps.
STEADY_CLOCK = """
const begun = new WeakMap();
AudioContext.prototype.getOutputTimestamp = function () {
  const now = performance.now();
  if (!begun.has(this)) begun.set(this, this.currentTime - now / 1000);
  return { contextTime: begun.get(this) + now / 1000, performanceTime: now };
};
"""


def test_two_places_to_tap_are_two_hands(page: Page, demo: Served) -> None:
    page.add_init_script(STEADY_CLOCK)
    page.goto(f"{demo.home}/stand/drill/{made(page, demo.home, {**HANDS, 'way_in': [], 'bpm': '100'})}")
    page.get_by_label("student", exact=True).select_option(label="Ilse Havn")
    page.get_by_label("bars of listening").select_option("0")
    page.get_by_label("passes", exact=True).select_option("1")
    page.get_by_role("button", name=re.compile("^Start")).click()
    expect(page.get_by_text(re.compile("^pass 1"))).to_be_visible()
    with page.expect_request(lambda request: request.url.endswith("/api/takes")) as sent:
        for hand in ("Left", "Right", "Left"):
            page.get_by_role("button", name=re.compile(f"^{hand}")).dispatch_event("pointerdown")
    body = sent.value.post_data_json or {}
    assert [note["key"] for note in body["notes"]] == ["f", "j", "f"]


def test_a_picking_pattern_is_refused_at_its_word_and_kept_over_a_kill(page: Page, own: Local) -> None:
    number = made(page, own.home, PICKED)
    page.goto(f"{own.home}/bench/{number}")
    pattern = page.get_by_label("picking pattern", exact=True)
    pattern.fill("p q m a")
    expect(page.get_by_role("alert").first).to_contain_text("“q”")
    expect(pattern).to_have_value("p q m a")
    pattern.fill("p i m a")
    expect(page.get_by_role("alert")).to_have_count(0)
    expect(page.get_by_text(re.compile(r"✓ kept, version"))).to_be_visible()
    chords = page.get_by_label("chords", exact=True)
    chords.fill("Am=x0221")
    expect(page.get_by_role("alert").first).to_contain_text("“Am” grips 5 strings, and guitar has 6")
    chords.fill("Am=x02213")
    expect(page.get_by_text(re.compile(r"✓ kept, version"))).to_be_visible()
    own.stop()
    own.start()
    page.goto(f"{own.home}/bench/{number}")
    expect(page.get_by_label("chords", exact=True)).to_have_value("Am=x02213")
    expect(page.get_by_role("img", name=re.compile("x02213"))).to_be_visible()


def test_the_breath_of_each_rung_stands_in_the_climb(page: Page, demo: Served) -> None:
    kept = page.request.post(f"{demo.home}/api/drills", data={"drill": TONGUED}).json()
    plan = {"start": "40", "target": {"kind": "bpm", "bpm": "120"}}
    body = {"student_id": 1, "drill_id": kept["id"], "plan": plan}
    climb = page.request.post(f"{demo.home}/api/climbs", data=body).json()
    page.goto(f"{demo.home}/climbs/{climb['id']}")
    page.get_by_text("All 29 rungs").click()
    expect(page.get_by_role("columnheader", name="breaths")).to_be_visible()
    page.goto(f"{demo.home}/bench/{kept['id']}")
    page.get_by_text("Change it in one press").click()
    page.get_by_role("button", name="The crossing of the break alone").click()
    expect(page.get_by_label("material")).to_have_value("line")
    page.get_by_role("button", name="Undo").click()
    page.get_by_role("button", name="Every articulation in turn").click()
    expect(page.get_by_label("articulation pattern")).to_be_visible()


@pytest.mark.parametrize("place", ["bench", "stand/drill"])
@pytest.mark.parametrize("drill", [HANDS, PICKED, TONGUED], ids=["hands", "picked", "tongued"])
def test_it_is_clear_in_both_themes_and_fits_every_screen(
    page: Page, demo: Served, drill: dict[str, Any], place: str
) -> None:
    opened_is_clear_and_fits(page, f"{demo.home}/{place}/{made(page, demo.home, drill)}")
