"""A screen has one job: what is in view at each size and while it plays, what the keys do, and how few presses."""

import re
from collections.abc import Callable

import pytest
from playwright.sync_api import Locator, Page, expect

from tests.e2e.access import violations, with_checker
from tests.e2e.server import Served
from tests.e2e.stand import set_up

SIZES = ((1280, 800), (1280, 720), (1024, 768), (820, 1180), (390, 844))
#: What is inside the window, and how much of its height the rail takes.
_IN_VIEW = """() => {
  const inside = (one) => {
    const at = one.getBoundingClientRect();
    return at.width > 0 && at.top >= 0 && at.left >= 0 && at.bottom <= innerHeight && at.right <= innerWidth + 1;
  };
  const [start, tap] = [...document.querySelectorAll(".stand-buttons > button")];
  const rail = document.querySelector(".stand-rail").getBoundingClientRect();
  return {
    start: inside(start),
    tap: inside(tap),
    bar: inside(document.querySelector(".stand-rail svg")),
    rail: rail.height / innerHeight,
    wide: document.documentElement.scrollWidth,
  };
}"""


@pytest.mark.parametrize(("width", "height"), SIZES)
@pytest.mark.parametrize("where", ["/stand/climb/2", "/stand/climb/1", "/stand/drill/3"])
def test_start_tap_and_the_first_bar_are_in_view(page: Page, demo: Served, where: str, width: int, height: int) -> None:
    page.set_viewport_size({"width": width, "height": height})
    page.goto(demo.home + where)
    expect(page.locator(".stand-rail svg").first).to_be_visible()
    page.wait_for_load_state("networkidle")
    found = page.evaluate(_IN_VIEW)
    assert (found["start"], found["tap"], found["bar"]) == (True, True, True)
    assert found["rail"] >= 0.5
    assert found["wide"] <= width


def test_every_stage_is_in_view_and_nothing_else_stands_while_it_plays(page: Page, demo: Served) -> None:
    page.goto(f"{demo.home}/stand/climb/2")
    rows = page.get_by_label("The rail, as it is played").get_by_role("img")
    expect(rows).to_have_count(3)
    before = page.locator(".stand-rail").bounding_box()
    page.get_by_label("bars of listening").select_option("0")
    page.get_by_role("button", name="Start").click()
    expect(page.get_by_text("pass 1 of 2")).to_be_visible()
    expect(page.get_by_label("bars of listening")).to_have_count(0)
    expect(page.get_by_role("button", name="All limits")).to_be_hidden()
    expect(rows).to_have_count(3)
    # Nothing moved when it began.
    assert page.locator(".stand-rail").bounding_box() == before
    page.keyboard.press("Escape")
    expect(page.get_by_role("button", name="Start")).to_be_visible()
    # Esc closes or stops, and leaves no page.
    page.keyboard.press("Escape")
    expect(page).to_have_url(re.compile("/stand/climb/2$"))


def test_what_is_set_up_is_found_by_a_word(page: Page, demo: Served) -> None:
    page.goto(f"{demo.home}/stand/climb/2")
    expect(page.get_by_role("button", name="Start")).to_be_visible()
    page.keyboard.press("o")
    drawer = page.get_by_role("dialog", name="Set up")
    parts = drawer.locator(".set-up-part")
    names = ["Click and count", "What is played", "Hearing", "Sound", "View"]
    for name in names:
        expect(drawer.get_by_role("heading", name=name)).to_be_visible()
    drawer.get_by_label("Find in set up").fill("mirror")
    expect(drawer.get_by_role("heading", name="View")).to_be_visible()
    expect(drawer.get_by_role("heading", level=3)).to_have_count(1)
    drawer.get_by_label("Find in set up").fill("trombone")
    expect(drawer.get_by_text("Nothing here is called “trombone”.")).to_be_visible()
    expect(parts).to_have_count(0)
    page.keyboard.press("Escape")
    expect(drawer).to_have_count(0)


