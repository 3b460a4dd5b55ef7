"""What strings came down by after they were up: which readings count for it, one step inside each limit and outside."""

from __future__ import annotations

from dataclasses import replace
from datetime import timedelta
from typing import Any

import pytest
from fidicula.core.readings.settling import still_settles
from fidicula.judgement.assessment.computing import Computed
from fidicula.judgement.assessment.settling import at_bridge, settled_here, settles_by
from fidicula.judgement.assessment.state import BenchState
from fidicula.tables.work import tools

from ...scenario import NOW, Bench, measured

UP = NOW - timedelta(hours=10)
"""When the strings went up again."""
Taken = tuple[float, float] | tuple[float, float, dict[str, Any]]


def read_after(*taken: Taken) -> tuple[BenchState, Computed]:
    """Readings of the lowest string since it was up, each (value, hours after, more); each corrects the one before."""
    bench: Bench = measured().did("crown_cut", ago=timedelta(hours=10))
    earlier: list[Any] = []
    for value, hours, *more in taken:
        told: dict[str, Any] = dict(*more)
        bench.read("end_height", value, at=0, taken_at=UP + timedelta(hours=hours), **told)
        new = bench.readings.pop()
        earlier = [replace(one, corrected_by=one.corrected_by or new.number) for one in earlier]
        earlier.append(new)
    bench.readings += earlier
    found = bench.assess()
    assert found.computed is not None
    return found.state, found.computed


@pytest.mark.parametrize(
    ("taken", "fell"),
    [
        ([(5.0, 0.5), (4.9, 5)], 0.1),
        ([(5.0, 1.0), (4.9, 4.0)], 0.1),  # an hour and four hours count in
        ([(5.0, 1.01), (4.9, 5)], None),
        ([(5.0, 0.5), (4.9, 3.99)], None),
        ([(5.3, 0.2), (5.0, 0.5), (4.9, 5)], 0.1),  # typed again at once
        ([(5.0, 0.0), (5.2, 1.0), (4.9, 5)], 0.3),
        ([(5.2, 0.4), (5.0, 0.5, {"repeats": True}), (4.9, 5)], 0.2),  # meant as a repeat
        ([(5.0, 0.5), (4.4, 5, {"doubt": "changed"})], None),
        ([(5.0, 0.5), (4.4, 5, {"doubt": "changed", "confirmed": True})], 0.6),
        ([(5.0, 0.5), (4.4, 5, {"simulated": True})], None),
        ([(5.0, 0.5), (4.4, 5, {"taken_back": True})], None),
        ([(5.0, 0.5), (4.9, 5, {"direction": "shortest"})], None),  # unlike is not compared
    ],
)
def test_what_a_string_came_down_by(taken: list[Taken], fell: float | None) -> None:
    state, computed = read_after(*taken)
    wanted = [] if fell is None else [fell * at_bridge(state, computed, 0)]
    assert settled_here(state, computed) == pytest.approx(wanted)


def test_nothing_is_known_of_it_before_the_bridge_is() -> None:
    state, _ = read_after((5.0, 0.5), (4.9, 5))
    assert settled_here(state, None) == []


def test_what_it_may_still_come_down_by_follows_from_here_and_from_before() -> None:
    """Two caliper's readings make each difference: √2 of its scatter, at the bridge."""
    state, computed = read_after((5.0, 0.5), (4.9, 5))
    state = replace(state, learnt=replace(state.learnt, settled=(0.08, 0.04)))
    at = at_bridge(state, computed, 0)
    scatter = 2**0.5 * tools()["caliper"].scatter * at
    assert settles_by(state, computed) == pytest.approx(still_settles([0.08, 0.04, 0.1 * at], scatter=scatter))
