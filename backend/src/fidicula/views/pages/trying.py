"""An instrument as it would be under other targets and readings: what the bridge and nut pages try."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from fidicula.core.bands import Band
from fidicula.core.readings.states import MeasurementKey
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.targets.wanted import Targets, Wanted
from fidicula.views.pages.bench import PageBench

TRIED = "tried here"


def aims_at(bench: PageBench, aims: Mapping[MeasurementKey, float], *, crown_radius: float | None = None) -> Targets:
    """The targets with other aims. aims : by place, as their figures are meant. [mm]"""
    targets = bench.state.targets
    places = dict(targets.places)
    for place, aim in aims.items():
        before = targets[place]
        if before is not None:
            places[place] = replace(before, band=_around(before.band, aim), source=TRIED)
    crown = targets.crown_radius
    if crown is not None and crown_radius is not None:
        crown = replace(crown, band=_around(crown.band, crown_radius), source=TRIED)
    # What was planned for the targets before is not theirs.
    return replace(targets, places=places, crown_radius=crown, planned={}, untouched={})


def tried_state(
    bench: PageBench, targets: Targets, readings: Mapping[MeasurementKey, float], *, shift: float
) -> BenchState:
    """readings : tried instead of what was read. [mm]  shift : of the strings at the bridge. [mm]"""
    return replace(bench.state, targets=targets, tried=dict(readings), bridge_shift=shift)


def aim_of(wanted: Wanted | None) -> float | None:
    return None if wanted is None else wanted.band.aim


def _around(band: Band, aim: float) -> Band:
    """A band as wide as before, with another aim."""
    return Band(aim - (band.aim - band.low), aim, aim + (band.high - band.aim))
