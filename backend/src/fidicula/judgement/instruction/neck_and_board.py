"""Amounts of works on the neck and the board."""

from __future__ import annotations

from fidicula.core.readings.states import MeasurementKey
from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.assessment.scoop import dressings
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.instruction.model import Amount
from fidicula.judgement.instruction.told import SIDES, Told, known_within, unread_of


def fit_wedge(a: Assessment) -> Told:
    """How thick at the heel, and what that brings; each known as well as the projection is."""
    if a.projection is None:
        return Told(keys=unread_of(a, ("projection", None)))
    judged, known = a.projection.judged, _share_of_projection(a)
    return Told(
        (
            Amount("at_heel", judged.change_at_heel, uncertainty=abs(judged.change_at_heel) * known),
            Amount("at_board_end", judged.change_at_board_end, uncertainty=abs(judged.change_at_board_end) * known),
            Amount("at_bridge", judged.change_at_bridge, uncertainty=abs(judged.change_at_bridge) * known),
        )
    )


def reset_neck(a: Assessment) -> Told:
    if a.projection is None:
        return Told()
    judged, known = a.projection.judged, _share_of_projection(a)
    return Told(
        (
            Amount("at_bridge", judged.change_at_bridge, uncertainty=abs(judged.change_at_bridge) * known),
            Amount("angle", judged.reset_angle, uncertainty=abs(judged.reset_angle) * known),
        )
    )


def _share_of_projection(a: Assessment) -> float:
    """What the projection is known to, as a share of the change that it wants: what follows from it has the same."""
    held = a.state.held("projection")
    change = 0.0 if a.projection is None else abs(a.projection.judged.change_at_bridge)
    return 0.0 if held is None or not change else held.resolution / change


def dress_board(a: Assessment) -> Told:
    """The most that comes off on each side."""
    planned = dressings(a.state)
    sides = planned or range(2)
    read: list[MeasurementKey] = [("relief", side * 3 + i) for side in sides for i in range(3)]
    known = known_within(a.state, read, _most_off) if planned else ()
    return Told(
        tuple(
            Amount("most_off", plan.max_removal, side=SIDES[side], uncertainty=known_to)
            for (side, plan), known_to in zip(planned.items(), known, strict=True)
        ),
        () if planned else unread_of(a, *read),
    )


def _most_off(state: BenchState) -> list[float]:
    return [plan.max_removal for plan in dressings(state).values()]
