"""`./fidicula bench day`: 2,000 acts over ten seeds, in every manner, accounted for one by one.

`FIDICULA_ACTS=200 FIDICULA_SEEDS=2` for fewer, `FIDICULA_SEED=5` begins at another seed. Wanted: nothing lost,
misplaced, doubled, invented or carried over.
"""

from __future__ import annotations

import os
from collections import Counter
from collections.abc import Iterator
from contextlib import contextmanager

from fidicula.cli.demo import demo_sign_ins
from fidicula.cli.throwaway import filled, throwaway_cluster
from fidicula.db.unit_of_work import make_engine
from fidicula.hosting.serving import CHROMIUM, CHROMIUM_ARGUMENTS, serving
from fidicula.main import create_app
from fidicula.settings import Settings
from playwright.sync_api import Page, sync_playwright
from sqlalchemy import Engine

from bench.day.walk import Manner, Walked, walk

MANNERS = (Manner(), Manner(latest_s=0.6), Manner(tabs=2), Manner(latest_s=0.6, tabs=2))


def run() -> None:
    acts, seeds = int(os.environ.get("FIDICULA_ACTS", "2000")), int(os.environ.get("FIDICULA_SEEDS", "10"))
    each, first = acts // seeds, int(os.environ.get("FIDICULA_SEED", "0"))
    sums: Counter[str] = Counter()
    stuck = 0
    with throwaway_cluster() as running:
        for seed in range(first, first + seeds):
            manner = MANNERS[seed % len(MANNERS)]
            with house(filled(running, f"day_{seed}"), manner) as (pages, engine):
                walked = walk(pages, engine, seed=seed, acts=each, manner=manner, say=lambda line: print(f"    {line}"))
            told(seed, manner, walked)
            stuck += len(walked.stuck)
            for name in ("acts", "lost", "wrong_place", "doubled", "invented", "carried_over"):
                sums[name] += getattr(walked.account, name)
    print(f"  together: {dict(sums)}; acts that found no way through the page: {stuck}")


def told(seed: int, manner: Manner, walked: Walked) -> None:
    a = walked.account
    how = f"{manner.tabs} tab{'s' if manner.tabs > 1 else ''}, answers up to {manner.latest_s} s late"
    print(
        f"  seed {seed}, {how}: {a.acts} acts; lost {a.lost}, wrong place {a.wrong_place}, doubled {a.doubled}, "
        f"invented {a.invented}, carried over {a.carried_over}; no way through {len(walked.stuck)}"
    )
    for line in walked.stuck[:6]:
        print(f"      {line}")


@contextmanager
def house(url: str, manner: Manner) -> Iterator[tuple[list[Page], Engine]]:
    """The application on a demo, and pages of one browser with its owner signed in."""
    os.environ["FIDICULA_DATABASE_URL"] = url
    engine = make_engine(url)
    with serving(create_app(Settings())) as address, sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=CHROMIUM_ARGUMENTS)
        context = browser.new_context(viewport={"width": 1280, "height": 800}, service_workers="block")
        context.set_default_timeout(10_000)
        name, _, password, _ = demo_sign_ins()[0]
        context.request.post(f"{address}/api/session", data={"name": name, "password": password})
        pages = [context.new_page() for _ in range(manner.tabs)]
        for page in pages:
            page.goto(address)
            page.get_by_label("Instruments in the house").wait_for()
        yield pages, engine
        browser.close()
    engine.dispose()


if __name__ == "__main__":
    run()
