"""The tables: checked row by row, and what they give for every family, size and recipe."""

from __future__ import annotations

from datetime import UTC, datetime
from functools import partial
from itertools import pairwise
from uuid import uuid4

import pytest
from fidicula.domain.instruments import Instrument
from fidicula.domain.strings import SetString, StringSet
from fidicula.domain.targets import TargetChoice
from fidicula.domain.visits import Visit
from fidicula.judgement.assessment.assess import assess
from fidicula.judgement.assessment.judging import bench_state
from fidicula.judgement.measures import MEASURES
from fidicula.judgement.targets.resolve import targets_of
from fidicula.judgement.targets.rules import Rules, make_rules
from fidicula.tables import figures
from fidicula.tables.figures import Figure, FigureBook, SchoolFigure, starting_figures
from fidicula.tables.rows import TableError, parse_rows
from fidicula.tables.schools import School, schools, schools_for, shipped_recipes
from fidicula.tables.work import invalidations, tools
from fidicula.views.sheet.build import sheet_of
from fidicula.views.sheet.model import BenchSheet

HEAD = "family,size,measure,low,aim,high,source,confirmed_by\n"
SIZES = [(s.family, s.size) for s in figures.sizes()]
RECIPES = [(family, size, recipe) for family, size in SIZES for recipe in shipped_recipes(family)]
FULL_SIZE_ONLY = {"Fiddle": "4/4", "Plucked": "3/4"}
"""These have a band of their own, of the full size; it is not scaled to any other."""

OUTER_DIAMETERS = {"violin": (0.8, 0.27), "viola": (1.0, 0.7), "cello": (1.6, 0.8), "bass": (2.4, 1.1)}


def plain_sheet(family: str, size: str, recipe: str, strings: int = 4, *, is_new: bool = False) -> BenchSheet:
    """An instrument of which nothing was measured, under a shipped recipe."""
    names = figures.string_names(family=family, count=strings) or ()
    low, high = OUTER_DIAMETERS[family]
    diameters = [low + (high - low) * i / (strings - 1) for i in range(strings)]
    string_set = StringSet(
        uuid4(), "s", family, "synthetic", tuple(SetString(n, d) for n, d in zip(names, diameters, strict=True))
    )
    choice = TargetChoice(recipe=recipe)
    instrument = Instrument(uuid4(), "T", family, size, names, False, is_new, "", "", choice)
    rules: Rules = make_rules(family)
    targets = targets_of(instrument, string_set, rules)
    now = datetime(2026, 11, 23, 9, tzinfo=UTC)
    state = bench_state(instrument=instrument, string_set=string_set, readings=[], works=[], targets=targets, now=now)
    return sheet_of(assess(state, Visit(uuid4(), instrument.id, "bridge", "", now, None), rules), rules)


@pytest.mark.parametrize(
    "row",
    [
        "violin,4/4,stop_length,195,193,197,shop,",
        "violin,4/4,stop_length,190,195,,shop,",
        "violin,4/4,stop_length,190,195,197,,",
        "lute,4/4,stop_length,190,195,197,shop,",
        "violin,4/4,colour,190,195,197,shop,",
        "violin,4/4,fingerboard_thickness_min,4,4.5,,shop,",
    ],
)
def test_a_row_that_cannot_be_stops_the_start_with_its_line(row: str) -> None:
    """Unordered bands, halves of bands, rows without source, unknown families and measures, a floor with an aim."""
    with pytest.raises(TableError, match=r"figures\.csv, line 2"):
        parse_rows("figures", HEAD + row, Figure)


def test_a_factor_has_its_aim_alone_or_a_whole_range() -> None:
    head = "question,school,family,size,measure,low,aim,high,source,confirmed_by\n"
    row = "crown,flatter,,,crown_radius_factor,{},shop,"
    assert parse_rows("f", head + row.format("1.08,1.1,1.12"), SchoolFigure)[0].value == 1.1
    with pytest.raises(TableError, match="alone or with both its ends"):
        parse_rows("f", head + row.format("1.08,1.1,"), SchoolFigure)


