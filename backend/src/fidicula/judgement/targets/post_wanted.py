"""Where the post is wanted by its schools, as far as figures alone can say."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import replace

from fidicula.codes import FigureCode, TargetQuestionCode
from fidicula.core.bands import Band
from fidicula.core.fitting.post import inset_behind_middle, to_near_side
from fidicula.judgement.targets.wanted import Wanted
from fidicula.numerals import short
from fidicula.tables.figures import figure_measures

OfSchool = Callable[[TargetQuestionCode, FigureCode], Wanted | None]
"""A figure of the school that was chosen for a question, by its measure."""

_SHARES: Mapping[FigureCode, FigureCode] = {
    "post_setback_in_posts": "post_diameter",
    "post_setback_in_feet": "bridge_foot_thickness",
}
"""Setbacks that are so many times something."""
_SETBACKS: tuple[FigureCode, FigureCode] = ("post_setback", "top_thickness")


def post_wanted(
    others: Mapping[FigureCode, Wanted], chosen: Mapping[TargetQuestionCode, str], of_school: OfSchool, *, mirrored: str
) -> dict[FigureCode, Wanted]:
    """The setback and the inset of its top. others : figures that a school is a share of.  mirrored : its name.

    Without what a figure for it is missing.
    """
    setback, inset = _setback(others, of_school), _inset(others, chosen, of_school, mirrored)
    found: dict[FigureCode, Wanted | None] = {"post_setback": setback, "post_inset": inset}
    return {measure: wanted for measure, wanted in found.items() if wanted is not None}


def _setback(others: Mapping[FigureCode, Wanted], of_school: OfSchool) -> Wanted | None:
    """A school has one of these figures."""
    return next(_setbacks(others, of_school), None)


def _setbacks(others: Mapping[FigureCode, Wanted], of_school: OfSchool) -> Iterator[Wanted]:
    for measure in _SETBACKS:
        plain = of_school("post_setback", measure)
        if plain is not None:
            yield plain
    for measure, times in _SHARES.items():
        share = of_school("post_setback", measure)
        if share is not None and times in others:
            of = others[times].band
            words = f"{short(share.band.aim)} × {figure_measures()[times].label} {short(of.aim)}"
            yield Wanted(of.scaled(share.band.aim), f"{words}; {share.source}")
    far, post = of_school("post_setback", "post_far_side"), others.get("post_diameter")
    if far is not None and post is not None:
        near = to_near_side(distance=far.band.aim, side="far", post_diameter=post.band.aim)
        words = f"{short(far.band.aim)} to its far side, less its diameter {short(post.band.aim)}"
        yield Wanted(Band(near, near, near), f"{words}; {far.source}")


def _inset(
    others: Mapping[FigureCode, Wanted], chosen: Mapping[TargetQuestionCode, str], of_school: OfSchool, mirrored: str
) -> Wanted | None:
    if chosen["post_inset"] == "mirror_bar":
        bar = others.get("bar_inset")
        return None if bar is None else replace(bar, source=f"{mirrored}; {bar.source}")
    if chosen["post_inset"] != "centred":
        return of_school("post_inset", "post_inset")
    share, foot, post = (
        of_school("post_inset", "foot_spread_share"),
        others.get("bridge_foot_width"),
        others.get("post_diameter"),
    )
    if share is None or foot is None or post is None:
        return None
    width, diameter = foot.band.aim, post.band.aim
    inset = inset_behind_middle(foot_width=width, foot_spread=width * share.band.aim, post_diameter=diameter)
    return Wanted(Band(inset, inset, inset), share.source)
