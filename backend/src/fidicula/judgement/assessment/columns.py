"""Heights over the board in one direction for each column, so that what stands side by side can be compared."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass, replace
from functools import partial

from fidicula.codes import MeasureCode
from fidicula.core.geometry.board import HeightDirection
from fidicula.core.readings.states import MeasurementKey
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.measures import MEASURES
from fidicula.judgement.targets.wanted import Wanted

HEIGHTS = tuple(measure for measure, row in MEASURES.items() if row.height)


@dataclass(frozen=True)
class Column:
    """All strings' heights at one place over the board.

    direction : None where they were read in both and nothing is known of the board to turn one into the other.
    """

    measure: MeasureCode
    direction: HeightDirection | None

    def value(
        self, state: BenchState, position: int | None, value: float, read: HeightDirection | None
    ) -> tuple[float, HeightDirection | None]:
        """A height as it stands in this column, with its direction; as it was read where it cannot be turned.

        value : [mm]  read : how it was read, straight up where nobody said.
        """
        was = read or "vertical"
        if self.direction in (None, was) or state.geometry is None or position is None:
            return value, was
        if self.direction == "vertical":
            return state.geometry.upright(self.measure, position, value, was), "vertical"
        upright = state.upright((self.measure, position), value, was)
        return state.geometry.shortest(self.measure, position, upright), "shortest"

    def wanted(self, state: BenchState, position: int, upright: Wanted | None) -> Wanted | None:
        """A target straight up, the way this column stands; as its reading was taken where that is mixed."""
        if self.direction is None:
            return state.turned_as_read((self.measure, position), upright)
        if upright is None or self.direction == "vertical" or state.geometry is None:
            return upright
        shortest = partial(state.geometry.shortest, self.measure, position)
        return replace(upright, direction="shortest", band=upright.band.through(shortest))


def columns(state: BenchState) -> dict[str, Column]:
    """The column of each height: the way most of its strings were read, straight up where as many were either way.

    Where none was read, the way the shop states them.
    """
    return {measure: Column(measure, _direction(state, measure)) for measure in HEIGHTS}


def _direction(state: BenchState, measure: MeasureCode) -> HeightDirection | None:
    places: list[MeasurementKey] = [(measure, position) for position in range(state.count)]
    read = Counter(
        state.direction(*place)
        for place in places
        if (place in state.reading_states and state.reading_states[place].usable is not None)
        or state.last_visit(place) is not None
    )
    if len(read) > 1 and state.geometry is None:
        return None
    if not read:
        wanted = state.wanted(places[0])
        return "vertical" if wanted is None else wanted.direction
    return "shortest" if read["shortest"] > read["vertical"] else "vertical"
