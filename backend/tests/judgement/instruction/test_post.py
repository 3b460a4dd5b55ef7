"""The post: down, it comes before everything that needs tension; set, or gauged, it is down no more, anywhere."""

from __future__ import annotations

from datetime import timedelta

import pytest
from fidicula.codes import MeasureCode
from fidicula.judgement.assessment.inspection import post_is_down
from fidicula.judgement.assessment.post import post_target
from fidicula.views.sheet.inspection import item_views

from ...scenario import NOW, Bench, measured


def fallen() -> Bench:
    return measured(over=1.0).found("post", "post_fallen")


def test_a_post_that_is_down_is_set_before_anything_that_needs_tension() -> None:
    bare = Bench(has_strings=False)
    for bench in (
        fallen(),
        Bench().found("post", "post_fallen"),
        bare.found("post", "post_fallen"),
    ):
        told = bench.told()
        assert (told.code, told.records, told.is_decided) == ("set_post", "post_set", False)
        assert told.also == ()
    assert fallen().assess().barring("crown_cut") is not None
    assert fallen().assess().barring("strings_changed") is not None


def test_set_it_is_down_no_more() -> None:
    bench = fallen().did("post_set")
    a = bench.assess()
    assert not post_is_down(a.state)
    assert "post_fallen" not in a.signs
    assert a.question("post_fallen") is None
    assert bench.told().code == "measure"
    assert not any("inside" in line for line in bench.sheet().proposals)


def test_gauged_after_it_was_found_down_it_stands() -> None:
    bench = fallen()
    bench.now = NOW + timedelta(minutes=20)
    bench.read("post_setback", 2.0, 2.1)
    assert not post_is_down(bench.assess().state)
    before = fallen()
    before.now = NOW - timedelta(minutes=20)
    before.read("post_setback", 2.0, 2.1)
    assert post_is_down(before.assess().state)


def test_found_down_again_it_is_down_again() -> None:
    assert fallen().did("post_set").found("post", "post_fallen").told().code == "set_post"


def test_the_setters_target_is_the_schools() -> None:
    told = fallen().told()
    target = post_target(fallen().assess().state)
    assert target is not None
    assert told.values("setback") == {None: target.setback}
    assert told.values("inset") == {None: target.inset}


@pytest.mark.parametrize(
    ("school", "measure", "value", "expected"),
    [("half_foot", "bridge_foot_thickness", 4.8, 2.4), ("near", "bridge_foot_thickness", 4.8, 1.0)],
)
def test_half_a_foot_is_half_of_the_foot_that_was_read(
    school: str, measure: MeasureCode, value: float, expected: float
) -> None:
    """What was read counts before any figure; a fixed distance takes nothing of it."""
    bench = measured(schools={"post_setback": school}).read(measure, value)
    found = post_target(bench.assess().state)
    assert found is not None
    assert found.setback == pytest.approx(expected)


def test_half_a_post_is_half_of_the_post_that_stands() -> None:
    state = measured(schools={"post_setback": "half_post"}).assess().state
    by_figure, by_post = post_target(state), post_target(state, post_diameter=6.6)
    assert by_figure is not None
    assert by_post is not None
    assert by_post.setback == pytest.approx(3.3)
    assert (by_figure.is_read, by_post.is_read) == (False, True)
    assert by_figure.setback != by_post.setback


def test_a_post_that_was_set_since_lies_inside_no_more_in_the_inspection_either() -> None:
    bench = measured(kind="full_set_up").found("post", "post_fallen")
    before = next(one for one in item_views(bench.assess().state, "full_set_up") if one.item == "post")
    assert (before.mended, before.is_mended) == ([], False)
    bench.did("post_set")
    after = next(one for one in item_views(bench.assess().state, "full_set_up") if one.item == "post")
    assert (after.mended, after.is_mended) == (["it lies inside"], True)
