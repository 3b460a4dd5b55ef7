"""One value to compute with, and where it comes from."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal, Protocol

from fidicula.codes import FigureCode, MeasureCode, ToolCode
from fidicula.core.readings.estimate import COVERS, known_within, rounding_of
from fidicula.core.readings.states import ReadingState
from fidicula.judgement.targets.sources import scatter_at
from fidicula.tables.work import tools

Origin = Literal["read", "derived", "last_visit", "figure", "tried", "simulated"]


@dataclass(frozen=True)
class ResolvedValue:
    """A value to compute with. [mm]

    assumed : it is a figure, or came from a simulated device: no reading of this instrument.
    resolution : ± of what is held, all told; of a figure, half of what it may well be.
    gauge : what of it is the whole tool's, the same at all that `tool` reads: what covers 95 %.
    chance : what of it more readings lessen: what covers 95 %.
    origin : read at this visit, told by other readings, read at the last visit, a figure, or tried on a page.
    """

    value: float
    assumed: bool
    resolution: float
    origin: Origin = "read"
    chance: float = 0.0
    gauge: float = 0.0
    tool: ToolCode | Literal[""] = ""

    @property
    def alone(self) -> float:
        """What of its ± is this reading's own, and no other's of the same tool."""
        return math.sqrt(max(0.0, self.resolution**2 - self.gauge**2))


class ResolvesValues(Protocol):
    """Whatever can be asked for a value: the state of an instrument at the bench."""

    def held(self, measure: MeasureCode, position: int | None = None) -> ResolvedValue | None: ...

    def read_or_figure(
        self, measure: MeasureCode, position: int | None = None, *, figure: FigureCode | None = None
    ) -> ResolvedValue | None: ...


def of_tool(
    stand: ReadingState, value: float, known_to: float, deviation: float, is_simulated: bool, origin: Origin
) -> ResolvedValue:
    return ResolvedValue(
        value,
        is_simulated,
        known_to,
        origin,
        chance=COVERS * deviation,
        gauge=COVERS * stand.gauge,
        tool=stand.reading.tool,
    )


def single_known_to(measure: MeasureCode, tool: ToolCode) -> float:
    """What covers 95 % of one reading of a hand of which nothing is known. [the measure's unit]"""
    row = tools()[tool]
    return known_within(chance=scatter_at(measure, row.scatter), rounding=rounding_of(row.resolution), gauge=row.gauge)


def values_of(held: Mapping[MeasureCode, ResolvedValue]) -> dict[MeasureCode, float]:
    return {measure: one.value for measure, one in held.items()}
