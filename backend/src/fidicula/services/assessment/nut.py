"""How a slot of the nut runs from its front edge to the peg, by the school that was chosen."""

from __future__ import annotations

from fidicula.core.fitting.nut import Peg, SlotTurn, fixed_turn, turn_to_peg
from fidicula.services.assessment.state import BenchState


def slot_turn(state: BenchState, position: int) -> SlotTurn | None:
    """The slot's floor; None where what it goes by is not read.

    position : of the string, low 0.  Raises DoesNotFitError where the peg stands in no place that can be.
    """
    depth, fall = state.held("nut_thickness"), state.targets.others.get("slot_fall")
    if depth is None:
        return None
    if state.targets.schools["slot_floor"] == "fixed" and fall is not None:
        return fixed_turn(nut_thickness=depth.value, fall=fall.band.aim)
    run, drop, side = (state.held(measure, position) for measure in ("peg_run", "peg_drop", "peg_side"))
    if run is None or drop is None or side is None:
        return None
    return turn_to_peg(nut_thickness=depth.value, peg=Peg(run.value, drop.value, side.value))
