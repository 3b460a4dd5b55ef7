"""Conditions written with signs, and that the tables of the course know only what there is."""

from __future__ import annotations

import pytest
from fidicula.tables.rows import TableError
from fidicula.tables.signs import computed_signs, findings, findings_of, items, shots, when
from fidicula.tables.sound import advice
from fidicula.tables.work import rests_on, works
from fidicula.tables.workflow import questions, steps, visit_kinds, waits

KNOWN = {"damp", "dry", "same"}


@pytest.mark.parametrize(
    ("text", "signs", "holds", "shown"),
    [
        ("damp", {"damp"}, True, ["damp"]),
        ("damp not:same | dry not:same", {"dry"}, True, ["dry"]),
        ("damp not:same | dry not:same", {"dry", "same"}, False, []),
        ("damp dry", {"damp"}, False, []),
        ("", {"damp"}, False, []),
        (None, set(), False, []),
    ],
)
def test_a_condition_holds_when_one_of_its_ways_does(
    text: str | None, signs: set[str], holds: bool, shown: list[str]
) -> None:
    """All signs of a way together, or, after a bar, all of another; an empty one never."""
    found = when(text, known=KNOWN, table="t")
    assert found.holds(signs) is holds
    assert found.shown(signs) == shown


def test_a_sign_that_nobody_can_see_stops_the_start() -> None:
    with pytest.raises(TableError, match=r"t\.csv: nobody can see or work out “varnish”"):
        when("damp varnish", known=KNOWN, table="t")


def test_no_sign_is_there_for_nothing() -> None:
    """Every sign that is worked out asks or advises something."""
    used = {sign for row in advice() for sign in row.against.signs}
    for asked in questions().values():
        used |= asked.asked_when.signs
        for outcome in asked.outcomes:
            used |= outcome.advised_when.signs | outcome.offered_when.signs
    assert set(computed_signs()) <= used


@pytest.mark.parametrize("family", ["violin", "viola", "cello", "bass"])
def test_every_item_that_a_family_has_can_show_something(family: str) -> None:
    assert all(rows for rows in findings_of(family).values())
    assert {"nut", "post", "bridge"} <= findings_of(family).keys()


def test_what_a_finding_leads_to_is_a_work_that_there_is() -> None:
    for row in findings().values():
        assert all(work in works() for work in row.works)
        assert row.verdict in ("fine", "watch", "work")
    assert all(row.item in items() for row in shots().values())


def test_every_kind_of_visit_can_come_to_its_end() -> None:
    """Each step of a course is done by a work, by what the bench shows, or by somebody's word."""
    for kind in visit_kinds().values():
        stops = kind.stops.split()
        assert len(stops) == len(set(stops))
        if kind.kind in ("strings", "recheck"):
            assert len(stops) <= 4
    assert {"change", "nut", "crown"} <= {name for name, step in steps().items() if step.works}


def test_what_cannot_be_undone_rests_on_readings_and_glue_is_waited_for() -> None:
    assert rests_on()["crown_cut"] >= {"end_height", "nut_height", "slot_depth", "projection"}
    assert {row.work for row in waits()["crown"]} >= {"new_nut", "wedge_fitted", "neck_reset"}
