"""The board's scoop as it was read: its stations on both sides, and the faults that they show."""

from __future__ import annotations

from collections.abc import Mapping

from fidicula.codes import FigureCode
from fidicula.core.bands import side_of_band
from fidicula.core.errors import CoreError
from fidicula.core.geometry.scoop import BoardFault, Dressing, Station, edge_left, plan_dressing
from fidicula.judgement.assessment.state import BenchState

SHARES = (0.25, 0.5, 0.75)
"""Where the scoop is read, in parts of the board's length."""
SIDES = ("bass", "treble")

FAULT_WORDS: Mapping[BoardFault, str] = {
    "hump": "a hump",
    "wave": "a wave",
    "too_flat": "too little scoop",
    "too_deep": "too much scoop",
}


def stations_of(state: BenchState, side: int, length: float) -> list[Station]:
    """The stations of one side that hold. side : 0 bass, 1 treble.  length : of the board. [mm]"""
    return [
        Station(x=share * length, gap=held.value)
        for i, share in enumerate(SHARES)
        if (held := state.held("relief", side * len(SHARES) + i)) is not None
    ]


RELIEFS: tuple[FigureCode, FigureCode] = ("relief_bass", "relief_treble")


def wanted_relief(state: BenchState, side: int) -> float | None:
    """The scoop that is wanted on one side. [mm]"""
    wanted = state.targets.figure(RELIEFS[side])
    return None if wanted is None else wanted.band.aim


def dressings(state: BenchState) -> dict[int, Dressing]:
    """What planing to the wanted scoop would do, by side, where all stations of it are read."""
    found: dict[int, Dressing] = {}
    if ("relief", 0) not in state.reading_states and ("relief", len(SHARES)) not in state.reading_states:
        return found
    length = state.held("fingerboard_length")
    for side in range(len(SIDES)):
        relief = wanted_relief(state, side)
        if length is None or relief is None:
            continue
        stations = stations_of(state, side, length.value)
        if len(stations) < len(SHARES):
            continue
        try:
            found[side] = plan_dressing(fingerboard_length=length.value, stations=stations, target_relief=relief)
        except CoreError:
            continue
    return found


def is_too_thin(state: BenchState, planned: Mapping[int, Dressing]) -> bool:
    """Whether an edge is under the thinnest that may stay, or would be once its faults are planed out."""
    least = state.targets.figure("fingerboard_thickness_min")
    if least is None:
        return False
    for side in range(len(SIDES)):
        thick, plan = state.held("fingerboard_thickness", side), planned.get(side)
        off = plan.max_removal if plan is not None and plan.faults else 0.0
        if thick is None:
            continue
        left = edge_left(thickness=thick.value, max_removal=off)
        if side_of_band(value=left, band=least.band) == "below":
            return True
    return False
