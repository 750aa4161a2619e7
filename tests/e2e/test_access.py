"""The five places under an accessibility checker, in both themes; and at the widths that are promised."""

import json
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from tests.e2e.server import Server
from tests.e2e.stand import heard_by
from tests.e2e.test_nothing_is_lost import climb_of

AXE = (Path(__file__).parents[2] / "frontend" / "node_modules" / "axe-core" / "axe.min.js").read_text()
PLACES = {
    "desk": "/",
    "bench": "/bench/1",
    "drills": "/bench",
    "shelf": "/bench/shelf",
    "climbs": "/climbs",
    "climb": "/climbs/2",
    "sheet": "/climbs/2/sheet",
    "sheet of a drill": "/bench/1/sheet",
    "new climb": "/climbs/new",
    "stand": "/stand/climb/2",
    "drill on the stand": "/stand/drill/1",
    "log": "/log/1",
    "map": "/climbs/7?view=map",
    "students": "/students",
    "student": "/students/1",
    "group": "/groups/1",
    "settings": "/settings",
    "guide": "/guide",
}


def themed(page: Page, theme: str) -> None:
    """Let every place have a theme, and bring the checker along."""
    chosen = json.dumps({"stand": theme, "desk": theme})
    page.add_init_script(f"localStorage.setItem('ripresa.theme', JSON.stringify({chosen}))")
    # The content policy lets no script in from outside, this one included; so it goes in before the page.
    page.add_init_script(AXE)


def violations(page: Page) -> list[str]:
    """Return what the checker finds: the rule, and where."""
    found: list[str] = page.evaluate(
        "axe.run().then(r => r.violations.map(v => v.id + ': ' + v.nodes.map(n => n.html).join()))"
    )
    return found


@pytest.mark.parametrize("theme", ["fog", "night"])
@pytest.mark.parametrize("place", PLACES)
def test_axe_finds_nothing(page: Page, demo: Server, place: str, theme: str) -> None:
    themed(page, theme)
    page.goto(demo.home + PLACES[place])
    expect(page.get_by_role("heading", level=1)).to_be_attached()
    page.wait_for_load_state("networkidle")
    assert violations(page) == []


@pytest.mark.parametrize("theme", ["fog", "night"])
def test_axe_finds_nothing_in_what_is_written_out_summed_up_and_shared(page: Page, demo: Server, theme: str) -> None:
    themed(page, theme)
    for drill in (1, 2, 3):
        page.goto(f"{demo.home}/bench/{drill}")
        page.get_by_label("Written out:").select_option("notes")
        page.get_by_label("Written out", exact=True).get_by_role("checkbox").check()
        expect(page.get_by_label("The notation").locator("svg").first).to_be_visible()
        assert violations(page) == []
    page.goto(f"{demo.home}/students/1")
    page.get_by_role("button", name="Recap").click()
    expect(page.get_by_label("What was played")).to_be_visible()
    assert violations(page) == []
    page.goto(f"{demo.home}/bench")
    page.get_by_role("button", name="Share").click()
    page.get_by_role("checkbox").first.check()
    assert violations(page) == []
    page.goto(f"{demo.home}/log/1")
    page.get_by_text("Results of a practice file").click()
    assert violations(page) == []


@pytest.mark.parametrize("theme", ["fog", "night"])
def test_axe_finds_nothing_in_a_practice_file(page: Page, demo: Server, tmp_path: Path, theme: str) -> None:
    file = tmp_path / "practice.html"
    file.write_bytes(page.request.get(f"{demo.home}/api/practice-file.html?climb=2").body())
    themed(page, theme)
    page.emulate_media(color_scheme="dark" if theme == "night" else "light")
    page.goto(file.as_uri())
    expect(page.get_by_role("heading", level=1)).to_be_attached()
    assert violations(page) == []


