"""What is worked out of the records, kept in the process for as long as they do not change."""

from __future__ import annotations

from collections import OrderedDict
from threading import Lock
from typing import Generic, TypeVar
from uuid import UUID

MOST = 200
"""So many instruments are worked on at once in no shop; the one longest not asked for goes first."""

Made = TypeVar("Made")


class Kept(Generic[Made]):
    """What was made of each instrument, by the number that its newest change is counted as.

    Any process may write: what is kept is given out under the very number that the database holds, and no other.
    """

    def __init__(self) -> None:
        self._kept: OrderedDict[UUID, tuple[int, Made]] = OrderedDict()
        self._lock = Lock()

    def at(self, instrument_id: UUID, change: int) -> Made | None:
        """None where the instrument changed since, or was never asked for."""
        with self._lock:
            kept = self._kept.get(instrument_id)
            if kept is None or kept[0] != change:
                return None
            self._kept.move_to_end(instrument_id)
            return kept[1]

    def keep(self, instrument_id: UUID, change: int, made: Made) -> None:
        """made : of the records as they are once that change is committed."""
        with self._lock:
            self._kept[instrument_id] = change, made
            self._kept.move_to_end(instrument_id)
            while len(self._kept) > MOST:
                self._kept.popitem(last=False)
