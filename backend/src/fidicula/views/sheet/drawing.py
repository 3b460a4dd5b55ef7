"""The End view's geometry, from the computed bridge."""

from __future__ import annotations

from fidicula.codes import MeasureCode
from fidicula.judgement.assessment.computing import Computed
from fidicula.judgement.assessment.state import BenchState
from fidicula.views.sheet.model import Drawing, DrawnString


def drawing(state: BenchState, computed: Computed) -> Drawing | None:
    """The bridge as it is and as it is wanted; None without figures for feet, waist, bar and post."""
    others = state.targets.others
    if not {"bridge_foot_width", "bridge_waist", "bar_inset", "post_diameter"} <= others.keys():
        return None
    strings = []
    for goal, target, result in zip(computed.goals, computed.plan.strings, computed.results, strict=True):
        underside = crown = None
        if result is not None:
            underside = target.underside_height + result.cut.cut
            if result.cut.crown_cut is not None:
                crown = target.crown_height + result.cut.crown_cut
        strings.append(
            DrawnString(
                name=goal.name,
                offset=target.line.bridge_offset,
                diameter=goal.diameter,
                board_line=target.line.extension_height,
                underside_wanted=target.underside_height,
                crown_wanted=target.crown_height,
                underside_now=underside,
                crown_now=crown,
                assumed=result is None or result.provisional,
                bow_separation=target.bow_separation,
            )
        )
    return Drawing(
        strings=strings,
        crown_centre=list(computed.plan.crown.centre),
        crown_radius=computed.plan.crown.radius,
        projection=computed.board.projection,
        projection_assumed=computed.singles["projection"].assumed,
        foot_width=_read_or(state, "bridge_foot_width", others["bridge_foot_width"].band.aim),
        waist_width=_read_or(state, "bridge_waist", others["bridge_waist"].band.aim),
        bar_inset=_read_or(state, "bar_inset", others["bar_inset"].band.aim),
        post_diameter=others["post_diameter"].band.aim,
        opposite_build=state.instrument.opposite_build,
        wheels=None if (wheels := state.held("adjuster_spread")) is None or wheels.assumed else wheels.value,
    )


def _read_or(state: BenchState, measure: MeasureCode, aim: float) -> float:
    """What is read, so that the outline is this bridge's own; else the figure."""
    held = state.held(measure)
    return aim if held is None else held.value
