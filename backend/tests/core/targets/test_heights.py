"""Wanted heights from bands and schools."""

from __future__ import annotations

import pytest
from fidicula.core.bands import Band, outside_by, side_of_band
from fidicula.core.errors import CoreError
from fidicula.core.targets.heights import bands_across, end_height_band

FAMILY = Band(4.5, 5.0, 5.5)


@pytest.mark.parametrize(
    ("part", "band"),
    [
        ("whole", Band(4.5, 5.0, 5.5)),
        ("upper_half", Band(5.0, 5.25, 5.5)),
        ("lower_half", Band(4.5, 4.75, 5.0)),
        ("own", Band(4.5, 5.0, 5.5)),
    ],
)
def test_each_school_takes_its_part_of_the_band(part: str, band: Band) -> None:
    assert end_height_band(family_band=FAMILY, part=part) == band  # type: ignore[arg-type]


def test_material_and_newness_move_the_whole_band() -> None:
    band = end_height_band(family_band=FAMILY, part="whole", additions=[0.5, 0.3])
    assert (band.low, band.aim, band.high) == pytest.approx((5.3, 5.8, 6.3))


def test_bands_fall_evenly_across_the_strings() -> None:
    bands = bands_across(bass=Band(0.4, 0.5, 0.6), treble=Band(0.1, 0.2, 0.3), count=4)
    assert [band.aim for band in bands] == pytest.approx([0.5, 0.4, 0.3, 0.2])


def test_limits_count_as_in_band() -> None:
    assert side_of_band(value=5.5, band=FAMILY) == "in_band"
    assert side_of_band(value=5.51, band=FAMILY) == "above"
    assert side_of_band(value=4.4, band=FAMILY) == "below"
    assert outside_by(value=4.4, band=FAMILY) == pytest.approx(-0.1)
    assert outside_by(value=5.6, band=FAMILY) == pytest.approx(0.1)
    assert outside_by(value=5.0, band=FAMILY) == 0


@pytest.mark.parametrize(("low", "aim", "high", "field"), [(5, 5, 4, "high"), (4, 6, 5, "aim")])
def test_a_band_out_of_order_is_refused(low: float, aim: float, high: float, field: str) -> None:
    with pytest.raises(CoreError) as refused:
        Band(low, aim, high)
    assert refused.value.path == (field,)
