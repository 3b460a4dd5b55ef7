"""The unit of work: one transaction, committed here and nowhere else."""

from __future__ import annotations

from collections.abc import Callable
from types import TracebackType
from typing import TypeVar

import psycopg
from psycopg.errors import error_from_result
from psycopg.generators import fetch_many
from psycopg.pq import ExecStatus
from sqlalchemy import Connection, create_engine
from sqlalchemy import Engine as Engine
from sqlalchemy.exc import DBAPIError
from sqlalchemy.exc import TimeoutError as PoolTimeoutError

from fidicula.db.archive import Archive
from fidicula.db.asking import Asking
from fidicula.db.audit import Audit
from fidicula.db.belongings import Belongings
from fidicula.db.billing import Billing
from fidicula.db.browsers import Browsers
from fidicula.db.damage import Damage
from fidicula.db.entries import check_entry, keep_entry
from fidicula.db.history import History
from fidicula.db.instruments import Instruments
from fidicula.db.leaving import Leaving
from fidicula.db.lessons import Lessons
from fidicula.db.log import Log
from fidicula.db.one_sheet import OneSheet
from fidicula.db.open_visits import OpenVisits
from fidicula.db.people import People
from fidicula.db.photos import Photos
from fidicula.db.plan import Plan
from fidicula.db.shelf import Shelf
from fidicula.db.shop_rules import ShopRules
from fidicula.db.sound import Sound
from fidicula.db.stock import Stock
from fidicula.db.string_sets import StringSets
from fidicula.db.undone import Undone
from fidicula.db.visit_lines import VisitLineReader
from fidicula.db.visits import Visits
from fidicula.db.workflow import WorkflowLog


class DatabaseError(Exception):
    """PostgreSQL did not do what was asked of it; nothing was written."""


class DatabaseAwayError(DatabaseError):
    """PostgreSQL does not answer."""


class DatabaseBusyError(DatabaseError):
    """Somebody else holds what is needed for too long, or every connection is taken."""


class DiskFullError(DatabaseError):
    """There is no room left where the records are."""


class AtOnceError(DatabaseError):
    """Two wrote the same at the same moment; the other one was first."""


class DoesNotFitError(DatabaseError):
    """Longer or larger than the records take. The limits are asked before: whoever comes here found a way around."""


Result = TypeVar("Result")

_BY_STATE: dict[str, type[DatabaseError]] = {
    "53100": DiskFullError,
    "53300": DatabaseBusyError,
    "53400": DatabaseBusyError,
    "55P03": DatabaseBusyError,
    "57014": DatabaseBusyError,
    "40P01": DatabaseBusyError,
    "40001": DatabaseBusyError,
    "23505": AtOnceError,
}
"""PostgreSQL's own codes of errors."""


def translate_db_error(error: BaseException | None) -> DatabaseError | None:
    """What an error of the driver means here; None for one that is a mistake of the program."""
    if isinstance(error, PoolTimeoutError):
        return DatabaseBusyError("every connection is taken")
    told = error.orig if isinstance(error, DBAPIError) else error
    if not isinstance(told, psycopg.Error):
        return None
    state = told.sqlstate or ""
    if state in _BY_STATE:
        return _BY_STATE[state](state)
    if state == "23514" and (told.diag.constraint_name or "").endswith("_fits"):
        return DoesNotFitError(told.diag.constraint_name)
    return DatabaseAwayError(state) if isinstance(told, psycopg.OperationalError | psycopg.InterfaceError) else None


def make_engine(url: str) -> Engine:
    """An engine with a small pool; a connection that died is noticed before it is used.

    A sheet's one large statement is planned once for each connection: planning it takes as long as running it.
    """
    return create_engine(
        url,
        pool_size=10,
        # A connection beyond the pool would be made and ended for a single question, which takes longer than to wait.
        max_overflow=0,
        pool_timeout=10,
        pool_pre_ping=False,
        # The whole house fits into memory, where a page is as near as the next.
        connect_args={
            # As long as one waits for a connection of the pool: a machine that stands still for a moment is not away.
            "connect_timeout": 10,
            # Moments come in UTC, whatever the machine's clock shows: seals and archives are made of them.
            "options": "-c timezone=UTC -c plan_cache_mode=force_generic_plan -c jit=off -c random_page_cost=1.1 "
            # Whoever stops in the middle holds nobody else up for long.
            "-c lock_timeout=8s -c statement_timeout=30s -c idle_in_transaction_session_timeout=30s",
        },
    )


