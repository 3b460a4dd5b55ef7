"""What a visit taught, kept when the instrument is handed over and read at every sheet after it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, delete, func, insert, select, update
from sqlalchemy.sql.selectable import ScalarSelect

from fidicula.core.readings.estimate import Repeats
from fidicula.db import schema

_hand, _visit = schema.hand_repeats, schema.visit
_LATEST = 300
"""So many hands at visits are looked back at: a hand changes over the years."""


def hands_learnt() -> ScalarSelect[Any]:
    """The repeats of every hand at the latest visits, as JSON: [person, tool, squares, free] each."""
    latest = select(_hand).order_by(_hand.c.number.desc()).limit(_LATEST).subquery("latest")
    sums = (
        select(
            latest.c.person, latest.c.tool, func.sum(latest.c.squares).label("s"), func.sum(latest.c.free).label("n")
        )
        .group_by(latest.c.person, latest.c.tool)
        .subquery("sums")
    )
    return select(
        func.json_agg(func.json_build_array(sums.c.person, sums.c.tool, sums.c.s, sums.c.n))
    ).scalar_subquery()


class Lessons:
    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def keep(self, visit_id: UUID, *, hands: Mapping[tuple[str, str], Repeats], settled: Sequence[float]) -> None:
        """Keep what a visit taught, in place of what it taught before.

        settled : what strings came down by after they were up, at the bridge. [mm]
        """
        self._connection.execute(delete(_hand).where(_hand.c.visit_id == visit_id))
        rows = [
            {"visit_id": visit_id, "person": person, "tool": tool, "squares": shown.squares, "free": shown.free}
            for (person, tool), shown in sorted(hands.items())
            if shown.free
        ]
        if rows:
            self._connection.execute(insert(_hand), rows)
        self._connection.execute(update(_visit).where(_visit.c.id == visit_id).values(settled=list(settled)))