def test_what_has_no_row_has_no_figure() -> None:
    """Nothing is scaled from a neighbour, and a full size's own band is not lent to a smaller one."""
    book = FigureBook()
    assert book.find(family="viola", size="412", measure="projection") is None
    fiddle = partial(book.find, family="violin", measure="end_height_bass", question="end_heights", school="fiddle")
    found = fiddle(size="4/4")
    assert found is not None
    assert found.value == 4.2
    assert fiddle(size="1/2") is None


def test_every_starting_figure_says_that_nobody_confirmed_it() -> None:
    assert len(starting_figures()) > 850
    assert {figure.source for figure in starting_figures().values()} == {"workshop starting value, unsourced"}
    assert {figure.confirmed_by for figure in starting_figures().values()} == {None}


@pytest.mark.parametrize(("family", "size", "recipe"), RECIPES)
@pytest.mark.parametrize("strings", [4, 5])
def test_heights_of_every_shipped_recipe_fall_smoothly(family: str, size: str, recipe: str, strings: int) -> None:
    """From the low string to the high one the wanted heights fall; or there is no figure.

    Smoothly: no inner string stands off the line between its neighbours by more than a twentieth of its height,
    0.2 mm on a violin, which a finger would feel.
    """
    sheet = plain_sheet(family, size, recipe, strings)
    if FULL_SIZE_ONLY.get(recipe, size) != size:
        assert sheet.instruction.title == "No figure for this instrument"
        assert "Nothing is scaled" in sheet.instruction.says[0]
        return
    heights = [s.target_end or 0.0 for s in sheet.cut.strings]
    assert all(a > b > 0 for a, b in pairwise(heights)), heights
    for below, height, above in zip(heights, heights[1:], heights[2:], strict=False):
        assert abs(height - (below + above) / 2) < height / 20, heights


@pytest.mark.parametrize("family", ["violin", "viola", "cello", "bass"])
def test_a_family_is_offered_what_it_has_figures_for(family: str) -> None:
    """Fiddle heights are a violin's, plucked heights a bass's; every question has at least two answers, or says why."""
    offered = schools_for(family, FigureBook())
    names: dict[str, set[str]] = {question: {school.school for school in found} for question, found in offered.items()}
    assert ("fiddle" in names["end_heights"]) == (family == "violin")
    assert ("plucked_bass" in names["end_heights"]) == (family == "bass")
    assert ("wide" in names["nut_spread"]) == (family == "cello")
    assert ("shifted" in names["string_group"]) == (family == "cello")
    for question, found in names.items():
        assert len(found) >= 2 or question in ("nut_spread", "bridge_spread", "string_group")
    for chosen in shipped_recipes(family).values():
        assert all(school in names[question] for question, school in chosen.items())


def test_a_new_instrument_says_why_it_is_left_higher() -> None:
    plain, new = (plain_sheet("cello", "4/4", "Orchestral", is_new=is_new) for is_new in (False, True))
    assert (new.cut.strings[0].target_end or 0) - (plain.cut.strings[0].target_end or 0) == pytest.approx(1.0)
    band = next(cell for cell in new.cells if (cell.measure, cell.position) == ("end_height", 0)).band
    assert band is not None
    assert "+1.0 for a new instrument" in band.source


def test_invalidations_name_measures_of_the_card() -> None:
    assert set(invalidations()) <= set(MEASURES)
    assert tools()["wedge"].direction == "shortest"


@pytest.mark.parametrize("row", schools().values(), ids=lambda row: f"{row.question}-{row.school}")
def test_every_school_says_what_it_is_and_why_somebody_holds_with_it(row: School) -> None:
    assert row.says
    assert row.why[0].isupper()
    assert row.why.endswith(".")
    assert row.why.lower() != row.says.lower()
