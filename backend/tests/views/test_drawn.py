"""What a page's drawing says, against the readings and the one instruction; worked by hand."""

from __future__ import annotations

import pytest
from fidicula.views.pages.drawn import BarDrawing, NeckDrawing, NutDrawing, TailDrawing

from ..scenario import Bench, measured
from .test_looked_over_pages import all_read, paged


def drawn(bench: Bench, page: str, **tried: float) -> object:
    return paged(bench, page, tried).drawing


@pytest.mark.parametrize(("over", "due"), [(0.3, True), (0.05, False)])
def test_the_nut_is_to_be_filed_on_the_drawing_only_where_that_is_instructed(over: float, due: bool) -> None:
    bench = measured(nut_over=over)
    told = bench.told()
    drawing = drawn(bench, "nut")
    assert isinstance(drawing, NutDrawing)
    assert (told.records == "nut_filed") is due
    assert drawing.is_due is due
    assert [string.by for string in drawing.strings] == pytest.approx([over] * 4)
    tried = drawn(bench, "nut", nut_bass=0.7)
    assert isinstance(tried, NutDrawing)
    assert tried.strings[0].by == pytest.approx(over + 0.5 - 0.7)


def test_a_wedge_moves_the_drawn_line_and_not_what_was_read() -> None:
    """A cello at 76.8, below 78.5: a wedge of 1.0 at the heel of a neck of 280 lifts it by its length over that."""
    bench = all_read("cello", singles={"projection": 76.8})
    rest, wedged = drawn(bench, "neck"), drawn(bench, "neck", wedge=1.0)
    assert isinstance(rest, NeckDrawing)
    assert isinstance(wedged, NeckDrawing)
    assert (rest.projection, rest.side, rest.then) == (76.8, "below", 76.8)
    assert wedged.projection == 76.8
    assert wedged.then == pytest.approx(76.8 + wedged.length / 280)
    unread = drawn(Bench("cello"), "neck")
    assert isinstance(unread, NeckDrawing)
    assert (unread.projection, unread.side) == (None, "in_band")


def test_a_wider_blank_takes_the_bar_further_inside() -> None:
    bench = all_read("violin")
    now = drawn(bench, "bar")
    assert isinstance(now, BarDrawing)
    wider = drawn(bench, "bar", foot_width=now.foot_then + 2)
    assert isinstance(wider, BarDrawing)
    assert wider.inset_then == pytest.approx(now.inset_then + 1)


def test_the_tailpiece_goes_as_far_as_the_saddle_allows() -> None:
    """56 read with 3 free, 1 of it kept: at most 58; moved on by 1 it is 57 with 2 free."""
    drawing = drawn(all_read("violin"), "tail", tailpiece=1.0)
    assert isinstance(drawing, TailDrawing)
    assert (drawing.after, drawing.after_then, drawing.gap_then, drawing.farthest) == (56.0, 57.0, 2.0, 58.0)
    assert drawing.sixth == pytest.approx(328 / 6)
