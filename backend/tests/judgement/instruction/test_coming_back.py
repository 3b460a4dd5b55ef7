"""An instrument that comes back: what was read last time counts before any family figure, and is marked."""

from __future__ import annotations

import pytest
from fidicula.codes import MeasureCode

from ...scenario import Bench

LAST: dict[MeasureCode, float] = {"string_length": 684, "nut_spread": 25, "bridge_spread": 49}


def back(*, days: float = 300, works: tuple[str, ...] = ()) -> Bench:
    bench = Bench("cello", "recheck")
    for measure, value in LAST.items():
        bench.last_visit(measure, value, days=days, works=works)
    return bench


def test_a_recheck_computes_on_what_was_read_last_time() -> None:
    """A cello of 684 with 25 and 49 is no 690 with 22 and 47: only the heights are read again."""
    bench = back().read("end_height", 8.9, 8.2, 7.4, 6.4)
    a = bench.assess()
    assert a.computed is not None
    assert a.computed.board.string_length == 684
    offsets = [string.line.bridge_offset for string in a.computed.plan.strings]
    assert offsets[-1] - offsets[0] == pytest.approx(49)
    for measure in LAST:
        held = a.state.held(measure)
        assert held is not None
        assert (held.origin, held.assumed) == ("last_visit", False)
    assert "string length 684 (last visit)" in bench.sheet().cut.assumed
    cell = next(cell for cell in bench.sheet().cells if cell.measure == "nut_spread")
    assert (cell.is_last_visit, cell.state) == (True, "missing")


def test_what_is_read_now_counts_before_that() -> None:
    held = back().read("string_length", 686).assess().state.held("string_length")
    assert held is not None
    assert (held.value, held.origin) == (686, "read")


def test_work_in_between_makes_it_void() -> None:
    """A new bridge at a later visit: its spread and the string length are not those of then; the nut's is."""
    state = back(works=("new_bridge",)).assess().state
    origins = {measure: held.origin for measure in LAST if (held := state.held(measure)) is not None}
    assert origins == {"string_length": "figure", "nut_spread": "last_visit", "bridge_spread": "figure"}
    now = back().did("new_nut").assess().state.held("nut_spread")
    assert now is not None
    assert now.origin == "figure"


@pytest.mark.parametrize(("days", "origin"), [(20, "last_visit"), (28, "last_visit"), (29, "figure")])
def test_time_makes_a_projection_void(days: float, origin: str) -> None:
    bench = Bench("cello", "recheck").last_visit("projection", 79.0, days=days)
    held = bench.assess().state.held("projection")
    assert held is not None
    assert held.origin == origin


def test_a_strings_height_is_never_taken_from_last_time() -> None:
    bench = back().last_visit("end_height", 8.9, 8.2, 7.4, 6.4, days=1)
    assert bench.assess().state.held("end_height", 0) is None
    assert bench.assess().cut.state == "none"
