"""What a height is by all its readings and what was filed, worked by hand, and by chance."""

from __future__ import annotations

import math
from random import Random

import pytest
from fidicula.core.readings.estimate import COVERS, Lowered, Read, estimated, more_readings, repeats_of, scatter_of


def test_before_the_first_reading_nothing_is_known() -> None:
    assert estimated([]) is None
    assert estimated([Lowered(0.2, 0.05)]) is None


def test_repeats_weigh_alike_and_make_it_surer() -> None:
    """Four readings of 0.05: their mean, known to a half of 0.05."""
    found = estimated([Read(value, 0.05) for value in (5.90, 5.84, 5.86, 5.88)])
    assert found is not None
    assert found.value == pytest.approx(5.87)
    assert found.deviation == pytest.approx(0.025)
    assert found.known_to == pytest.approx(1.05 * 1.96 * 0.025)


def test_a_finer_reading_weighs_more_by_the_square() -> None:
    """0.03 against 0.06: four fifths and one fifth; 1 / sqrt(1/0.03² + 1/0.06²)."""
    found = estimated([Read(5.0, 0.06), Read(5.5, 0.03)])
    assert found is not None
    assert found.anew
    near = estimated([Read(5.0, 0.06), Read(5.1, 0.03)])
    assert near is not None
    assert near.value == pytest.approx(5.08)
    assert near.deviation == pytest.approx(1 / math.sqrt(1 / 0.03**2 + 1 / 0.06**2))
    assert not near.anew


def test_what_was_filed_brings_it_down_and_leaves_it_less_sure() -> None:
    """5.90 known to 0.03, filed by 0.30 that may miss by 0.04: 5.60 and 0.05; a reading of 5.56 weighs the same."""
    filed: list[Read | Lowered] = [Read(5.90, 0.03), Lowered(0.30, 0.04)]
    found = estimated(filed)
    assert found is not None
    assert (found.value, found.deviation) == (pytest.approx(5.60), pytest.approx(0.05))
    again = estimated([*filed, Read(5.56, 0.05)])
    assert again is not None
    assert again.value == pytest.approx(5.58)


def test_a_cut_that_took_far_more_than_was_said_starts_anew() -> None:
    """0.30 was to go and 0.70 went: 0.4 off, where 4.65 times 0.0707 is 0.33."""
    found = estimated([Read(5.90, 0.03), Lowered(0.30, 0.04), Read(5.20, 0.05)])
    assert found is not None
    assert (found.value, found.deviation, found.anew) == (5.20, 0.05, True)
    after = estimated([Read(5.90, 0.03), Lowered(0.30, 0.04), Read(5.20, 0.05), Read(5.22, 0.05)])
    assert after is not None
    assert after.anew
    assert after.value == pytest.approx(5.21)


def test_scatter_goes_over_from_the_tools_to_the_hands_own() -> None:
    """Eight of the tool's 0.05; pairs 0.04 apart add 0.0008 and one each; widened by (1.96² + 1) / (4 n)."""
    assert scatter_of(repeats_of([]), start=0.05) == pytest.approx(0.05 * (1 + (COVERS**2 + 1) / 32))
    two = scatter_of(repeats_of([[5.0, 5.04], [4.0, 4.04]]), start=0.05)
    assert two == pytest.approx(math.sqrt((8 * 0.0025 + 2 * 0.0008) / 10) * (1 + (COVERS**2 + 1) / 40))
    alone = scatter_of(repeats_of([[5.0]]), start=0.05)
    assert alone == scatter_of(repeats_of([]), start=0.05)
    # As many earlier ones as there are, up to forty.
    before = repeats_of([[5.0, 5.04]] * 10)
    assert scatter_of(before, start=0.05) == pytest.approx(scatter_of(repeats_of([]), start=0.05, before=before))
    many = scatter_of(repeats_of([[0.0, 0.2]] * 2000), start=0.05)
    assert many == pytest.approx(math.sqrt(0.02), rel=0.01)


@pytest.mark.parametrize(
    ("deviation", "known_to", "more"),
    [
        (math.inf, 0.098, 1),  # one reading of 0.05 covers by 0.098
        (math.inf, 0.097, 2),
        (0.05, 0.05, 3),  # (1.96 / 0.05)² is 1537, 400 of it there: 2.84 readings
        (0.02, 0.05, 0),
        (0.0, 0.05, 0),
    ],
)
def test_how_many_readings_more(deviation: float, known_to: float, more: int) -> None:
    assert more_readings(deviation=deviation, scatter=0.05, known_to=known_to) == more


def test_a_coarse_tool_takes_many_readings() -> None:
    """(1.96 / 0.3)² is 42.7, of which 1 / 0.81 is there: 41.4 · 4 is 165.8 readings with a scatter of 2."""
    assert more_readings(deviation=0.9, scatter=2, known_to=0.3) == 166


def test_what_covers_95_percent_does() -> None:
    """Ten thousand strings read three times, filed by 0.3 and read twice again."""
    chance = Random(17)
    covered = 0
    for _ in range(10_000):
        truly = 5.0
        events: list[Read | Lowered] = [Read(chance.gauss(truly, 0.05), 0.05) for _ in range(3)]
        truly -= chance.gauss(0.3, 0.04)
        events.append(Lowered(0.3, 0.04))
        events += [Read(chance.gauss(truly, 0.05), 0.05) for _ in range(2)]
        found = estimated(events)
        assert found is not None
        covered += abs(found.value - truly) <= COVERS * found.deviation
    assert 0.94 <= covered / 10_000 <= 0.96
