r"""The crown of a bridge: where it has to be, where it is, and what to take off.

    string's underside = board's line extended + mark height
    crown (wood)       = underside + slot depth        (the string sits in its slot)

        now     __o__  <- string in its present slot
               |     |
        cut    v     |  crown_cut: the wood between the crown now and the crown wanted
        wanted __o___|

The string's way down (`cut`) and the wood to take (`crown_cut`) are two figures: the present slots and
the slots wanted differ in depth.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import partial
from typing import Literal

from fidicula.core.errors import TOLERANCE, DoesNotFitError, MissingInputError
from fidicula.core.geometry.board import HeightDirection, UprightHeight
from fidicula.core.geometry.bow import Waist, bow_rises, bow_separations
from fidicula.core.geometry.circle import Circle, Point, arc_through, least_squares_circle
from fidicula.core.geometry.spacing import SpacingRule
from fidicula.core.geometry.string_lines import (
    Board,
    StringLine,
    end_height_in,
    end_height_of_mark,
    end_height_upright,
    mark_height,
    nut_height_upright,
    string_lines,
)

HeightReference = Literal["fingerboard_end", "bridge_mark"]
CrownCurve = Literal["template", "heights"]


@dataclass(frozen=True)
class StringGoal:
    """What is wanted of one string.

    name : of the string.  diameter : above 0. [mm]
    nut_height : wanted at the nut, 0 or more. [mm]
    height : wanted at the board's end or the bridge's mark; None where the crown's curve gives it. [mm]
    """

    name: str
    diameter: float
    nut_height: float
    height: float | None = None


@dataclass(frozen=True)
class StringTarget:
    """One string at the wanted bridge. Heights over the belly are at the bridge. [mm, degrees]

    end_height : at the board's end, in the direction asked for.
    mark_height : over the board's extended line, along the bridge.
    underside_height, crown_height : over the belly.
    crown_residual : distance from the crown's circle, positive outside.
    bow_separation : angle that the bow has to this string alone; None for an outer string without a waist.
    bow_rise : height over the line through its neighbours; None for an outer string.
    """

    name: str
    line: StringLine
    mark_height: float
    end_height: float
    underside_height: float
    crown_height: float
    crown_residual: float
    bow_separation: float | None
    bow_rise: float | None


@dataclass(frozen=True)
class BridgePlan:
    """The wanted bridge: its crown's circle and every string, low string first."""

    crown: Circle
    strings: tuple[StringTarget, ...]


def plan_bridge(
    *,
    board: Board,
    goals: Sequence[StringGoal],
    nut_spread: float,
    bridge_spread: float,
    nut_centre: float = 0.0,
    bridge_centre: float = 0.0,
    rule: SpacingRule = "equal_gaps",
    slot_depth_ratio: float = 1 / 3,
    curve: CrownCurve = "template",
    crown_radius: float | None = None,
    height_at: HeightReference = "fingerboard_end",
    height_direction: HeightDirection = "vertical",
    waist: Waist | None = None,
    lines: tuple[StringLine, ...] | None = None,
) -> BridgePlan:
    """The crown that gives the wanted heights.

    board : the measured board and neck.
    goals : three to six strings, low string first.
    nut_spread, bridge_spread : above 0. [mm]  nut_centre, bridge_centre : of the string group. [mm]
    rule : of spacing.  slot_depth_ratio : 0 to 1, of the string's diameter.
    curve : `template`, an arc of crown_radius [mm] through the outer strings' crown points, which the
        inner heights follow; or `heights`, every string's own height, and the circle nearest to them.
    height_at : where the goals' heights are meant; a mark height is always along the bridge.
    height_direction : of the heights at nut and board's end, in and out.
    waist : for the outer strings' room for the bow.
    lines : the strings' ways over this board with these spreads, where they are known already.
    Raises DoesNotFitError naming the spread, radius or `strings` at fault, and MissingInputError naming
    `crown_radius` or a string's `height`. Source: similar triangles; string and board straight.
    """
    if lines is None:
        lines = string_lines(
            board=board,
            diameters=[goal.diameter for goal in goals],
            nut_spread=nut_spread,
            bridge_spread=bridge_spread,
            nut_centre=nut_centre,
            bridge_centre=bridge_centre,
            rule=rule,
        )
    if curve == "template" and crown_radius is None:
        raise MissingInputError("crown_radius", sentence="a template crown needs its radius")
    nut_heights = [
        nut_height_upright(height=goal.nut_height, direction=height_direction, board=board, line=line)
        for goal, line in zip(goals, lines, strict=True)
    ]
    given = partial(_given_marks, board=board, goals=goals, lines=lines, nut_heights=nut_heights)
    marks = given(curve=curve, at=height_at, direction=height_direction)

    crown, final = _crown_over(goals, lines, marks, curve=curve, radius=crown_radius, slot_depth_ratio=slot_depth_ratio)
    strings = _string_targets(
        goals, lines, final, crown, waist, nut_heights=nut_heights, board=board, direction=height_direction,
        slot_depth_ratio=slot_depth_ratio,
    )  # fmt: skip
    return BridgePlan(crown=crown, strings=strings)


