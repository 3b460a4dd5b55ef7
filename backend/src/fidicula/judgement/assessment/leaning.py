"""How the board lies: how far it leans across, and how it slopes to the bridge."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping

from fidicula.codes import MeasureCode
from fidicula.core.errors import CoreError
from fidicula.core.geometry.neck import board_angle, board_tilt, width_drawn_out
from fidicula.core.geometry.uncertainty import uncertainties
from fidicula.judgement.assessment.held import ResolvedValue, ResolvesValues


def tilt_of(state: ResolvesValues) -> ResolvedValue | None:
    """How far the board leans, positive where it is up on the treble side: as read, else by its edges. [degrees]"""
    read = state.held("board_tilt")
    bass, treble, width = state.held("edge_projection", 0), state.held("edge_projection", 1), width_at_bridge(state)
    if read is not None or bass is None or treble is None or width is None:
        return read

    def lean(values: Mapping[str, float]) -> float:
        return board_tilt(bass_edge=values["bass"], treble_edge=values["treble"], width=width)

    return _told({"bass": bass, "treble": treble}, lean)


def board_angle_of(state: ResolvesValues) -> ResolvedValue | None:
    """The board's slope to the plane of the ribs: as read, else by heights over it, else the figure. [degrees]"""
    read = state.held("board_angle")
    if read is not None:
        return read
    parts = {
        "arch_height": state.held("arch_height"),
        "projection": state.held("projection"),
        "board_height_at_edge": state.held("board_at_edge"),
        "stop_length": state.read_or_figure("stop_length", 0, figure="stop_length"),
    }
    known = {name: held for name, held in parts.items() if held is not None}
    told = _told(known, lambda values: board_angle(**values)) if len(known) == len(parts) else None
    return told or state.read_or_figure("board_angle")


def width_at_bridge(state: ResolvesValues) -> float | None:
    """How far the board's two edges, drawn out, lie apart at the bridge. [mm]"""
    nut = state.read_or_figure("fingerboard_width", 0, figure="fingerboard_width_nut")
    end = state.read_or_figure("fingerboard_width", 1, figure="fingerboard_width_end")
    board, length = state.held("fingerboard_length"), state.held("string_length")
    if nut is None or end is None or board is None or length is None:
        return None
    return width_drawn_out(
        at_nut=nut.value, at_end=end.value, fingerboard_length=board.value, string_length=length.value
    )


def _told(parts: Mapping[str, ResolvedValue], outcome: Callable[[Mapping[str, float]], float]) -> ResolvedValue | None:
    """A value that others tell, with its ±; None where they cannot be."""
    values = {name: held.value for name, held in parts.items()}
    try:
        value = outcome(values)
        (known_to,) = uncertainties(
            outcome=lambda moved: (outcome(moved),),
            values=values,
            known_to={name: held.resolution for name, held in parts.items()},
        )
    except CoreError:
        return None
    if not math.isfinite(value):
        return None
    return ResolvedValue(value, any(held.assumed for held in parts.values()), known_to, "derived")


LEANS_BY = 1.2
"""How far a board that nobody looked along may well lean to one side: what covers 95 %. [degrees]"""


ROUNDER_BY = 0.1
"""By what share a board may well be rounder at the nut than at its end: what covers 95 %."""


def unread_leaning(singles: Mapping[MeasureCode, ResolvedValue]) -> dict[MeasureCode, ResolvedValue]:
    """How a board lies of which that was not read: level, and as round at the nut, as far as anybody knows."""
    radius = singles["fingerboard_radius"].value
    return {
        "board_tilt": ResolvedValue(0.0, True, LEANS_BY, "figure"),
        "fingerboard_radius_nut": ResolvedValue(radius, True, ROUNDER_BY * radius, "figure"),
    }
