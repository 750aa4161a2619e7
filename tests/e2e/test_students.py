"""A student from the first press to the plan and the word: with the mouse, the keyboard, after a reload and a kill."""

import re
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.e2e.access import violations, with_checker
from tests.e2e.server import Local, Served
from tests.e2e.stand import by_ear, heard_by, more_of, quick_climb, set_up


def test_an_empty_studio_is_heard_in_one_press_and_says_what_is_first(page: Page, own: Served) -> None:
    page.goto(own.home)
    page.get_by_role("button", name="Hear a ready drill").click()
    page.get_by_role("button", name="Stop", exact=True).click()
    expect(page.get_by_text("✓ Done:")).to_have_count(1)
    page.get_by_role("button", name="Put it on the stand").click()
    page.get_by_label("bars of listening").wait_for()
    page.keyboard.press("Space")
    expect(page.get_by_text(re.compile("Listen|Ready|bar 1")).first).to_be_visible()
    page.keyboard.press("Space")
    page.goto(own.home)
    page.get_by_role("button", name="Add a student").click()
    page.get_by_label("Name", exact=True).fill("Ada Brink")
    page.get_by_role("button", name="Add", exact=True).click()
    page.get_by_role("link", name="Ada Brink").click()
    # The first steps stay until each is done, with a student too.
    page.go_back()
    expect(page.get_by_text("✓ Done:")).to_have_count(2)
    page.get_by_role("link", name="Start a climb").first.click()
    page.go_back()
    page.get_by_role("link", name="Ada Brink").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Ada Brink")


def test_a_plan_is_kept_missed_and_spread_again(page: Page, own: Local) -> None:
    page.request.post(f"{own.home}/api/students", data={"details": {"name": "Ada Brink", "instrument": "flute"}})
    page.goto(f"{own.home}/students/1")
    page.get_by_role("button", name="Plan the practice").click()
    plan = page.get_by_label("The plan of practice")
    plan.get_by_label("minutes a day", exact=True).fill("20")
    plan.get_by_label("first day").fill("2026-02-30")
    page.get_by_role("button", name="Keep this plan").click()
    expect(page.get_by_role("alert")).to_be_visible()
    # What was typed is not lost.
    expect(plan.get_by_label("first day")).to_have_value("2026-02-30")
    start = page.evaluate("new Date(Date.now() - 10 * 864e5).toISOString().slice(0, 10)")
    plan.get_by_label("first day").fill(start)
    plan.get_by_label("weeks", exact=True).fill("2")
    plan.get_by_label("most minutes a day").fill("20")
    page.get_by_role("button", name="Keep this plan").click()
    fits = page.get_by_role("button", name=re.compile("minutes find no room: go on until"))
    expect(fits).to_be_visible()
    own.stop()
    own.start()
    page.reload()
    expect(plan.get_by_label("minutes a day", exact=True)).to_have_value("20")
    fits.click()
    expect(page.get_by_text(re.compile("find no room"))).to_have_count(0)
    with page.expect_download() as saved:
        page.get_by_role("link", name="Save as a calendar").click()
    assert Path(saved.value.path()).read_text().startswith("BEGIN:VCALENDAR")


def test_details_by_keyboard_alone_and_everything_deleted_after_one_question(page: Page, own: Served) -> None:
    page.request.post(f"{own.home}/api/students", data={"details": {"name": "Ada Brink"}})
    page.goto(f"{own.home}/students/1")
    more, details = page.locator(".menu-box > summary"), page.get_by_role("button", name="Details")
    more.focus()
    page.keyboard.press("Enter")
    details.focus()
    page.keyboard.press("Enter")
    page.get_by_label("Lowest note").focus()
    page.keyboard.type("C6")
    page.keyboard.press("Tab")
    page.keyboard.type("E3")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("Write the lower note first")
    expect(page.get_by_label("Lowest note")).to_have_attribute("aria-invalid", "true")
    page.get_by_label("Lowest note").fill("E3")
    page.get_by_label("Highest note").fill("C6")
    page.get_by_label("A breath lasts, seconds").fill("11")
    page.keyboard.press("Enter")
    expect(page.get_by_role("dialog")).to_have_count(0)
    expect(page.get_by_text("breath 11 s")).to_be_visible()
    more.focus()
    page.keyboard.press("Enter")
    details.focus()
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Delete …").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_text("with all climbs, takes, notes and the plan?")).to_be_visible()
    page.get_by_role("button", name="Delete everything of Ada Brink").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_text("Nobody yet. Add your first student.")).to_be_visible()


