"""The Side and the Plan: where board, strings, bridge, bar and post lie, from readings and, hollow, from figures."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fidicula.codes import FigureCode, MeasureCode
from fidicula.core.errors import CoreError
from fidicula.core.geometry.scoop import gap_along
from fidicula.core.geometry.spacing import margins
from fidicula.core.geometry.string_lines import height_at_tailpiece, mark_height, offset_at_board_end
from fidicula.core.readings.states import MeasurementKey
from fidicula.judgement.assessment.computing import Computed, compute
from fidicula.judgement.assessment.findings import Spacing, off_middle, spacing
from fidicula.judgement.assessment.scoop import SIDES, stations_of, wanted_relief
from fidicula.judgement.assessment.state import BenchState

_DRAWN_AT = tuple(i / 24 for i in range(25))


@dataclass(frozen=True)
class Dimension:
    """A length on a drawing. [mm, or degrees]  value : None where neither reading nor figure says it.

    assumed : it is a figure, not a reading.
    """

    value: float | None
    assumed: bool


@dataclass(frozen=True)
class SideString:
    """An outer string over the board's straight line. [mm]

    at_nut, at_end, at_bridge : its underside, straight up; None where the height at the end is not read.
    at_tail : where it meets the tailpiece, by the afterlength and the angle over the bridge.
    assumed : the height at the nut is a figure.
    """

    name: str
    at_nut: float | None
    at_end: float | None
    at_bridge: float | None
    at_tail: float | None
    assumed: bool


@dataclass(frozen=True)
class Surface:
    """The board's surface on one side. points : [along from the nut, gap under the line], to be joined. [mm]"""

    side: str
    points: list[list[float]]
    deepest: float
    assumed: bool


@dataclass(frozen=True)
class SideView:
    """From the bass side, along the strings; heights are over the board's straight line, which lies level. [mm]"""

    string_length: Dimension
    fingerboard_length: Dimension
    neck_length: Dimension
    stop_length: Dimension
    projection: Dimension
    board_thickness: Dimension
    foot_thickness: Dimension
    top_thickness: Dimension
    afterlength: Dimension
    saddle_gap: Dimension
    break_angle: Dimension
    crown_height: float | None
    strings: list[SideString]
    surfaces: list[Surface]


@dataclass(frozen=True)
class PlanString:
    """A string's middle across the instrument, negative on the bass side. [mm]

    at_nut, at_bridge : as read where they were read string by string, else as wanted.
    wanted_at_nut, wanted_at_bridge : by the shop's rule, in the spread that is there.
    """

    name: str
    diameter: float
    at_nut: float
    at_end: float
    at_bridge: float
    wanted_at_nut: float
    wanted_at_bridge: float


@dataclass(frozen=True)
class PostEnd:
    """Where an end of the post stands: behind the foot's back, and from the middle. [mm]"""

    end: str
    behind: float
    across: float


@dataclass(frozen=True)
class PlanView:
    """From above, across the strings: offsets are from the middle, negative on the bass side. [mm]

    margins_at_nut, margins_at_end : of the outer strings from the board's edges, bass and treble.
    neck_off_middle : how far the board's line passes the bridge's middle, positive on the bass side; None unread.
    bar_edge : the bar's outer edge.
    """

    string_length: Dimension
    fingerboard_length: Dimension
    width_nut: Dimension
    width_end: Dimension
    foot_width: Dimension
    foot_thickness: Dimension
    post_diameter: float | None
    strings: list[PlanString]
    margins_at_nut: list[float]
    margins_at_end: list[float]
    neck_off_middle: float | None
    bar_edge: Dimension
    post: list[PostEnd]


@dataclass(frozen=True)
class Views:
    side: SideView
    plan: PlanView


def views(state: BenchState) -> Views:
    """Both drawings; what is not known is left out of them."""
    outcome = compute(state)
    computed = outcome if isinstance(outcome, Computed) else None
    return Views(side=_side(state, computed), plan=_plan(state, computed))


def shown(
    state: BenchState, measure: MeasureCode, position: int | None = None, *, figure: FigureCode | None = None
) -> Dimension:
    """A reading where it holds, else the shop's figure."""
    held = state.read_or_figure(measure, position, figure=figure)
    return Dimension(None, assumed=True) if held is None else Dimension(held.value, held.assumed)


def _side(state: BenchState, computed: Computed | None) -> SideView:
    length, board = shown(state, "string_length"), shown(state, "fingerboard_length")
    last = state.count - 1
    crown = None
    if computed is not None:
        crown = max(string.crown_height for string in computed.plan.strings)
    return SideView(
        string_length=length,
        fingerboard_length=board,
        neck_length=shown(state, "neck_length"),
        stop_length=shown(state, "stop_length", 0, figure="stop_length"),
        projection=shown(state, "projection"),
        board_thickness=shown(state, "fingerboard_thickness", 0, figure="fingerboard_thickness"),
        foot_thickness=shown(state, "bridge_foot_thickness"),
        top_thickness=shown(state, "bridge_top_thickness"),
        afterlength=_afterlength(state),
        saddle_gap=shown(state, "saddle_gap"),
        break_angle=shown(state, "break_angle"),
        crown_height=crown,
        strings=[_side_string(state, position) for position in (0, last)],
        surfaces=[] if board.value is None else [_surface(state, i, board.value) for i in range(len(SIDES))],
    )


