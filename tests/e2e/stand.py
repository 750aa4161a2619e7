"""What journeys do at the stand, and climbs that are short enough to be played to their end."""

from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

from playwright.sync_api import Locator, Page

#: A pass of it lasts three seconds.
QUICK: dict[str, Any] = {
    "title": "Kelp",
    "material": {"kind": "one_note", "beats": 8},
    "legs": [{"division": "4"}],
    "bpm": "150",
}


def quick_climb(
    page: Page, home: str, drill: dict[str, Any] | None = None, name: str = "Runa Holt", **plan: Any
) -> Any:
    """Start a climb at the tempo of a drill that is soon over, with a student of its own; return it."""
    api, chosen = page.request, {**QUICK, **(drill or {})}
    student = api.post(f"{home}/api/students", data={"details": {"name": name, "instrument": "guitar"}}).json()
    kept = api.post(f"{home}/api/drills", data={"drill": chosen}).json()
    asked = {"start": chosen["bpm"], "target": {"kind": "bpm", "bpm": str(int(chosen["bpm"]) + 20)}, **plan}
    body = {"student_id": student["id"], "drill_id": kept["id"], "plan": asked}
    return api.post(f"{home}/api/climbs", data=body).json()


def heard_by(page: Page, who: str, source: str = "stand_in") -> None:
    """Let a stand-in play, at a device or by taps."""
    page.get_by_label("heard by").select_option(source)
    page.get_by_label("device", exact=True).select_option(f"stand-in {who}")


def by_ear(page: Page, mark: str) -> None:
    """Say what an ear says of the take, whatever the machine said."""
    page.get_by_text("My ear says otherwise").or_(page.get_by_text("What does your ear say?")).first.click()
    page.get_by_role("button", name=f"{mark}, by ear").click()


@contextmanager
def set_up(page: Page) -> Iterator[Locator]:
    """Open what is set up on the stand while the block runs."""
    page.get_by_role("button", name="Set up …").click()
    drawer = page.get_by_role("dialog", name="Set up")
    yield drawer
    drawer.get_by_role("button", name="Close").click()


def more_of(page: Page) -> None:
    """Open what is done now and then with what is looked at."""
    page.locator(".menu-box > summary", has_text="More …").click()
