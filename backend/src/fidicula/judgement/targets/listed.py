"""The figures that targets are resolved from."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Literal, get_args

from fidicula.codes import FigureCode, TargetQuestionCode

SingleCode = Literal[
    "projection", "string_length", "fingerboard_length", "fingerboard_radius", "nut_spread", "bridge_spread"
]
"""Measures of the card that are read once, and have a figure."""


SINGLES: tuple[SingleCode, ...] = get_args(SingleCode)


OTHERS: tuple[FigureCode, ...] = (
    "board_angle",
    "neck_length",
    "stop_length",
    "overstand",
    "fingerboard_width_nut",
    "fingerboard_width_end",
    "fingerboard_thickness",
    "fingerboard_thickness_min",
    "bridge_foot_width",
    "bridge_foot_thickness",
    "bridge_top_thickness",
    "bridge_waist",
    "bridge_waist_floor",
    "bar_inset",
    "post_diameter",
    "break_angle",
    "saddle_height",
    "neck_thickness_nut",
    "neck_thickness_heel",
    "end_margin_bass",
    "end_margin_treble",
    "max_wedge_at_heel",
    "neck_to_stop",
)


BY_SCHOOL: tuple[tuple[TargetQuestionCode, FigureCode], ...] = (
    ("slot_width", "slot_width_ratio"),
    ("slot_floor", "slot_fall"),
    ("post_stance", "post_bottom_aside"),
    ("board_edges", "edge_hollow"),
)
"""Questions with the figure that each of their schools has, where it has one."""


DRAWN: tuple[FigureCode, ...] = ("bridge_foot_width", "bridge_waist", "bar_inset", "post_diameter")


Side = Literal["bass", "treble"]


SIDES: tuple[Side, Side] = ("bass", "treble")


END_HEIGHTS: Mapping[Side, FigureCode] = {"bass": "end_height_bass", "treble": "end_height_treble"}


END_HEIGHTS_ADDED: Mapping[Side, FigureCode] = {"bass": "end_height_added_bass", "treble": "end_height_added_treble"}


NUT_HEIGHTS: tuple[FigureCode, FigureCode] = ("nut_height_bass", "nut_height_treble")


MARK_HEIGHTS: tuple[FigureCode, FigureCode] = ("mark_height_bass", "mark_height_treble")


RELIEFS: tuple[tuple[FigureCode, FigureCode], ...] = (
    ("relief_bass", "relief_added_bass"),
    ("relief_treble", "relief_added_treble"),
)


GRADED: tuple[FigureCode, FigureCode] = ("bridge_top_thickness", "bridge_waist")
