"""What can be laid beside the readings of now: how it came, and how it went home earlier."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime

from fidicula.codes import MeasureCode
from fidicula.core.readings.states import MeasurementKey
from fidicula.domain.visits import Visit
from fidicula.judgement.assessment.columns import columns
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.targets.wanted import Taken
from fidicula.tables.workflow import visit_kinds


@dataclass(frozen=True)
class BesideValue:
    """One place as it was read then, a height the way its column stands now where that is known. [its unit]"""

    measure: MeasureCode
    position: int | None
    value: float


@dataclass(frozen=True)
class Beside:
    """key : `came`, or the visit's id.  label : in words.  at : when that visit began."""

    key: str
    label: str
    at: datetime
    values: list[BesideValue]


def beside(
    state: BenchState,
    visit: Visit,
    came: Mapping[MeasurementKey, Taken],
    earlier: Sequence[tuple[Visit, Mapping[MeasurementKey, Taken]]],
) -> list[Beside]:
    """visit : of now.  came : as it was first read at it.  earlier : each visit before, as it ended."""
    return [
        Beside("came", "as it came", visit.opened_at, _values(state, came)),
        *(
            Beside(
                str(one.id),
                visit_kinds()[one.kind].label if one.kind in visit_kinds() else one.kind,
                one.opened_at,
                _values(state, held),
            )
            for one, held in earlier
        ),
    ]


def _values(state: BenchState, held: Mapping[MeasurementKey, Taken]) -> list[BesideValue]:
    of, found = columns(state), []
    for (measure, position), taken in held.items():
        if taken.value is None:
            continue
        column, value = of.get(measure), taken.value
        if column is not None:
            value, _ = column.value(state, position, value, taken.direction)
        found.append(BesideValue(measure, position, value))
    return found
