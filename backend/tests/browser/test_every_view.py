"""Every main view once: accessible in either theme, what has to be done in sight, no page that scrolls as a whole."""

from __future__ import annotations

from fidicula.settings import Settings
from playwright.sync_api import Locator, Page, expect

from .hands import command, go

AXE = Settings().front_end.parent / "node_modules" / "axe-core" / "axe.min.js"
RULES = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"]
FOUND = """async (only) => (await axe.run(document, { runOnly: only })).violations.map(
    (one) => `${one.id}: ${one.nodes.slice(0, 3).map((node) => node.target.join(' ')).join('; ')}`)"""
"""What breaks a rule of level A or AA, with the first places."""
CONTRAST = {"type": "rule", "values": ["color-contrast"]}
"""All that another theme can change."""
HEIGHT = 800
FOOT = 752
"""Where the main button has to end at the latest. [px]"""

PINNED = [f"/bench/{ticket}{page}" for ticket in ("RW-105", "RW-107", "RW-108") for page in
          ("", "/page/board", "/page/nut", "/page/post", "/page/neck", "/measure", "/look", "/sound")]  # fmt: skip
"""Where there is something to press that is pinned to the foot: a violin of five strings, a cello, a bass."""
OF_INSTRUMENTS = [f"/bench/{page}" for page in (
    "RW-105/page/strings", "RW-105/page/playing", "RW-105/page/bar", "RW-105/page/load", "RW-105/page/tail",
    "RW-105/page/place", "RW-108/page/wheels", "RW-105/recipe", "RW-110/plan", "RW-110/billing", "RW-110/estimate",
    "RW-102/sound", "RW-102/leave", "RW-087/leave", "RW-087/history", "RW-102/paper", "RW-105/belongings",
    "RW-109/damage",
)]  # fmt: skip
OF_THE_HOUSE = [
    "/", "/recipes/violin", "/figures/violin", "/people", "/screening", "/audit", "/drawers", "/drawers/rates",
    "/closing-points", "/ask?words=cellos", "/archives",
]  # fmt: skip


SCROLLED = {*OF_THE_HOUSE, "/bench/RW-110/estimate", "/bench/RW-102/paper"}
"""Lists and papers are as long as they are."""
VIEWS = [*PINNED, *OF_INSTRUMENTS, *OF_THE_HOUSE]
SAME = ("/page/neck", "/measure", "/look", "/sound")
"""Pages that differ between instruments by their figures and words alone: to these a rule is put once."""
PUT_TO_RULES = [view for view in VIEWS if not (view in PINNED and "RW-105" not in view and view.endswith(SAME))]


STILL = "() => document.getAnimations().every((one) => one.playState !== 'running')"


def bottom(button: Locator) -> float:
    box = button.bounding_box()
    assert box is not None
    return box["y"] + box["height"]


def test_every_view_is_accessible_and_has_its_main_button_in_sight(page: Page) -> None:
    page.evaluate(AXE.read_text())
    found = {}
    for view in VIEWS:
        go(page, view)
        page.wait_for_function(STILL)
        wrong = page.evaluate(FOUND, {"type": "tag", "values": RULES}) if view in PUT_TO_RULES else []
        pressed = page.locator(".pinned .v-btn").or_(page.get_by_role("button", name="next item"))
        if view in PINNED:
            expect(pressed.first).to_be_visible()
        if any(bottom(button) > HEIGHT for button in pressed.all()):
            wrong.append("a pinned button is below the fold")
        if any(bottom(button) > FOOT for button in page.locator(".pinned .v-btn--variant-flat").all()):
            wrong.append("its main button is below the fold")
        if view not in SCROLLED and page.evaluate("document.documentElement.scrollHeight") > HEIGHT:
            wrong.append("it scrolls as a whole")
        if wrong:
            found[view] = wrong
    command(page, "l")
    expect(page.locator(".v-theme--lamp").first).to_be_visible()
    for view in PUT_TO_RULES:
        go(page, view)
        page.wait_for_function(STILL)
        wrong = page.evaluate(FOUND, CONTRAST)
        if wrong:
            found[f"{view}, lamp"] = wrong
    assert found == {}


def test_at_200_percent_nothing_is_cut_off(page: Page) -> None:
    """Twice the size is half the room."""
    page.set_viewport_size({"width": 640, "height": 400})
    for view in VIEWS:
        go(page, view)
        wide, room = page.evaluate("[document.documentElement.scrollWidth, window.innerWidth]")
        assert wide <= room, view
