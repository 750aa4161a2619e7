"""How quick the app is to the hand: a browser types, starts and plays, as it is and with its processor slowed.

``python -m tools.by_hand`` prints, for the demo studio: the time from a key to rail and sums that are painted, the
frames that are dropped while a drill is played, the time from Start to the first sound, and the first view.
``--quick`` takes a few changes instead of forty.
"""

import gzip
import json
import statistics
import sys
import urllib.request
from collections.abc import Iterator
from itertools import pairwise
from pathlib import Path
from typing import Any

from playwright.sync_api import CDPSession, Page, sync_playwright

from tools.shots import ARGUMENTS, CHROMIUM, ROOT, demo_server

#: The words beside the field in which divisions are typed.
DIVISIONS = "Or write them in order"
CHANGES = 6 if "--quick" in sys.argv else 40
#: Changes at which the browser still gets to know its scripts.
WARM = 3
PLAYED_SECONDS = 3 if "--quick" in sys.argv else 8
ASSETS = ROOT / "ripresa" / "web" / "static"

#: From an input to the first frame after the rail or the sums were drawn anew.
WATCH = """
() => {
  window.felt = [];
  let since = null;
  document.addEventListener("input", (event) => { since = event.timeStamp; }, true);
  const drawn = () => {
    if (since === null) return;
    const from = since;
    since = null;
    requestAnimationFrame(() => { const to = new MessageChannel();
      to.port1.onmessage = () => window.felt.push(performance.now() - from); to.port2.postMessage(0); });
  };
  const seen = (mutations) => mutations.some(({ target }) => {
    const one = target.nodeType === 1 ? target : target.parentElement;
    return one?.closest(".rail-picture, [aria-label='Sums of this drill']") || one?.querySelector?.(".rail-picture");
  }) && drawn();
  new MutationObserver(seen).observe(document.body,
    { subtree: true, childList: true, characterData: true, attributes: true });
}
"""

#: The moment of the first sound, on the clock of the screen; and how long each frame took.
LISTEN = """
() => {
  const set = AudioParam.prototype.setValueAtTime;
  const begun = AudioContext.prototype.resume;
  let context = null;
  AudioContext.prototype.resume = function () { context = this; return begun.call(this); };
  AudioParam.prototype.setValueAtTime = function (value, at) {
    // The player opens its gain softly at the moment of the first sound.
    if (Math.abs(value - 0.35) < 1e-9 && context)
      window.soundsAt = performance.now() + (at - context.currentTime) * 1000;
    return set.call(this, value, at);
  };
  document.addEventListener("click", (event) => { window.pressedAt = event.timeStamp; }, true);
  window.frames_ = [];
  const frame = (at) => { window.frames_.push(at); requestAnimationFrame(frame); };
  requestAnimationFrame(frame);
}
"""


#: The scripts that were loaded by now.
SCRIPTS = """
() => performance.getEntriesByType("resource").map((one) => one.name.split("/").pop())
  .filter((name) => name.endsWith(".js"))
"""


def post(home: str, path: str, body: dict[str, Any]) -> dict[str, Any]:
    request = urllib.request.Request(
        f"{home}{path}", json.dumps(body).encode(), {"Content-Type": "application/json"}, method="POST"
    )
    found: dict[str, Any] = json.loads(urllib.request.urlopen(request).read())
    return found


