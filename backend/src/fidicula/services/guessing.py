"""Guessing is slowed down: for each secret from each browser, and for a browser that guesses at many.

A guess is counted before it is known whether it is right, so that many at once are all counted; and a browser that
nobody signed in with yet shares its count with others of that kind alone: nobody locks another out.
"""

from __future__ import annotations

from collections.abc import Callable
from datetime import datetime, timedelta

from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.services.errors import TooManyGuessesError
from fidicula.services.metrics import note_wrong_guess

FREE_HERE = 5
FREE_OF_BROWSER = 20
WITHIN = timedelta(minutes=30)
LONGEST_WAIT = 900


def check_guess(engine: Engine, what: str, whose: str, *, from_where: str, fits: Callable[[], bool]) -> bool:
    """Whether a guess is right. It holds no connection while it is checked, which takes long on purpose.

    what : password or pin.  whose : the name, or id, that it is tried at.  from_where : the browser.
    Raises TooManyGuessesError.
    """
    at_what = f"{what} {whose}"
    with UnitOfWork(engine, beside=True) as uow:
        made = uow.browsers.guesses(at_what=at_what, from_where=from_where, within=WITHIN)
        _slow_down(made.here, made.last_here, made.now, free=FREE_HERE)
        _slow_down(made.of_browser, made.last_of_browser, made.now, free=FREE_OF_BROWSER)
        uow.browsers.guess(at_what=at_what, from_where=from_where)
        uow.commit()
    if not fits():
        note_wrong_guess(what)
        return False
    with UnitOfWork(engine, beside=True) as uow:
        uow.browsers.forget_guesses(at_what=at_what, from_where=from_where)
        uow.commit()
    return True


def _slow_down(count: int, last: datetime | None, now: datetime, *, free: int) -> None:
    """After the free ones each next guess waits twice as long, up to a quarter of an hour."""
    if count < free or last is None:
        return
    wait = min(LONGEST_WAIT, 15 * 2 ** min(count - free, 20)) - max(0.0, (now - last).total_seconds())
    if wait > 0:
        seconds = int(wait) + 1
        raise TooManyGuessesError(
            f"too many wrong guesses: try again in {seconds} s"
            if seconds < 120
            else f"too many wrong guesses: try again in {seconds // 60 + 1} minutes",
            wait=seconds,
        )