def test_a_climb_through_the_divisions_is_played_and_its_map_shows_it(page: Page, demo: Served) -> None:
    page.goto(f"{demo.home}/climbs/new?student=2&drill=1")
    page.get_by_text("and more …").click()
    page.get_by_label("rule for steps").select_option("divide")
    page.get_by_label("divisions to pass first").fill("2 3 4")
    page.get_by_label("moving rule").select_option("up_two_back_one")
    page.get_by_label("start tempo in bpm").fill("150")
    page.get_by_label("target tempo in bpm").fill("160")
    page.get_by_label("clean takes in a row that lead up").select_option("1")
    expect(page.get_by_text("5 steps, 6 rungs from 150 to 160.")).to_be_visible()
    page.get_by_role("button", name="Start this climb").click()
    page.get_by_role("link", name=re.compile("^Put on the stand")).click()
    page.get_by_label("bars of listening").select_option("0")
    page.get_by_label("passes", exact=True).select_option("1")
    heard_by(page, "steady")
    expect(page.get_by_text("2 a beat", exact=False).first).to_be_visible()
    page.get_by_role("button", name="Start", exact=False).click()
    page.get_by_text("Where each note of the beat fell").wait_for(timeout=90_000)
    by_ear(page, "Clean")
    page.get_by_role("button", name=re.compile("^On to 4 a beat")).click()
    # Where it stands now is said before anyone leaves.
    expect(page.get_by_text("rung 3 of 6")).to_be_visible()
    page.get_by_role("link", name="Climbs").click()
    page.get_by_role("link", name=re.compile("^Bram Lindqvist: Ferry stairs")).first.click()
    page.get_by_role("button", name="The map").click()
    here = page.get_by_role("link", name=re.compile("rung 3, where the climb stands"))
    expect(here).to_be_visible()
    expect(page.get_by_role("link", name=re.compile("150, 2 a beat, rung 1, clean there"))).to_be_visible()
    page.get_by_role("link", name=re.compile("150, 5 a beat")).click()
    expect(page.get_by_text("it goes round until you stop it")).to_be_visible()
    expect(page.get_by_text("5", exact=True).first).to_be_visible()


def test_a_set_of_variants_and_the_next_one(page: Page, demo: Served) -> None:
    page.goto(f"{demo.home}/climbs/new?student=4&drill=4")
    page.get_by_label("one climb, or a set of variants").select_option("hand_letters")
    expect(page.get_by_text("2 variants, once through in", exact=False)).to_be_visible()
    page.get_by_role("button", name="Start the set").click()
    expect(page.get_by_role("heading", name="1 of a set of 2")).to_be_visible()
    page.get_by_role("link", name=re.compile("^Next: beginning with U")).click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Teo Adeyemi: Slack tide on one string, beginning with U")


def test_a_group_and_its_parts(page: Page, demo: Served) -> None:
    page.goto(f"{demo.home}/students")
    page.get_by_role("link", name="The Saturday ferry band").click()
    members = page.get_by_label("Members")
    expect(members.get_by_role("listitem")).to_have_count(4)
    with page.expect_response(re.compile("/api/groups/1$")):
        members.get_by_label("plays").first.select_option("between")
    page.reload()
    expect(members.get_by_label("plays").first).to_have_value("between")
    page.get_by_role("link", name=re.compile("^On the stand.*Bram Lindqvist")).click()
    # What is between the hits, by itself, as it is this member's.
    with set_up(page):
        expect(page.get_by_label("part that is played")).to_have_value("between")
    page.go_back()
    page.get_by_role("button", name="One drill for all").click()
    page.get_by_label("start of Bram Lindqvist in bpm").fill("66")
    page.get_by_role("button", name="Start 4 climbs").click()
    expect(page.get_by_role("dialog")).to_have_count(0)


def test_the_log_opens_a_take_and_a_move_is_taken_back(page: Page, demo: Served) -> None:
    page.goto(f"{demo.home}/log/2")
    page.get_by_label("takes by mark").select_option("clean")
    expect(page.get_by_role("button", name="Take back")).to_have_count(0)
    page.get_by_label("takes by mark").select_option("")
    page.get_by_role("button", name="Take back").first.click()
    page.get_by_role("link", name=re.compile("^Open: ")).first.click()
    expect(page.get_by_role("heading", name="What was said")).to_be_visible()


