"""What journeys do at the stand."""

from playwright.sync_api import Page


def heard_by(page: Page, who: str, source: str = "stand_in") -> None:
    """Let a stand-in play, at a device or by taps."""
    page.get_by_label("heard by").select_option(source)
    page.get_by_label("device", exact=True).select_option(f"stand-in {who}")
