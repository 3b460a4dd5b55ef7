"""With every figure at its aim, what follows from them is in range too, for every size that the tables know.

What no figure says is assumed here, by the family's full size, and grows with the body: the belly's arch, the top's
edge, and how far the saddle stands inside the body's end.
"""

from __future__ import annotations

import math
from typing import cast

import pytest
from fidicula.codes import FigureCode
from fidicula.core.geometry.scoop import gap_along
from fidicula.core.mechanics.load import BodyGeometry, angles_of
from fidicula.core.mechanics.stopped import Bow, clearances
from fidicula.tables.figures import FigureBook, default_stringings, sizes, string_pitches

ARCH = {"violin": (15.5, 355), "viola": (17.5, 406), "cello": (26.0, 755), "bass": (42.0, 1120)}
EDGE = {"violin": 4.0, "viola": 4.3, "cello": 5.0, "bass": 7.0}
INSIDE = {"violin": 4.0, "viola": 4.5, "cello": 10.0, "bass": 14.0}
NUT = 0.5
BODIES: dict[tuple[str, str], float] = {(one.family, one.size): one.body_length for one in sizes()}
SIZES = sorted(BODIES)
BOOK = FigureBook()
SOFT, MIDDLING, SHARE = 0.25, 0.4, 0.5
"""As the page of what rattles has them: speed of the bow [m/s], and how much of the swing goes to the board."""
SLACK_LOW = {("cello", size) for size in ("3/4", "1/2", "1/4", "1/8")} | {one for one in SIZES if one[0] == "bass"}
"""Sizes whose lowest string clears the board under a soft bow, and touches it under a middling one: as they do."""


SIDES: dict[str, tuple[FigureCode, FigureCode, FigureCode]] = {
    "bass": ("nut_height_bass", "end_height_bass", "relief_bass"),
    "treble": ("nut_height_treble", "end_height_treble", "relief_treble"),
}


class Aims:
    """What the tables want of one size."""

    def __init__(self, family: str, size: str) -> None:
        self.family, self.size = family, size

    def __getattr__(self, measure: str) -> float:
        return self.band(cast(FigureCode, measure))[1]

    def band(self, measure: FigureCode) -> tuple[float, float, float]:
        found = BOOK.find(family=self.family, size=self.size, measure=measure)
        assert found is not None, measure
        assert None not in (found.low, found.aim, found.high), measure
        return found.low or 0.0, found.aim or 0.0, found.high or 0.0

    def has(self, measure: FigureCode) -> bool:
        return BOOK.find(family=self.family, size=self.size, measure=measure) is not None

    @property
    def grown(self) -> float:
        return BODIES[self.family, self.size] / ARCH[self.family][1]

    @property
    def geometry(self) -> BodyGeometry:
        edge = EDGE[self.family] * self.grown**0.5
        at_edge = self.fingerboard_width_nut + (self.fingerboard_width_end - self.fingerboard_width_nut) * (
            self.neck_length / self.fingerboard_length
        )
        rise = self.fingerboard_radius - math.sqrt(self.fingerboard_radius**2 - (at_edge / 2) ** 2)
        over_line = self.mark(sum((self.end_height_bass, self.end_height_treble)) / 2)
        return BodyGeometry(
            arch_height=ARCH[self.family][0] * self.grown**0.8,
            projection=self.projection,
            board_height_at_edge=edge + self.overstand + self.fingerboard_thickness + rise,
            stop_length=self.stop_length,
            clearance_at_bridge=over_line,
            nut_height=NUT,
            crown_height=self.projection + over_line,
            saddle_height=self.saddle_height,
            bridge_to_saddle=BODIES[self.family, self.size] - self.stop_length - INSIDE[self.family] * self.grown,
        )

    def mark(self, end: float) -> float:
        return NUT + (end - NUT) * self.string_length / self.fingerboard_length


@pytest.fixture(params=SIZES, ids=lambda one: " ".join(one))
def aims(request: pytest.FixtureRequest) -> Aims:
    return Aims(*request.param)


def is_in(value: float, band: tuple[float, float, float]) -> bool:
    return band[0] <= value <= band[2]


