r"""Sound post, bass bar and bridge width, one end of the post at a time.

bass foot              treble foot        seen from above, tailpiece at the foot of the page
[=======]               [=======]   <- back of the feet: x = 0
   |bar|                  (post)    setback: back of the foot to the near side of the post
   |   |                            inset: outer edge of the foot to the outer side of the post
           centre line: y = 0, treble positive
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal, get_args

from fidicula.core.errors import TOLERANCE, DoesNotFitError

Fit = Literal["tighter", "same", "looser"]
Point = tuple[float, float]
"""[behind the back of the foot, from the centre line], of the post's middle. [mm]"""


def post_place(*, setback: float, inset: float, foot_width: float, post_diameter: float) -> Point:
    """The post's middle, from how it stands to the treble foot. [mm]

    setback : back of the foot to the near side of the post. [mm]
    inset : outer edge of the foot to the outer side of the post. [mm]
    foot_width : outside to outside of the feet, above 0. [mm]  post_diameter : above 0. [mm]
    """
    return setback + post_diameter / 2, foot_width / 2 - inset - post_diameter / 2


@dataclass(frozen=True)
class Gauged:
    """An end's place as a card gauge reads it. setback : behind the foot.  inset : inside its outer edge. [mm]"""

    setback: float
    inset: float


def as_gauged(at: Point, *, foot_width: float, post_diameter: float) -> Gauged:
    """What a card gauge reads where a post's middle stands: `post_place` the other way. [mm]

    at : the middle. [mm]  foot_width : outside to outside of the feet. [mm]  post_diameter : [mm]
    """
    return Gauged(at[0] - post_diameter / 2, foot_width / 2 - at[1] - post_diameter / 2)


PostSide = Literal["near", "middle", "far"]
"""To which side of the post a distance is read or stated: the one nearest to what it is read from, its middle, or the
one beyond."""
POST_SIDES: tuple[PostSide, ...] = get_args(PostSide)
_OF_DIAMETER: dict[PostSide, float] = {"near": 0.0, "middle": 0.5, "far": 1.0}


def to_near_side(*, distance: float, side: PostSide, post_diameter: float) -> float:
    """A distance read to any side of the post, as it is to its near side. [mm]

    distance : behind the foot, or inside its edge. [mm]  side : that it was read to.
    post_diameter : 0 or more. [mm]  Source: plain lengths; `stated_to` the other way.
    """
    return distance - _OF_DIAMETER[side] * post_diameter


def stated_to(*, near: float, side: PostSide, post_diameter: float) -> float:
    """A distance to the post's near side, stated to another side. [mm]

    near : behind the foot, or inside its edge. [mm]  side : that it is stated to.  post_diameter : 0 or more. [mm]
    """
    return near + _OF_DIAMETER[side] * post_diameter


def inset_behind_middle(*, foot_width: float, foot_spread: float, post_diameter: float) -> float:
    """The inset of a post that stands behind the middle of its foot. [mm]

    foot_width : outside to outside of the feet. [mm]  foot_spread : middle to middle of the feet, below that. [mm]
    post_diameter : [mm]  Raises DoesNotFitError naming `foot_spread`. Source: plain lengths.
    """
    if not 0 < foot_spread < foot_width:
        raise DoesNotFitError(
            "foot_spread",
            sentence=f"the feet's middles lie within their {foot_width:g} mm; {foot_spread:g} was read",
            value=foot_spread,
        )
    return (foot_width - foot_spread) / 2 - post_diameter / 2


@dataclass(frozen=True)
class NewPost:
    """A post to be cut for a room. [mm]

    middle : its length along its axis.  long_side, short_side : along its sides toward and away from where the room
    is higher.  top_bevel, bottom_bevel : how much each end falls across its diameter; below zero the other way.
    """

    middle: float
    long_side: float
    short_side: float
    top_bevel: float
    bottom_bevel: float


def new_post(*, room: float, post_diameter: float, top_slope: float, back_slope: float) -> NewPost:
    """Length and bevels of an upright post, by the room where it will stand and how the plates lie there.

    room : between the plates at the post's axis, by an inside gauge, above 0. [mm]  post_diameter : above 0. [mm]
    top_slope, back_slope : by which the room closes outward at each end. [degrees]
    Raises DoesNotFitError naming `room` or `post_diameter`. Source: the plates as planes at each end; ends cut to them.
    """
    for name, value in (("room", room), ("post_diameter", post_diameter)):
        if value <= 0:
            raise DoesNotFitError(
                name, sentence=f"{name.replace('_', ' ')} is over 0 mm; it was {value:g}", value=value
            )
    top = math.tan(math.radians(top_slope)) * post_diameter
    bottom = math.tan(math.radians(back_slope)) * post_diameter
    half = abs(top + bottom) / 2
    return NewPost(room, room + half, room - half, top, bottom)


