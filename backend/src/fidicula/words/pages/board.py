"""What the page of the board says."""

from __future__ import annotations

from collections.abc import Iterator

from fidicula.codes import MeasureCode
from fidicula.core.geometry.scoop import Dressing
from fidicula.judgement.assessment.scoop import FAULT_WORDS
from fidicula.judgement.targets.wanted import Wanted
from fidicula.numerals import number, short
from fidicula.words.numbers import band, listed

TITLE = "The board"
NOTHING_READ = "Read the scoop at three places on each side; then its faults and its dressing stand here."
DYED = "Dyed wood shows where the plane has been: try it where it does not show, and say so to the owner first."
SHARP = "Plane with the grain, a set iron, the board firm: an ebony chip flies. Wear a mask: its dust is harmful."
THICKNESS_MISSING = "the thickness at the edge is not read: read it before anything is planed"
LEAVE = "nothing comes off; what was found stays"
TABLE_TITLE = "Wood to remove"
FROM_NUT = "from the nut"
ACROSS_LABEL = "mm from the nut"
DOWN_LABEL = "under the straightedge, mm"
AS_IT_IS = "now"


def too_thin(*, wished: float, side: str, left: float, least: float, nearest: float | None) -> str:
    said = f"A scoop of {short(wished)} on the {side} side would leave {number(left)} at the edge, never under "
    can_be = "" if nearest is None else f" {number(nearest, 2)} is the nearest that can be had."
    return f"{said}{short(least)}.{can_be}"


def scoop_wanted(side: str) -> str:
    return f"scoop wanted, {side} side"


def scoop(side: str) -> str:
    return f"Scoop, {side} side"


def edge_left(side: str) -> str:
    return f"edge left, {side} side"


def found(side: str, plan: Dressing) -> str:
    if plan.relief > 0:
        at = number(plan.relief_at, 0)
        said = f"{side.capitalize()} side: deepest {number(plan.relief, 2)} at {at} mm from the nut."
    else:
        said = f"{side.capitalize()} side: nowhere below the straightedge."
    faults = [FAULT_WORDS[fault] for fault in plan.faults]
    return said + (f" It has {listed(faults)}." if faults else " As wanted.")


def radius(value: float, wanted: Wanted | None) -> str:
    within = "" if wanted is None else f", wanted {band(wanted.band.low, wanted.band.high)}"
    return f"Across, the board's radius is {number(value)} mm{within}."


def facet(name: str, *, width: float, from_ridge: float, drop: float, carry: float) -> str:
    """A flat under a low string. drop : of it under the round. [mm]"""
    if drop <= 0:
        return f"The flat is {number(width)} wide; the {name} lies beside it, over the round."
    return (
        f"The {name} lies over a flat {number(width)} wide, {number(from_ridge)} from its ridge, {number(drop, 2)} "
        f"under the round. Its heights are over the flat; the crown is computed over the round, so at the bridge "
        f"the {name} stands {number(drop * carry, 2)} lower in the curve."
    )


def told_otherwise(*, by_chord: float, by_gauge: float) -> str:
    return (
        f"Chord and rise tell {number(by_chord)} where the gauge says {number(by_gauge)}: "
        "a flat facet under a low string, or the gauge held aslant."
    )


def left(thinner: float | None, least: float | None) -> str:
    """least : that has to stay, where that is known. [mm]"""
    if thinner is None:
        return THICKNESS_MISSING
    said = f"{number(thinner)} left at the thinner edge"
    if least is not None and thinner < least - 1e-9:
        said += f": too thin, never under {short(least)}"
    return said


def takes(*, most: float, base: float, left_words: str) -> dict[str, list[str]]:
    """What each way to decide takes."""
    dressing = [f"up to {number(most, 2)} mm off", f"the board's line comes down {number(base, 2)}", left_words]
    return {"dress": dressing, "dress_warned": dressing, "leave": [LEAVE]}


def why_projection(*, projection: float, base: float, plans: dict[str, Dressing]) -> list[str]:
    bass, treble = (number(plans[side].base_removal, 2) for side in ("bass", "treble"))
    return [
        f"{short(projection)} − {number(base, 2)}: the board's line comes down with its surface.",
        f"Half of {bass} and {treble}, off bass and treble side.",
    ]


def height(name: str, measure: MeasureCode) -> str:
    return f"{name} {'at the nut' if measure == 'nut_height' else _BOARD_END}"


_BOARD_END = "at the board's end"


def why_height(*, height: float, off: float) -> str:
    return f"{short(height)} + {number(off, 2)}: the board sinks under a string that stays."


def why_left(*, thick: float, most: float) -> str:
    return f"{short(thick)} − {number(most, 2)}, the most that comes off: the cautious reading."


def never_under(least: float | None) -> str:
    return "" if least is None else f"never under {short(least)}"


def rows(side: str, plan: Dressing) -> Iterator[list[str]]:
    """What was read, what is wanted and what comes off, station by station."""
    yield [f"gap, {side}", *(number(station.gap, 2) for station in plan.stations)]
    yield [f"wanted, {side}", *(number(station.target_gap, 2) for station in plan.stations)]
    yield [f"off, {side}", *(number(station.removal, 2) for station in plan.stations)]


def comes_off(side: str, plan: Dressing) -> str:
    offs = ", ".join(f"{number(s.removal, 2)} at {number(s.x, 0)}" for s in plan.stations)
    return f"Scoop on the {side} side. To come off: {offs}."
