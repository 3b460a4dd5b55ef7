"""Every main view in both themes: axe finds nothing of level A or AA."""

from __future__ import annotations

import pytest
from fidicula.settings import Settings
from playwright.sync_api import Page, expect

from .hands import command

AXE = Settings().front_end.parent / "node_modules" / "axe-core" / "axe.min.js"
RULES = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"]
VIEWS = [
    "/", "/bench/RW-105", "/bench/RW-102/page/post", "/bench/RW-104/page/board", "/bench/RW-105/page/nut",
    "/bench/RW-106/page/neck", "/bench/RW-105/page/strings", "/bench/RW-105/page/playing", "/bench/RW-102/sound",
    "/bench/RW-105/measure", "/bench/RW-105/look", "/bench/RW-105/recipe", "/recipes/violin", "/figures/violin",
    "/people", "/screening", "/audit", "/bench/RW-105/page/bar", "/bench/RW-105/page/load", "/bench/RW-108/page/wheels",
    "/bench/RW-110/plan", "/bench/RW-110/estimate", "/drawers", "/drawers/rates",
    "/bench/RW-102/leave", "/bench/RW-087/leave", "/bench/RW-087/history", "/bench/RW-102/paper", "/closing-points",
    "/ask?words=cellos", "/archives",
]  # fmt: skip
FOUND = """async (rules) => (await axe.run(document, { runOnly: rules })).violations.map(
    (one) => `${one.id}: ${one.nodes.slice(0, 3).map((node) => node.target.join(' ')).join('; ')}`)"""


@pytest.mark.parametrize("theme", ["day", "lamp"])
def test_axe_finds_nothing_on_any_main_view(page: Page, address: str, theme: str) -> None:
    if theme == "lamp":
        command(page, "l")
        expect(page.locator(".v-theme--lamp").first).to_be_visible()
    found = {}
    for view in VIEWS:
        page.goto(f"{address}{view}")
        expect(page.get_by_role("main").first).to_be_visible()
        expect(page.get_by_text("Calculating")).to_have_count(0)
        page.evaluate(AXE.read_text())
        wrong = page.evaluate(FOUND, RULES)
        if wrong:
            found[view] = wrong
    assert found == {}
