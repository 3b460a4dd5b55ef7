r"""Where strings sit across a nut or a bridge.

Equal air: the same gap g between neighbouring strings' edges, whatever their thickness.

        d1      d2      d3     d4
       (  )--g--()--g--(  )-g-()        spread: centre to centre of the outer two
       |<-------- spread ------>|
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from fidicula.core.errors import TOLERANCE, DoesNotFitError, MismatchError

SpacingRule = Literal["equal_gaps", "equal_centres"]


@dataclass(frozen=True)
class Margins:
    """Marks and margins on a nut or board of a given width. [mm]

    marks : shape (n_strings,). Of each string's centre, from the bass edge.
    bass, treble : from the edge of the wood to the edge of the outer string; negative past the edge.
    """

    marks: tuple[float, ...]
    bass: float
    treble: float


@dataclass(frozen=True)
class SpacingJudgement:
    """Measured places against the wanted ones. [mm]

    deviations : shape (n_strings,). Measured less wanted; positive toward the treble.
    gaps : shape (n_strings - 1,). Edge to edge, as measured.
    unevenness : largest gap less the smallest.
    sway : mean of the two outer offsets; positive leans to the treble.
    """

    deviations: tuple[float, ...]
    gaps: tuple[float, ...]
    unevenness: float
    sway: float


def edge_gaps(*, offsets: Sequence[float], diameters: Sequence[float]) -> tuple[float, ...]:
    """Air between neighbouring strings, edge to edge. [mm]

    offsets : shape (n_strings,). Of the strings' centres, low string first. [mm]
    diameters : shape (n_strings,). [mm]
    """
    return tuple(
        right - left - (d_left + d_right) / 2
        for (left, right), (d_left, d_right) in zip(pairwise(offsets), pairwise(diameters), strict=True)
    )


def string_offsets(
    *,
    spread: float,
    diameters: Sequence[float],
    rule: SpacingRule = "equal_gaps",
    centre: float = 0.0,
    spread_field: str = "spread",
) -> tuple[float, ...]:
    """Offset of each string's centre from the centre line, negative on the bass side. [mm]

    spread : above 0; centre to centre of the outer strings. [mm]
    diameters : shape (n_strings,), three to six, low string first; each above 0. [mm]
    rule : the same air between neighbours, or the same distance between centres.
    centre : offset of the group's middle. [mm]
    spread_field : what the caller calls the spread, for the error.
    Raises DoesNotFitError where neighbours would touch. Source: plain addition of widths.
    """
    count = len(diameters)
    offsets = [centre - spread / 2]
    if rule == "equal_gaps":
        taken = sum(diameters) - (diameters[0] + diameters[-1]) / 2
        gap = (spread - taken) / (count - 1)
        for left, right in pairwise(diameters):
            offsets.append(offsets[-1] + (left + right) / 2 + gap)
    else:
        offsets += [centre - spread / 2 + spread * i / (count - 1) for i in range(1, count)]
    narrowest = min(edge_gaps(offsets=offsets, diameters=diameters))
    if narrowest <= TOLERANCE:
        raise DoesNotFitError(
            spread_field,
            sentence=(
                f"strings of these thicknesses do not fit into a spread of {spread:g} mm: "
                f"the narrowest gap would be {narrowest:.2f} mm"
            ),
            value=spread,
        )
    return tuple(offsets)


def centre_for_margin(*, spread: float, treble_diameter: float, width: float, margin: float) -> float:
    """Offset of the group's middle that leaves a wanted margin beside the highest string. [mm]

    spread : centre to centre of the outer strings, above 0. [mm]  treble_diameter : of the highest string. [mm]
    width : of the nut or board there, above 0. [mm]
    margin : from the treble edge to the edge of the highest string. [mm]
    Source: plain subtraction of widths.
    """
    return width / 2 - margin - treble_diameter / 2 - spread / 2


def margins(*, offsets: Sequence[float], diameters: Sequence[float], width: float) -> Margins:
    """Marks from the bass edge, and the margins beside the outer strings. [mm]

    offsets, diameters : shape (n_strings,). [mm]
    width : above 0; of the nut or board there, its middle on the centre line. [mm]
    """
    half = width / 2
    return Margins(
        marks=tuple(half + y for y in offsets),
        bass=half + offsets[0] - diameters[0] / 2,
        treble=half - offsets[-1] - diameters[-1] / 2,
    )


def judge_spacing(
    *, offsets: Sequence[float], diameters: Sequence[float], measured: Sequence[float]
) -> SpacingJudgement:
    """Compare measured string places with the wanted ones. [mm]

    offsets, diameters : shape (n_strings,). [mm]
    measured : shape (n_strings,). Offsets from the centre line. [mm]
    Raises MismatchError where `measured` has another length.
    """
    if len(measured) != len(diameters):
        raise MismatchError(
            "measured",
            sentence=f"{len(measured)} measured places were given for {len(diameters)} strings",
            value=len(measured),
        )
    gaps = edge_gaps(offsets=measured, diameters=diameters)
    return SpacingJudgement(
        deviations=tuple(m - wanted for m, wanted in zip(measured, offsets, strict=True)),
        gaps=gaps,
        unevenness=max(gaps) - min(gaps),
        sway=(measured[0] + measured[-1]) / 2,
    )
