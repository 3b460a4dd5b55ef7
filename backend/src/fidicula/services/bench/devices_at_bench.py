"""What the tools at the bench send; stand-ins find there what such an instrument, in such air, would have."""

from __future__ import annotations

import random
from collections.abc import Callable, Sequence
from dataclasses import dataclass

from fidicula.codes import MeasureCode, ToolCode
from fidicula.core.readings.states import MeasurementKey
from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.devices.ports import Caliper, DeviceError, Hygrometer, Tuner
from fidicula.domain.errors import ConflictError, RefusedError
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.measures import MEASURES
from fidicula.services.loading.records import load_bench

_UNTOLD = {
    "edge_projection": 1.0,
    "neck_to_nick": 1.1,
    "board_chord": 1.1,
    "board_rise": 0.1,
    "nut_margin": 0.15,
    "string_mark_nut": 0.15,
    "string_mark_bridge": 0.15,
    "string_centres_nut": 0.2,
    "string_centres_bridge": 0.4,
    "string_gap_nut": 0.17,
    "string_gap_bridge": 0.37,
    "post_setback": 0.09,
    "post_inset": 0.04,
    "afterlength": 2.0,
    "saddle_gap": 0.2,
    "relief": 0.02,
    "slot_depth": 0.008,
    "end_height": 0.17,
}
"""About how long what has no figure is, in parts of the projection: enough for a simulated instrument."""
_STEP = {"string_mark_nut": 0.2, "string_mark_bridge": 0.4}
"""How much farther each next string's mark lies, in the same parts."""
_APART = 0.03
"""How far a simulated instrument differs from the figures, in parts."""
_PITCH = 441.0


@dataclass(frozen=True)
class Devices:
    """What makes each stand-in: from the manner in which it is to behave, and what it is held to."""

    caliper: Callable[[Sequence[str], float], Caliper]
    tuner: Callable[[Sequence[str], float], Tuner]
    hygrometer: Callable[[Sequence[str]], Hygrometer]
    manners: Sequence[str]


@dataclass(frozen=True)
class Shown:
    """typed : as a keyboard would type it; it is no reading before somebody takes it.  tool : what sent it.

    simulated : a stand-in did.
    """

    typed: str
    tool: ToolCode
    simulated: bool


class DevicesAtBench:
    """Use cases around the tools that send what they read."""

    def __init__(self, engine: Engine, devices: Devices | None) -> None:
        """devices : None where none is connected; a real caliper types by itself and needs none of this."""
        self._engine = engine
        self._devices = devices

    def send(self, ticket: str, measure: MeasureCode, position: int | None, manner: Sequence[str]) -> Shown:
        """What a place's device shows there. Raises RefusedError, and ConflictError where it does not answer."""
        if self._devices is None:
            raise ConflictError("no device is connected here: type what it shows")
        unknown = next((one for one in manner if one not in self._devices.manners), None)
        if unknown is not None:
            raise RefusedError(f"a device is {', '.join(self._devices.manners)}; it was “{unknown}”", field="manner")
        with UnitOfWork(self._engine, only_reads=True) as uow:
            state = load_bench(uow, ticket).state()
        row = MEASURES.get(measure)
        if row is None or position not in row.positions(state.count):
            raise RefusedError("say what is to be read", field="measure")
        try:
            if "caliper" in row.tools:
                length = _between_jaws(state, ticket, (measure, position))
                caliper = self._devices.caliper(manner, length)
                return Shown(caliper.send(), "caliper", caliper.is_simulated)
            if "tuner" in row.tools:
                tuner = self._devices.tuner(manner, _sounding(state))
                return Shown(tuner.hear(), "tuner", tuner.is_simulated)
            air = self._devices.hygrometer(manner)
            if "hygrometer" in row.tools:
                return Shown(air.humidity(), "hygrometer", air.is_simulated)
            if "thermometer" in row.tools:
                return Shown(air.temperature(), "thermometer", air.is_simulated)
        except DeviceError as error:
            raise ConflictError(str(error)) from error
        raise RefusedError(f"no device here reads {row.label}: type it", field="measure")


def _between_jaws(state: BenchState, ticket: str, place: MeasurementKey) -> float:
    """What was read there last, or what such an instrument would have, the same each time. [mm]"""
    stand = state.reading_states.get(place)
    if stand is not None and stand.usable is not None:
        return abs(stand.usable)
    usual, projection = state.usual(place), state.held("projection")
    if usual is None:
        parts = _UNTOLD.get(place[0], 0.5) + _STEP.get(place[0], 0.0) * (place[1] or 0)
        usual = parts * (30.0 if projection is None else projection.value)
    return usual * (1 + _APART * random.Random(f"{ticket} {place}").uniform(-1, 1))


def _sounding(state: BenchState) -> float:
    """The pitch that was read last, or a usual one. [Hz]"""
    held = state.held("pitch")
    return _PITCH if held is None else held.value
