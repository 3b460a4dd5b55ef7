"""What strings still settle by, weighed by a pencil."""

from __future__ import annotations

import pytest
from fidicula.core.readings.settling import still_settles


@pytest.mark.parametrize(
    ("seen", "scatter", "left"),
    [([], 0.05, 0.10098), ([0.2, 0.2], 0.05, 0.127851), ([0.1], 0.02, 0.109898), ([-0.5] * 4, 0.01, 0.0)],
)
def test_what_was_seen_and_what_is_usual_weigh_together(seen: list[float], scatter: float, left: float) -> None:
    """Of two that dropped 0.2, known to 0.05: variances 0.003125 and 0.0004; their mean 0.0886, and 1.28 of 0.0307."""
    assert still_settles(seen, scatter=scatter) == pytest.approx(left, abs=1e-6)
