"""A lesson in the real browser: by foot switch alone, slow and fast, pressed clicks, a ladder, a file to take home."""

import io
import re
from pathlib import Path
from typing import Any

import soundfile
from playwright.sync_api import Page, expect

from tests.e2e.server import Local, Served
from tests.e2e.stand import heard_by, more_of, quick_climb, set_up

#: A press of a switch that lasts so many ms, without waiting for them.
PRESS = """
([key, ms]) => {
  for (const [type, at] of [["keydown", 1000], ["keyup", 1000 + ms]]) {
    const event = new KeyboardEvent(type, { key, bubbles: true, cancelable: true });
    Object.defineProperty(event, "timeStamp", { value: at });
    document.body.dispatchEvent(event);
  }
}
"""


def press(page: Page, key: str, ms: int = 80) -> None:
    page.evaluate(PRESS, [key, ms])


def test_a_lesson_goes_by_the_foot_switch_alone(page: Page, own: Served) -> None:
    plan: dict[str, Any] = {
        "start": "150",
        "target": {"kind": "bpm", "bpm": "160"},
        "clean_to_rise": 1,
        "evenness": "easy",
    }
    page.goto(f"{own.home}/stand/climb/{quick_climb(page, own.home, **plan)['id']}")
    with set_up(page):
        page.get_by_role("button", name="Foot switch: Page Down").click()
        page.keyboard.press("m")
        expect(page.get_by_role("alert")).to_contain_text("m has work of its own here")
        page.keyboard.press("F9")
        page.get_by_role("dialog", name="Foot switch").get_by_role("button", name="Close").click()
    page.reload()
    with set_up(page):
        expect(page.get_by_role("button", name="Foot switch: F9")).to_be_visible()
    heard_by(page, "steady")
    page.get_by_label("bars of listening").select_option("0")
    page.get_by_label("passes", exact=True).select_option("2")
    page.keyboard.press("l")
    press(page, "F9")
    expect(page.get_by_role("button", name="Stop")).to_be_visible()
    expect(page.locator("[data-offered]")).to_have_text(re.compile("^Up to"), timeout=90_000)
    rung = page.get_by_text(re.compile(r"^rung \d+ of"))
    before = rung.inner_text()
    press(page, "F9", 900)
    expect(rung).not_to_have_text(before)


def test_a_note_is_written_on_the_spot_and_stands_in_the_log(page: Page, demo: Served) -> None:
    page.goto(f"{demo.home}/stand/climb/2")
    page.get_by_label("heard by").select_option("by_ear")
    page.get_by_label("bars of listening").select_option("0")
    page.get_by_label("passes", exact=True).select_option("1")
    page.get_by_role("button", name="Start").click()
    expect(page.get_by_text(re.compile("bar 2 of"))).to_be_visible()
    page.get_by_role("button", name="Stop").click()
    page.get_by_role("button", name="Clean").click()
    page.get_by_role("button", name="Write a note").click()
    page.keyboard.type("Thumb stays behind the neck.")
    page.keyboard.press("Enter")
    expect(page.get_by_text("“Thumb stays behind the neck.”")).to_be_visible()
    page.goto(f"{demo.home}/log/2")
    expect(page.get_by_text("“Thumb stays behind the neck.”")).to_be_visible()


