"""A plan that is kept from one computation to the next is the one that would be made anew."""

from __future__ import annotations

from dataclasses import replace

import pytest
from fidicula.judgement.assessment.computing import Computed, compute
from fidicula.judgement.visit_record import VisitRecord

from ...scenario import NOW, Bench, measured
from ...views.test_looked_over_pages import whole


def computed(loaded: VisitRecord) -> Computed:
    found = compute(replace(loaded.state(), now=NOW))
    assert isinstance(found, Computed)
    return found


@pytest.mark.parametrize("bench", [whole("violin"), measured(over=0.5)], ids=["whole", "card"])
def test_a_kept_plan_follows_every_reading(bench: Bench) -> None:
    before = bench.loaded()
    computed(before)
    differs = set()
    for measure in sorted({one.measure for one in bench.readings}):
        moved = replace(
            bench,
            readings=[
                replace(one, value=one.value * 1.03) if one.measure == measure and not one.position else one
                for one in bench.readings
            ],
        )
        kept = computed(replace(moved.loaded(), rules=before.rules))
        assert kept == computed(moved.loaded()), measure
        if kept != computed(bench.loaded()):
            differs.add(measure)
    assert differs >= {"projection", "string_length", "fingerboard_length", "bridge_spread", "end_height", "slot_depth"}
