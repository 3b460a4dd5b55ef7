"""One reading derived from others: a radius by its chord, a stop by another place, spacings by each other."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import accumulate, pairwise
from typing import Literal

from fidicula.core.errors import CoreError, MismatchError
from fidicula.core.geometry.scoop import radius_of_arc

FootPlace = Literal["middle", "back", "third"]
_FROM_BACK: dict[FootPlace, float] = {"middle": 1 / 2, "back": 0.0, "third": 1 / 3}
"""How far each place lies before the back of the foot, in parts of its thickness."""


def stop_to(place: FootPlace, *, measured: float, measured_to: FootPlace, foot_thickness: float) -> float:
    """The stop to one place of the bridge's foot, measured to another. [mm]

    measured : from the edge of the top. [mm]  measured_to : where it ends: at the foot's middle, at its back (the
    tailpiece side), or a third of the thickness before its back.  foot_thickness : front to back, above 0. [mm]
    Raises CoreError naming `foot_thickness`. Source: plain lengths.
    """
    if foot_thickness <= 0:
        raise CoreError("foot_thickness", sentence="a foot has a thickness over 0", value=foot_thickness)
    return measured + (_FROM_BACK[measured_to] - _FROM_BACK[place]) * foot_thickness


def radius_by_chord(*, chord: float, rise: float, chord_known_to: float, rise_known_to: float) -> tuple[float, float]:
    """The radius of a board by a chord across it and the rise over that, with its ±. [mm]

    chord, rise : above 0. [mm]  chord_known_to, rise_known_to : ± of each; they add up. [mm]
    Raises CoreError naming `chord` or `rise`. Source: the intersecting chords, and how they change with either.
    """
    for name, value in (("chord", chord), ("rise", rise)):
        if value <= 0:
            raise CoreError(name, sentence=f"the {name} is over 0", value=value)
    by_chord = chord / (4 * rise) * chord_known_to
    by_rise = abs(0.5 - chord * chord / (8 * rise * rise)) * rise_known_to
    return radius_of_arc(chord=chord, sagitta=rise), by_chord + by_rise


SpacingForm = Literal["marks", "centres", "gaps"]
"""How somebody reads where strings sit: marks from the wood's bass edge to each string's middle, the steps from middle
to middle, or the air from edge to edge."""


def string_steps(form: SpacingForm, *, measured: Sequence[float], diameters: Sequence[float]) -> tuple[float, ...]:
    """How far each string's middle lies from the lowest string's. [mm]

    measured : as the form says; marks have shape (n_strings,), centres and gaps shape (n_strings - 1,). [mm]
    diameters : shape (n_strings,). [mm]
    Raises MismatchError or CoreError naming `measured`: another number of them, or places that go backwards.
    Source: plain addition of widths.
    """
    wanted = len(diameters) - (0 if form == "marks" else 1)
    if len(measured) != wanted:
        raise MismatchError(
            "measured", sentence=f"{wanted} {form} were wanted, there are {len(measured)}", value=len(measured)
        )
    if form == "marks":
        steps = tuple(mark - measured[0] for mark in measured)
    elif form == "centres":
        steps = (0.0, *accumulate(measured))
    else:
        apart = [gap + (left + right) / 2 for gap, (left, right) in zip(measured, pairwise(diameters), strict=True)]
        steps = (0.0, *accumulate(apart))
    for i, (left, right) in enumerate(pairwise(steps)):
        if right <= left:
            raise CoreError(
                "measured", i, sentence="each string lies farther from the bass edge than the one before", value=right
            )
    return steps