def drills() -> Iterator[tuple[str, dict[str, Any], str]]:
    """Yield each drill that is typed at: its name, what it is, and the label of the field."""
    for notes in (100, 1000):
        text = " ".join(["1", "2", "3", "4", "5", "4", "3", "2"] * (notes // 8))
        line = {"kind": "line", "text": text}
        yield (
            f"line of {notes}",
            {"title": "A line", "material": line, "legs": [{"division": "4"}]},
            "notes of the line",
        )
    for notes in (100, 1000):
        # Two octaves there and back are 29 notes.
        legs = [{"division": "234"[number % 3]} for number in range(notes // 29)]
        run = {"kind": "scale_run", "octaves": 2}
        yield f"scale of {notes}", {"title": "A scale", "material": run, "legs": legs}, DIVISIONS


def typed(page: Page, label: str) -> list[float]:
    """Type into a field, and return how long each change took to be seen, in ms."""
    if label == DIVISIONS:
        page.get_by_role("button", name="notes per beat").first.click()
    page.get_by_label(label).first.click()
    page.keyboard.press("Control+End")
    page.evaluate(WATCH)
    found: list[float] = []
    for number in range(CHANGES + WARM):
        # No two changes are alike: what was asked before would be known.
        page.keyboard.type(f" {1 + number // 9} ", delay=40)
        page.wait_for_timeout(250)
        page.evaluate("window.felt.length = 0")
        page.keyboard.press(str(1 + number % 9))
        page.wait_for_function("window.felt.length > 0", timeout=30_000)
        found.append(page.evaluate("window.felt[0]"))
        for _ in range(4):
            page.keyboard.press("Backspace")
        page.wait_for_timeout(250)
    return found[WARM:]


def told(times: list[float]) -> str:
    ordered = sorted(times)
    high = ordered[min(len(ordered) - 1, round(0.95 * (len(ordered) - 1)))]
    return f"median {statistics.median(ordered):4.0f}, p95 {high:4.0f} ms"


def slowed(page: Page, times: int) -> CDPSession:
    session: CDPSession = page.context.new_cdp_session(page)
    session.send("Emulation.setCPUThrottlingRate", {"rate": times})
    return session


def typing(page: Page, home: str) -> None:
    print("\nFrom a key to rail and sums")
    for name, drill, label in drills():
        made = post(home, "/api/drills", {"drill": drill})
        for slower in (1, 4):
            page.goto(f"{home}/bench/{made['id']}")
            page.locator(".rail-picture").first.wait_for()
            page.wait_for_load_state("networkidle")
            session = slowed(page, slower)
            print(f"  {name:>14}, × {slower}: {told(typed(page, label))}")
            session.send("Emulation.setCPUThrottlingRate", {"rate": 1})


def playing(page: Page, home: str) -> None:
    print("\nPlaying: two octaves in sixteenths at 96; frames dropped, and from Start to the first sound")
    legs = [{"division": "4"}] * 8
    drill = {"title": "Played", "material": {"kind": "scale_run", "octaves": 2}, "legs": legs, "bpm": "96"}
    made = post(home, "/api/drills", {"drill": drill})
    for slower in (1, 4, 6):
        page.goto(f"{home}/stand/drill/{made['id']}")
        start = page.get_by_role("button", name="Start")
        start.wait_for()
        page.get_by_label("bars of listening").select_option("0")
        page.wait_for_load_state("networkidle")
        page.wait_for_timeout(2000)
        page.evaluate(LISTEN)
        session = slowed(page, slower)
        start.click()
        page.wait_for_function("window.soundsAt !== undefined", timeout=30_000)
        first = page.evaluate("window.soundsAt - window.pressedAt")
        page.get_by_text("pass 1").wait_for(timeout=30_000)
        page.evaluate("window.frames_.length = 0")
        page.wait_for_timeout(PLAYED_SECONDS * 1000)
        frames: list[float] = page.evaluate("window.frames_")
        took = (frames[-1] - frames[0]) / 1000
        dropped = max(0.0, 1 - (len(frames) - 1) / (took * 60))
        longest = max(after - before for before, after in pairwise(frames))
        session.send("Emulation.setCPUThrottlingRate", {"rate": 1})
        smooth = f"{100 * dropped:3.0f} % dropped, the longest frame {longest:.0f} ms"
        print(f"  × {slower}: {smooth}; first sound after {first:.0f} ms")
        page.get_by_role("button", name="Stop").click()


def first_view(page: Page, home: str) -> None:
    print("\nThe first view: the desk, until its lessons stand there")
    for slower in (1, 4):
        times, names = list[float](), list[str]()
        for _ in range(3):
            session = slowed(page, slower)
            page.goto("about:blank")
            page.goto(home, wait_until="commit")
            page.get_by_role("heading", level=2).first.wait_for()
            times.append(page.evaluate("performance.now()"))
            names = page.evaluate(SCRIPTS)
            session.send("Emulation.setCPUThrottlingRate", {"rate": 1})
        weight = sum(len(gzip.compress((ASSETS / "assets" / name).read_bytes(), 9)) for name in names)
        print(f"  × {slower}: usable after {min(times):.0f} ms; {weight / 1000:.0f} kB of script, packed")


def main() -> None:
    with demo_server(8797) as home, sync_playwright() as play:
        browser = play.chromium.launch(executable_path=CHROMIUM, args=ARGUMENTS)
        page = browser.new_page(viewport={"width": 1280, "height": 800}, bypass_csp=True)
        for part in (first_view, playing, typing):
            part(page, home)
        browser.close()


if __name__ == "__main__":
    assert Path(CHROMIUM).exists(), "Run “make e2e” once: it installs the browser."
    main()
