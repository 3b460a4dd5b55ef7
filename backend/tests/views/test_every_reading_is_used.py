"""Whatever is asked for is used: a reading that is another one changes a judgement, a question, a page or a target."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest
from fidicula.codes import MeasureCode
from fidicula.core.errors import CoreError
from fidicula.judgement.measures import MEASURES
from fidicula.services.visits.pages import PAGES
from fidicula.words.findings import found_words

from ..scenario import Bench
from .test_looked_over_pages import paged, text, whole

SHARES = (1.25, 0.8, 3.0, 0.2, 8.0)
FAMILIES = ("violin", "cello", "bass")
ALONE: dict[str, tuple[float, ...]] = {
    "neck_thickness": (19.0, 21.0), "board_tilt": (1.0,), "board_angle": (8.0,), "string_diameter": (0.8, 0.8),
    "end_margin": (5.0, 5.0), "bridge_heart": (8.0,), "bridge_kidney": (9.0, 9.0), "bridge_leg": (20.0,),
    "foot_spread": (31.0,), "peg_standout": (2.0,), "nut_slot_width": (0.9,), "nut_slot_depth": (0.3,),
    "nut_passes": (0.5,), "nut_stops": (0.6,), "old_footprint": (2.0,), "bridge_lean": (-1.0,),
    "bridge_warp": (0.5,), "bridge_turn": (0.5,), "string_mark_nut": (4.0, 9.0, 14.0, 19.0),
    "string_mark_bridge": (4.0, 15.0, 26.0, 37.0), "string_centres_nut": (5.4, 5.4, 5.4),
    "string_centres_bridge": (11.0, 11.0, 11.0), "string_gap_nut": (4.6, 4.6, 4.6),
    "string_gap_bridge": (10.4, 10.4, 10.4),
    "button_standout": (2.0,), "adjuster_spread": (90.0,), "thread_pitch": (1.25,),
    "wheel_room": (1.0, 1.0), "edge_hollow": (0.3, 0.3), "foot_gap": (0.1, 0.1),
}  # fmt: skip
"""What stands in no picture of an instrument on which all is read, because it tells the same by another way."""


def said(bench: Bench) -> list[Any]:
    """Everything that is judged and shown, but for the reading itself."""
    a = bench.assess()
    found: list[Any] = [
        sorted(a.signs),
        [(one.question, one.recommended) for one in a.questions],
        [(one.code, one.subject) for one in a.slips],
        [(one.part, one.state, len(one.off)) for one in a.parts],
        [(one.wood, one.drop, one.nut_to_file, one.uncertainty) for one in a.cut.strings],
        found_words(a.state),
    ]
    for name in PAGES:
        if name != "wheels" or bench.family in ("cello", "bass"):
            try:
                found.append(text(paged(bench, name, {})))
            except CoreError as error:
                found.append(error.sentence)
    return found


def with_it(family: str, measure: MeasureCode) -> Bench:
    """A whole instrument, on which this is read as well, and nothing that tells the same."""
    bench = whole(family)
    # What that picture has of a violin only.
    radius = {"violin": 41.5, "cello": 62.5, "bass": 77.0}[family]
    bench = bench.without("fingerboard_radius_middle").without("fingerboard_radius_nut")
    bench.read("fingerboard_radius_middle", radius).read("fingerboard_radius_nut", radius)
    bench.read("neck_to_nick", 130.0, 130.4)
    if measure == "break_angle":
        bench = bench.without("arch_height")
    if measure == "nut_margin":
        bench.read("string_centres_nut", 5.4, 5.4, 5.4)
    if any(one.measure == measure for one in bench.readings):
        return bench
    if measure in ("nut_passes", "nut_stops"):
        bench = bench.without("nut_height")
    places = MEASURES[measure].positions(len(bench.loaded().instrument.string_names))
    values = (ALONE[measure] * len(places))[: len(places)]
    if measure == "neck_thickness":
        values = {"violin": (19.0, 21.0), "cello": (28.0, 31.0), "bass": (41.0, 45.0)}[family]
    return bench.read(measure, *values)


RECORD_ONLY = {"humidity", "temperature", "bridge_heart", "bridge_leg", "peg_standout", "button_standout"}
"""Kept for whoever compares it at the next visit; no step, question or recheck asks for it."""


@pytest.mark.parametrize("measure", sorted(RECORD_ONLY))
def test_what_is_only_kept_is_asked_for_by_nothing(measure: MeasureCode) -> None:
    row = MEASURES[measure]
    assert not row.needed
    assert not row.card
    for family in FAMILIES:
        if row.fits(family):
            bench = whole(family).without(measure)
            assert all(key[0] != measure for key in bench.told().keys)


@pytest.mark.parametrize(
    ("family", "measure"),
    [
        (family, name)
        for family in FAMILIES
        for name, row in MEASURES.items()
        if row.fits(family) and name not in RECORD_ONLY
    ],
)
def test_a_reading_that_is_another_changes_what_is_said(family: str, measure: MeasureCode) -> None:
    bench = with_it(family, measure)
    before = said(bench)
    others = (
        replace(
            bench,
            readings=[
                replace(one, value=one.value * share + 0.01)
                if one.measure == measure and one.position in (None, 0)
                else one
                for one in bench.readings
            ],
        )
        for share in SHARES
    )
    assert any(said(other) != before for other in others)
