r"""Nut slots: depth, width, and the floor that turns the string from the board to its peg.

board | front edge
------|====.__ floor: an arc, level at the front edge,
      |  t    '-.__ pointing straight to the peg where it leaves the nut
      |            '--.__ peg, `run` behind the front edge and `drop` below
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from fidicula.core.errors import TOLERANCE, DoesNotFitError

NutState = Literal["file", "at_target", "too_low"]


@dataclass(frozen=True)
class Peg:
    """Where the string meets its peg: run behind the nut's front edge, drop below the slot's floor there, side
    toward the treble of the string's own line. [mm]"""

    run: float
    drop: float
    side: float


@dataclass(frozen=True)
class SlotTurn:
    """Angles in degrees; the floor's radius and how far it falls from front to back in mm."""

    fall_angle: float
    plan_angle: float
    turn_angle: float
    floor_radius: float
    floor_fall: float


def turn_to_peg(*, nut_thickness: float, peg: Peg) -> SlotTurn:
    """The slot's floor from the front edge to the peg.

    nut_thickness : front to back, above 0. [mm]  peg : its run must be more than the nut's thickness.
    Raises DoesNotFitError naming `run`.
    Source: an arc tangent to the board at the front, whose tangent at the back goes through the peg.
    """
    if peg.run <= nut_thickness + TOLERANCE:
        raise DoesNotFitError(
            "run",
            sentence=f"the peg must stand behind the nut, over {nut_thickness:g} mm from its front; it was {peg.run:g}",
            value=peg.run,
        )

    def miss(half_tangent: float) -> float:
        tangent = 2 * half_tangent / (1 - half_tangent * half_tangent)
        return (peg.run - nut_thickness) * tangent + nut_thickness * half_tangent - peg.drop

    low, high = 0.0, 1.0
    for _ in range(80):
        middle = (low + high) / 2
        if middle == 1.0 or miss(middle) > 0:
            high = middle
        else:
            low = middle
    fall = 2 * math.atan((low + high) / 2)
    return SlotTurn(
        fall_angle=math.degrees(fall),
        plan_angle=math.degrees(math.atan(peg.side / peg.run)),
        turn_angle=math.degrees(math.atan2(math.hypot(peg.drop, peg.side), peg.run)),
        floor_radius=nut_thickness / math.sin(fall),
        floor_fall=nut_thickness * math.tan(fall / 2),
    )


def file_range(*, diameter: float, ratio: tuple[float, float]) -> tuple[float, float]:
    """The thinnest and thickest file for a slot. [mm]

    diameter : of the string, above 0. [mm]  ratio : of it, low and high, each above 0.
    """
    return diameter * ratio[0], diameter * ratio[1]


def smallest_file(*, files: Sequence[float], wanted: tuple[float, float]) -> float | None:
    """The smallest file on hand within a range; None where none fits. [mm]

    files : diameters on hand, each above 0. [mm]  wanted : low and high, which count in. [mm]
    """
    fitting = [file for file in files if wanted[0] - TOLERANCE <= file <= wanted[1] + TOLERANCE]
    return min(fitting, default=None)


def between_cards(*, passes: float, stops: float) -> tuple[float, float]:
    """A height at the nut by two cards: its middle, and ± of that. [mm]

    passes : the thickest card that slides through.  stops : the thinnest that does not, above that. [mm]
    Raises DoesNotFitError naming `stops`. Source: the height lies between the two.
    """
    if stops <= passes:
        raise DoesNotFitError(
            "stops",
            sentence=f"a card of {passes:g} passes, so one that does not is thicker; it was {stops:g}",
            value=stops,
        )
    return (passes + stops) / 2, (stops - passes) / 2


def nut_top(*, floor: float, diameter: float, ratio: float) -> float:
    """How high the nut's top stands over the board beside a string: its slot's floor and the slot's depth. [mm]

    floor : of the slot over the board. [mm]  diameter : of the string. [mm]
    ratio : of the diameter that lies in the slot, 1/3 for a third.
    """
    return floor + ratio * diameter


def floor_points(turn: SlotTurn, *, nut_thickness: float, count: int = 9) -> list[tuple[float, float]]:
    """The floor of a slot from the side: behind the front edge, and down from it. [mm]

    turn : of that slot.  nut_thickness : front to back, above 0. [mm]  count : of points, 2 or more.
    Source: the arc of `turn_to_peg`.
    """
    points = []
    for i in range(count):
        behind = nut_thickness * i / (count - 1)
        down = turn.floor_radius - math.sqrt(max(0.0, turn.floor_radius**2 - behind**2))
        points.append((behind, down))
    return points


def fixed_turn(*, nut_thickness: float, fall: float) -> SlotTurn:
    """A floor that falls by one angle from its front to its back, whatever its peg.

    nut_thickness : front to back, above 0. [mm]  fall : at the back, above 0 and below 90. [degrees]
    Raises DoesNotFitError naming `fall`. Source: an arc level at the front edge, as in `turn_to_peg`.
    """
    if not 0 < fall < 90:
        raise DoesNotFitError("fall", sentence=f"a floor falls by over 0° and under 90°; it was {fall:g}", value=fall)
    angle = math.radians(fall)
    return SlotTurn(fall, 0.0, fall, nut_thickness / math.sin(angle), nut_thickness * math.tan(angle / 2))


def end_height_given(*, filed: float, carry: float) -> float:
    """The drop of a string at the board's end when its nut slot is filed: it turns about the bridge. [mm]

    filed : off the slot's floor, 0 or more. [mm]  carry : string length over board length, above 1.
    Source: similar triangles.
    """
    return filed * (1 - 1 / carry)


def judge_slot(*, height: float, target_height: float, tolerance: float) -> NutState:
    """Whether a slot is still to be filed; one that is too low cannot be filed right.

    height, target_height : of the string over the board, 0 or more. [mm]  tolerance : 0 or more. [mm]
    """
    over = height - target_height
    if over > tolerance + TOLERANCE:
        return "file"
    return "too_low" if over < -tolerance - TOLERANCE else "at_target"
