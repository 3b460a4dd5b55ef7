"""Where a string meets the tailpiece: the triangle behind the bridge, worked by hand."""

from __future__ import annotations

import pytest
from fidicula.core.errors import DoesNotFitError
from fidicula.core.geometry.string_lines import height_at_tailpiece


def test_a_string_falls_by_its_angle_over_the_afterlength() -> None:
    """tan 22° is 0.4040: over 54 mm it falls 21.82. A string that is not bent stays as high as it was."""
    assert height_at_tailpiece(mark_height=6, afterlength=54, break_angle=158) == pytest.approx(6 - 21.817, abs=1e-3)
    assert height_at_tailpiece(mark_height=6, afterlength=54, break_angle=180) == pytest.approx(6)


@pytest.mark.parametrize("angle", [90, 0, 181])
def test_an_angle_that_no_string_has_is_refused(angle: float) -> None:
    with pytest.raises(DoesNotFitError, match="over 90 up to 180"):
        height_at_tailpiece(mark_height=6, afterlength=54, break_angle=angle)