def test_sound_first_hides_figures_until_they_are_asked_for(page: Page, demo: Served) -> None:
    page.goto(f"{demo.home}/settings")
    page.get_by_label("sound or sums first").select_option("yes")
    expect(page.get_by_text("Kept.", exact=True)).to_be_visible()
    page.goto(f"{demo.home}/stand/climb/3")
    show = page.get_by_role("button", name="Show the figures")
    expect(show).to_be_visible()
    show.click()
    expect(page.get_by_text("notes a second").first).to_be_visible()
    page.goto(f"{demo.home}/settings")
    page.get_by_label("sound or sums first").select_option("no")
    expect(page.get_by_text("Kept.", exact=True)).to_be_visible()


def test_words_and_guide_are_a_key_away(page: Page, demo: Served) -> None:
    page.goto(demo.home)
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    page.keyboard.press("?")
    page.get_by_role("button", name="What the words mean").click(timeout=5000)
    page.get_by_label("Find").fill("rung")
    expect(page.get_by_text("rung, tread", exact=True)).to_be_visible()
    page.keyboard.press("Escape")
    page.keyboard.press("?")
    page.get_by_role("link", name="The guide of ten minutes").click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("Ten minutes")


def test_the_sound_of_a_student_is_kept_in_the_studio(page: Page, demo: Served) -> None:
    page.goto(f"{demo.home}/stand/climb/3")
    with set_up(page), page.expect_response(re.compile("/stand$")):
        page.get_by_label("The click is").select_option(index=1)
        chosen = page.get_by_label("The click is").input_value()
    page.evaluate("localStorage.clear()")
    page.reload()
    with set_up(page):
        expect(page.get_by_label("The click is")).to_have_value(chosen)


def test_a_change_from_a_climb_is_the_students_own_or_everybodys(page: Page, own: Served) -> None:
    climb = quick_climb(page, own.home)
    with_checker(page)
    page.goto(f"{own.home}/climbs/{climb['id']}")
    more_of(page)
    page.get_by_role("link", name="The drill", exact=True).click()
    expect(page.get_by_text("✓ kept, version 1")).to_be_visible()
    page.get_by_label("beats a leg").fill("6")
    asked = page.get_by_text("Not kept yet. Whom is the change for?")
    expect(asked).to_be_visible()
    assert violations(page) == []
    # A reload loses nothing, and asks again; whoever wants to play it is led to the question.
    page.reload()
    expect(asked).to_be_visible()
    expect(page.get_by_label("beats a leg")).to_have_value("6")
    page.keyboard.press("p")
    expect(page.get_by_role("button", name="For Runa Holt only")).to_be_focused()
    versions = f"{own.home}/api/drills/{climb['drill_id']}/versions"
    assert [one["version"] for one in page.request.get(versions).json()["versions"]] == [1]
    page.keyboard.press("Enter")
    expect(page.get_by_label("title of the drill")).to_have_value("Runa Holt’s own: Kelp")
    expect(page.get_by_text("✓ kept, version 1")).to_be_visible()
    page.get_by_label("beats a leg").fill("5")
    expect(page.get_by_text("✓ kept, version 2")).to_be_visible()
    assert [one["version"] for one in page.request.get(versions).json()["versions"]] == [1]
    page.get_by_role("button", name="✓ kept, version 2").click()
    expect(page.get_by_role("dialog", name="Versions")).to_contain_text("one note for 6 beats → one note for 5 beats")
    # The climb goes on with it; from there it is her own already, and a newer version says what it changed.
    page.goto(f"{own.home}/climbs/{climb['id']}")
    expect(page.get_by_role("heading", level=1)).to_have_text("Runa Holt: Runa Holt’s own: Kelp")
    expect(page.get_by_text("one note for 6 beats → one note for 5 beats")).to_be_visible()
    more_of(page)
    page.get_by_role("link", name="The drill", exact=True).click()
    page.get_by_label("beats a leg").fill("4")
    expect(page.get_by_text("✓ kept, version 3")).to_be_visible()
    # For everybody it is a version of the drill that all share.
    other = quick_climb(page, own.home, {"title": "Reeds"}, "Ada Brink")
    page.goto(f"{own.home}/bench/{other['drill_id']}?climb={other['id']}")
    page.get_by_label("beats a leg").fill("6")
    page.get_by_role("button", name="For everybody, as version 2").click()
    expect(page.get_by_text("✓ kept, version 2")).to_be_visible()
    page.get_by_label("beats a leg").fill("7")
    expect(page.get_by_text("✓ kept, version 3")).to_be_visible()
