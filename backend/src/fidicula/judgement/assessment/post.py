"""Where an instrument's schools want the post: the one place that says so, for the sheet, the page and the history."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from fidicula.core.errors import CoreError
from fidicula.core.fitting.post import inset_behind_middle, stated_to, to_near_side
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.targets.wanted import Targets, Wanted

Share = Literal["bridge_foot_thickness", "post_diameter", "top_thickness_post"]
"""What a setback may be a share of."""
_TIMES: Mapping[str, Share] = {
    "half_foot": "bridge_foot_thickness",
    "whole_foot": "bridge_foot_thickness",
    "half_post": "post_diameter",
    "whole_post": "post_diameter",
    "top_thickness": "top_thickness_post",
}
"""Schools of the setback that are a share of something that can be read."""


_OWN: Share = "top_thickness_post"
"""The school that goes by it is a figure of it: as far behind the foot as the top is thick."""


@dataclass(frozen=True)
class PostTarget:
    """Where the post's top is wanted: behind the foot, and inside its outer edge. [mm]

    setback_of, inset_of : the target that each comes from.  is_read : what it is a share of was read, not a figure.
    """

    setback: float
    inset: float
    setback_of: Wanted
    inset_of: Wanted
    is_read: bool


def post_target(
    state: BenchState, *, targets: Targets | None = None, post_diameter: float | None = None
) -> PostTarget | None:
    """None where a figure for it is missing.

    targets : by other schools; None for the instrument's own.  post_diameter : of the post that stands. [mm]
    What the school is a share of counts as read before any figure: the post's own diameter, the foot's thickness.
    """
    targets = targets or state.targets
    setback, inset = targets.figure("post_setback"), targets.figure("post_inset")
    if setback is None or inset is None:
        return None
    behind, is_read = setback.band.aim, False
    of = _TIMES.get(targets.schools.get("post_setback", ""))
    figure = None if of is None else setback if of == _OWN else targets.figure(of)
    read = _read(state, of, post_diameter)
    if figure is not None and read is not None and figure.band.aim > 0:
        behind, is_read = behind / figure.band.aim * read, True
    school = targets.schools.get("post_setback", "")
    diameter = targets.figure("post_diameter")
    if school == "far_side" and diameter is not None and post_diameter is not None:
        far = stated_to(near=setback.band.aim, side="far", post_diameter=diameter.band.aim)
        behind, is_read = to_near_side(distance=far, side="far", post_diameter=post_diameter), True
    inside = inset.band.aim
    if targets.schools.get("post_inset") == "centred":
        centred = _behind_middle(state, post_diameter)
        inside, is_read = (inside, is_read) if centred is None else (centred, True)
    bar = state.held("bar_inset")
    if targets.schools.get("post_inset") == "mirror_bar" and bar is not None and not bar.assumed:
        inside, is_read = bar.value, True
    return PostTarget(behind, inside, setback, inset, is_read)


def _behind_middle(state: BenchState, post_diameter: float | None) -> float | None:
    """By the feet as they were read; None where they were not. [mm]"""
    width, spread = state.known("bridge_foot_width"), state.known("foot_spread")
    figure = state.targets.figure("post_diameter")
    diameter = post_diameter if post_diameter is not None else None if figure is None else figure.band.aim
    if width is None or spread is None or diameter is None:
        return None
    try:
        return inset_behind_middle(foot_width=width.value, foot_spread=spread.value, post_diameter=diameter)
    except CoreError:
        return None


def _read(state: BenchState, of: Share | None, post_diameter: float | None) -> float | None:
    if of == "post_diameter":
        return post_diameter
    held = None if of is None else state.held(of)
    return None if held is None or held.assumed else held.value