def test_space_starts_from_wherever_the_focus_is_but_in_a_field(page: Page, demo: Served) -> None:
    page.goto(f"{demo.home}/stand/drill/1")
    big = page.locator(".big-number")
    expect(big).to_contain_text("84")
    with set_up(page):
        page.get_by_role("button", name="Half the tempo").click()
    expect(big).to_contain_text("42")
    page.get_by_role("button", name="Large").focus()
    page.keyboard.press("Space")
    expect(page.get_by_role("button", name="Stop")).to_be_visible()
    # The button in hand was not pressed by it, and the tempo was halved once.
    expect(page.get_by_role("button", name="Large")).to_have_attribute("aria-pressed", "false")
    expect(big).to_contain_text("42")
    page.keyboard.press("Space")
    expect(page.get_by_role("button", name="Start")).to_be_visible()
    page.get_by_label("tempo in bpm").focus()
    page.keyboard.press("Space")
    expect(page.get_by_role("button", name="Start")).to_be_visible()


def test_letters_rest_once_they_are_switched_off(page: Page, demo: Served) -> None:
    page.goto(f"{demo.home}/settings")
    page.get_by_label("single letters, figures and signs are keys").uncheck()
    page.goto(f"{demo.home}/stand/climb/2")
    expect(page.get_by_role("button", name="Start")).to_be_visible()
    for key in ("m", "o", "u", "2", "n"):
        page.keyboard.press(key)
    expect(page.get_by_role("button", name="Click on")).to_be_visible()
    expect(page.get_by_role("dialog")).to_have_count(0)
    expect(page).to_have_url(re.compile("/stand/climb/2$"))
    page.keyboard.press("Space")
    expect(page.get_by_role("button", name="Stop")).to_be_visible()
    page.keyboard.press("Space")


def test_a_link_leads_past_the_places(page: Page, demo: Served) -> None:
    page.goto(demo.home)
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    page.keyboard.press("Tab")
    expect(page.get_by_role("link", name="To the place itself")).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.locator("#place")).to_be_focused()


@pytest.mark.parametrize("width", [1280, 820, 390])
def test_drawers_are_clear_in_both_themes_at_every_size(page: Page, demo: Served, width: int) -> None:
    with_checker(page)
    page.set_viewport_size({"width": width, "height": 844})
    page.goto(f"{demo.home}/stand/climb/2")
    page.get_by_role("button", name="Set up …").click()
    expect(page.get_by_role("dialog", name="Set up")).to_be_visible()
    assert violations(page) == []
    page.keyboard.press("Escape")
    page.get_by_role("button", name="All limits").click()
    assert violations(page) == []
    page.keyboard.press("Escape")
    page.goto(f"{demo.home}/bench/1")
    page.get_by_role("button", name="and more").click()
    assert violations(page) == []
    page.keyboard.press("Escape")
    page.get_by_label(re.compile("^divisions")).click()
    assert violations(page) == []
    at = page.get_by_label("Divisions of the legs").bounding_box()
    assert at is not None
    assert (at["x"] >= 0, at["x"] + at["width"] <= width) == (True, True)


class Hand:
    """What someone presses and types, counted: a list is opened and chosen from, a sign typed is a key."""

    def __init__(self, page: Page) -> None:
        self.page = page
        self.presses = 0

    def press(self, what: Locator) -> None:
        self.presses += 1
        what.click()

    def key(self, key: str) -> None:
        self.presses += 1
        self.page.keyboard.press(key)

    def choose(self, label: str, value: str) -> None:
        self.presses += 2
        self.page.get_by_label(label, exact=True).select_option(value)

    def write(self, what: Locator, text: str) -> None:
        self.presses += 1 + len(text)
        what.fill(text)

    def button(self, name: str | re.Pattern[str]) -> None:
        self.press(self.page.get_by_role("button", name=name).first)

    def new_drill(self) -> None:
        self.key("n")
        expect(self.page.get_by_label("material")).to_be_focused()

    def divisions(self, text: str) -> None:
        self.press(self.page.get_by_label(re.compile("^divisions")))
        self.write(self.page.get_by_label("Or write them in order", exact=False), text)
        self.key("Escape")

    def more(self, words: str) -> None:
        self.key("+")
        self.presses += len(words) + 1
        self.page.keyboard.type(words)
        self.page.keyboard.press("Enter")

    def off_the_shelf(self, words: str, title: str) -> None:
        self.press(self.page.get_by_label("Places").get_by_role("link", name="Drills"))
        self.press(self.page.get_by_role("link", name="From the shelf"))
        self.write(self.page.get_by_role("searchbox"), words)
        self.press(self.page.get_by_role("button", name=f"Take as a start: {title}"))
        expect(self.page.get_by_label("title of the drill")).to_have_value(title)

    def sounds(self) -> None:
        """Put it on the stand, and start it."""
        put = re.compile("^Put on the stand")
        self.press(self.page.get_by_role("button", name=put).or_(self.page.get_by_role("link", name=put)))
        expect(self.page.get_by_role("button", name="Start", exact=True)).to_be_visible()
        self.key("Space")


