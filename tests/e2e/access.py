"""What every page is held to: a checker of access finds nothing in either theme, and it is as wide as its screen."""

from collections.abc import Sequence
from pathlib import Path

from playwright.sync_api import Page
from playwright.sync_api import TimeoutError as TooLate

AXE = (Path(__file__).parents[2] / "frontend" / "node_modules" / "axe-core" / "axe.min.js").read_text()
WIDTHS = (390, 768, 1024, 1280)
#: Everything in the theme that is shown, in the other one what goes by colour; colours on their way arrive first.
_CHECK = """
async (both) => {
  const root = document.documentElement;
  const shown = root.dataset.theme ?? "";
  const run = async (theme, more) => {
    if (theme) root.dataset.theme = theme;
    const changing = document.getAnimations().filter((one) => one instanceof CSSTransition);
    await Promise.all(changing.map((one) => one.finished));
    const found = await axe.run(document, { resultTypes: ["violations"], elementRef: false, ...more });
    return found.violations.map((one) => `${theme}: ${one.id}: ${one.nodes.map((node) => node.html).join()}`);
  };
  const found = await run(shown, {});
  if (!shown || !both) return found;
  const other = shown === "fog" ? "night" : "fog";
  found.push(...(await run(other, { runOnly: ["color-contrast", "link-in-text-block"] })));
  root.dataset.theme = shown;
  return found;
}
"""


def with_checker(page: Page) -> None:
    """Bring the checker along: the content policy lets no script in from outside, so it goes in before the page."""
    page.add_init_script(AXE)


def violations(page: Page, *, both: bool = True) -> list[str]:
    """Return what the checker finds in both themes, or in the one that is shown: the theme, the rule, and where."""
    found: list[str] = page.evaluate(_CHECK, both)
    return found


def too_wide(page: Page, widths: Sequence[int] = WIDTHS) -> list[int]:
    """Return the widths of a screen at which a page has to be moved sideways."""
    height = (page.viewport_size or {"height": 800})["height"]
    found = []
    for width in widths:
        page.set_viewport_size({"width": width, "height": height})
        try:
            # What is drawn to its width is drawn anew once that has changed.
            page.wait_for_function("document.documentElement.scrollWidth <= window.innerWidth", timeout=2000)
        except TooLate:
            found.append(width)
    return found
