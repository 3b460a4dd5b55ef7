"""The tables: checked row by row, and what they give for every family and size."""

from __future__ import annotations

from datetime import UTC, datetime
from itertools import pairwise
from uuid import uuid4

import pytest
from fidicula.db.records import Instrument, SetString, StringSet, Visit
from fidicula.services.measures import MEASURES
from fidicula.services.sheet.build import build_sheet
from fidicula.services.sheet.held import bench_state
from fidicula.services.targets import schools_for, targets_of
from fidicula.tables import figures
from fidicula.tables.figures import Figure
from fidicula.tables.rows import TableError, parse_rows
from fidicula.tables.work import invalidations, tools

HEAD = "family,size,measure,low,aim,high,unit,source,confirmed_by\n"
SIZES = [(s.family, s.size) for s in figures.sizes()]


@pytest.mark.parametrize(
    "row",
    [
        "violin,4/4,stop_length,195,193,197,mm,shop,",
        "violin,4/4,stop_length,190,195,,mm,shop,",
        "violin,4/4,stop_length,190,195,197,mm,,",
        "lute,4/4,stop_length,190,195,197,mm,shop,",
        "violin,4/4,stop_length,190,195,197,furlong,shop,",
    ],
)
def test_a_row_that_cannot_be_stops_the_start_with_its_line(row: str) -> None:
    """Unordered bands, halves of bands, rows without source, unknown families and units."""
    with pytest.raises(TableError, match=r"figures\.csv, line 2"):
        parse_rows("figures", HEAD + row, Figure)


def test_what_has_no_row_has_no_figure() -> None:
    """Nothing is scaled from a neighbour."""
    assert figures.figure(family="viola", size="412", measure="projection") is None


@pytest.mark.parametrize(("family", "size"), SIZES)
@pytest.mark.parametrize("strings", [4, 5])
def test_every_family_size_and_school_gives_targets(family: str, size: str, strings: int) -> None:
    """No choice of one school each leaves a target open, and every target says where it comes from."""
    names = figures.string_names(family=family, count=strings)
    assert names is not None
    for school in schools_for(family)["end_heights"]:
        instrument = Instrument(uuid4(), "T", family, size, names, False, True, "", "", {"end_heights": school})
        string_set = StringSet(uuid4(), "s", family, "gut", tuple(SetString(n, 0.8) for n in names))
        targets = targets_of(instrument, string_set)
        assert targets.missing == ()
        assert targets.end_bass is not None
        assert targets.end_treble is not None
        assert targets.end_bass.band.aim > targets.end_treble.band.aim
        assert "new instrument" in targets.end_bass.source


@pytest.mark.parametrize(("family", "size"), SIZES)
def test_shipped_targets_make_a_bridge_with_heights_that_fall_smoothly(family: str, size: str) -> None:
    """From the low string to the high one, the wanted heights fall, and no step stands out."""
    names = figures.string_names(family=family, count=4) or ()
    thickness = {"violin": (0.8, 0.27), "viola": (1.0, 0.7), "cello": (1.6, 0.8), "bass": (2.4, 1.1)}[family]
    diameters = [thickness[0] + (thickness[1] - thickness[0]) * i / 3 for i in range(4)]
    string_set = StringSet(
        uuid4(), "s", family, "synthetic", tuple(SetString(n, d) for n, d in zip(names, diameters, strict=True))
    )
    instrument = Instrument(uuid4(), "T", family, size, names, False, False, "", "", {})
    visit = Visit(uuid4(), instrument.id, "bridge", "", datetime.now(UTC), None)
    state = bench_state(
        instrument=instrument,
        string_set=string_set,
        readings=[],
        works=[],
        targets=targets_of(instrument, string_set),
    )
    sheet = build_sheet(state, visit)
    heights = [s.wanted_end_height or 0.0 for s in sheet.cut.strings]
    steps = [a - b for a, b in pairwise(heights)]
    assert all(step > 0 for step in steps), heights
    assert max(steps) < 2.5 * min(steps), heights


def test_invalidations_name_measures_of_the_card() -> None:
    assert set(invalidations()) <= set(MEASURES)
    assert tools()["wedge"].direction == "shortest"