def leaning_bottom(*, top: Point, length: float, lean: float) -> Point:
    """Where a post's bottom stands that leans as its bridge does. [mm]

    top : the middle of its top. [mm]  length : of the post. [mm]
    lean : the top toward the tailpiece is positive. [degrees]
    """
    return top[0] - length * math.sin(math.radians(lean)), top[1]


def room_change(*, offset_change: float, top_slope: float, back_slope: float) -> float:
    """How much longer (positive) or shorter the room for the post becomes when all of it moves over. [mm]

    offset_change : outward is positive. [mm]
    top_slope, back_slope : by which the room closes outward at each end. [degrees]
    Source: the plates as planes at each end.
    """
    return -(math.tan(math.radians(top_slope)) + math.tan(math.radians(back_slope))) * offset_change


def ends_room_change(
    *, top_offset_change: float, bottom_offset_change: float, top_slope: float, back_slope: float
) -> float:
    """How much longer (positive) or shorter the room becomes when each end moves over by its own. [mm]

    top_offset_change, bottom_offset_change : outward is positive. [mm]
    top_slope, back_slope : by which the room closes outward at each end. [degrees]
    Source: the plates as planes at each end; with both ends alike it is `room_change`.
    """
    return -(
        math.tan(math.radians(top_slope)) * top_offset_change
        + math.tan(math.radians(back_slope)) * bottom_offset_change
    )


@dataclass(frozen=True)
class Stance:
    """How a post leans: its top against its bottom. [degrees]

    along : top toward the tailpiece is positive.  across : top toward the treble side is positive.
    """

    along: float
    across: float


def stance(*, top: Point, bottom: Point, length: float) -> Stance:
    """How a post leans.

    top, bottom : the middles of its ends. [mm]  length : of the post, above the distance between them. [mm]
    Raises DoesNotFitError.
    """
    off = math.dist(top, bottom)
    _check_length(length, off)
    height = math.sqrt(length**2 - off**2)
    along, across = top[0] - bottom[0], top[1] - bottom[1]
    return Stance(math.degrees(math.atan2(along, height)), math.degrees(math.atan2(across, height)))


def lean_room_change(*, apart_now: float, apart_then: float, length: float) -> float:
    """How much longer (positive) or shorter the room along a post becomes as it leans more or less. [mm]

    apart_now, apart_then : how far its ends stand apart, seen from above. [mm]
    length : of the post that fits now, above `apart_now`. [mm]
    Raises DoesNotFitError. Source: Pythagoras; the plates as level as they are at its ends.
    """
    _check_length(length, apart_now)
    height = math.sqrt(length**2 - apart_now**2)
    return math.hypot(height, apart_then) - length


def _check_length(length: float, apart: float) -> None:
    if not length > apart:
        raise DoesNotFitError(
            "length",
            sentence=f"the post must be longer than {apart:g} mm, by which its ends stand apart; it was {length:g}",
            value=length,
        )


def fit_after(*, change: float, tolerance: float) -> Fit:
    """How a post fits where the room changed. change : longer is positive. [mm]  tolerance : 0 or more. [mm]"""
    if change < -tolerance - TOLERANCE:
        return "tighter"
    return "looser" if change > tolerance + TOLERANCE else "same"


def bar_insets(*, foot_width: float, bar_inset: float, widths: Sequence[float]) -> list[float]:
    """The bar's inset under blanks of other widths: the bar stays where it is. [mm]

    foot_width : of the bridge that was measured, above 0. [mm]
    bar_inset : outer edge of the bar inside its foot. [mm]  widths : of the blanks on hand. [mm]
    """
    return [width / 2 - (foot_width / 2 - bar_inset) for width in widths]


@dataclass(frozen=True)
class BlankChoice:
    """A blank's width and the bar's inset under it. [mm]"""

    width: float
    bar_inset: float


def nearest_blank(*, choices: Sequence[BlankChoice], bar_inset_target: float) -> BlankChoice | None:
    """The blank whose bar inset is nearest to the target; the smaller of two as near.

    choices : blanks on hand.  bar_inset_target : wanted. [mm]
    """
    best: BlankChoice | None = None
    for choice in sorted(choices, key=lambda c: c.width):
        off = abs(choice.bar_inset - bar_inset_target)
        if best is None or off < abs(best.bar_inset - bar_inset_target) - TOLERANCE:
            best = choice
    return best
