"""post: sound post, bass bar, bridge width."""

from __future__ import annotations

import math
from typing import Annotated, Literal

from pydantic import Field

from fidicula.contract.quantities import (
    Answer,
    Diameter,
    FootPlace,
    Fraction,
    Height,
    Length,
    Slope,
    Thickness,
    Tolerance,
    Wire,
)
from fidicula.core.fitting.post import BlankChoice, Fit, bar_insets, fit_after, nearest_blank, post_place, room_change


class TopThickness(Wire):
    rule: Literal["top_thickness"]
    top_thickness: Thickness


class FixedSetback(Wire):
    rule: Literal["fixed"]
    setback: Height


class PostFraction(Wire):
    rule: Literal["post_fraction"]
    fraction: Fraction


class FootFraction(Wire):
    rule: Literal["foot_fraction"]
    fraction: Fraction
    foot_thickness: Thickness


class MirrorBar(Wire):
    rule: Literal["mirror_bar"]


class FixedInset(Wire):
    rule: Literal["fixed"]
    inset: FootPlace


SetbackRule = Annotated[TopThickness | FixedSetback | PostFraction | FootFraction, Field(discriminator="rule")]
InsetRule = Annotated[MirrorBar | FixedInset, Field(discriminator="rule")]


class PostMeasured(Wire):
    setback: FootPlace
    inset: FootPlace


class PostRequest(Wire):
    foot_width: Length
    post_diameter: Diameter
    bar_inset: Height
    setback_rule: SetbackRule
    inset_rule: InsetRule
    measured: PostMeasured | None = None
    top_slope: Slope | None = None
    back_slope: Slope | None = None
    fit_tolerance: Tolerance = 0.1
    bridge_widths: list[Length] | None = None
    bar_inset_target: FootPlace | None = None


class BridgeOption(Answer):
    width: float
    bar_inset: float


class PostAnswer(Answer):
    target_setback: float
    target_inset: float
    target: list[float]
    current: list[float] | None = None
    move: list[float] | None = None
    distance: float | None = None
    room_change: float | None = None
    fit: Fit | None = None
    bridge_options: list[BridgeOption] | None = None
    bridge_width: float | None = None


def _setback(request: PostRequest) -> float:
    match request.setback_rule:
        case TopThickness(top_thickness=thickness):
            return thickness
        case FixedSetback(setback=setback):
            return setback
        case PostFraction(fraction=fraction):
            return fraction * request.post_diameter
        case FootFraction(fraction=fraction, foot_thickness=thickness):
            return fraction * thickness


def compute_post(request: PostRequest) -> PostAnswer:
    setback = _setback(request)
    inset = request.inset_rule.inset if isinstance(request.inset_rule, FixedInset) else request.bar_inset
    target = post_place(
        setback=setback, inset=inset, foot_width=request.foot_width, post_diameter=request.post_diameter
    )
    answer = PostAnswer(target_setback=setback, target_inset=inset, target=list(target))
    if request.measured is not None:
        current = post_place(
            setback=request.measured.setback,
            inset=request.measured.inset,
            foot_width=request.foot_width,
            post_diameter=request.post_diameter,
        )
        answer.current = list(current)
        answer.move = [target[0] - current[0], target[1] - current[1]]
        answer.distance = math.dist(target, current)
        if request.top_slope is not None and request.back_slope is not None:
            answer.room_change = room_change(
                offset_change=answer.move[1], top_slope=request.top_slope, back_slope=request.back_slope
            )
            answer.fit = fit_after(change=answer.room_change, tolerance=request.fit_tolerance)
    if request.bridge_widths is not None and request.bar_inset_target is not None:
        insets = bar_insets(foot_width=request.foot_width, bar_inset=request.bar_inset, widths=request.bridge_widths)
        choices = [BlankChoice(w, i) for w, i in zip(request.bridge_widths, insets, strict=True)]
        answer.bridge_options = [BridgeOption(width=c.width, bar_inset=c.bar_inset) for c in choices]
        best = nearest_blank(choices=choices, bar_inset_target=request.bar_inset_target)
        answer.bridge_width = None if best is None else best.width
    return answer