class UnitOfWork:
    """`with UnitOfWork(engine) as work:` reads and writes; without `commit()` nothing is kept.

    only_reads : saves the way there and back that opening and ending a transaction takes.
    beside : what it writes is no part of what was entered, and stays also where that is refused.
    """

    def __init__(self, engine: Engine, *, only_reads: bool = False, beside: bool = False) -> None:
        self.engine = engine
        self.only_reads = only_reads
        self._is_beside = beside
        self._connection: Connection

    def __enter__(self) -> UnitOfWork:
        try:
            self._connection = self.engine.connect()
            if self.only_reads:
                self._connection.execution_options(isolation_level="AUTOCOMMIT")
        except (DBAPIError, PoolTimeoutError) as error:
            raise translate_db_error(error) or error from error
        self.instruments = Instruments(self._connection)
        self.open_visits = OpenVisits(self._connection)
        self.visits = Visits(self._connection)
        self.string_sets = StringSets(self._connection)
        self.log = Log(self._connection)
        self.undone = Undone(self._connection)
        self.lessons = Lessons(self._connection)
        self.workflow = WorkflowLog(self._connection)
        self.one_sheet = OneSheet(self._connection)
        self.photos = Photos(self._connection)
        self.shelf = Shelf(self._connection)
        self.rules = ShopRules(self._connection)
        self.sound = Sound(self._connection)
        self.people = People(self._connection)
        self.browsers = Browsers(self._connection)
        self.audit = Audit(self._connection)
        self.plan = Plan(self._connection)
        self.billing = Billing(self._connection)
        self.stock = Stock(self._connection)
        self.archive = Archive(self._connection)
        self.asking = Asking(self._connection)
        self.belongings = Belongings(self._connection)
        self.damage = Damage(self._connection)
        self.history = History(self._connection)
        self.leaving = Leaving(self._connection)
        self.visit_lines = VisitLineReader(self._connection)
        return self

    def __exit__(
        self, kind: type[BaseException] | None, error: BaseException | None, trace: TracebackType | None
    ) -> None:
        try:
            self._connection.close()
        except DBAPIError as closing:
            if error is None:
                raise translate_db_error(closing) or closing from closing
        ours = translate_db_error(error)
        if ours is not None:
            raise ours from error

    def ask_nothing(self) -> None:
        """Whether the records answer at all. Raises DatabaseError."""
        self._connection.exec_driver_sql("SELECT 1")

    def commit(self) -> None:
        """Keep what was written, and the id of what was entered; the same entry sent again writes nothing.

        Raises TakenIdError where another entry has that id.
        """
        if self._is_new():
            self._connection.commit()
        else:
            self._connection.rollback()

    def check_entry(self) -> bool:
        """Whether what is entered now was entered before. Raises TakenIdError where its id is another entry's."""
        return check_entry(self._connection)

    def _is_new(self) -> bool:
        return self._is_beside or keep_entry(self._connection)

    def commit_meanwhile(self, work: Callable[[], Result]) -> Result:
        """Commit, which waits for the disk, while `work` is done, which asks the database nothing; its result once all
        is kept."""
        end = b"COMMIT" if self._is_new() else b"ROLLBACK"
        link = self._connection.connection.driver_connection
        assert isinstance(link, psycopg.Connection)
        link.pgconn.send_query(end)
        link.pgconn.flush()
        try:
            result = work()
        finally:
            for answer in link.wait(fetch_many(link.pgconn)):
                if answer.status != ExecStatus.COMMAND_OK:
                    raise error_from_result(answer)
            # Nothing is left to commit by now: this ends the transaction for whoever counts them here.
            self._connection.commit()
        return result


def check_database(engine: Engine) -> None:
    """Raises DatabaseError where it does not answer."""
    with UnitOfWork(engine, only_reads=True) as uow:
        uow.ask_nothing()
