"""Whoever walks: a page, chance, what was entered."""

from __future__ import annotations

import random
from collections.abc import Callable

from playwright.sync_api import Locator, Page

from bench.day.ledger import Ledger

Act = Callable[["Day"], None]
ROUTER = "document.querySelector('#app').__vue_app__.config.globalProperties.$router"
STRING_LENGTHS = {"RW-102": 328, "RW-104": 371, "RW-105": 348, "RW-106": 690, "RW-108": 1052, "RW-110": 328}
"""Of instruments in the house, with strings: a left-handed violin, violas, a cello, a bass."""
TICKETS = tuple(STRING_LENGTHS)


class Day:
    """One walk: its page, its chance, its ledger."""

    def __init__(self, pages: list[Page], chance: random.Random, ledger: Ledger, *, goes_away: float) -> None:
        """goes_away : how likely the server is away as something is pressed that waits for it."""
        self.pages, self.chance, self.ledger = pages, chance, ledger
        self.page = pages[0]
        self._count = 0
        self._goes_away = goes_away
        self.is_away = False

    def mark(self, what: str) -> str:
        """A text that stands in no other entry."""
        self._count += 1
        return f"{what} {self._count:05d}"

    def ticket(self) -> str:
        return self.chance.choice(TICKETS)

    def go(self, path: str) -> None:
        """As a link does: the application is not loaded again."""
        self.page.evaluate(f"path => {ROUTER}.push(path).then(() => null, () => null)", path)

    def press(self, button: Locator, *, waits: bool = True) -> None:
        """Once, or as a hand does that is not sure: twice; now and then while the server says nothing.

        waits : what is pressed waits in the browser until the server is there again.
        """
        self.is_away = waits and self.chance.random() < self._goes_away
        if self.chance.random() < 0.3:
            button.dblclick(timeout=4000)
        else:
            button.click(timeout=4000)
        if self.is_away:
            self.page.wait_for_timeout(self.chance.uniform(200, 1500))
            self.is_away = False

    def settle(self) -> None:
        """Go on at once, or wait a while, or leave the page as soon as it was pressed."""
        how = self.chance.random()
        if how < 0.35:
            self.page.wait_for_timeout(self.chance.uniform(50, 600))
        elif how < 0.6:
            self.go(f"/bench/{self.ticket()}{self.chance.choice(('', '/history', '/sound', '/belongings', '/plan'))}")


def in_form(day: Day, name: str) -> Locator:
    return day.page.get_by_role("form", name=name)
