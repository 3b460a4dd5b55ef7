"""Holding the shop's tools to lengths that are known, and the record of it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from uuid import UUID

from fidicula.codes import ToolCode
from fidicula.core.errors import CoreError
from fidicula.core.readings.estimate import known_within, rounding_of
from fidicula.core.readings.typed import millimetres
from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.domain.errors import RefusedError
from fidicula.domain.readings import ToolCheck
from fidicula.judgement.targets.gauges import found_by
from fidicula.numerals import short
from fidicula.tables.rows import row_of
from fidicula.tables.work import tools
from fidicula.words.tool_checks import told

FEWEST, MOST = 3, 12
"""Readings of a check."""
LONGEST = 300.0
"""Of a known length. [mm]"""
FARTHEST_OFF = 1.0
"""A reading that is further from the known length is a slip. [mm]"""
REMEMBERED = 6
"""So many checks of a tool are shown, the newest first."""


@dataclass(frozen=True)
class ToolChecked:
    """What a check found.

    off : what the tool reads more than is there; None where it was only said to read true. [mm]
    known_to : what covers 95 % of what it is off, as long as it is left as it is. [mm]  to_set : it wants setting.
    """

    at: datetime
    by: str
    says: str
    to_set: bool
    off: float | None = None
    known_to: float | None = None


@dataclass(frozen=True)
class ToolRecord:
    """A tool of the shop. on_block : it is held to a known length.  due : when it is to be checked again.

    checks : the last ones, the newest first.
    """

    tool: ToolCode
    label: str
    on_block: bool
    due: datetime | None
    checks: list[ToolChecked]


class ToolChecks:
    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def all(self) -> list[ToolRecord]:
        """The tools that are to be checked now and then, with what their checks found."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            checks = uow.workflow.tool_checks()
        found = []
        for row in tools().values():
            if row.check_days is None:
                continue
            own = [one for one in reversed(checks) if one.tool == row.tool]
            due = own[0].checked_at + timedelta(days=row.check_days) if own else None
            shown = [_told(one) for one in own[:REMEMBERED]]
            found.append(ToolRecord(row.tool, row.label, row.on_block is not None, due, shown))
        return found

    def check(
        self,
        tool: str,
        *,
        check_id: UUID,
        by: str,
        known: str = "",
        read: Sequence[str] = (),
        at: datetime | None = None,
    ) -> ToolChecked:
        """Write down that a tool was checked, and say what that found.

        known : the length, as it was typed.  read : what the tool showed of it, time after time.  at : None for now.
        Both are left out for a tool that is held to no length: it was seen to read true.
        """
        row = row_of(tools(), tool)
        if row is None or row.check_days is None:
            raise RefusedError(f"“{tool}” is not a tool that this shop checks", field="tool")
        length, lengths = 0.0, []
        if row.on_block is not None:
            length = _length(known)
            lengths = [_reading(one, n, length, row.label) for n, one in enumerate(read)]
            if not FEWEST <= len(lengths) <= MOST:
                raise RefusedError(
                    f"{FEWEST} to {MOST} readings make a check; there are {len(lengths)}", field=f"read.{len(lengths)}"
                )
        with UnitOfWork(self._engine) as uow:
            uow.workflow.check_tool(
                id=check_id, tool=row.tool, by=by, at=at, known=[length] * len(lengths), read=lengths
            )
            written = next(one for one in uow.workflow.tool_checks() if one.id == check_id)
            uow.commit()
        return _told(written)


def _length(typed: str) -> float:
    try:
        length = millimetres(typed, what="the known length")
    except CoreError as error:
        raise RefusedError(error.sentence, field="known") from error
    if not 0 < length <= LONGEST:
        raise RefusedError(
            f"a known length is above 0 and at most {short(LONGEST)} mm; it was {short(length)}", field="known"
        )
    return length


def _reading(typed: str, n: int, length: float, label: str) -> float:
    field = f"read.{n}"
    try:
        value = millimetres(typed, what=f"reading {n + 1}")
    except CoreError as error:
        raise RefusedError(error.sentence, field=field) from error
    if abs(value - length) > FARTHEST_OFF:
        raise RefusedError(
            f"reading {n + 1}: {short(value)} is no reading of {short(length)}; type what the {label} shows",
            field=field,
        )
    return value


def _told(check: ToolCheck) -> ToolChecked:
    found, row = found_by(check), tools()[check.tool]
    if found is None:
        return ToolChecked(check.checked_at, check.checked_by, told(check.tool, None, 0.0), False)
    known_to = known_within(chance=found.deviation)
    reads_to = known_within(chance=0.0, rounding=rounding_of(row.resolution), gauge=found.gauge)
    return ToolChecked(
        check.checked_at,
        check.checked_by,
        told(check.tool, found, reads_to),
        not found.is_true,
        found.off,
        known_to,
    )
