"""What hands do at the bench: keys alone."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager

from playwright.sync_api import Locator, Page, Route, expect

READINGS = "6.10 5,75 5.20 4.30 .85 .80 .70 .60 .10 .20 .25 .20 27.1 327mm 270 42 16.4 33.6"
"""RW-101 in the course of measuring, with both decimal marks and a caliper's unit."""


def command(page: Page, letter: str, *, own: bool = False) -> None:
    """Run a command from the strip that Space opens, twice for the page's own, once no dialog is open.

    A page that is still on its way has no commands yet: the strip is closed and opened again until it has this one.
    """
    expect(page.locator(".v-dialog.v-overlay--active")).to_have_count(0)
    expect(page.locator("footer.foot")).to_have_count(1)
    menu = page.get_by_role("menu", name="Commands")
    for _ in range(200):
        page.keyboard.press("Space")
        expect(menu).to_be_focused()
        letters = _letters(menu)
        if (own or letter not in letters) and "Space" in letters:
            page.keyboard.press("Space")
            letters = _letters(menu)
        if letter in letters:
            page.keyboard.press(letter)
            return
        page.keyboard.press("Escape")
        expect(menu).to_have_count(0)
        page.wait_for_timeout(50)
    raise AssertionError(f"no command {letter} here: {letters}")


def _letters(menu: Locator) -> list[str]:
    return [words.split()[0] for words in menu.get_by_role("menuitem").all_inner_texts()]


ROUTER = "document.querySelector('#app').__vue_app__.config.globalProperties.$router"


def go(page: Page, path: str) -> None:
    """Go to a page as a link does: without loading the application again."""
    page.evaluate(f"path => {ROUTER}.push(path).then(() => null)", path)
    expect(page.get_by_role("main").or_(page.locator(".paper, .sheet")).first).to_be_visible()
    expect(page.get_by_text("Calculating")).to_have_count(0)


def choose(page: Page, name: str, label: str) -> None:
    """Choose from a list that opens, in the dialog at hand."""
    dialog = page.get_by_role("dialog")
    dialog.get_by_role("combobox", name=name).focus()
    page.keyboard.press("Enter")
    option = page.get_by_role("option", name=label, exact=True)
    expect(option).to_be_visible()
    option.press("Enter")
    expect(dialog.get_by_text(label, exact=True)).to_be_visible()


def open_ticket(page: Page, ticket: str) -> None:
    """Find an instrument on the rail by typing."""
    command(page, "f")
    page.keyboard.type(ticket)
    page.keyboard.press("Enter")
    expect(page.get_by_role("main", name="Bench sheet")).to_be_visible()


def name_strings(page: Page, downs: int) -> None:
    """Choose the set that many places down the shelf's list."""
    command(page, "s")
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_role("radio").first).to_be_focused()
    for _ in range(downs):
        page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")
    expect(dialog).to_have_count(0)


def type_readings(page: Page, readings: str) -> None:
    """Type as a caliper would, Enter after each."""
    for reading in readings.split():
        page.keyboard.type(reading)
        page.keyboard.press("Enter")


def wood(page: Page, string: str) -> Locator:
    """The figure over a string in the drawing."""
    return page.get_by_role("button", name=f"{string}, ").and_(page.locator(".wood"))


def reading(page: Page, name: str) -> Locator:
    """A reading on the card, by its place; its accessible name says value and state."""
    return page.get_by_role("group", name="Bench card").or_(page.locator("#single-readings")).get_by_label(f"{name}: ")


def intercept(page: Page, path: str, handle: Callable[[Route], object]) -> Callable[[], None]:
    """
    Stand between the page and the server for what ends in a path, until what is given back is called.

    What is being handled then is handled to its end; the driver's own way would let it through as well, and fail.

    The browser says that it intercepts before its pages do: a request sent at once can slip by. So a probe is sent
    until one is caught.
    """
    caught: list[Route] = []
    is_over = False

    def handled(route: Route) -> None:
        if "/probe/" not in route.request.url:
            handle(route) if not is_over else route.continue_()
            return
        caught.append(route)
        route.abort()

    page.route(f"**/{path}", handled)
    while not caught:
        page.evaluate("address => fetch(address).catch(() => null)", f"/probe/{path}")

    def let_through() -> None:
        nonlocal is_over
        is_over = True

    return let_through


@contextmanager
def held(page: Page, path: str) -> Iterator[None]:
    """A network that keeps what is sent until the block is left."""
    kept: list[Route] = []
    is_open = False
    intercept(page, path, lambda route: route.continue_() if is_open else kept.append(route))
    yield
    while not kept:
        page.wait_for_timeout(20)
    is_open = True
    for route in kept:
        route.continue_()