def test_slow_and_fast_in_turn_while_it_plays_and_one_hand_alone(page: Page, demo: Served) -> None:
    page.goto(f"{demo.home}/stand/climb/2")
    fast = page.locator(".big-number").inner_text().split()[-1]
    with set_up(page):
        page.get_by_label("the slow tempo of the pair").select_option("1/2")
    page.get_by_role("button", name="Start").click()
    expect(page.get_by_role("button", name="Stop")).to_be_visible()
    page.keyboard.press("s")
    expect(page.locator(".big-number")).to_contain_text(str(int(fast) // 2))
    expect(page.get_by_text("Practice: it goes round")).to_be_visible()
    page.keyboard.press("s")
    expect(page.locator(".big-number")).to_contain_text(fast)
    with set_up(page):
        page.get_by_label("part that is played").select_option("hand D")
    expect(page.get_by_label("The rail, as it is played").locator("svg").first).to_have_attribute(
        "aria-label", re.compile("air|rest")
    )
    expect(page.get_by_role("button", name="Stop")).to_be_visible()
    page.keyboard.press("Space")


def test_what_no_voice_can_follow_is_said_so(page: Page, demo: Served) -> None:
    drill = {"title": "Sixes", "material": {"kind": "one_note", "beats": 4}, "legs": [{"division": "6"}], "bpm": "100"}
    kept = page.request.post(f"{demo.home}/api/drills", data={"drill": drill}).json()
    page.goto(f"{demo.home}/stand/drill/{kept['id']}")
    with set_up(page):
        page.get_by_label("what the voice says").select_option("slots")
    expect(page.get_by_text("the voice says the beats only: every slot would be 10.0 syllables")).to_be_visible()
    page.get_by_label("bars of count-in").select_option("beats")
    beats = page.get_by_label("beats of count-in")
    beats.fill("99")
    expect(page.get_by_role("alert")).to_contain_text("Take 0 to 32 beats, not 99.")
    expect(beats).to_have_value("99")
    beats.fill("2")
    page.get_by_label("bars of listening").select_option("0")
    page.get_by_role("button", name="Start").click()
    expect(page.get_by_text("three", exact=True)).to_be_visible()
    page.get_by_role("button", name="Stop").click()


def test_the_click_is_pressed_with_the_mouse_and_with_the_keyboard(page: Page, demo: Served) -> None:
    drill = {"title": "Clicked", "material": {"kind": "one_note", "beats": 4}, "legs": [{"division": "4"}]}
    kept = page.request.post(f"{demo.home}/api/drills", data={"drill": drill}).json()
    page.goto(f"{demo.home}/bench/{kept['id']}")
    page.locator("[data-event='4'] .rail-place").first.click()
    typed = page.get_by_label("click as a count")
    expect(typed).to_have_value(">1 3 4")
    page.get_by_role("region", name="The rail").focus()
    for _ in range(4):
        page.keyboard.press("ArrowRight")
    page.keyboard.press("c")
    expect(typed).to_have_value(">1 a 3 4")
    typed.fill("a of 1, 3")
    page.get_by_label("Other sums").get_by_role("button", name="The click").click()
    expect(page.get_by_label("Other sums").get_by_text("It is never on the beat")).to_be_visible()
    typed.fill("1 7")
    expect(page.get_by_role("alert")).to_contain_text("The click has a beat 7, and the meter has 4 beats a bar.")
    expect(typed).to_have_value("1 7")


def test_a_click_ladder_is_edited_kept_and_taken_home(page: Page, own: Local, tmp_path: Path) -> None:
    plan: dict[str, Any] = {
        "start": "100",
        "target": {"kind": "bpm", "bpm": "120"},
        "rule": {"kind": "even", "step": "10"},
    }
    climb = quick_climb(page, own.home, **plan)
    page.goto(f"{own.home}/climbs/{climb['id']}")
    page.get_by_text("The click ladder: as in the drill").click()
    more = page.get_by_role("button", name="One more click")
    more.click()
    more.click()
    page.get_by_label("Clicks in order").get_by_label("click", exact=True).last.select_option("typed")
    page.get_by_label("click as a count").fill("2 & 9")
    page.get_by_role("button", name="Climb on with this ladder").click()
    expect(page.get_by_role("alert")).to_contain_text("Click 2 of the ladder: The click has a beat 9")
    page.get_by_label("click as a count").fill("2 & 4")
    page.get_by_role("button", name="Keep it as the ladder of Runa Holt").click()
    expect(page.get_by_role("button", name="This is the ladder of Runa Holt")).to_be_disabled()
    page.get_by_label("order of the click ladder").select_option("at_target")
    page.get_by_role("button", name="Climb on with this ladder").click()
    expect(page.get_by_text("All 4 rungs")).to_be_visible()
    own.stop()
    own.start()
    page.reload()
    expect(page.get_by_role("row", name=re.compile("on 2 & 4"))).to_be_visible()

    more_of(page)
    page.get_by_role("button", name="Play-along file").click()
    page.get_by_label("to rung").select_option("4")
    page.get_by_label("Passes of each").select_option("1")
    page.get_by_label("as", exact=True).select_option("flac")
    page.get_by_role("button", name="Make the file").click()
    expect(page.get_by_text("Ready: 4 tempi")).to_be_visible(timeout=60_000)
    with page.expect_download() as download:
        page.get_by_role("link", name="Save the file").click()
    assert download.value.suggested_filename == "kelp-100-to-120.flac"
    file = tmp_path / "kelp.flac"
    download.value.save_as(file)
    sound, rate = soundfile.read(io.BytesIO(file.read_bytes()))
    seconds = sum(12 * 60 / bpm for bpm in (100, 110, 120, 120)) + 3 * 3 + 1
    assert abs(len(sound) / rate - seconds) < 0.001

    page.goto(f"{own.home}/climbs/new?student={climb['student']['id']}")
    page.get_by_text("and more …").click()
    expect(page.get_by_label("click ladder", exact=True)).to_have_value("own")
