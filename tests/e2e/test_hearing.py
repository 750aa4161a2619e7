"""Hearing the instrument in the real browser: a MIDI device, a microphone and files, and the stand-ins at each."""

import re
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from playwright.sync_api import Browser, Page, Playwright, expect

from ripresa.formats.recording import wav
from ripresa.formats.sounds import RATE, note
from tests.e2e.access import violations, with_checker
from tests.e2e.server import Served
from tests.e2e.stand import heard_by, quick_climb, set_up
from tests.e2e.test_hands import STEADY_CLOCK, made
from tools.shots import ARGUMENTS, CHROMIUM

#: A keyboard that a test plays on, pulls out and puts in again.
KEYBOARD = """
class Access extends EventTarget {
  inputs = new Map();
  put(name) {
    const input = new EventTarget();
    Object.assign(input, { id: name, name, state: "connected" });
    this.inputs.set(name, input);
    this.onstatechange?.(new Event("statechange"));
  }
  pull(name) {
    this.inputs.get(name).state = "disconnected";
    this.inputs.delete(name);
    this.onstatechange?.(new Event("statechange"));
  }
  send(name, ...data) {
    const event = new Event("midimessage");
    Object.assign(event, { data: new Uint8Array(data) });
    this.inputs.get(name)?.dispatchEvent(event);
  }
}
window.keyboard = new Access();
navigator.requestMIDIAccess = async () => window.keyboard;
"""
FOURS = {
    "title": "Gulls on the rail",
    "material": {"kind": "one_note", "beats": 8},
    "legs": [{"division": "4"}],
    "bpm": "120",
    "instrument": "guitar",
}


@pytest.fixture
def keyboard(page: Page) -> Page:
    with_checker(page)
    page.add_init_script(STEADY_CLOCK)
    page.add_init_script(KEYBOARD)
    return page


def at_the_stand(page: Page, demo: Served) -> Any:
    """Put a climb on the stand that is soon played; return it."""
    climb = quick_climb(page, demo.home, {"instrument": "guitar"})
    page.goto(f"{demo.home}/stand/climb/{climb['id']}")
    expect(page.get_by_label("heard by")).to_be_visible()
    return climb


def test_a_midi_device_comes_is_heard_goes_and_comes_back(keyboard: Page, demo: Served) -> None:
    page = keyboard
    at_the_stand(page, demo)
    page.get_by_label("heard by").select_option("midi")
    expect(page.get_by_text("No MIDI device is connected")).to_be_visible()
    page.evaluate("keyboard.put('Harbour keys')")
    page.get_by_label("device", exact=True).select_option("device Harbour keys")
    # The clock between, and a status that is left out: a real stream.
    page.evaluate("keyboard.send('Harbour keys', 0xf8, 0x90, 62, 83, 0xf8, 62, 0)")
    expect(page.get_by_text("D4, velocity 83")).to_be_visible()
    # Remembered over a reload.
    page.reload()
    expect(page.get_by_label("heard by")).to_have_value("midi")
    expect(page.get_by_label("device", exact=True)).to_have_value("device Harbour keys")
    page.evaluate("keyboard.put('Harbour keys')")
    page.get_by_label("bars of listening").select_option("0")
    page.get_by_role("button", name="Start").click()
    expect(page.locator(".is-playing")).to_be_visible()
    page.evaluate("keyboard.pull('Harbour keys')")
    expect(page.get_by_text("Harbour keys went away")).to_be_visible()
    expect(page.locator(".is-playing")).to_have_count(0)
    page.evaluate("keyboard.put('Harbour keys')")
    page.evaluate("keyboard.send('Harbour keys', 0x90, 60, 70)")
    expect(page.get_by_text("C4, velocity 70")).to_be_visible()


def test_pads_are_learnt_and_start_and_stop(keyboard: Page, demo: Served) -> None:
    page = keyboard
    at_the_stand(page, demo)
    page.get_by_label("heard by").select_option("midi")
    page.evaluate("keyboard.put('Quay pads')")
    page.get_by_label("device", exact=True).select_option("device Quay pads")
    page.get_by_role("button", name="Pads and pedals").click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_role("button", name="Learn: Start and stop").click()
    page.evaluate("keyboard.send('Quay pads', 0xb0, 64, 127)")
    expect(dialog.get_by_text("pedal 64")).to_be_visible()
    assert violations(page) == []
    dialog.get_by_role("button", name="Close").click()
    page.evaluate("keyboard.send('Quay pads', 0xb0, 64, 127)")
    expect(page.locator(".is-playing")).to_be_visible()
    page.evaluate("keyboard.send('Quay pads', 0xb0, 64, 0)")
    page.evaluate("keyboard.send('Quay pads', 0xb0, 64, 127)")
    expect(page.locator(".is-playing")).to_have_count(0)
    with page.expect_response(re.compile("/api/setups/known")):
        page.reload()
    page.evaluate("keyboard.put('Quay pads')")
    expect(page.get_by_role("button", name="Pads and pedals")).to_be_visible()
    page.evaluate("keyboard.send('Quay pads', 0xb0, 64, 127)")
    expect(page.locator(".is-playing")).to_be_visible()


