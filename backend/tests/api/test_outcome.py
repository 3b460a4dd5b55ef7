"""Does the advice land? The robot of `bench/` follows the sheet on a few simulated instruments, over HTTP."""

from __future__ import annotations

import pytest
from fastapi.testclient import TestClient

from bench.outcome import drawn_for
from bench.robot import Robot


@pytest.mark.parametrize("seed", [2, 4, 6, 8])
def test_every_string_lands(client: TestClient, seed: int) -> None:
    """A violin, a viola, a cello and a bass, with honest noise and slips: within 0.15, never told anything wrong."""
    outcome = Robot(client, seed, drawn_for(seed), slips=0.004).work()
    assert outcome.stuck == ""
    assert outcome.wrong == []
    assert max(map(abs, outcome.at_the_end)) < 0.15
    assert len(outcome.off) <= 4
    assert outcome.readings < 90


def test_a_perfect_hand_lands_by_one_crown_and_its_slots(client: TestClient) -> None:
    outcome = Robot(client, 7, drawn_for(7), noise=0.0).work()
    assert (outcome.stuck, outcome.wrong) == ("", [])
    assert max(map(abs, outcome.at_the_end)) < 0.08
    assert len(outcome.off) == 2
