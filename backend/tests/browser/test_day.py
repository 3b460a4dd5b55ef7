"""A short walk through a day in one tab, held against its own ledger: `./fidicula bench day` walks for longer."""

from __future__ import annotations

from playwright.sync_api import Page
from sqlalchemy import Engine

from bench.day.walk import Manner, walk

ACTS = 16


def test_a_short_day_in_one_tab_is_on_record_as_it_was_entered(page: Page, demo: Engine) -> None:
    """Double clicks, pages left at once, answers up to half a second late, a server away at a press."""
    walked = walk([page], demo, seed=7, acts=ACTS, manner=Manner(latest_s=0.5, goes_away=0.15), say=lambda _: None)
    assert walked.account.told == []
    assert walked.stuck == []
    assert sum(walked.done.values()) == ACTS