def test_a_midi_device_is_measured_by_hand_and_known_again(keyboard: Page, demo: Served) -> None:
    page = keyboard
    at_the_stand(page, demo)
    page.get_by_label("heard by").select_option("midi")
    page.evaluate("keyboard.put('Late keys')")
    page.get_by_label("device", exact=True).select_option("device Late keys")
    page.get_by_role("button", name="Set up …").click()
    page.get_by_role("button", name="Measure the latency").click()
    dialog = page.get_by_role("dialog", name="How late is this set-up?")
    expect(dialog.get_by_text("It was not measured how late")).to_be_visible()
    dialog.get_by_role("button", name="Start the click").click()
    expect(dialog.get_by_text("0 heard")).to_be_visible()
    # Sixteen clicks at 90: struck steadily from about the first on, each a little late.
    page.evaluate(
        """() => new Promise((done) => {
          let struck = 0;
          const timer = setInterval(() => {
            keyboard.send('Late keys', 0x90, 60, 80);
            if (++struck === 22) { clearInterval(timer); done(); }
          }, 60000 / 90);
        })"""
    )
    expect(
        dialog.get_by_text(re.compile("Kept for this set-up|do not follow the click|taps could be used"))
    ).to_be_visible()


@pytest.mark.parametrize("source", ["midi", "microphone"])
def test_the_stand_in_shows_each_kind_of_measuring_and_the_take_is_heard_again(
    page: Page, demo: Served, source: str
) -> None:
    with_checker(page)
    page.add_init_script(STEADY_CLOCK)
    climb = at_the_stand(page, demo)
    heard_by(page, "steady", source)
    page.get_by_label("bars of listening").select_option("0")
    page.get_by_label("passes").select_option("1")
    page.get_by_role("button", name="Start").click()
    expect(page.get_by_role("heading", name="Heard again")).to_be_visible(timeout=90_000)
    expect(page.get_by_text(re.compile(r"spread \d+ ± \d+ ms")).first).to_be_visible()
    # What stands in is late by nothing: what is heard lies where it was played.
    newest = page.request.get(f"{demo.home}/api/takes?climb_id={climb['id']}").json()["takes"][-1]
    figures = page.request.get(f"{demo.home}/api/takes/{newest['id']}").json()["figures"]
    assert abs(float(figures["bias"]["label"].split()[0].replace("−", "-"))) <= 8, figures["bias"]
    sound = page.get_by_label("the take, heard again")
    page.get_by_label("the ideal").check()
    page.get_by_role("img", name=re.compile("Offsets through the take")).click()
    sound.evaluate(
        "(audio) => new Promise((done) => { const look = () =>"
        " audio.currentTime > 0.5 ? done(true) : requestAnimationFrame(look); look(); })"
    )
    assert float(sound.evaluate("(audio) => audio.duration")) > 3
    assert violations(page) == []


def microphone_file(folder: Path) -> Path:
    """A recording that goes round: a pluck each eighth of a second, for ten seconds."""
    sound = np.zeros(10 * RATE)
    for number in range(80):
        first = round(number * 0.125 * RATE)
        tone = note("pluck", 57)[: round(0.11 * RATE)] * np.linspace(1, 0, round(0.11 * RATE))
        sound[first : first + len(tone)] += 0.4 * tone
    target = folder / "microphone.wav"
    target.write_bytes(wav(sound))
    return target


@pytest.fixture
def microphone(playwright: Playwright, tmp_path: Path) -> Iterator[Browser]:
    file = microphone_file(tmp_path)
    fake = [
        "--use-fake-ui-for-media-stream",
        "--use-fake-device-for-media-stream",
        f"--use-file-for-fake-audio-capture={file}",
    ]
    browser = playwright.chromium.launch(executable_path=CHROMIUM, args=[*ARGUMENTS, *fake])
    yield browser
    browser.close()


def new_page(browser: Browser, **context: Any) -> Page:
    page = browser.new_context(viewport={"width": 1280, "height": 800}, **context).new_page()
    page.set_default_timeout(20_000)
    return page