def _afterlength(state: BenchState) -> Dimension:
    read = shown(state, "afterlength")
    divisor, length = state.targets.figure("afterlength_divisor"), state.held("string_length")
    if read.value is not None or divisor is None or length is None:
        return read
    return Dimension(length.value / divisor.band.aim, assumed=True)


def _side_string(state: BenchState, position: int) -> SideString:
    places: tuple[MeasurementKey, MeasurementKey] = (("nut_height", position), ("end_height", position))
    nut, end = (state.held(*place) for place in places)
    at_nut, at_end = (
        None if held is None else state.upright(place, held.value, state.direction(*place))
        for place, held in zip(places, (nut, end), strict=True)
    )
    at_bridge = None
    if at_nut is not None and at_end is not None and state.board is not None:
        at_bridge = mark_height(nut_height=at_nut, end_height=at_end, board=state.board)
    return SideString(
        name=state.instrument.string_names[position],
        at_nut=at_nut,
        at_end=at_end,
        at_bridge=at_bridge,
        at_tail=None if at_bridge is None else _at_tail(state, at_bridge),
        assumed=nut is None or nut.assumed,
    )


def _at_tail(state: BenchState, at_bridge: float) -> float | None:
    angle, afterlength = shown(state, "break_angle").value, _afterlength(state).value
    if angle is None or afterlength is None:
        return None
    try:
        return height_at_tailpiece(mark_height=at_bridge, afterlength=afterlength, break_angle=angle)
    except CoreError:
        return None


def _surface(state: BenchState, side: int, length: float) -> Surface:
    read = stations_of(state, side, length)
    relief = wanted_relief(state, side) or 0.0
    gap = gap_along(fingerboard_length=length, relief=None if read else relief, stations=read or None)
    points = [[share * length, gap(share * length)] for share in _DRAWN_AT]
    return Surface(SIDES[side], points, deepest=max(y for _, y in points), assumed=not read)


def _plan(state: BenchState, computed: Computed | None) -> PlanView:
    nut = shown(state, "fingerboard_width", 0, figure="fingerboard_width_nut")
    end = shown(state, "fingerboard_width", 1, figure="fingerboard_width_end")
    foot = shown(state, "bridge_foot_width")
    strings: list[PlanString] = []
    nut_read, bridge_read = spacing(state, "nut"), spacing(state, "bridge")
    if computed is not None:
        strings = [_plan_string(state, computed, i, nut_read, bridge_read) for i in range(state.count)]
    diameters = [string.diameter for string in strings]
    bar, diameter = shown(state, "bar_inset"), state.targets.figure("post_diameter")
    return PlanView(
        string_length=shown(state, "string_length"),
        fingerboard_length=shown(state, "fingerboard_length"),
        width_nut=nut,
        width_end=end,
        foot_width=foot,
        foot_thickness=shown(state, "bridge_foot_thickness"),
        post_diameter=None if diameter is None else diameter.band.aim,
        strings=strings,
        margins_at_nut=_margins([string.at_nut for string in strings], diameters, nut.value),
        margins_at_end=_margins([string.at_end for string in strings], diameters, end.value),
        neck_off_middle=off_middle(state),
        bar_edge=Dimension(
            None if foot.value is None or bar.value is None else -(foot.value / 2 - bar.value), bar.assumed
        ),
        post=_post(state, foot.value, None if diameter is None else diameter.band.aim),
    )


def _plan_string(
    state: BenchState, computed: Computed, i: int, nut_read: Spacing | None, bridge_read: Spacing | None
) -> PlanString:
    line, carry = computed.plan.strings[i].line, computed.board.carry
    at_nut = line.nut_offset if nut_read is None else nut_read.offsets[i]
    at_bridge = line.bridge_offset if bridge_read is None else bridge_read.offsets[i]
    return PlanString(
        name=state.instrument.string_names[i],
        diameter=computed.goals[i].diameter,
        at_nut=at_nut,
        at_end=offset_at_board_end(at_nut=at_nut, at_bridge=at_bridge, carry=carry),
        at_bridge=at_bridge,
        wanted_at_nut=line.nut_offset,
        wanted_at_bridge=line.bridge_offset,
    )


def _margins(offsets: Sequence[float], diameters: Sequence[float], width: float | None) -> list[float]:
    if not offsets or width is None:
        return []
    found = margins(offsets=offsets, diameters=diameters, width=width)
    return [found.bass, found.treble]


def _post(state: BenchState, foot: float | None, diameter: float | None) -> list[PostEnd]:
    ends = []
    for i, end in enumerate(("top", "bottom")):
        setback, inset = state.held("post_setback", i), state.held("post_inset", i)
        if setback is not None and inset is not None and foot is not None and diameter is not None:
            ends.append(PostEnd(end, setback.value + diameter / 2, foot / 2 - inset.value - diameter / 2))
    return ends
