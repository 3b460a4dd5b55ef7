"""Board, spacing, questions and waits: what the assessment makes of readings, and where its limits are."""

from __future__ import annotations

from datetime import timedelta

import pytest
from fidicula.judgement.assessment.scoop import dressings, is_too_thin
from fidicula.judgement.assessment.signs import spacing_is_off

from ...scenario import Bench, measured

AS_WANTED = (0.53, 0.70, 0.53, 0.38, 0.50, 0.38)


def board(*relief: float | None, thick: tuple[float, ...] = ()) -> Bench:
    bench = measured().read("relief", *relief)
    return bench.read("fingerboard_thickness", *thick) if thick else bench


def test_a_side_is_planed_once_all_its_places_are_read() -> None:
    assert dressings(measured().assess().state) == {}
    assert list(dressings(board(0.5, 0.7, 0.5).assess().state)) == [0]
    assert list(dressings(board(None, None, None, 0.4, 0.5, 0.4).assess().state)) == [1]
    assert list(dressings(board(0.5, 0.7, None, 0.4, 0.5, 0.4).assess().state)) == [1]
    assert list(dressings(board(*AS_WANTED).assess().state)) == [0, 1]


def test_an_edge_is_too_thin_by_what_a_fault_would_take_off() -> None:
    """A hump of the bass side has to come off; the same edge with a board as wanted stays."""
    least = measured().assess().state.targets.others["fingerboard_thickness_min"].band.low
    humped = (0.10, 0.10, 0.10, *AS_WANTED[3:])

    def thin(relief: tuple[float, ...], *thick: float) -> bool:
        state = board(*relief, thick=thick).assess().state
        return is_too_thin(state, dressings(state))

    assert not thin(AS_WANTED, least, least)
    assert thin(AS_WANTED, least - 0.2, least)
    assert thin(AS_WANTED, least, least - 0.2)
    assert thin(humped, least, least + 5)
    assert not thin(humped, least + 5, least)
    assert not is_too_thin(measured().assess().state, {})


@pytest.mark.parametrize(("spread", "stands"), [(33.5, "in_order"), (36.5, "above"), (32.0, "below")])
def test_strings_in_band_say_nothing_of_their_spread(spread: float, stands: str) -> None:
    """Each height is as wanted: the bridge is in order only where the rest of it is as well."""
    bridge = next(p for p in measured(singles={"bridge_spread": spread}).assess().parts if p.part == "bridge")
    assert bridge.state == stands


def test_spacing_is_off_where_it_is_narrow_or_uneven() -> None:
    """Even steps of 11.2 are right; the same width with one step of 10 and one of 12.4 is not."""
    low = measured().assess().state.wanted(("bridge_spread", None))
    assert low is not None
    assert not spacing_is_off(measured(singles={"bridge_spread": low.band.low}).assess().state)
    assert spacing_is_off(measured(singles={"bridge_spread": low.band.low - 0.3}).assess().state)

    def by_marks(*marks: float) -> bool:
        return spacing_is_off(measured().read("string_mark_bridge", *marks).assess().state)

    assert not by_marks(0.0, 11.2, 22.4, 33.6)
    assert by_marks(0.0, 10.0, 22.4, 33.6)
    assert by_marks(0.0, 12.4, 22.4, 33.6)


def test_a_decision_is_over_once_its_work_moved_what_it_was_made_on() -> None:
    bench = measured(singles={"projection": 25.0}).decided("projection", "wedge")
    asked = bench.assess().question("projection")
    assert asked is not None
    assert asked.outcome is not None
    assert asked.outcome.outcome == "wedge"
    bench.did("wedge_fitted").read("projection", 25.7)
    after = bench.assess().question("projection")
    assert after is not None
    assert after.outcome is None
    bench.decided("projection", "accept", reason="a low arch")
    last = bench.assess().question("projection")
    assert last is not None
    assert last.outcome is not None
    assert last.outcome.outcome == "accept"


def test_a_decision_lapses_when_what_it_was_made_on_moves() -> None:
    bench = measured(singles={"projection": 25.0}).decided("projection", "accept", reason="a low arch")
    assert bench.assess().question("projection") is not None
    moved = bench.read("projection", 24.3).assess().question("projection")
    assert moved is not None
    assert moved.outcome is None


def test_a_glued_wedge_is_waited_for_and_the_longest_wait_counts() -> None:
    bench = measured(singles={"projection": 25.0}).decided("projection", "wedge")
    bench.did("wedge_fitted", ago=timedelta(hours=1)).read("projection", 27.0)
    waiting = [stop for stop in bench.assess().stops if stop.state == "waiting"]
    assert waiting
    assert all(stop.until is not None and stop.until > bench.now for stop in waiting)
    long_ago = measured(singles={"projection": 25.0}).decided("projection", "wedge")
    long_ago.did("wedge_fitted", ago=timedelta(days=10)).read("projection", 27.0)
    assert [stop for stop in long_ago.assess().stops if stop.state == "waiting" and stop.key != "rest"] == []


@pytest.mark.parametrize(("school", "order"), [("nut_first", "nut crown"), ("bridge_first", "crown nut")])
def test_the_shops_order_moves_the_nut(school: str, order: str) -> None:
    keys = [stop.key for stop in measured(over=1.0, schools={"nut_order": school}).assess().stops]
    assert [key for key in keys if key in ("nut", "crown")] == order.split()
