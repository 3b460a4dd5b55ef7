"""What a visit teaches: a hand's scatter over visits, what the strings of an instrument come down by."""

from __future__ import annotations

import pytest
from fidicula.core.readings.estimate import COVERS, NO_REPEATS, Repeats, repeats_of, scatter_of
from fidicula.core.readings.settling import still_settles


def test_nothing_seen_leaves_a_tenth() -> None:
    """0.06 and 1.28 × √(0.02² + 0.025²)."""
    assert still_settles([], scatter=0.07) == pytest.approx(0.06 + 1.28 * 0.0320156, abs=1e-6)


def test_what_was_seen_weighs_against_the_usual() -> None:
    """Four strings came down by 0.10: 1 / 0.02² = 2500 of the usual, 4 / (0.025² + 0.05²) = 1280 of them."""
    mean = (0.06 * 2500 + 0.1 * 1280) / 3780
    assert still_settles([0.1] * 4, scatter=0.05) == pytest.approx(mean + 1.28 * (1 / 3780 + 0.025**2) ** 0.5)
    assert still_settles([0.02] * 8, scatter=0.05) < still_settles([], scatter=0.05)
    assert still_settles([-1.0] * 50, scatter=0.05) == 0.0


def test_earlier_visits_count_as_forty_repeats_at_most() -> None:
    """A hand of 0.02 over 400 repeats, with a tool's 0.05 that counts as eight."""
    before = Repeats(400 * 0.02**2, 400)
    variance = (8 * 0.05**2 + 40 * 0.02**2) / 48
    widened = 1 + (COVERS**2 + 1) / (4 * 48)
    assert scatter_of(NO_REPEATS, start=0.05, before=before) == pytest.approx(variance**0.5 * widened)
    here = repeats_of([[5.0, 5.2]])
    assert scatter_of(here, start=0.05, before=before) > scatter_of(NO_REPEATS, start=0.05, before=before)