def _scale_with_groups(hand: Hand) -> None:
    hand.new_drill()
    hand.choose("accents", "every_nth")
    hand.write(hand.page.get_by_label("notes in a group"), "5")
    hand.sounds()


def _accent_walk(hand: Hand) -> None:
    hand.new_drill()
    hand.choose("material", "one_note")
    hand.choose("accents", "walk")
    hand.divisions("4")
    hand.sounds()


def _click_off_the_beat(hand: Hand) -> None:
    hand.new_drill()
    hand.choose("click", "thinned")
    hand.write(hand.page.get_by_label("beats the click is late"), "1/2")
    hand.sounds()


def _strum_off_the_beat(hand: Hand) -> None:
    hand.off_the_shelf("off", "Off the quay")
    hand.sounds()


def _sixes_and_fives(hand: Hand) -> None:
    hand.new_drill()
    hand.divisions("6 5")
    hand.sounds()


def _hits_first(hand: Hand) -> None:
    hand.new_drill()
    hand.more("hits")
    hand.more("way in")
    hand.sounds()


def _octaves_that_match(hand: Hand) -> None:
    hand.new_drill()
    hand.choose("octaves", "match")
    hand.sounds()


def _own_line_doubled(hand: Hand) -> None:
    hand.new_drill()
    hand.choose("material", "line")
    hand.write(hand.page.get_by_label("notes of the line"), "1 3 5")
    hand.press(hand.page.get_by_text("Change it in one press"))
    hand.button(re.compile("^Twice as fast"))
    hand.sounds()


def _ladder_to_a_speed(hand: Hand) -> None:
    hand.new_drill()
    hand.button("Start a climb")
    hand.write(hand.page.get_by_label("target tempo in bpm"), "96")
    hand.button("Start this climb")
    expect(hand.page.get_by_role("link", name="Put on the stand")).to_be_visible()
    hand.sounds()


def _next_step_of_a_climb(hand: Hand) -> None:
    hand.press(hand.page.get_by_role("link", name=re.compile("^Open on the stand")).first)
    expect(hand.page.get_by_role("button", name="Start")).to_be_visible()
    hand.key("Space")


JOBS: dict[str, tuple[Callable[[Hand], None], int]] = {
    "a scale in three divisions with groups": (_scale_with_groups, 20),
    "an accent walk": (_accent_walk, 20),
    "the click off the beat, and thinned": (_click_off_the_beat, 20),
    "a strum from quarters to off-beats": (_strum_off_the_beat, 20),
    "sixes against fives": (_sixes_and_fives, 20),
    "hits first": (_hits_first, 20),
    "octaves that match the division": (_octaves_that_match, 20),
    "an own line, doubled": (_own_line_doubled, 20),
    "a ladder to a target": (_ladder_to_a_speed, 20),
    "a climb’s next step": (_next_step_of_a_climb, 3),
}


@pytest.mark.parametrize("job", JOBS)
def test_a_job_takes_few_presses_until_it_sounds(page: Page, demo: Served, job: str) -> None:
    page.goto(demo.home)
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    page.wait_for_load_state("networkidle")
    do, most = JOBS[job]
    hand = Hand(page)
    do(hand)
    expect(page.get_by_role("button", name="Stop")).to_be_visible()
    assert hand.presses <= most, f"{job}: {hand.presses} presses"