@pytest.mark.parametrize("theme", ["fog", "night"])
def test_axe_finds_nothing_after_a_take_or_in_a_drawer(page: Page, demo: Server, theme: str) -> None:
    themed(page, theme)
    page.goto(f"{demo.home}/stand/climb/{climb_of(page, demo.home)}")
    heard_by(page, "steady")
    page.get_by_label("bars of listening").select_option("0")
    page.get_by_label("passes", exact=True).select_option("1")
    page.get_by_role("button", name="Start").click()
    page.get_by_text("Where each note of the beat fell").wait_for(timeout=90_000)
    assert violations(page) == []
    page.keyboard.press("u")
    expect(page.get_by_role("heading", name="Inner pulse")).to_be_visible()
    assert violations(page) == []


@pytest.mark.parametrize("theme", ["fog", "night"])
def test_axe_finds_nothing_in_what_opens_of_a_climb_and_of_the_stand(page: Page, demo: Server, theme: str) -> None:
    themed(page, theme)
    page.goto(f"{demo.home}/climbs/4")
    page.get_by_text("The click ladder: as in the drill").click()
    page.get_by_role("button", name="One more click").click()
    page.get_by_label("Clicks in order").get_by_label("click", exact=True).select_option("drop_out")
    assert violations(page) == []
    page.get_by_role("button", name="Play-along file").click()
    page.get_by_role("button", name="Make the file").click()
    expect(page.get_by_role("link", name="Save the file")).to_be_visible(timeout=60_000)
    assert violations(page) == []
    page.goto(f"{demo.home}/stand/climb/4")
    for part in ("each division said first", "the last words of the count", "the inner pulse"):
        page.get_by_label("and more before playing").select_option(part)
    page.get_by_label("what the voice says").select_option("slots")
    page.get_by_text("Sound and levels").click()
    assert violations(page) == []
    page.get_by_role("button", name="Foot switch").click()
    assert violations(page) == []
    page.get_by_role("button", name="Close").click()
    page.keyboard.press("l")
    assert violations(page) == []


#: A drill that uses every part of the brief.
EVERYTHING = {
    "title": "Everything at once, with a title that is as long as titles of real drills tend to become over the years",
    "material": {"kind": "line", "text": "1*2 3*1 >5 (6) /7", "through": "C | Am F", "shift": "1"},
    "legs": [{"division": "4"}, {"division": "3"}],
    "hands": {"kind": "economy"},
    "click": {"kind": "drop_out"},
    "instrument": "guitar",
    "swing": {"ratio": "2"},
    "counting": {"system": "own", "own": "2: # and; 3: # o la"},
    "articulation": "1/2",
    "breath": "2",
    "body": {"movement": "step"},
    "voice": "talk",
    "way_in": ["listen", "say", "first_half", "whole"],
    "tags": ["long", "left hand"],
    "fingering": "usual",
    "register": 1,
    "folded": True,
}


@pytest.mark.parametrize("width", [390, 1280])
@pytest.mark.parametrize("theme", ["fog", "night"])
def test_axe_finds_nothing_in_a_drill_that_uses_everything(page: Page, demo: Server, theme: str, width: int) -> None:
    page.set_viewport_size({"width": width, "height": 800})
    themed(page, theme)
    kept = page.request.post(f"{demo.home}/api/drills", data={"drill": EVERYTHING}).json()
    for place in ("bench", "stand/drill"):
        page.goto(f"{demo.home}/{place}/{kept['id']}")
        expect(page.get_by_role("img").first).to_be_visible()
        for summary in page.locator("summary").all():
            summary.click()
        page.wait_for_load_state("networkidle")
        assert violations(page) == []
        assert page.evaluate("document.documentElement.scrollWidth") <= width


@pytest.mark.parametrize("width", [390, 768, 1024, 1280])
@pytest.mark.parametrize("place", ["desk", "bench", "stand", "log", "climb", "student", "map", "settings"])
def test_no_place_is_wider_than_its_screen(page: Page, demo: Server, place: str, width: int) -> None:
    page.set_viewport_size({"width": width, "height": 800})
    page.goto(demo.home + PLACES[place])
    expect(page.get_by_role("heading", level=1)).to_be_attached()
    page.wait_for_load_state("networkidle")
    assert page.evaluate("document.documentElement.scrollWidth") <= width
