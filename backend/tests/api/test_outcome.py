"""Does the advice land? The robot of `bench/` follows the sheet on a few simulated instruments, over HTTP."""

from __future__ import annotations

from random import Random

import pytest
from fastapi.testclient import TestClient
from fidicula.practice.drawn import World, disturbances, drawn
from fidicula.practice.hands import Hands

from bench.outcome import drawn_for
from bench.robot import Robot

STEADY = World().without("rough_hands")


@pytest.mark.parametrize("seed", [2, 4, 6, 19])
def test_every_string_lands(client: TestClient, seed: int) -> None:
    """A violin, a viola, a cello and a bass, with all that a workshop meets: near, and never too low by filing."""
    of = drawn_for(seed, STEADY)
    outcome = Robot(client, seed, of, slips=0.004, world=STEADY).work()
    assert (outcome.stuck, outcome.other_work) == ("", "")
    off = [off for i, off in enumerate(outcome.at_the_end) if i not in outcome.low]
    assert max(map(abs, off)) < 0.2
    assert len(outcome.off) <= 4
    assert outcome.readings < 60


def test_a_perfect_hand_lands_by_one_crown_and_its_slots(client: TestClient) -> None:
    outcome = Robot(client, 7, drawn_for(7, STEADY), noise=0.0).work()
    assert (outcome.stuck, outcome.wrong) == ("", [])
    assert max(map(abs, outcome.at_the_end)) < 0.06
    assert len(outcome.off) <= 3


def _read_on(world: World) -> list[float]:
    """What one hand reads on twenty instruments, before and after a slot was filed."""
    usual = {"string_length": 1050.0, "fingerboard_length": 870.0, "fingerboard_radius": 78.0, "projection": 140.0,
             "nut_spread": 31.0, "bridge_spread": 83.0}  # fmt: skip
    found = []
    for seed in range(20):
        of = drawn_for(seed, world)
        shape = drawn(
            seed, family="bass", usual=usual, names="EADG", diameters=(2.7, 2.05, 1.55, 1.15),
            ends=(9.0, 8.0, 7.0, 6.0), nuts=(0.9, 0.8, 0.7, 0.6),
            bands=((8.5, 9.5), (7.5, 8.5), (6.5, 7.5), (5.5, 6.5)), world=world,
        )  # fmt: skip
        hands = Hands(
            shape, Random(seed), 1.6 if of.is_rough else 1.0, 0.02 if world.slips else 0.0, "shortest",
            {"wedge": of.gauge}, of.hurried, world.nut_noise, world.settling,
        )  # fmt: skip
        if world.checks:
            hands.set_tool("wedge", hands.read_block("wedge", 5.0) - 5.0)
        for measure in ("end_height", "nut_height"):
            found += [hands.read(measure, i, "wedge") for i in range(4)]
        hands.file_slots({0: 0.5, 2: 0.3})
        hands.let_settle()
        found += [hands.read("end_height", i, "wedge") for i in range(4)]
    return found


@pytest.mark.parametrize("name", disturbances())
def test_every_disturbance_disturbs(name: str) -> None:
    assert _read_on(World().without(name)) != _read_on(World())
