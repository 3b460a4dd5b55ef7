"""The board and the strings' ways over it, from what is held of one instrument."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from fidicula.codes import MeasureCode
from fidicula.core.errors import DoesNotFitError
from fidicula.core.geometry.board import HeightDirection, ShortestHeight, UprightHeight
from fidicula.core.geometry.spacing import centre_for_margin
from fidicula.core.geometry.string_lines import (
    Board,
    StringLine,
    end_height_in,
    end_height_upright,
    nut_height_in,
    nut_height_upright,
    string_lines,
)
from fidicula.judgement.targets.wanted import Targets

SINGLES: tuple[MeasureCode, ...] = (
    "string_length",
    "fingerboard_length",
    "fingerboard_radius",
    "projection",
    "nut_spread",
    "bridge_spread",
)

LEANING: tuple[MeasureCode, ...] = ("board_tilt", "board_angle", "fingerboard_radius_nut")
"""How the board lies: without a reading it counts as level across, and as equally round all along."""


@dataclass(frozen=True)
class Geometry:
    """lines : low string first.  nut_centre : offset of the string group's middle at the nut. [mm]"""

    board: Board
    lines: tuple[StringLine, ...]
    nut_centre: float

    def upright(self, measure: MeasureCode, position: int, value: float, direction: HeightDirection) -> UprightHeight:
        """A height at the nut or the board's end, straight up. [mm]"""
        if direction == "vertical":
            return UprightHeight(value)
        convert = nut_height_upright if measure == "nut_height" else end_height_upright
        return convert(height=value, direction=direction, board=self.board, line=self.lines[position])

    def shortest(self, measure: MeasureCode, position: int, value: UprightHeight) -> ShortestHeight:
        """An upright height, the way a wedge or a card reads it. [mm]"""
        convert = nut_height_in if measure == "nut_height" else end_height_in
        return ShortestHeight(convert(upright=value, direction="shortest", board=self.board, line=self.lines[position]))


def board_of(singles: Mapping[MeasureCode, float], leaning: Mapping[MeasureCode, float]) -> Board:
    """singles, leaning : as for `geometry_of`. Raises CoreError where the shape cannot be."""
    return Board(
        string_length=singles["string_length"],
        fingerboard_length=singles["fingerboard_length"],
        radius_end=singles["fingerboard_radius"],
        projection=singles["projection"],
        radius_nut=leaning.get("fingerboard_radius_nut"),
        tilt=leaning.get("board_tilt", 0.0),
        angle=leaning.get("board_angle", 0.0),
    )


def geometry_of(
    *,
    singles: Mapping[MeasureCode, float],
    diameters: Sequence[float],
    targets: Targets,
    leaning: Mapping[MeasureCode, float],
    shift: float = 0.0,
) -> Geometry:
    """leaning : those of LEANING that are known.  shift : of the strings at the bridge. [mm]

    Raises CoreError where the shape cannot be.
    """
    board = board_of(singles, leaning)
    nut_centre = 0.0
    if targets.nut_margin is not None:
        width = targets.figure("fingerboard_width_nut")
        if width is None:
            raise DoesNotFitError("nut_spread", sentence="the board's width at the nut is needed for a shifted group")
        nut_centre = centre_for_margin(
            spread=singles["nut_spread"],
            treble_diameter=diameters[-1],
            width=width.band.aim,
            margin=targets.nut_margin.band.aim,
        )
    lines = string_lines(
        board=board,
        diameters=diameters,
        nut_spread=singles["nut_spread"],
        bridge_spread=singles["bridge_spread"],
        nut_centre=nut_centre,
        bridge_centre=shift,
        rule=targets.spacing,
    )
    return Geometry(board, lines, nut_centre)
