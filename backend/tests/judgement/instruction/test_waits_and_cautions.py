"""Nothing is brought up to pitch over fresh glue, whatever the visit is for; and every work says what can hurt."""

from __future__ import annotations

from datetime import timedelta

import pytest
from fidicula.codes import VisitKindCode, WorkCode
from fidicula.domain.errors import ConflictError
from fidicula.services.bench.gates import check_may_be_done
from fidicula.tables.pricing import work_steps
from fidicula.tables.work import works
from fidicula.tables.workflow import UNDER_TENSION, instructions, steps, visit_kinds, waits

from ...scenario import Bench, measured

GLUED = sorted({wait.work for wait in waits()["change"]})
"""Works after which no string comes up to pitch for a while."""
MINUTE = timedelta(minutes=1)


def loads(bench: Bench, work: WorkCode = "strings_changed") -> None:
    check_may_be_done(bench.assess(), work, despite_slips=True)


def test_every_glue_joint_rests() -> None:
    """Steps of a work that glue and are waited for have their row, and the other way round."""
    glued = {
        work
        for work, own in work_steps().items()
        if any(step.waits for step in own) and works()[work].part in ("body", "neck", "board", "bar", "nut")
    } | {"saddle_fitted"}
    assert glued - {"board_dressed", "slot_filled"} == set(GLUED)
    assert {wait.work for wait in waits()["nut"]} >= {"board_dressed", "slot_filled"}


@pytest.mark.parametrize("kind", visit_kinds())
@pytest.mark.parametrize("work", GLUED)
def test_no_string_comes_up_over_fresh_glue_in_any_visit(kind: VisitKindCode, work: WorkCode) -> None:
    bench = measured(kind=kind)
    loads(bench)
    fresh = bench.copy().did(work, ago=MINUTE)
    with pytest.raises(ConflictError, match=r"(glue|strings).*end the wait, with a reason"):
        loads(fresh)
    stops = [stop for stop in fresh.assess().stops if stop.key in UNDER_TENSION and stop.state == "waiting"]
    assert stops
    loads(bench.copy().did(work, ago=timedelta(hours=49)))


@pytest.mark.parametrize("work", GLUED)
def test_who_says_once_that_it_holds_ends_all_of_its_waits(work: WorkCode) -> None:
    fresh = measured().did(work, ago=MINUTE).marked("crown", "go_on")
    loads(fresh)
    assert not [stop for stop in fresh.assess().stops if stop.state == "waiting"]


def test_a_work_after_that_waits_anew() -> None:
    bench = measured().did("seam_glued", ago=MINUTE).marked("crown", "go_on").did("board_glued", ago=MINUTE)
    with pytest.raises(ConflictError, match="under the board"):
        loads(bench)


@pytest.mark.parametrize("work", works())
def test_every_work_says_what_can_hurt_or_that_nothing_can(work: WorkCode) -> None:
    row = works()[work]
    assert row.caution.endswith((".", "?"))
    assert (row.danger is None) == row.caution.startswith("No danger")


def test_what_is_told_carries_the_caution_of_its_work() -> None:
    for row in instructions().values():
        work = row.records or row.careful
        if work is not None:
            assert works()[work].caution
    for step in steps().values():
        assert step.instructs
        told = instructions()[step.instructs]
        if step.works:
            assert told.records or told.careful or step.step == "post"
    crown = measured(over=1.0).sheet().instruction
    assert (crown.record.work if crown.record else "", crown.caution) == ("crown_cut", works()["crown_cut"].danger)


@pytest.mark.parametrize(
    ("words", "of"),
    [
        ("eye", ("strings_changed", "bridge_pulled_up")),
        ("nife|lade", ("feet_refitted", "openings_cut", "bar_repaired", "bridge_wood")),
        ("urn", ("bridge_straightened", "seam_glued", "crack_repaired", "board_glued", "neck_reset")),
        ("solvent", ("cleaned",)),
        ("ust of", ("board_dressed", "board_replaced", "new_nut", "nut_filed", "slot_filled")),
        ("guard", ("new_bridge", "board_replaced")),
        ("post", ("tension_let_off", "tailgut_changed", "button_fitted", "post_set", "strings_changed")),
    ],
)
def test_each_danger_is_named_at_its_works(words: str, of: tuple[WorkCode, ...]) -> None:
    for work in of:
        assert any(word in works()[work].caution for word in words.split("|")), work
