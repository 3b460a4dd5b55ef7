"""The trail of an instrument's sound, from its records."""

from __future__ import annotations

import pytest
from fidicula.views.adjustments.records import TrailRecords
from fidicula.views.adjustments.view import made_trail

from ...scenario import Bench


@pytest.mark.parametrize(("family", "diameter"), [("violin", 6.0), ("cello", 11.0), ("bass", 18.0)])
def test_the_post_is_as_thick_as_the_family_has_it_where_nobody_measured_one(family: str, diameter: float) -> None:
    loaded = Bench(family).loaded()
    records = TrailRecords([loaded.visit], loaded.works, loaded.readings, [], [], [], [], False, "", False, [])
    assert made_trail(loaded, records).post_diameter == diameter
