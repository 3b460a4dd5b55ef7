"""./fidicula shots: the pictures in docs/screenshots, taken again from the demo data by keyboard."""

from __future__ import annotations

import argparse
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from fidicula.cli.demo import demo_sign_ins
from fidicula.cli.throwaway import filled, throwaway_cluster
from fidicula.hosting.serving import CHROMIUM, CHROMIUM_ARGUMENTS, serving
from fidicula.main import create_app
from fidicula.settings import Settings

READINGS = "6.10 5.75 5.20 4.30 .85 .80 .70 .60 .10 .20 .25 .20 27.1 327 270 42 16.4 33.6"
"""RW-101 as the caliper finds it, in the course of measuring."""


def run(arguments: list[str]) -> int:
    """Take every picture into docs/screenshots; the demo's own database is left alone."""
    argparse.ArgumentParser(prog="./fidicula shots").parse_args(arguments)
    settings = Settings()
    folder = settings.root / "docs" / "screenshots"
    folder.mkdir(parents=True, exist_ok=True)
    with served_demo(settings) as address, sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=CHROMIUM_ARGUMENTS)
        for name, size, theme, steps in SHOTS:
            context = browser.new_context(viewport={"width": size[0], "height": size[1]})
            context.add_init_script(f"localStorage.setItem('fidicula.theme', '\"{theme}\"')")
            name_of_owner, _, password, _ = demo_sign_ins()[0]
            context.request.post(f"{address}/api/session", data={"name": name_of_owner, "password": password})
            page = context.new_page()
            page.goto(address)
            steps(page, address)
            _take(page, folder / f"{name}.png")
            context.close()
            print(f"  docs/screenshots/{name}.png", file=sys.stderr)
        browser.close()
    return 0


def _take(page: Page, path: Path) -> None:
    page.mouse.move(1, 1)
    page.evaluate("document.fonts.ready")
    page.wait_for_timeout(400)
    page.screenshot(path=path, animations="disabled", caret="hide")


_WAITING = """() => new Promise((resolve) => {
  const asked = indexedDB.open('fidicula')
  asked.onsuccess = () => {
    const count = asked.result.transaction('rows').objectStore('rows').count()
    count.onsuccess = () => { asked.result.close(); resolve(count.result) }
  }
})"""
"""How many entries the page has not sent yet."""


def command(page: Page, letter: str) -> None:
    """Run a command from the strip that Space opens, twice for the page's own."""
    page.keyboard.press("Space")
    menu = page.locator('[role="menu"]')
    menu.wait_for()
    if not any(words.split()[:1] == [letter] for words in menu.locator('[role="menuitem"]').all_inner_texts()):
        page.keyboard.press("Space")
    page.keyboard.press(letter)


def type_readings(page: Page, readings: str) -> None:
    """Type readings as a caliper would, each with Enter, and wait until all are kept."""
    for reading in readings.split():
        page.keyboard.type(reading)
        page.keyboard.press("Enter")
    while page.evaluate(_WAITING):
        page.wait_for_timeout(50)


def _open(page: Page, address: str, ticket: str) -> None:
    page.goto(f"{address}/bench/{ticket}")
    page.get_by_role("main").wait_for()


def _house(page: Page, _address: str) -> None:
    page.get_by_role("link", name="RW-115").wait_for()


def _provisional(page: Page, address: str) -> None:
    _open(page, address, "RW-101")
    command(page, "s")
    radios = page.get_by_role("dialog").get_by_role("radio")
    radios.first.wait_for()
    page.wait_for_timeout(400)
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")
    page.get_by_role("dialog").wait_for(state="detached")
    type_readings(page, " ".join(READINGS.split()[:2]))


def _bridge(page: Page, address: str) -> None:
    _provisional(page, address)
    type_readings(page, " ".join(READINGS.split()[2:]))
    page.locator(".wood").first.click()


def _left_handed(page: Page, address: str) -> None:
    _open(page, address, "RW-102")


def _bass(page: Page, address: str) -> None:
    _open(page, address, "RW-108")


def _damage(page: Page, address: str) -> None:
    page.goto(f"{address}/bench/RW-109/damage")
    page.get_by_role("button", name="Look again at 1").click()
    page.get_by_label("Length, mm").fill("54")


def _board(page: Page, address: str) -> None:
    page.goto(f"{address}/bench/RW-104/page/board")
    page.get_by_role("img", name="Scoop on the bass side").wait_for()


def _neck(page: Page, address: str) -> None:
    """The cello has settled; how it was read since then makes the wedge the thing to do, and it is tried."""
    _open(page, address, "RW-106")
    command(page, "d")
    page.get_by_role("radio", name="It has settled").check()
    page.get_by_label("Reason").fill("Read as 76.8 on two mornings.")
    page.get_by_role("button", name="Save decision").first.click()
    page.get_by_text("Read as 76.8 on two mornings.").first.wait_for()
    page.goto(f"{address}/bench/RW-106/page/neck")
    typed = page.get_by_role("textbox", name="a wedge, thick at the heel, typed")
    typed.fill("1.3")
    typed.press("Enter")
    page.get_by_role("button", name="Reset values").wait_for()
    page.locator(".todo .scrolls").evaluate("one => one.scrollTo(0, 0)")


