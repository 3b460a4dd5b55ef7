"""The caliper that sends what lies between its jaws; a stand-in finds there what such an instrument would have."""

from __future__ import annotations

import random
from collections.abc import Callable, Sequence

from fidicula.core.readings.standing import Place
from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.devices.ports import Caliper, DeviceError
from fidicula.services.errors import NotNowError, RefusedError
from fidicula.services.loaded import load_bench
from fidicula.services.measures import MEASURES
from fidicula.services.sheet.held import BenchState

_UNTOLD = {
    "edge_projection": 1.0,
    "neck_to_nick": 1.1,
    "board_chord": 1.1,
    "board_rise": 0.1,
    "nut_margin": 0.15,
    "post_setback": 0.09,
    "post_inset": 0.04,
    "afterlength": 2.0,
    "saddle_gap": 0.2,
    "relief": 0.02,
    "slot_depth": 0.008,
    "end_height": 0.17,
}
"""About how long what has no figure is, in parts of the projection: enough for a simulated instrument."""
_APART = 0.03
"""How far a simulated instrument differs from the figures, in parts."""


class Calipers:
    """Use cases around the caliper. make : a caliper that behaves in a given manner."""

    def __init__(self, engine: Engine, make: Callable[[Sequence[str]], Caliper], manners: Sequence[str]) -> None:
        self._engine = engine
        self._make = make
        self._manners = manners

    def send(self, ticket: str, measure: str, position: int | None, manner: Sequence[str]) -> str:
        """What the caliper types at a place. Raises RefusedError, and NotNowError where it does not answer."""
        row = MEASURES.get(measure)
        unknown = next((one for one in manner if one not in self._manners), None)
        if unknown is not None:
            raise RefusedError(f"a caliper is {', '.join(self._manners)}; it was “{unknown}”", field="manner")
        with UnitOfWork(self._engine, only_reads=True) as work:
            state = load_bench(work, ticket).state()
        if row is None or position not in row.positions(state.count):
            raise RefusedError("say what is between the jaws", field="measure")
        if row.unit != "mm":
            raise RefusedError(f"a caliper does not read {row.label}: type it", field="measure")
        try:
            return self._make(manner).send(_between_jaws(state, ticket, (measure, position)))
        except DeviceError as error:
            raise NotNowError(str(error)) from error


def _between_jaws(state: BenchState, ticket: str, place: Place) -> float:
    """What was read there last, or what such an instrument would have, the same each time. [mm]"""
    stand = state.standings.get(place)
    if stand is not None and stand.usable is not None:
        return abs(stand.usable)
    usual, projection = state.usual(place), state.held("projection")
    if usual is None:
        usual = _UNTOLD.get(place[0], 0.5) * (30.0 if projection is None else projection.value)
    return usual * (1 + _APART * random.Random(f"{ticket} {place}").uniform(-1, 1))
