"""How a slot of the nut runs from its front edge to the peg, by the school that was chosen."""

from __future__ import annotations

from fidicula.core.bands import side_of_band
from fidicula.core.fitting.nut import Peg, SlotTurn, fixed_turn, turn_to_peg
from fidicula.core.geometry.spacing import string_offsets
from fidicula.judgement.assessment.state import BenchState


def wanted_spread(state: BenchState) -> float | None:
    """Between the outer strings at the nut, for the next one: as it is where that is in band, else the aim. [mm]"""
    read, wanted = state.held("nut_spread"), state.wanted(("nut_spread", None))
    is_meant = state.keeps_spacing or ("nut_spread", None) in state.tried
    if wanted is None or (
        read is not None and (is_meant or side_of_band(value=read.value, band=wanted.band) == "in_band")
    ):
        return None if read is None else read.value
    return wanted.band.aim


def wanted_offsets(state: BenchState) -> tuple[float, ...] | None:
    """Where the strings are to lie across the nut, from the middle; None unread. [mm] Raises CoreError."""
    spread = wanted_spread(state)
    if spread is None:
        return None
    return tuple(string_offsets(spread=spread, diameters=state.diameters, rule=state.targets.spacing))


def slot_turn(state: BenchState, position: int) -> SlotTurn | None:
    """The slot's floor; None where what it goes by is not read.

    position : of the string, low 0.  Raises DoesNotFitError where the peg stands in no place that can be.
    """
    depth, fall = state.held("nut_thickness"), state.targets.figure("slot_fall")
    if depth is None:
        return None
    if state.targets.schools["slot_floor"] == "fixed" and fall is not None:
        return fixed_turn(nut_thickness=depth.value, fall=fall.band.aim)
    run, drop, side = (state.held(measure, position) for measure in ("peg_run", "peg_drop", "peg_side"))
    if run is None or drop is None or side is None:
        return None
    return turn_to_peg(nut_thickness=depth.value, peg=Peg(run.value, drop.value, side.value))
