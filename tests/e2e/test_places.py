"""Places are loaded when they are opened, and all of them once the first one stands there."""

from playwright.sync_api import Page, expect

from tests.e2e.server import Local, Served


def test_every_place_opens_where_the_server_has_gone(page: Page, own: Local) -> None:
    page.goto(own.home)
    expect(page.get_by_role("heading", level=1).first).to_be_visible()
    # The last part that is loaded of itself.
    page.wait_for_event("response", lambda one: "Glossary" in one.url)
    page.wait_for_load_state("networkidle")
    own.stop()
    for name in ("Drills", "Climbs", "Log"):
        page.get_by_label("Places").get_by_role("link", name=name).click()
        expect(page.get_by_text("The server does not answer.").first).to_be_visible()
        expect(page.get_by_text("This place could not be loaded")).to_have_count(0)


def test_a_place_that_cannot_be_loaded_says_so_and_is_loaded_again(page: Page, demo: Served) -> None:
    page.route("**/assets/LogPage-*.js", lambda route: route.abort())
    page.goto(demo.home)
    page.get_by_label("Places").get_by_role("link", name="Log").click()
    expect(page.get_by_role("heading", name="This place could not be loaded")).to_be_visible()
    page.unroute("**/assets/LogPage-*.js")
    page.get_by_role("button", name="Load the page again").click()
    expect(page.get_by_text("This place could not be loaded")).to_have_count(0)
    expect(page.get_by_role("heading", level=1).first).to_be_visible()
