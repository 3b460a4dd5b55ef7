r"""Each string's straight line from nut to bridge, and the board's line extended under it.

nut          board's end          bridge
 |~~~~~~~~~~~~~~~~|~~~~~~~~~~~~~~~~|  string
 |v_nut           |v_end           |mark      mark = v_nut + (v_end - v_nut)·S/L
 |________________|- - - - - - - - |  board's line, extended
 0                L                S
                                   |ext       height of that line over the belly
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import cos, radians, tan

from fidicula.core.errors import TOLERANCE, DoesNotFitError
from fidicula.core.geometry.board import (
    HeightDirection,
    ShortestHeight,
    UprightHeight,
    arch,
    shortest_height,
    upright_height,
)
from fidicula.core.geometry.spacing import SpacingRule, string_offsets


@dataclass(frozen=True)
class Board:
    """The measured board and neck.

    string_length : nut to bridge, above 0. [mm]
    fingerboard_length : nut to the board's free end, above 0 and under string_length. [mm]
    radius_end : of the surface at the free end, above 0. [mm]
    radius_nut : at the nut; None where it is the same all along. [mm]
    projection : height over the belly where the centre line, extended, meets the bridge, above 0. [mm]
    tilt : how far the board leans, turned about its crest; positive where it is up on the treble side. [degrees]
    angle : between the board's line and a plane square to the bridge, 0 to 45. [degrees]
    Raises DoesNotFitError naming `fingerboard_length`.
    """

    string_length: float
    fingerboard_length: float
    radius_end: float
    projection: float
    radius_nut: float | None = None
    tilt: float = 0.0
    angle: float = 0.0

    def __post_init__(self) -> None:
        if self.fingerboard_length > self.string_length - TOLERANCE:
            raise DoesNotFitError(
                "fingerboard_length",
                sentence=(
                    f"the fingerboard ends before the bridge: its length must be under the string length "
                    f"of {self.string_length:g} mm; it was {self.fingerboard_length:g}"
                ),
                value=self.fingerboard_length,
            )

    @property
    def carry(self) -> float:
        """How much further than the board's end the bridge is: S/L."""
        return self.string_length / self.fingerboard_length

    @property
    def squareness(self) -> float:
        """What is square to the board, of the same along the bridge: 1 where the board is square to it."""
        return cos(radians(self.angle))

    @property
    def radius_at_nut(self) -> float:
        return self.radius_end if self.radius_nut is None else self.radius_nut

    @property
    def field_at_nut(self) -> str:
        """The field that a radius at the nut which cannot be is refused by."""
        return "fingerboard_radius" if self.radius_nut is None else "fingerboard_radius_nut"

    def arch_at_nut(self, offset: float) -> float:
        """`arch` under a string at the nut. [mm]"""
        return arch(radius=self.radius_at_nut, offset=offset, tilt=self.tilt, radius_field=self.field_at_nut)

    def arch_at_end(self, offset: float) -> float:
        """`arch` under a string at the free end. [mm]"""
        return arch(radius=self.radius_end, offset=offset, tilt=self.tilt)


@dataclass(frozen=True)
class StringLine:
    """One string's way over the board. Offsets from the centre line, negative on the bass side. [mm]

    extension_height : of the board's surface line under the string, extended to the bridge, over the belly.
    diameter : of the string.
    """

    nut_offset: float
    end_offset: float
    bridge_offset: float
    extension_height: float
    diameter: float


def string_lines(
    *,
    board: Board,
    diameters: Sequence[float],
    nut_spread: float,
    bridge_spread: float,
    nut_centre: float = 0.0,
    bridge_centre: float = 0.0,
    rule: SpacingRule = "equal_gaps",
) -> tuple[StringLine, ...]:
    """Where every string runs, low string first. [mm]

    board : the measured board and neck.
    diameters : shape (n_strings,), three to six. [mm]
    nut_spread, bridge_spread : centre to centre of the outer strings, above 0. [mm]
    nut_centre, bridge_centre : offset of the group's middle. [mm]  rule : of spacing.
    Raises DoesNotFitError naming `nut_spread`, `bridge_spread`, `fingerboard_radius` or
    `fingerboard_radius_nut`. Source: similar triangles; a straight string, the scoop left out.
    """
    at_nut = string_offsets(
        spread=nut_spread, diameters=diameters, rule=rule, centre=nut_centre, spread_field="nut_spread"
    )
    at_bridge = string_offsets(
        spread=bridge_spread,
        diameters=diameters,
        rule=rule,
        centre=bridge_centre,
        spread_field="bridge_spread",
    )
    lines = []
    for nut_offset, bridge_offset, diameter in zip(at_nut, at_bridge, diameters, strict=True):
        end_offset = offset_at_board_end(at_nut=nut_offset, at_bridge=bridge_offset, carry=board.carry)
        nut_arch = board.arch_at_nut(nut_offset)
        over_crest = nut_arch + (board.arch_at_end(end_offset) - nut_arch) * board.carry
        lines.append(
            StringLine(
                nut_offset=nut_offset,
                end_offset=end_offset,
                bridge_offset=bridge_offset,
                extension_height=board.projection + over_crest / board.squareness,
                diameter=diameter,
            )
        )
    return tuple(lines)


