"""Guessing is slowed down: at each secret, from each browser or person that guesses.

A secret's owner is counted alone in a browser in which that owner signed in before: nobody else's guesses lock the
owner out of it. Somebody else who is signed in is counted by who that is, and together with all others who guess at the
same secret: a fresh browser brings no fresh tries. A guess is counted before it is known whether it is right; of
guesses at one secret from one place one is looked at after the other: right ones do not count against each other.
"""

from __future__ import annotations

import threading
from collections.abc import Callable
from datetime import datetime, timedelta
from weakref import WeakValueDictionary

from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.domain.errors import TooManyGuessesError
from fidicula.services.metrics import note_wrong_guess
from fidicula.services.people.audit import note

FREE_HERE = 5
FREE_OF_BROWSER = 20
FREE_OF_HOUSE = 5
WITHIN = timedelta(minutes=30)
LONGEST_WAIT = 900
OWN, PERSON = "own ", "person "
"""How a place begins that is the secret's owner's, counted alone; and one that is somebody who is signed in."""

_queues: WeakValueDictionary[tuple[str, str], _Queue] = WeakValueDictionary()
_making = threading.Lock()


class _Queue:
    """Those who guess at one secret from one place stand in it."""

    def __init__(self) -> None:
        self.turn = threading.Lock()


def _queue(at_what: str, from_where: str) -> _Queue:
    with _making:
        found = _queues.get((at_what, from_where))
        if found is None:
            found = _queues[at_what, from_where] = _Queue()
        return found


def check_guess(
    engine: Engine, what: str, whose: str, *, from_where: str, fits: Callable[[], bool], name: str = ""
) -> bool:
    """Whether a guess is right. It holds no connection while it is checked, which takes long on purpose.

    what : password or pin.  whose : the name, or id, that it is tried at.
    from_where : the browser or person that guesses; begins with OWN where that is the secret's owner's.
    name : of the secret's owner, for the audit.
    Raises TooManyGuessesError.
    """
    at_what = f"{what} {whose}"
    queue = _queue(at_what, from_where)
    with queue.turn:
        with UnitOfWork(engine, beside=True) as uow:
            made = uow.browsers.guesses(at_what=at_what, from_where=from_where, own=OWN, within=WITHIN)
            _slow_down(made.here, made.last_here, made.now, free=FREE_HERE)
            _slow_down(made.of_browser, made.last_of_browser, made.now, free=FREE_OF_BROWSER)
            if from_where.startswith(PERSON):
                _slow_down(made.of_house, made.last_of_house, made.now, free=FREE_OF_HOUSE)
            uow.browsers.guess(at_what=at_what, from_where=from_where)
            uow.commit()
        is_right = fits()
        with UnitOfWork(engine, beside=True) as uow:
            if is_right:
                uow.browsers.forget_guesses(at_what=at_what, from_where=from_where)
            else:
                note_wrong_guess(what)
                note(uow, "person.guessed_at", name or whose, detail={"what": what})
            uow.commit()
    return is_right


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
