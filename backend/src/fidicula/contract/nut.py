"""nut: slots, their depth, width, and the turn to the peg."""

from __future__ import annotations

from typing import Any

from pydantic import Field

from fidicula.contract.quantities import (
    Answer,
    Diameter,
    Height,
    Length,
    Offset,
    Pair,
    PegRun,
    SlotDepthRatio,
    Strings,
    Thickness,
    Tolerance,
    Wire,
)
from fidicula.core.errors import TOLERANCE, CoreError, MissingInputError
from fidicula.core.fitting.nut import NutState, Peg, SlotTurn, file_range, judge_slot, smallest_file, turn_to_peg


class PegPlace(Wire):
    run: PegRun
    drop: PegRun
    side: Offset


class NutStringIn(Wire):
    name: str
    diameter: Diameter
    height: Height | None = None
    target_height: Height | None = None
    peg: PegPlace | None = None


class NutRequest(Wire):
    nut_thickness: Length | None = None
    slot_depth_ratio: SlotDepthRatio = 1 / 3
    file_ratio: Pair[Thickness] = Field(default=[1.05, 1.35])
    files: list[Diameter] | None = None
    tolerance: Tolerance = 0.05
    strings: Strings[NutStringIn]


class NutString(Answer):
    name: str
    slot_depth: float
    file_range: list[float]
    file: float | None = None
    to_file: float | None = None
    state: NutState | None = None
    fall_angle: float | None = None
    plan_angle: float | None = None
    turn_angle: float | None = None
    floor_radius: float | None = None
    floor_fall: float | None = None


class NutAnswer(Answer):
    strings: list[NutString]
    files_known: bool = False

    def in_words(self) -> dict[str, Any]:
        """A file that is not on hand is null: that none fits is an answer too."""
        data = super().in_words()
        if data.pop("files_known"):
            for string in data["strings"]:
                string.setdefault("file", None)
        return data


def compute_nut(request: NutRequest) -> NutAnswer:
    low, high = request.file_ratio
    if low > high + TOLERANCE:
        raise CoreError("file_ratio", sentence=f"the ratio's low end {low:g} stands over its high end {high:g}")
    return NutAnswer(
        strings=[_string(request, i, string) for i, string in enumerate(request.strings)],
        files_known=request.files is not None,
    )


def _string(request: NutRequest, i: int, string: NutStringIn) -> NutString:
    wanted = file_range(diameter=string.diameter, ratio=(request.file_ratio[0], request.file_ratio[1]))
    answer = NutString(name=string.name, slot_depth=request.slot_depth_ratio * string.diameter, file_range=list(wanted))
    if request.files is not None:
        answer.file = smallest_file(files=request.files, wanted=wanted)
    if string.height is not None and string.target_height is not None:
        answer.to_file = max(0.0, string.height - string.target_height)
        answer.state = judge_slot(height=string.height, target_height=string.target_height, tolerance=request.tolerance)
    if string.peg is not None:
        turn = _turn(request, i, string.peg)
        answer.fall_angle = turn.fall_angle
        answer.plan_angle = turn.plan_angle
        answer.turn_angle = turn.turn_angle
        answer.floor_radius = turn.floor_radius
        answer.floor_fall = turn.floor_fall
    return answer


def _turn(request: NutRequest, i: int, peg: PegPlace) -> SlotTurn:
    if request.nut_thickness is None:
        raise MissingInputError("nut_thickness", sentence="the nut's thickness is needed to turn a string to its peg")
    try:
        return turn_to_peg(nut_thickness=request.nut_thickness, peg=Peg(run=peg.run, drop=peg.drop, side=peg.side))
    except CoreError as error:
        raise error.under("strings", i, "peg") from error
