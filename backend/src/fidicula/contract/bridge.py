"""bridge: the crown, and what to take off."""

from __future__ import annotations

from fidicula.contract.quantities import (
    Answer,
    BoardAngle,
    Diameter,
    Height,
    Length,
    Offset,
    Radius,
    SlotDepthRatio,
    Strings,
    Tilt,
    Wire,
)
from fidicula.core.geometry.board import HeightDirection
from fidicula.core.geometry.bow import Waist, nearest_template
from fidicula.core.geometry.bridge import CrownCurve, HeightReference, StringGoal, StringTarget, plan_bridge
from fidicula.core.geometry.cuts import StringCut, StringState, cuts_of_all
from fidicula.core.geometry.spacing import SpacingRule
from fidicula.core.geometry.string_lines import Board


class WantedString(Wire):
    name: str
    diameter: Diameter
    nut_height: Height
    height: Height | None = None


class CurrentString(Wire):
    nut_height: Height
    end_height: Height
    slot_depth: Height | None = None


class BridgeRequest(Wire):
    string_length: Length
    fingerboard_length: Length
    fingerboard_radius: Radius
    fingerboard_radius_nut: Radius | None = None
    projection: Length
    tilt: Tilt = 0.0
    board_angle: BoardAngle = 0.0
    nut_spread: Length
    bridge_spread: Length
    nut_centre: Offset = 0.0
    bridge_centre: Offset = 0.0
    rule: SpacingRule = "equal_gaps"
    slot_depth_ratio: SlotDepthRatio = 1 / 3
    curve: CrownCurve = "template"
    crown_radius: Radius | None = None
    height_at: HeightReference = "fingerboard_end"
    height_direction: HeightDirection = "vertical"
    strings: Strings[WantedString]
    current: list[CurrentString] | None = None
    waist_width: Length | None = None
    waist_height: Offset | None = None
    templates: list[Radius] | None = None


class BridgeString(Answer):
    name: str
    nut_offset: float
    end_offset: float
    bridge_offset: float
    extension_height: float
    mark_height: float
    end_height: float
    underside_height: float
    crown_height: float
    crown_residual: float
    bow_separation: float | None = None
    bow_rise: float | None = None
    cut: float | None = None
    crown_cut: float | None = None
    old_slot_left: float | None = None
    slot_to_file: float | None = None


class BridgeAnswer(Answer):
    crown_radius: float
    crown_centre: list[float]
    nearest_template: float | None = None
    strings: list[BridgeString]


def compute_bridge(request: BridgeRequest) -> BridgeAnswer:
    board = Board(
        string_length=request.string_length,
        fingerboard_length=request.fingerboard_length,
        radius_end=request.fingerboard_radius,
        radius_nut=request.fingerboard_radius_nut,
        projection=request.projection,
        tilt=request.tilt,
        angle=request.board_angle,
    )
    goals = [
        StringGoal(name=s.name, diameter=s.diameter, nut_height=s.nut_height, height=s.height) for s in request.strings
    ]
    waist = None
    if request.waist_width is not None and request.waist_height is not None:
        waist = Waist(width=request.waist_width, height=request.waist_height)
    plan = plan_bridge(
        board=board,
        goals=goals,
        nut_spread=request.nut_spread,
        bridge_spread=request.bridge_spread,
        nut_centre=request.nut_centre,
        bridge_centre=request.bridge_centre,
        rule=request.rule,
        slot_depth_ratio=request.slot_depth_ratio,
        curve=request.curve,
        crown_radius=request.crown_radius,
        height_at=request.height_at,
        height_direction=request.height_direction,
        waist=waist,
    )
    cuts: tuple[StringCut | None, ...] = (None,) * len(goals)
    if request.current is not None:
        cuts = cuts_of_all(
            board=board,
            plan=plan,
            goals=goals,
            current=[
                StringState(nut_height=c.nut_height, end_height=c.end_height, slot_depth=c.slot_depth)
                for c in request.current
            ],
            slot_depth_ratio=request.slot_depth_ratio,
            height_direction=request.height_direction,
        )
    return BridgeAnswer(
        crown_radius=plan.crown.radius,
        crown_centre=list(plan.crown.centre),
        nearest_template=nearest_template(radius=plan.crown.radius, templates=request.templates or []),
        strings=[_string(target, cut) for target, cut in zip(plan.strings, cuts, strict=True)],
    )


def _string(target: StringTarget, cut: StringCut | None) -> BridgeString:
    return BridgeString(
        name=target.name,
        nut_offset=target.line.nut_offset,
        end_offset=target.line.end_offset,
        bridge_offset=target.line.bridge_offset,
        extension_height=target.line.extension_height,
        mark_height=target.mark_height,
        end_height=target.end_height,
        underside_height=target.underside_height,
        crown_height=target.crown_height,
        crown_residual=target.crown_residual,
        bow_separation=target.bow_separation,
        bow_rise=target.bow_rise,
        cut=None if cut is None else cut.cut,
        crown_cut=None if cut is None else cut.crown_cut,
        old_slot_left=None if cut is None else cut.old_slot_left,
        slot_to_file=None if cut is None else cut.slot_to_file,
    )