def test_a_take_by_microphone_is_heard_measured_and_heard_again(microphone: Browser, demo: Served) -> None:
    page = new_page(microphone)
    with_checker(page)
    page.add_init_script(STEADY_CLOCK)
    asked: list[str] = []
    page.expose_function("told", lambda of: asked.append(of))
    page.add_init_script(
        "const ask = navigator.mediaDevices.getUserMedia.bind(navigator.mediaDevices);"
        "navigator.mediaDevices.getUserMedia = (of) => { told(JSON.stringify(of)); return ask(of); };"
    )
    number = made(page, demo.home, FOURS)
    student = page.request.get(f"{demo.home}/api/students").json()["students"][0]["id"]
    page.goto(f"{demo.home}/stand/drill/{number}")
    expect(page.get_by_label("heard by")).to_be_visible()
    assert asked == []
    page.get_by_label("heard by").select_option("microphone")
    expect(page.get_by_label("level of the microphone, in dB")).to_be_visible()
    assert '"echoCancellation":false' in asked[0]
    assert violations(page) == []
    page.get_by_label("student", exact=True).select_option(str(student))
    page.get_by_label("bars of listening").select_option("0")
    page.get_by_label("passes").select_option("2")
    page.get_by_role("button", name="Start").click()
    expect(page.get_by_role("heading", name="Heard again")).to_be_visible(timeout=90_000)
    takes = page.request.get(f"{demo.home}/api/takes?student_id={student}").json()["takes"]
    assert takes[-1]["source"] == "microphone"
    take = page.request.get(f"{demo.home}/api/takes/{takes[-1]['id']}").json()
    assert take["figures"]["matched"] >= 0.9 * take["figures"]["due"], (
        take["reasons"],
        take["figures"]["due"],
        take["figures"]["matched"],
        take["figures"]["extra"],
        [p["offset_ms"] for p in take["figures"]["line"]],
    )
    page.context.close()


def test_a_microphone_that_goes_away_stops_the_take_with_a_sentence(microphone: Browser, demo: Served) -> None:
    page = new_page(microphone)
    page.add_init_script(
        "const ask = navigator.mediaDevices.getUserMedia.bind(navigator.mediaDevices);"
        "navigator.mediaDevices.getUserMedia = async (of) => (window.stream = await ask(of));"
    )
    at_the_stand(page, demo)
    page.get_by_label("heard by").select_option("microphone")
    expect(page.get_by_label("level of the microphone, in dB")).to_be_visible()
    page.get_by_role("button", name="Start").click()
    expect(page.locator(".is-playing")).to_be_visible()
    page.evaluate("stream.getTracks()[0].dispatchEvent(new Event('ended'))")
    expect(page.get_by_text("The microphone went away. The bars until then are kept.").first).to_be_visible()
    expect(page.locator(".is-playing")).to_have_count(0)
    page.context.close()


def test_a_microphone_that_is_refused_says_what_to_do(page: Page, demo: Served) -> None:
    page.add_init_script(
        "navigator.mediaDevices.getUserMedia = async () => { throw new DOMException('no', 'NotAllowedError'); };"
    )
    at_the_stand(page, demo)
    page.get_by_label("heard by").select_option("microphone")
    expect(page.get_by_text("The browser does not let the microphone in")).to_be_visible()
    page.get_by_role("button", name="Start").click()
    expect(page.locator(".is-playing")).to_have_count(0)


def test_files_become_takes_or_say_why_not(page: Page, demo: Served, tmp_path: Path) -> None:
    with_checker(page)
    climb = at_the_stand(page, demo)
    drill = page.request.get(f"{demo.home}/api/climbs/{climb['id']}/drill").json()["drill"]
    asked = {"drill": drill, "bpm": climb["bpm"], "player": {"spread_ms": 6, "sounding_percent": 70}}
    sound = page.request.post(f"{demo.home}/api/stand-in/recording", data=asked)
    good, broken = tmp_path / "good.wav", tmp_path / "broken.wav"
    good.write_bytes(sound.body())
    broken.write_bytes(b"RIFF" + bytes(100))
    with set_up(page):
        page.get_by_label("Recordings and MIDI files to take in").set_input_files([broken, good])
    listed = page.get_by_role("listitem")
    expect(listed.filter(has_text="broken.wav")).to_contain_text("is no take: This is no recording that can be read")
    expect(page.get_by_role("heading", name="Heard again")).to_be_visible()
    page.goto(f"{demo.home}/log/{climb['student']['id']}")
    page.get_by_text("Recordings and MIDI files", exact=True).click()
    expect(page.get_by_label("climb of the files")).to_be_visible()
    assert violations(page) == []
