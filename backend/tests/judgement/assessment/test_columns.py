"""A column of heights stands in one direction, whatever each string was read with."""

from __future__ import annotations

from dataclasses import replace
from math import sqrt

import pytest
from fidicula.judgement.assessment.columns import columns
from fidicula.views.sheet.cell import Cell

from ...scenario import Bench, measured


def ends(bench: Bench) -> list[Cell]:
    return [cell for cell in bench.sheet().cells if cell.measure == "end_height"]


def with_wedge(bench: Bench, *positions: int) -> Bench:
    """Those strings' end heights were read the shortest way, as the same figures."""
    bench.readings = [
        replace(one, tool="wedge", direction="shortest")
        if one.measure == "end_height" and one.position in positions
        else one
        for one in bench.readings
    ]
    return bench


def test_what_one_wedge_read_stands_straight_up_among_the_others() -> None:
    """Straight up is more than the shortest way to the round of a string of 0.8; typed it stays what it was."""
    as_read = ends(measured(over=0.5))[0].value
    bench = with_wedge(measured(over=0.5), 0)
    state, cells = bench.assess().state, ends(bench)
    assert state.geometry is not None
    assert as_read is not None
    radius, offset = state.geometry.board.radius_end, state.geometry.lines[0].end_offset
    upright = sqrt((radius + as_read + 0.4) ** 2 - offset**2) - 0.4 - sqrt(radius**2 - offset**2)
    assert cells[0].value == pytest.approx(upright)
    assert upright - as_read > 0.02
    assert [(cell.direction, cell.read) for cell in cells] == [("vertical", "shortest"), *[("vertical", None)] * 3]
    assert cells[0].typed == f"{as_read:g}"


def test_most_of_the_strings_say_which_direction_and_bands_and_targets_follow() -> None:
    upright = measured(over=0.0)
    bench = with_wedge(measured(over=0.0), 0, 1, 2)
    straight, short = ends(upright), ends(bench)
    assert {cell.direction for cell in short} == {"shortest"}
    assert [cell.read for cell in short] == [None, None, None, "vertical"]
    for up, way in zip(straight, short, strict=True):
        if up.band is not None and way.band is not None:
            assert way.band.aim < up.band.aim
    wanted = bench.sheet().wanted_heights
    assert wanted[0] == pytest.approx(short[0].band.aim if short[0].band else None)
    assert all((way or 0) < (up or 0) for way, up in zip(wanted, upright.sheet().wanted_heights, strict=True))


def test_as_many_either_way_stand_straight_up() -> None:
    assert {cell.direction for cell in ends(with_wedge(measured(), 0, 1))} == {"vertical"}


def test_what_cannot_be_turned_stands_as_it_was_read() -> None:
    """Without strings named nothing is known of their lines over the board."""
    bench = with_wedge(Bench(has_strings=False).read("end_height", 5.0, 4.8, 4.4, 4.0), 0)
    assert columns(bench.assess().state)["end_height"].direction is None
    assert [(cell.value, cell.direction, cell.read) for cell in ends(bench)] == [
        (5.0, "shortest", None),
        (4.8, "vertical", None),
        (4.4, "vertical", None),
        (4.0, "vertical", None),
    ]


def test_last_visit_stands_in_the_direction_of_its_column() -> None:
    bench = measured().last_visit("end_height", 5.0, 5.0, 5.0, 5.0)
    bench.readings = [one for one in bench.readings if one.measure != "end_height" or one.position in (1, 2)]
    with_wedge(bench, 1, 2)
    bench.earlier = {key: one for key, one in bench.earlier.items() if key[1] == 0}
    first = ends(bench)[0]
    assert first.direction == "shortest"
    assert first.last_time is not None
    assert first.last_time < 5.0


@pytest.mark.parametrize("stated", ["vertical", "shortest"])
def test_nothing_read_stands_as_the_shop_states_it(stated: str) -> None:
    bench = Bench(schools={"height_direction": stated})
    assert {one.direction for one in columns(bench.assess().state).values()} == {stated}
