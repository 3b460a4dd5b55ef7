"""Instruments drawn by chance about what such an instrument usually measures."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from random import Random

from fidicula.practice.shape import BoardShape, Shape, StringShape

SLOPES = {"violin": 8.0, "viola": 8.0, "cello": 10.5, "bass": 12.5}
"""Of the board to the ribs. [degrees]"""
HIGH = {"violin": (0.7, 1.6), "viola": (0.7, 1.7), "cello": (0.8, 2.2), "bass": (1.0, 2.8)}
"""How much too high the strings of a new bridge come, at the board's end. [mm]"""


def drawn(
    seed: int,
    *,
    family: str,
    usual: Mapping[str, float],
    names: Sequence[str],
    diameters: Sequence[float],
    ends: Sequence[float],
    nuts: Sequence[float],
) -> Shape:
    """One instrument whose strings lie too high on a bridge that wants its crown.

    usual : about what each single measure of the card is. [mm]  ends, nuts : about what each string's height is once
    it is right, upright, low string first. [mm]
    """
    chance = Random(seed)
    length = usual["string_length"] * chance.uniform(0.99, 1.01)
    board_length = usual["fingerboard_length"] * chance.uniform(0.99, 1.01)
    across = usual["fingerboard_radius"] * chance.uniform(0.97, 1.04)
    board = BoardShape(
        string_length=length,
        length=board_length,
        round_nut=across * chance.uniform(0.92, 1.0),
        round_end=across,
        hollow_bass=chance.uniform(0.4, 0.9) * length / 330,
        hollow_treble=chance.uniform(0.3, 0.6) * length / 330,
        lean=max(-1.0, min(1.0, chance.gauss(0, 0.4))),
        slope=SLOPES[family] + chance.gauss(0, 0.7),
    )
    nut_spread = usual["nut_spread"] * chance.uniform(0.99, 1.01)
    bridge_spread = usual["bridge_spread"] * chance.uniform(1.0, 1.01)
    strings = []
    at_nut, at_bridge = _spaced(nut_spread, diameters), _spaced(bridge_spread, diameters)
    over, high_nut = chance.uniform(*HIGH[family]), chance.choice((0.0, 0.0, 0.4))
    for i, name in enumerate(names):
        nut = nuts[i] + high_nut * chance.uniform(0.5, 1.0)
        end = ends[i] + over + chance.gauss(0, 0.15)
        string = StringShape(name, diameters[i], at_nut[i], at_bridge[i], nut, 0.0, 0.0)
        string.crown = _crown_for(board, string, end)
        string.slot = max(0.0, diameters[i] * chance.choice((0.0, 0.15, 0.33, 0.6, 1.0)) + chance.gauss(0, 0.03))
        string.crown += string.slot
        strings.append(string)
    return Shape(board, strings, usual["projection"] * chance.uniform(0.997, 1.003))


def _spaced(spread: float, diameters: Sequence[float]) -> list[float]:
    """The same air between neighbours, walked along from the middle of the first to the middle of the last."""
    wood = sum(diameters) - (diameters[0] + diameters[-1]) / 2
    air = (spread - wood) / (len(diameters) - 1)
    places, at = [], -spread / 2
    for i, diameter in enumerate(diameters):
        places.append(at)
        if i + 1 < len(diameters):
            at += diameter / 2 + air + diameters[i + 1] / 2
    return places


def _crown_for(board: BoardShape, string: StringShape, end: float) -> float:
    """The floor over the crest's line, along the bridge, at which the string reads so at the board's end. [mm]"""
    low, high = -40.0, 80.0
    for _ in range(80):
        middle = (low + high) / 2
        string.crown, string.slot = middle, 0.0
        found = Shape(board, [string], 0.0).upright(0)
        if math.isfinite(found) and found < end:
            low = middle
        else:
            high = middle
    return (low + high) / 2
