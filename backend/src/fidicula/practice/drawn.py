"""Instruments drawn by chance about what such an instrument usually measures, with all that a workshop meets."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, fields, replace
from random import Random
from typing import Literal

from fidicula.practice.shape import BoardShape, Shape, StringShape

SLOPES = {"violin": 8.0, "viola": 8.0, "cello": 10.5, "bass": 12.5}
"""Of the board to the ribs. [degrees]"""
HIGH = {"violin": (0.7, 1.6), "viola": (0.7, 1.7), "cello": (0.8, 2.2), "bass": (1.0, 2.8)}
"""How much too high the strings of a new bridge come, at the board's end. [mm]"""
LEAN, MOST_LEAN = 0.6, 1.8
"""Standard deviation of how far a board leans across, and the most of it. [degrees]"""
CONE = 0.15
"""By so much of its radius a board may be rounder at the nut."""
BRIDGE_LEANS = 1.5
"""Standard deviation of how far a bridge leans from where it should stand. [degrees]"""
UNEVEN_AT_BRIDGE, UNEVEN_AT_NUT = 0.3, 0.1
"""Standard deviation of where a string lies off its place, on a violin. [mm]"""
TOO_LOW = (0.15, 0.5)
"""How much one string may lie too low. [mm]"""

Arrival = Literal["high", "in_band", "one_low"]
Band = tuple[float, float]


@dataclass(frozen=True)
class World:
    """What disturbs the work; each can be switched off, so that it shows that it does.

    settling : strings come down after they were put up.  leaning : the board leans across.  cone : it is rounder at
    the nut.  bridge_lean : the bridge does not stand as it should.  uneven : strings lie off their places.
    nut_noise : a height at the nut scatters as any other.  gauge : a tool is off by the same at all that it reads.
    rough_hands : some hands scatter more.  hurried : some read before the strings have settled.
    arrivals : some come in band, some with one string too low.  slips : of the decimal mark.
    checks : a tool is checked when the sheet asks for it.
    """

    settling: bool = True
    leaning: bool = True
    cone: bool = True
    bridge_lean: bool = True
    uneven: bool = True
    nut_noise: bool = True
    gauge: bool = True
    rough_hands: bool = True
    hurried: bool = True
    arrivals: bool = True
    slips: bool = True
    checks: bool = True

    def without(self, name: str) -> World:
        """The same with one disturbance switched off. Raises ValueError for one that is not there."""
        if name not in disturbances():
            raise ValueError(f"no disturbance “{name}”; there are {', '.join(disturbances())}")
        return replace(self, **{name: False})


def disturbances() -> tuple[str, ...]:
    return tuple(one.name for one in fields(World))


def arrival_of(seed: int, world: World) -> Arrival:
    """How an instrument comes in."""
    if not world.arrivals:
        return "high"
    drawn_one = Random(f"arrival {seed}").random()
    return "in_band" if drawn_one < 0.15 else "one_low" if drawn_one < 0.25 else "high"


def drawn(
    seed: int,
    *,
    family: str,
    usual: Mapping[str, float],
    names: Sequence[str],
    diameters: Sequence[float],
    ends: Sequence[float],
    nuts: Sequence[float],
    bands: Sequence[Band] = (),
    world: World | None = None,
) -> Shape:
    """One instrument, as a rule with its strings too high on a bridge that wants its crown.

    usual : about what each single measure of the card is. [mm]  ends, nuts : about what each string's height is once
    it is right, upright, low string first; bands : from and to where it is, where it may come in band. [mm]
    """
    world = world or World()
    chance = Random(seed)
    length = usual["string_length"] * chance.uniform(0.99, 1.01)
    board_length = usual["fingerboard_length"] * chance.uniform(0.99, 1.01)
    across = usual["fingerboard_radius"] * chance.uniform(0.97, 1.04)
    cone, lean, bridge_lean = chance.uniform(0, CONE), chance.gauss(0, LEAN), chance.gauss(0, BRIDGE_LEANS)
    board = BoardShape(
        string_length=length,
        length=board_length,
        round_nut=across * (1 - cone if world.cone else 1.0),
        round_end=across,
        hollow_bass=chance.uniform(0.4, 0.9) * length / 330,
        hollow_treble=chance.uniform(0.3, 0.6) * length / 330,
        lean=max(-MOST_LEAN, min(MOST_LEAN, lean)) if world.leaning else 0.0,
        slope=SLOPES[family] + chance.gauss(0, 0.7),
    )
    nut_spread = usual["nut_spread"] * chance.uniform(0.99, 1.01)
    bridge_spread = usual["bridge_spread"] * chance.uniform(1.0, 1.01)
    at_nut = _uneven(_spaced(nut_spread, diameters), chance, UNEVEN_AT_NUT * length / 330, world)
    at_bridge = _uneven(_spaced(bridge_spread, diameters), chance, UNEVEN_AT_BRIDGE * length / 330, world)
    over, high_nut = chance.uniform(*HIGH[family]), chance.choice((0.0, 0.0, 0.4))
    arrival, low = arrival_of(seed, world), chance.randrange(len(names))
    shape = Shape(board, [], usual["projection"] * chance.uniform(0.997, 1.003))
    shape.bridge_lean = bridge_lean if world.bridge_lean else 0.0
    for i, name in enumerate(names):
        nut = nuts[i] + high_nut * chance.uniform(0.5, 1.0)
        end = ends[i] + over + chance.gauss(0, 0.15)
        inside, under = chance.random(), chance.uniform(*TOO_LOW)
        if arrival == "in_band" and bands:
            end = bands[i][0] + inside * (bands[i][1] - bands[i][0])
        elif arrival == "one_low" and i == low:
            end = ends[i] - under
        string = StringShape(name, diameters[i], at_nut[i], at_bridge[i], nut, 0.0, 0.0)
        string.crown = _crown_for(shape, string, end)
        string.slot = max(0.0, diameters[i] * chance.choice((0.0, 0.15, 0.33, 0.6, 1.0)) + chance.gauss(0, 0.03))
        string.crown += string.slot
        shape.strings.append(string)
    return shape


def _uneven(places: Sequence[float], chance: Random, by: float, world: World) -> list[float]:
    """The outer strings stay, for the spread is read between them."""
    off = [chance.gauss(0, by) for _ in places]
    last = len(places) - 1
    return [at + (off[i] if world.uneven and 0 < i < last else 0.0) for i, at in enumerate(places)]


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


def _crown_for(shape: Shape, string: StringShape, end: float) -> float:
    """The floor over the crest's line, along the bridge, at which the string reads so at the board's end. [mm]"""
    low, high = -40.0, 80.0
    for _ in range(80):
        middle = (low + high) / 2
        string.crown, string.slot = middle, 0.0
        found = Shape(shape.board, [string], 0.0, bridge_lean=shape.bridge_lean).upright(0)
        if math.isfinite(found) and found < end:
            low = middle
        else:
            high = middle
    return (low + high) / 2
