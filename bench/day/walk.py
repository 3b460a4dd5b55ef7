"""The hands: one act after the other, by a seed; late answers, a server that goes away, a second tab."""

from __future__ import annotations

import os
import random
from collections import Counter
from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass, field

from playwright.sync_api import Error as PlaywrightError
from playwright.sync_api import Page, Route
from sqlalchemy import Engine

from bench.day.acts import ACTS, WEIGHTS
from bench.day.hands import Day
from bench.day.ledger import Account, Ledger

SHOTS = os.environ.get("FIDICULA_STUCK", "")
"""A folder for pictures of where an act found no way through."""
LEFT = """() => new Promise((resolve) => {
  const asked = indexedDB.open('fidicula')
  asked.onsuccess = () => {
    const count = asked.result.transaction('rows').objectStore('rows').count()
    count.onsuccess = () => { asked.result.close(); resolve(count.result) }
  }
})"""


LATE = """latest => {
  const asks = window.fetch.bind(window)
  window.fetch = async (...given) => {
    const answer = await asks(...given)
    const url = String(given[0]?.url ?? given[0])
    if (!url.includes('/api/') || url.endsWith('/changes')) return answer
    await new Promise((done) => setTimeout(done, Math.random() * latest * 1000))
    return answer
  }
}"""


@dataclass
class Manner:
    """latest_s : so late an answer may come.  tabs : one or two.  goes_away : of how many presses the server does."""

    latest_s: float = 0.0
    tabs: int = 1
    goes_away: float = 0.05


@dataclass
class Walked:
    account: Account
    done: Counter[str] = field(default_factory=Counter)
    """How often each act was done."""
    stuck: list[str] = field(default_factory=list)
    """Acts that found no way through the page: they entered nothing more."""


def walk(
    pages: list[Page], engine: Engine, *, seed: int, acts: int, manner: Manner, say: Callable[[str], None]
) -> Walked:
    """Walk through so many acts and account for all of them."""
    chance = random.Random(seed)
    ledger = Ledger(engine)
    day = Day(pages, chance, ledger, goes_away=manner.goes_away)
    walked = Walked(Account())
    names = [name for name in ACTS for _ in range(WEIGHTS.get(name, 1))]
    for one in pages:
        _let_answers_be_late(one, manner, day)
    for i in range(acts):
        day.page = chance.choice(pages)
        name = chance.choice(names)
        _shut_dialogs(day.page)
        entered = len(ledger.entries)
        try:
            ACTS[name](day)
            day.settle()
        except PlaywrightError as error:
            walked.stuck.append(
                f"{i} {name} at {day.page.url.rpartition('/bench/')[2]}: {str(error).splitlines()[0][:120]}"
            )
            if SHOTS:
                day.page.screenshot(path=f"{SHOTS}/{seed}-{i}-{name}.png")
            # Whether it was pressed cannot be told: nothing is lost where it is not on record.
            for entry in ledger.entries[entered:]:
                entry.is_sure = False
            day.is_away = False
        walked.done[name] += 1
    _wait_until_sent(pages)
    walked.account = ledger.account(acts)
    for line in walked.account.told:
        say(line)
    return walked


def _let_answers_be_late(page: Page, manner: Manner, day: Day) -> None:
    def answer(route: Route) -> None:
        if day.is_away:
            route.abort()
        else:
            route.continue_()

    page.route("**/api/**", answer)
    if manner.latest_s:
        # In the page itself, so that answers overtake each other as they do on a weak network.
        page.evaluate(
            LATE,
            manner.latest_s,
        )


def _shut_dialogs(page: Page) -> None:
    with suppress(PlaywrightError):
        if page.locator(".v-dialog.v-overlay--active").count():
            page.keyboard.press("Escape")
            page.locator(".v-dialog.v-overlay--active").wait_for(state="hidden", timeout=1500)


def _wait_until_sent(pages: list[Page]) -> None:
    for _ in range(150):
        if all(page.evaluate(LEFT) == 0 for page in pages):
            break
        pages[0].wait_for_timeout(200)
    for page in pages:
        page.wait_for_timeout(1200)