def _rattle(page: Page, address: str) -> None:
    page.goto(f"{address}/bench/RW-102/page/playing")
    page.get_by_label("how hard").select_option("hard")
    page.get_by_role("slider", name="of the swing toward the board").fill("0.8")
    page.get_by_role("slider", name="G at the board's end, changed by").fill("-1.2")
    page.get_by_role("button", name="Reset values").wait_for()


def _nut(page: Page, address: str) -> None:
    page.goto(f"{address}/bench/RW-105/page/nut")
    page.get_by_role("img", name="The nut from the front").wait_for()


def _look(page: Page, address: str) -> None:
    page.goto(f"{address}/bench/RW-110/look")
    page.get_by_role("button", name="sound post").click()
    for shot in ("the post's upper end", "the post's lower end"):
        page.get_by_role("button", name=shot).click()
        page.get_by_role("button", name=f"again: {shot}").wait_for()
    page.get_by_role("checkbox", name="its ends gape").check()
    page.wait_for_load_state("networkidle")


def _screening(page: Page, address: str) -> None:
    page.goto(f"{address}/screening")
    page.get_by_role("grid").get_by_label("RW-112 seams").focus()
    page.keyboard.type("11111111")
    page.keyboard.type("4.9")
    page.keyboard.press("Enter")
    page.keyboard.type("3,3")
    page.keyboard.press("Enter")
    page.keyboard.type("12")
    page.keyboard.press("Enter")
    page.get_by_role("checkbox", name="it is glued hard").wait_for()
    page.wait_for_load_state("networkidle")


def _measuring(page: Page, address: str) -> None:
    page.goto(f"{address}/bench/RW-113/measure")
    page.get_by_label("neck length: ").first.click()
    type_readings(page, "130 195")
    page.get_by_label("thickness at the feet: ").click()
    type_readings(page, "4.5")
    page.get_by_label("scoop, bass, a quarter along: ").click()
    type_readings(page, ".45 .75 .55 .30")
    page.get_by_label("scoop, treble, three quarters: ").wait_for()


def _sound(page: Page, address: str) -> None:
    page.goto(f"{address}/bench/RW-102/sound")
    page.get_by_role("button", name="place 4, top").click()
    page.get_by_role("region", name="Place 4").wait_for()


def _strings(page: Page, address: str) -> None:
    page.goto(f"{address}/bench/RW-102/page/strings")
    page.get_by_role("region", name="The strings on it").wait_for()
    page.get_by_label("strings", exact=True).select_option(label="Weir gut")
    page.get_by_text("The present crown is too low for Weir gut").wait_for()


def _plan(page: Page, address: str) -> None:
    page.goto(f"{address}/bench/RW-110/plan")
    lines = page.get_by_role("list", name="Works in their order")
    lines.get_by_role("button", name="Board dressed").click()
    page.get_by_text("It was added after the owner approved").wait_for()


def _leave(page: Page, address: str) -> None:
    page.goto(f"{address}/bench/RW-102/leave")
    page.get_by_role("heading", name="Check at pitch").wait_for()
    command(page, "k")
    for answer in ("1", "1", "1"):
        page.keyboard.press(answer)
        page.wait_for_timeout(300)
        page.keyboard.press("ArrowDown")
    page.get_by_role("heading", name="Check at pitch").scroll_into_view_if_needed()


def _history(page: Page, address: str) -> None:
    page.goto(f"{address}/bench/RW-087/history")
    page.get_by_text("the record is as it was sealed").wait_for()


def _setup_sheet(page: Page, address: str) -> None:
    page.goto(f"{address}/bench/RW-087/paper")
    page.get_by_role("heading", name="Set-up sheet").wait_for()


def _place(page: Page, address: str) -> None:
    page.goto(f"{address}/bench/RW-106/page/place")
    page.get_by_text("The schools beside each other").wait_for()


SHOTS = [
    ("house", (1280, 800), "day", _house),
    ("bridge", (1280, 800), "day", _bridge),
    ("bridge-left-handed", (1280, 800), "day", _left_handed),
    ("bridge-bass-tablet", (800, 1180), "day", _bass),
    ("plan", (1280, 800), "day", _plan),
    ("look-over", (1280, 800), "day", _look),
    ("measuring", (1280, 800), "day", _measuring),
    ("screening", (1280, 800), "day", _screening),
    ("board", (1280, 800), "day", _board),
    ("neck", (1280, 800), "day", _neck),
    ("sound", (1280, 800), "day", _sound),
    ("strings", (390, 844), "day", _strings),
    ("leave", (1280, 800), "day", _leave),
    ("history", (1280, 800), "day", _history),
    ("setup-sheet", (1280, 900), "day", _setup_sheet),
    ("place", (1280, 800), "lamp", _place),
    ("rattle", (1280, 800), "lamp", _rattle),
    ("nut", (1280, 800), "day", _nut),
    ("damage", (1280, 800), "day", _damage),
]


@contextmanager
def served_demo(settings: Settings) -> Iterator[str]:
    """The application with fresh demo data on a throwaway cluster; yields its address."""
    with throwaway_cluster() as running:
        url = filled(running, "shots")
        app = create_app(settings.model_copy(update={"database_url": url, "stand_ins": True}))
        try:
            with serving(app) as address:
                yield address
        finally:
            app.state.engine.dispose()