def _crown_point(line: StringLine, goal: StringGoal, mark: float, slot_depth_ratio: float) -> Point:
    """Where the wood beside a string ends that stands so high at the mark. [mm]"""
    return line.bridge_offset, line.extension_height + mark + slot_depth_ratio * goal.diameter


def _crown_over(
    goals: Sequence[StringGoal],
    lines: Sequence[StringLine],
    marks: Sequence[float | None],
    *,
    curve: CrownCurve,
    radius: float | None,
    slot_depth_ratio: float,
) -> tuple[Circle, list[float]]:
    """The crown, and every string's height at the mark over it. marks : as they are given. [mm]"""
    points = [
        None if mark is None else _crown_point(line, goal, mark, slot_depth_ratio)
        for mark, line, goal in zip(marks, lines, goals, strict=True)
    ]
    if curve == "heights":
        crown = least_squares_circle([point for point in points if point is not None])
        return crown, [mark for mark in marks if mark is not None]
    left, right = points[0], points[-1]
    assert radius is not None
    assert left is not None and right is not None  # noqa: PT018
    crown = arc_through(left=left, right=right, radius=radius)
    return crown, [
        _mark_on_crown(crown=crown, line=line, goal=goal, slot_depth_ratio=slot_depth_ratio) if mark is None else mark
        for mark, line, goal in zip(marks, lines, goals, strict=True)
    ]


def _given_marks(
    *,
    board: Board,
    goals: Sequence[StringGoal],
    lines: Sequence[StringLine],
    nut_heights: Sequence[UprightHeight],
    curve: CrownCurve,
    at: HeightReference,
    direction: HeightDirection,
) -> list[float | None]:
    """The wanted height of each string at the bridge's mark; None for inner ones that follow a template. [mm]"""
    marks: list[float | None] = []
    for i, (goal, line, nut_height) in enumerate(zip(goals, lines, nut_heights, strict=True)):
        if curve == "template" and 0 < i < len(goals) - 1:
            marks.append(None)
        elif goal.height is None:
            needed = f"the height that is wanted of the {goal.name} string is needed"
            raise MissingInputError("strings", i, "height", sentence=needed)
        elif at == "bridge_mark":
            marks.append(goal.height)
        else:
            end = end_height_upright(height=goal.height, direction=direction, board=board, line=line)
            marks.append(mark_height(nut_height=nut_height, end_height=end, board=board))
    return marks


def _string_targets(
    goals: Sequence[StringGoal],
    lines: Sequence[StringLine],
    marks: Sequence[float],
    crown: Circle,
    waist: Waist | None,
    *,
    nut_heights: Sequence[UprightHeight],
    board: Board,
    direction: HeightDirection,
    slot_depth_ratio: float,
) -> tuple[StringTarget, ...]:
    """What each string comes to that stands so high at the mark. [mm]"""
    ends = [
        end_height_in(
            upright=end_height_of_mark(nut_height=nut_height, mark_height=mark, board=board),
            direction=direction,
            board=board,
            line=line,
        )
        for nut_height, mark, line in zip(nut_heights, marks, lines, strict=True)
    ]
    points = [
        _crown_point(line, goal, mark, slot_depth_ratio) for line, goal, mark in zip(lines, goals, marks, strict=True)
    ]
    undersides = [line.extension_height + mark for line, mark in zip(lines, marks, strict=True)]
    centres = [
        (line.bridge_offset, underside + goal.diameter / 2)
        for line, underside, goal in zip(lines, undersides, goals, strict=True)
    ]
    separations = bow_separations(centres=centres, waist=waist)
    rises = bow_rises(centres=centres)
    return tuple(
        StringTarget(
            name=goal.name,
            line=line,
            mark_height=marks[i],
            end_height=ends[i],
            underside_height=undersides[i],
            crown_height=points[i][1],
            crown_residual=crown.residual(points[i]),
            bow_separation=separations[i],
            bow_rise=rises[i],
        )
        for i, (goal, line) in enumerate(zip(goals, lines, strict=True))
    )


def _mark_on_crown(*, crown: Circle, line: StringLine, goal: StringGoal, slot_depth_ratio: float) -> float:
    mark = crown.height_at(line.bridge_offset) - slot_depth_ratio * goal.diameter - line.extension_height
    if mark <= TOLERANCE:
        raise DoesNotFitError(
            "crown_radius",
            sentence=(
                f"a crown of {crown.radius:g} mm is too flat: it would put the {goal.name} string "
                f"{abs(mark):.1f} mm under the board's line"
            ),
            value=crown.radius,
        )
    return mark
