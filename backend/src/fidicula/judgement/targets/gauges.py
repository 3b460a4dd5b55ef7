"""What the shop's tools are off at everything that they read, by what their checks found."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime

from fidicula.codes import ToolCode
from fidicula.core.readings.gauge import Check, check_of, gauge_at
from fidicula.domain.readings import ToolCheck
from fidicula.tables.work import tools


@dataclass(frozen=True)
class Gauges:
    """checks : of each tool, on lengths that are known, in order."""

    checks: Mapping[str, Sequence[Check]] = field(default_factory=dict)

    def at(self, tool: ToolCode, when: datetime) -> float:
        """What a tool is off at everything that it reads: standard deviation. [its unit]  when : of a reading."""
        row = tools()[tool]
        checks = self.checks.get(tool, ())
        if not checks or row.check_days is None:
            return row.gauge
        return gauge_at(_days(when), checks, unchecked=row.gauge, holds=row.check_days)

    def until(self, when: datetime | None) -> Gauges:
        """As they were known at a time; None for now."""
        if when is None:
            return self
        return Gauges({tool: [one for one in checks if one.at <= _days(when)] for tool, checks in self.checks.items()})


UNCHECKED = Gauges()


def _days(when: datetime) -> float:
    """As the core counts time."""
    return when.timestamp() / 86_400


def found_by(check: ToolCheck) -> Check | None:
    """What a check found; None where the tool was only said to read true."""
    row = tools().get(check.tool)
    if row is None or row.on_block is None or not check.read:
        return None
    return check_of(
        at=_days(check.checked_at), known=check.known, read=check.read, scatter=row.on_block, resolution=row.resolution
    )


def gauges_of(checks: Iterable[ToolCheck]) -> Gauges:
    """checks : of any tools, in order."""
    found: dict[str, list[Check]] = {}
    for one in checks:
        if (check := found_by(one)) is not None:
            found.setdefault(one.tool, []).append(check)
    return Gauges(found)


def last_checks(checks: Iterable[ToolCheck]) -> dict[str, ToolCheck]:
    """The last check of each tool. checks : in order."""
    return {one.tool: one for one in checks}
