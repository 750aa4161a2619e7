"""The pictures of docs/screenshots: each main view, made from the demo studio by the browser."""

import shutil
import subprocess
import sys
import time
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from tempfile import TemporaryDirectory

from playwright.sync_api import Page, sync_playwright

ROOT = Path(__file__).parent.parent
TARGET = ROOT / "docs" / "screenshots"
PORT = 8796
HOME = f"http://localhost:{PORT}"
#: The browser without a window where there is one: its pages are there in half the time.
CHROMIUM = shutil.which("chromium-headless-shell") or shutil.which("chromium") or "/usr/bin/chromium"
#: Without these, Chromium on a machine of its own asks the network for things that no page needs.
ARGUMENTS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--autoplay-policy=no-user-gesture-required",
]


@contextmanager
def demo_server(port: int = PORT) -> Iterator[str]:
    """Serve the demo studio while the block runs."""
    command = [sys.executable, "-m", "ripresa.cli", "serve", "--demo", "--port", str(port)]
    server = subprocess.Popen(command, cwd=ROOT, stdout=subprocess.DEVNULL)
    try:
        for _ in range(150):
            try:
                urllib.request.urlopen(f"http://localhost:{port}/api/choices", timeout=1).close()
                break
            except OSError:
                if server.poll() is not None:
                    raise
                time.sleep(0.1)
        yield f"http://localhost:{port}"
    finally:
        server.terminate()
        server.wait(timeout=10)


def settle(page: Page) -> None:
    page.wait_for_load_state("networkidle")
    page.evaluate("document.fonts.ready")


def stand_take(page: Page) -> None:
    page.goto(f"{HOME}/stand/climb/2")
    page.get_by_label("bars of listening").select_option("0")
    page.get_by_label("passes", exact=True).select_option("1")
    page.get_by_label("heard by").select_option("stand_in")
    page.get_by_label("device", exact=True).select_option("stand-in steady")
    page.get_by_role("button", name="Start").click()
    page.get_by_text("Where each note of the beat fell").wait_for(timeout=90_000)


def heard_again(page: Page) -> None:
    """Let the stand-in play into the microphone, and show the take where it can be heard again."""
    page.get_by_label("heard by").select_option("microphone")
    page.get_by_label("device", exact=True).select_option("stand-in stumbling")
    page.get_by_role("button", name="Start").click()
    heading = page.get_by_role("heading", name="Heard again")
    heading.wait_for(timeout=90_000)
    heading.scroll_into_view_if_needed()


def from_the_shelf(page: Page, title: str) -> str:
    """Take a ready drill as a start; return the number of its copy."""
    page.goto(f"{HOME}/bench/shelf")
    page.get_by_role("button", name=f"Take as a start: {title}").click()
    page.get_by_role("img", name="bar 1").first.wait_for()
    return page.url.rsplit("/", 1)[-1]


def views(page: Page) -> Iterator[str]:
    page.goto(HOME)
    yield "desk"
    page.goto(f"{HOME}/bench/1")
    yield "bench"
    page.goto(f"{HOME}/bench")
    yield "drills"
    page.goto(f"{HOME}/bench/shelf")
    yield "shelf"
    page.goto(f"{HOME}/climbs/3")
    yield "climb"
    page.goto(f"{HOME}/climbs/7?view=map")
    page.get_by_text("press a place to go there").wait_for()
    yield "map"
    page.goto(f"{HOME}/students/1")
    page.get_by_text("Where it is going").wait_for()
    yield "student"
    page.locator(".menu-box > summary").click()
    page.get_by_role("button", name="Recap").click()
    page.get_by_label("What was played").wait_for()
    yield "recap"
    page.goto(f"{HOME}/climbs/1/sheet")
    page.get_by_alt_text("Page 1 of 1").wait_for()
    yield "sheet"
    page.goto(f"{HOME}/bench/1")
    page.get_by_label("Written out:").select_option("both")
    page.get_by_label("where it lies on the neck").check()
    page.get_by_label("The notation").locator("svg").first.wait_for()
    page.get_by_label("Written out", exact=True).scroll_into_view_if_needed()
    yield "written-out"
    page.get_by_label("Written out:").select_option("no")
    page.get_by_label("where it lies on the neck").uncheck()
    page.goto(f"{HOME}/climbs/new?student=3&drill=4")
    yield "new-climb"
    page.goto(f"{HOME}/log/2")
    yield "log"
    page.keyboard.press("u")
    page.get_by_role("heading", name="Inner pulse").wait_for()
    yield "sums"
    stand_take(page)
    yield "stand"
    heard_again(page)
    yield "hearing"
    page.get_by_label("heard by").select_option("taps")
    page.keyboard.press("l")
    page.get_by_role("button", name="Start").click()
    page.get_by_text("bar 3 of").wait_for(timeout=90_000)
    yield "stand-large"
    from_the_shelf(page, "Lamps on the quay")
    yield "picking"
    hands = from_the_shelf(page, "Two gulls, one pier")
    page.goto(f"{HOME}/stand/drill/{hands}")
    page.get_by_label("bars of listening").select_option("0")
    page.get_by_role("button", name="Start").click()
    page.get_by_text("bar 2 of").wait_for(timeout=90_000)
    yield "two-hands"


def main() -> None:
    TARGET.mkdir(parents=True, exist_ok=True)
    with demo_server(), sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=ARGUMENTS)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        for name in views(page):
            settle(page)
            page.screenshot(path=TARGET / f"{name}.png")
        away(page)
        browser.close()


def away(page: Page) -> None:
    """Take the picture of a practice file, opened from a disk on a telephone."""
    with TemporaryDirectory() as folder:
        file = Path(folder) / "practice.html"
        file.write_bytes(page.request.get(f"{HOME}/api/practice-file.html?climb=1").body())
        page.set_viewport_size({"width": 390, "height": 800})
        page.goto(file.as_uri())
        page.get_by_role("button", name="Start").wait_for()
        settle(page)
        page.screenshot(path=TARGET / "practice-file.png")


if __name__ == "__main__":
    main()