def mark_height(*, nut_height: UprightHeight, end_height: UprightHeight, board: Board) -> float:
    """Height of a string over the board's line, along the bridge. [mm]

    nut_height, end_height : straight up, under the string at the nut and at the board's free end. [mm]
    board : the measured board. Source: similar triangles; a straight string, the scoop left out; what is square to
    the board is longer along a bridge that does not stand square to it.
    """
    return (nut_height + (end_height - nut_height) * board.carry) / board.squareness


def height_at_tailpiece(*, mark_height: float, afterlength: float, break_angle: float) -> float:
    """Height of a string over the board's line where it meets the tailpiece, negative below it. [mm]

    mark_height : over the board's line at the bridge. [mm]  afterlength : 0 or more. [mm]
    break_angle : between the string's two sides, over 90 up to 180. [degrees]  Raises DoesNotFitError naming it.
    Source: the right triangle behind the bridge; the string before it is taken as level with the board's line.
    """
    if not 90 < break_angle <= 180:
        raise DoesNotFitError(
            "break_angle", sentence="a string's angle over the bridge is over 90 up to 180°", value=break_angle
        )
    return mark_height - afterlength * tan(radians(180 - break_angle))


def offset_at_board_end(*, at_nut: float, at_bridge: float, carry: float) -> float:
    """Where a string runs over the board's free end: offset from the centre line. [mm]

    at_nut, at_bridge : its offsets there, negative on the bass side. [mm]  carry : string length over board length.
    Source: similar triangles; a straight string.
    """
    return at_nut + (at_bridge - at_nut) / carry


def end_height_of_mark(*, nut_height: UprightHeight, mark_height: float, board: Board) -> UprightHeight:
    """The way back of `mark_height`: the height at the board's free end, straight up. [mm]

    nut_height : straight up. [mm]  mark_height : along the bridge. [mm]  board : the measured board.
    """
    return UprightHeight(nut_height + (mark_height * board.squareness - nut_height) / board.carry)


def nut_height_upright(*, height: float, direction: HeightDirection, board: Board, line: StringLine) -> UprightHeight:
    """A height read at the nut, straight up. [mm]

    height : as read, 0 or more. [mm]  direction : how it was read.
    board, line : the board, and the string's way over it. Raises DoesNotFitError.
    """
    if direction == "vertical":
        return UprightHeight(height)
    return upright_height(
        shortest_height=ShortestHeight(height),
        radius=board.radius_at_nut,
        offset=line.nut_offset,
        diameter=line.diameter,
        tilt=board.tilt,
        radius_field=board.field_at_nut,
    )


def end_height_upright(*, height: float, direction: HeightDirection, board: Board, line: StringLine) -> UprightHeight:
    """A height read at the board's free end, straight up. [mm]

    height : as read, 0 or more. [mm]  direction : how it was read.
    board, line : the board, and the string's way over it. Raises DoesNotFitError.
    """
    if direction == "vertical":
        return UprightHeight(height)
    return upright_height(
        shortest_height=ShortestHeight(height),
        radius=board.radius_end,
        offset=line.end_offset,
        diameter=line.diameter,
        tilt=board.tilt,
    )


def nut_height_in(*, upright: UprightHeight, direction: HeightDirection, board: Board, line: StringLine) -> float:
    """An upright height at the nut, as it reads in a direction. [mm]

    upright : straight up. [mm]  direction : how it is to be read.
    board, line : the board, and the string's way over it. Raises DoesNotFitError.
    """
    if direction == "vertical":
        return upright
    return shortest_height(
        upright_height=upright,
        radius=board.radius_at_nut,
        offset=line.nut_offset,
        diameter=line.diameter,
        tilt=board.tilt,
    )


def end_height_in(*, upright: UprightHeight, direction: HeightDirection, board: Board, line: StringLine) -> float:
    """An upright height at the board's free end, as it reads in a direction. [mm]

    upright : straight up. [mm]  direction : how it is to be read.
    board, line : the board, and the string's way over it. Raises DoesNotFitError.
    """
    if direction == "vertical":
        return upright
    return shortest_height(
        upright_height=upright,
        radius=board.radius_end,
        offset=line.end_offset,
        diameter=line.diameter,
        tilt=board.tilt,
    )
