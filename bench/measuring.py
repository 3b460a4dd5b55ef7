"""Measuring in the browser: Enter to the next field ready, and what a drawing's update costs in script.

Wanted: Enter under 50 ms whatever the server does, a drawing's update under 16 ms of script. Both are told beside the
same in a bare page of the same browser, so that a slower machine does not look like a slower program.
"""

from __future__ import annotations

import statistics
from collections.abc import Callable
from typing import Any

from playwright.sync_api import Page, Route

from bench.browser import page_of
from bench.served import served

READINGS = 40
TICKET = "RW-101"

_LISTEN = """() => {
  window.took = []
  let began = 0
  addEventListener('keydown', (event) => { if (event.key === 'Enter') began = performance.now() }, true)
  addEventListener('focusin', () => {
    if (!began) return
    const since = began
    began = 0
    requestAnimationFrame(() => requestAnimationFrame(() => window.took.push(performance.now() - since)))
  })
}"""
_BARE = "".join(
    f'<input id="i{i}" onkeydown="if (event.key === \'Enter\') i{(i + 1) % READINGS}.focus()">' for i in range(READINGS)
)


def run() -> None:
    with served("bench.browser", lambda _: None, durable=False) as port, page_of(port) as page:
        for view in ("End, from the tailpiece", "Side", "Plan"):
            spent = [_spent_on_drawing(page, port, view, turn) for turn in range(12)]
            print(
                f"the {view} drawn from nothing, which is more than an update of it: "
                f"median {statistics.median(spent):.1f} ms of script (wanted: under 16)"
            )
        held: list[Route] = []
        quick = _enters(page, port, lambda: None)
        slow = _enters(page, port, lambda: page.route("**/readings", lambda route: held.append(route)))
        blank = page.context.new_page()
        blank.set_content(_BARE)
        bare = took_in(blank, lambda: blank.locator("#i0").focus())
        for name, took in (("the server answering", quick), ("the server silent", slow), ("a bare page", bare)):
            print(f"Enter to the next field ready and drawn, {name}: median {_median(took)} ms, p95 {p95(took):.1f}")
        ratio = p95(slow) / p95(bare)
        print(f"Enter, the server silent, against a bare page: ratio {ratio:.2f} (wanted: under 50 ms)")


def _enters(page: Page, port: int, before: Callable[[], None]) -> list[float]:
    """In the full course of measuring, one reading after the other."""
    page.goto(f"http://127.0.0.1:{port}/bench/{TICKET}/measure")
    page.locator("input[data-reading]").wait_for()
    page.wait_for_timeout(500)
    before()
    return took_in(page, lambda: page.locator("input[data-reading]").focus())


def took_in(page: Page, begin: Callable[[], None]) -> list[float]:
    page.evaluate(_LISTEN)
    begin()
    for i in range(READINGS):
        page.keyboard.type(str(20 + i % 7))
        page.keyboard.press("Enter")
        page.wait_for_timeout(60)
    took: list[float] = page.evaluate("window.took")
    return took


def _spent_on_drawing(page: Page, port: int, view: str, turn: int) -> float:
    """Script between asking for a view and its being drawn whole. [ms]"""
    if turn == 0:
        page.goto(f"http://127.0.0.1:{port}/bench/{TICKET}")
        page.locator("input[data-reading]").wait_for()
        page.wait_for_timeout(800)
    client = page.context.new_cdp_session(page)
    client.send("Profiler.enable")
    client.send("Profiler.setSamplingInterval", {"interval": 200})
    page.get_by_role("button", name="Side" if view != "Side" else "Plan", exact=True).click()
    page.wait_for_timeout(300)
    client.send("Profiler.start")
    page.get_by_role("button", name=view, exact=True).evaluate("button => button.click()")
    page.wait_for_timeout(300)
    script = _script(client.send("Profiler.stop")["profile"])
    client.detach()
    return script


def _script(profile: Any) -> float:
    """Time in functions, collecting garbage included. [ms]"""
    outside = {
        node["id"]
        for node in profile["nodes"]
        if node["callFrame"]["functionName"] in ("(idle)", "(program)", "(root)")
    }
    deltas = zip(profile["samples"], profile["timeDeltas"], strict=True)
    return sum(delta for sample, delta in deltas if sample not in outside) / 1000


def _median(took: list[float]) -> str:
    return f"{statistics.median(took):.1f}"


def p95(took: list[float]) -> float:
    return statistics.quantiles(took, n=20)[-1]
