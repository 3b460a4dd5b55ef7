"""What is drawn on a page, in numbers: true to scale, from the readings, and as the handles stand. [mm], [N]"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field

from fidicula.core.bands import BandSide
from fidicula.views.sheet.model import Drawing


@dataclass(frozen=True)
class NutString:
    """offset : from the board's middle, negative on the bass side.  now : of its underside over the board, None where
    nobody read it.  wanted : where it is filed to.  by : over that, negative where it is too low, None where it is not
    known.  wide : of its slot, at the least.  assumed : of `now`.
    """

    name: str
    offset: float
    diameter: float
    now: float | None
    wanted: float | None
    by: float | None
    wide: float
    assumed: bool


@dataclass(frozen=True)
class NutDrawing:
    """width : of the board at the nut.  radius : of its top there.  is_due : filing it is what to do now."""

    kind: Literal["nut"]
    width: float
    radius: float
    strings: list[NutString]
    is_due: bool


@dataclass(frozen=True)
class BarDrawing:
    """foot, inset : as read, None where nobody did; foot_then, inset_then : under the blank that is tried.

    low, high : as the bar is wanted inside the foot's outer edge; side : of `inset_then` against that.
    post : diameter.
    post_across : of its middle from the bridge's, wanted under `foot_then`, None where no figure says.
    blanks : on the shelf.  post_on_bass : whether it stands on the bass side.
    """

    kind: Literal["bar"]
    foot: float | None
    inset: float | None
    foot_then: float
    inset_then: float
    low: float
    high: float
    side: BandSide
    post: float
    post_across: float | None
    blanks: list[float]
    post_on_bass: bool


@dataclass(frozen=True)
class LoadDrawing:
    """front, behind : slope of the strings from the bridge to nut and saddle. [°]  over : between them. [°]

    names, tensions, forces : string by string.  pulls, presses : of all, presses_kg the same in kg.
    bass, treble : on each foot.
    """

    kind: Literal["load"]
    front: float
    behind: float
    over: float
    names: list[str]
    offsets: list[float]
    tensions: list[float]
    forces: list[float]
    pulls: float
    presses: float
    presses_kg: float
    bass: float
    treble: float
    feet_apart: float


@dataclass(frozen=True)
class HeightChange:
    """Of one string at the board's end."""

    name: str
    now: float
    then: float


@dataclass(frozen=True)
class WheelsDrawing:
    """spread : from wheel to wheel.  bass, treble : of each leg, positive up; turns : of its wheel, positive up.

    heights : of the outer strings at the board's end, now and then.
    """

    kind: Literal["wheels"]
    spread: float
    bass: float
    treble: float
    bass_turns: float
    treble_turns: float
    heights: list[HeightChange]


@dataclass(frozen=True)
class DrawnSwing:
    """place : from the nut.  rest, lowest : of the string over the board's straight line."""

    place: float
    rest: float
    lowest: float


@dataclass(frozen=True)
class DrawnStop:
    """room : left over the board, negative where the string touches."""

    place: float
    room: float
    note: str


@dataclass(frozen=True)
class SwingDrawing:
    """One string over the board.

    swing : from the finger to the bridge.  stops : every semitone over the board.  surface : [place, height] of the
    board, from the nut.
    """

    kind: Literal["swing"]
    name: str
    semitone: int
    board: float
    length: float
    swing: list[DrawnSwing]
    stops: list[DrawnStop]
    surface: list[list[float]]


@dataclass(frozen=True)
class PulledString:
    """tension : now; then : with what is tried; None without figures. [N]"""

    name: str
    diameter: float
    tension: float | None
    then: float | None
    thickness_then: float


@dataclass(frozen=True)
class StringsDrawing:
    kind: Literal["strings"]
    length: float
    strings: list[PulledString]


@dataclass(frozen=True)
class NeckDrawing:
    """The board's line drawn out to the bridge, against the one that is wanted.

    low, aim, high : of the projection.  projection : as read, None where nobody did; side : of it against its band.
    then : with what is tried.
    wedge : that is tried, at the heel, 0 for none.  neck, board, length : along the strings, from the nut.
    """

    kind: Literal["neck"]
    low: float
    aim: float
    high: float
    projection: float | None
    side: BandSide
    then: float | None
    wedge: float
    neck: float
    board: float
    length: float


@dataclass(frozen=True)
class TailDrawing:
    """Behind the bridge. after, gap : afterlength and room at the saddle, None where nobody read them; `_then` : with
    what is tried.  sixth : the afterlength by the divisor.  farthest : that the saddle allows, None where unknown.
    behind : from the bridge to the saddle, None where nobody read it.
    """

    kind: Literal["tail"]
    after: float | None
    gap: float | None
    after_then: float
    gap_then: float | None
    sixth: float
    farthest: float | None
    behind: float | None


@dataclass(frozen=True)
class SchoolPlace:
    """shift : of the foot's middle from where it stands, toward the tailpiece positive. [mm]"""

    label: str
    shift: float
    chosen: bool


@dataclass(frozen=True)
class PlaceDrawing:
    """The feet seen from above. foot_thickness, foot_width : [mm]  shift : that is tried. [mm]

    turn : how much farther back the treble foot stands. [mm]  gaps : to each f-hole, bass first, None unread. [mm]
    nicks : behind the foot's middle, bass first, None unread. [mm]
    """

    kind: Literal["place"]
    foot_thickness: float
    foot_width: float
    shift: float
    turn: float
    gaps: list[float | None]
    nicks: list[float | None]
    schools: list[SchoolPlace]


@dataclass(frozen=True)
class CrownDrawing:
    """The bridge as it is and as it would be with what is tried."""

    kind: Literal["crown"]
    bridge: Drawing


PageDrawing = Annotated[
    NutDrawing
    | BarDrawing
    | LoadDrawing
    | WheelsDrawing
    | SwingDrawing
    | StringsDrawing
    | NeckDrawing
    | TailDrawing
    | PlaceDrawing
    | CrownDrawing,
    Field(discriminator="kind"),
]
