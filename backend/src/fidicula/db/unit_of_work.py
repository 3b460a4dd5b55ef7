"""The unit of work: one transaction, committed here and nowhere else."""

from __future__ import annotations

from types import TracebackType

from sqlalchemy import Connection, create_engine
from sqlalchemy import Engine as Engine
from sqlalchemy.exc import OperationalError

from fidicula.db.course import Course
from fidicula.db.instruments import Instruments
from fidicula.db.log import Log
from fidicula.db.one_sheet import OneSheet
from fidicula.db.people import People
from fidicula.db.photos import Photos
from fidicula.db.shelf import Shelf
from fidicula.db.shop_rules import ShopRules
from fidicula.db.sound import Sound
from fidicula.db.string_sets import StringSets


class DatabaseAwayError(Exception):
    """PostgreSQL does not answer."""


def make_engine(url: str) -> Engine:
    """An engine with a small pool; a connection that died is noticed before it is used.

    A sheet's one large statement is planned once for each connection: planning it takes as long as running it.
    """
    return create_engine(
        url,
        pool_size=10,
        # A connection beyond the pool would be made and ended for a single question, which takes longer than to wait.
        max_overflow=0,
        pool_pre_ping=False,
        # The whole house fits into memory, where a page is as near as the next.
        connect_args={
            "connect_timeout": 5,
            "options": "-c plan_cache_mode=force_generic_plan -c jit=off -c random_page_cost=1.1",
        },
    )


class UnitOfWork:
    """`with UnitOfWork(engine) as work:` reads and writes; without `commit()` nothing is kept.

    only_reads : saves the way there and back that opening and ending a transaction takes.
    """

    def __init__(self, engine: Engine, *, only_reads: bool = False) -> None:
        self.engine = engine
        self._only_reads = only_reads
        self._connection: Connection

    def __enter__(self) -> UnitOfWork:
        try:
            self._connection = self.engine.connect()
            if self._only_reads:
                self._connection.execution_options(isolation_level="AUTOCOMMIT")
        except OperationalError as error:
            raise DatabaseAwayError from error
        self.instruments = Instruments(self._connection)
        self.string_sets = StringSets(self._connection)
        self.log = Log(self._connection)
        self.course = Course(self._connection)
        self.one_sheet = OneSheet(self._connection)
        self.photos = Photos(self._connection)
        self.shelf = Shelf(self._connection)
        self.rules = ShopRules(self._connection)
        self.sound = Sound(self._connection)
        self.people = People(self._connection)
        return self

    def __exit__(
        self, kind: type[BaseException] | None, error: BaseException | None, trace: TracebackType | None
    ) -> None:
        self._connection.close()
        if isinstance(error, OperationalError):
            raise DatabaseAwayError from error

    def commit(self) -> None:
        self._connection.commit()
