"""Who may do which work, and undo whose: the one place that is asked, by whichever way it is done."""

from __future__ import annotations

from fidicula.db.unit_of_work import UnitOfWork
from fidicula.domain.errors import ForbiddenError
from fidicula.services.people.audit import role_now
from fidicula.services.people.roles import RANK, may_undo
from fidicula.tables.pricing import jobs
from fidicula.tables.rows import row_of
from fidicula.words import pricing as say


def check_rank(work: str) -> None:
    """Raises ForbiddenError where whoever asks stands below who does this work, by jobs.csv."""
    job = row_of(jobs(), work)
    if job is not None and RANK[role_now()] < RANK[job.who]:
        raise ForbiddenError(say.only(job.who))


def check_undo(uow: UnitOfWork, what: str, *, of: str, by: str) -> None:
    """Raises ForbiddenError where whoever asks stands below whoever it is of, and is somebody else.

    what : is undone, in words.  of, by : names.
    """
    maker = uow.people.by_name(of)
    if of != by and not may_undo(role_now(), maker.role if maker is not None else None):
        raise ForbiddenError(f"{what} is {of}'s: {of}, or somebody who stands as high, undoes it")


def check_price() -> None:
    """Raises ForbiddenError for whoever does not set prices."""
    if RANK[role_now()] < RANK["luthier"]:
        raise ForbiddenError("a luthier sets prices")


def check_takes_for(name: str, *, by: str) -> None:
    """Raises ForbiddenError where somebody enters in another's name what only a luthier vouches for."""
    if name != by and RANK[role_now()] < RANK["luthier"]:
        raise ForbiddenError(f"it says that {name[:40]} took it: a luthier enters what others took")