def test_there_are_as_many_sizes_as_the_table_has() -> None:
    assert len(SIZES) == 27


def test_the_strings_break_over_the_bridge_as_wanted(aims: Aims) -> None:
    angles = angles_of(geometry=aims.geometry, string_length=aims.string_length)
    assert is_in(angles.over_bridge, aims.band("break_angle")), angles.over_bridge
    assert angles.over_bridge == pytest.approx(aims.break_angle, abs=1.5)


def test_the_board_slopes_as_wanted(aims: Aims) -> None:
    g = aims.geometry
    slope = math.degrees(math.atan((g.arch_height + g.projection - g.board_height_at_edge) / g.stop_length))
    assert is_in(slope, aims.band("board_angle")), slope


def test_neck_and_stop_make_the_string_length(aims: Aims) -> None:
    angles = angles_of(geometry=aims.geometry, string_length=aims.string_length)
    length = (aims.neck_length + aims.stop_length) / math.cos(math.radians(angles.front))
    assert is_in(length, aims.band("string_length")), length


def test_neck_and_stop_stand_as_the_family_wants(aims: Aims) -> None:
    wanted = BOOK.find(family=aims.family, size=aims.size, measure="neck_to_stop")
    if wanted is None:
        assert aims.family == "bass"
        return
    assert aims.neck_length / aims.stop_length == pytest.approx(wanted.value, abs=0.03)


def test_a_sixth_of_the_string_is_an_afterlength(aims: Aims) -> None:
    assert is_in(aims.string_length / 6, aims.band("afterlength"))


def test_the_outer_strings_stand_inside_the_board_as_wanted(aims: Aims) -> None:
    spread = aims.nut_spread + (aims.bridge_spread - aims.nut_spread) * aims.fingerboard_length / aims.string_length
    margin = (aims.fingerboard_width_end - spread) / 2
    assert margin > 0
    assert (aims.fingerboard_width_nut - aims.nut_spread) / 2 > 1.5
    if aims.has("end_margin_bass"):
        assert is_in(margin, aims.band("end_margin_bass"))
        assert is_in(margin, aims.band("end_margin_treble"))


@pytest.mark.parametrize(("side", "at"), [("bass", 0), ("treble", -1)])
def test_a_bowed_string_clears_the_board_at_every_stop(aims: Aims, side: str, at: int) -> None:
    """As hard as the page of what rattles begins with, its nut at the card's height."""
    strings = default_stringings()[aims.family][4]
    nut = BOOK.find(family=aims.family, size=aims.size, measure=SIDES[side][0], question="nut_height", school="card")
    assert nut is not None
    found = clearances(
        string_length=aims.string_length,
        fingerboard_length=aims.fingerboard_length,
        nut_height=nut.value,
        end_height=aims.band(SIDES[side][1])[1],
        pitch=string_pitches(aims.family)[strings[at]],
        gap=gap_along(fingerboard_length=aims.fingerboard_length, relief=aims.band(SIDES[side][2])[1]),
        excitation=Bow(speed=SOFT if side == "bass" and (aims.family, aims.size) in SLACK_LOW else MIDDLING),
        share=SHARE,
    )
    assert min(one.margin for one in found) > 0


def test_no_range_reaches_past_its_own_limit(aims: Aims) -> None:
    for measure in ("bridge_waist", "fingerboard_thickness"):
        floor = BOOK.find(
            family=aims.family,
            size=aims.size,
            measure="bridge_waist_floor" if measure == "bridge_waist" else "fingerboard_thickness_min",
        )
        assert floor is not None
        assert aims.band(measure)[0] >= floor.value, measure


def test_the_bridge_stands_inside_the_body_and_the_crown_under_its_feet(aims: Aims) -> None:
    assert aims.bridge_spread < aims.bridge_foot_width < aims.waist_width
    assert aims.bridge_top_thickness < aims.bridge_foot_thickness
    assert aims.neck_length < aims.fingerboard_length < aims.string_length
    assert is_in(aims.band("crown_radius")[1], aims.band("crown_radius"))
