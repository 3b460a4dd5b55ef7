"""The bridge: worked by hand, and by what must stay true whatever the numbers."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest
from fidicula.core.errors import DoesNotFitError, MismatchError, MissingInputError
from fidicula.core.geometry.board import UprightHeight as Upright
from fidicula.core.geometry.board import arch, shortest_height, upright_height
from fidicula.core.geometry.bow import Waist, nearest_template
from fidicula.core.geometry.bridge import BridgePlan, StringGoal, plan_bridge
from fidicula.core.geometry.cuts import StringState, cuts_of_all, slot_to_file, string_cut
from fidicula.core.geometry.string_lines import Board, end_height_of_mark, mark_height, string_lines
from hypothesis import given
from hypothesis import strategies as st

BOARD = Board(string_length=330, fingerboard_length=275, radius_end=42, projection=27)
GOALS = [
    StringGoal("G", 0.80, 0.5, 5.0),
    StringGoal("D", 0.86, 0.45),
    StringGoal("A", 0.68, 0.4),
    StringGoal("E", 0.27, 0.35, 3.2),
]


def plan(board: Board = BOARD, goals: list[StringGoal] = GOALS, **changes: object) -> BridgePlan:
    options: dict[str, object] = {"nut_spread": 16.3, "bridge_spread": 33.5, "crown_radius": 43.5, **changes}
    return plan_bridge(board=board, goals=goals, **options)  # type: ignore[arg-type]


def test_strings_stand_about_the_middle_unless_they_are_shifted() -> None:
    """Half the spread to either side, at the nut and at the bridge."""
    lines = string_lines(board=BOARD, diameters=[0.8, 0.86, 0.68, 0.27], nut_spread=16.3, bridge_spread=33.5)
    assert (lines[0].nut_offset, lines[-1].nut_offset) == pytest.approx((-8.15, 8.15))
    assert (lines[0].bridge_offset, lines[-1].bridge_offset) == pytest.approx((-16.75, 16.75))


def test_mark_height_by_hand() -> None:
    """330/275 is 1.2: a string 5.0 high at the board's end and 0.5 at the nut is 0.5 + 4.5·1.2 = 5.9 at the bridge."""
    assert mark_height(nut_height=Upright(0.5), end_height=Upright(5.0), board=BOARD) == pytest.approx(5.9)
    assert end_height_of_mark(nut_height=Upright(0.5), mark_height=5.9, board=BOARD) == pytest.approx(5.0)


def test_a_board_that_slopes_to_its_bridge_by_hand() -> None:
    """At 60 degrees everything square to the board is twice as long along the bridge: 11.8, and twice the arch below
    the projection."""
    board = replace(BOARD, angle=60.0)
    assert mark_height(nut_height=Upright(0.5), end_height=Upright(5.0), board=board) == pytest.approx(11.8)
    assert end_height_of_mark(nut_height=Upright(0.5), mark_height=11.8, board=board) == pytest.approx(5.0)
    square, sloping = plan().strings[0], plan(board, crown_radius=80).strings[0]
    assert sloping.line.extension_height - 27 == pytest.approx(2 * (square.line.extension_height - 27))


def test_a_lean_lifts_the_line_under_the_treble_string() -> None:
    """The round turns about its crest: beside it the line rises by a little more than tan of 3 degrees, 0.878 at 16.75,
    under the treble string, and falls by more still under the bass string, where the board falls away faster."""
    level, leaning = plan().strings, plan(replace(BOARD, tilt=3.0)).strings
    lifted = [b.line.extension_height - a.line.extension_height for a, b in zip(level, leaning, strict=True)]
    assert 0.878 < lifted[-1] < 0.95
    assert -1.0 < lifted[0] < -lifted[-1]


@pytest.mark.parametrize(
    ("cut", "crown_cut", "slot_depth", "filed"),
    [
        (1.0, 1.1, 0.3, 0.2),  # the wood goes deeper than the old slot, and takes the string along by 0.8
        (0.2, -0.1, 0.0, 0.2),  # no slot yet: the string wants one, no wood goes
        (0.2, 0.5, 0.6, 0.2),  # a deep slot is left over: its floor has not moved
        (0.5, 0.6, 0.6, 0.5),  # just as deep as the wood that goes: it counts as left over
        (0.0, 0.3, 0.5, 0.0),  # the string stands right: wood beside it, nothing filed
    ],
)
def test_how_much_deeper_the_slot_is_filed_by_hand(
    cut: float, crown_cut: float, slot_depth: float, filed: float
) -> None:
    assert slot_to_file(cut=cut, crown_cut=crown_cut, slot_depth=slot_depth) == pytest.approx(filed)


def test_a_string_that_must_not_come_down_has_no_slot_to_file() -> None:
    assert slot_to_file(cut=-0.1, crown_cut=0.2, slot_depth=0.5) is None


def test_outer_strings_by_hand() -> None:
    """G: the board's line lies arch(42, -16.75) under the projection, since its radius is the same all along,
    bent by how much wider the strings stand at the bridge; the crown stands a third of 0.80 over the string."""
    g = plan().strings[0]
    nut, end = -8.15, -8.15 + (-16.75 + 8.15) * 275 / 330
    arch_nut = math.sqrt(42**2 - nut**2) - 42
    arch_end = math.sqrt(42**2 - end**2) - 42
    extension = 27 + arch_nut + (arch_end - arch_nut) * 1.2
    assert g.line.extension_height == pytest.approx(extension)
    assert g.mark_height == pytest.approx(5.9)
    assert g.crown_height == pytest.approx(extension + 5.9 + 0.8 / 3)


@given(st.floats(38, 60), st.floats(20, 30), st.floats(-3, 3))
def test_template_crown_carries_every_string(radius: float, projection: float, tilt: float) -> None:
    """Whatever radius, projection and tilt: all crown points lie on the arc."""
    board = replace(BOARD, projection=projection, tilt=tilt)
    found = plan(board, crown_radius=radius)
    assert found.crown.radius == radius
    assert all(abs(s.crown_residual) < 1e-9 for s in found.strings)


def test_the_same_heights_given_as_marks_give_the_same_bridge() -> None:
    """5.0 at the board's end is 5.9 at the mark: two ways of saying one bridge."""
    by_mark = plan(
        goals=[replace(g, height=m) for g, m in zip(GOALS, [5.9, None, None, 0.35 + 2.85 * 1.2], strict=True)],
        height_at="bridge_mark",
    )
    for ours, theirs in zip(plan().strings, by_mark.strings, strict=True):
        assert theirs.crown_height == pytest.approx(ours.crown_height)
        assert theirs.end_height == pytest.approx(ours.end_height)


def test_heights_of_a_template_bridge_fit_its_own_circle() -> None:
    """The heights that a template gives, asked for one by one, lead back to the template."""
    first = plan()
    again = plan(
        goals=[replace(g, height=s.end_height) for g, s in zip(GOALS, first.strings, strict=True)], curve="heights"
    )
    assert again.crown.radius == pytest.approx(43.5, abs=1e-5)
    assert again.crown.centre == pytest.approx(first.crown.centre, abs=1e-4)


def test_upright_and_shortest_convert_as_the_trade_quotes_them() -> None:
    """4.80 upright is about 4.50 the shortest way at a violin's G."""
    shortest = shortest_height(upright_height=Upright(4.8), radius=41.5, offset=-15.1, diameter=0.8)
    assert shortest == pytest.approx(4.5, abs=0.03)
    assert upright_height(shortest_height=shortest, radius=41.5, offset=-15.1, diameter=0.8) == pytest.approx(4.8)


def test_shortest_heights_are_the_same_bridge_as_their_upright_twins() -> None:
    """Asking for heights the shortest way changes the numbers in and out, and not the wood."""
    base = plan()

    def as_shortest(upright: float, offset: float, diameter: float) -> float:
        return shortest_height(upright_height=Upright(upright), radius=42, offset=offset, diameter=diameter)

    goals = []
    for goal, target in zip(GOALS, base.strings, strict=True):
        nut = as_shortest(goal.nut_height, target.line.nut_offset, goal.diameter)
        height = None if goal.height is None else as_shortest(goal.height, target.line.end_offset, goal.diameter)
        goals.append(replace(goal, nut_height=nut, height=height))
    twin = plan(goals=goals, height_direction="shortest")
    for ours, theirs in zip(base.strings, twin.strings, strict=True):
        assert theirs.crown_height == pytest.approx(ours.crown_height)
        assert theirs.end_height < ours.end_height or abs(ours.line.end_offset) < 1


def test_cut_by_hand() -> None:
    """6.10 to 5.00 at the end is 1.10·1.2 = 1.32 at the bridge, less 0.35·0.2 = 0.07 that the nut gives;
    of wood: 0.10 deep now, 0.267 after."""
    found = plan()
    cut = string_cut(board=BOARD, target=found.strings[0], state=StringState(0.85, 6.10, 0.10), diameter=0.8)
    assert cut.cut == pytest.approx(1.32 - 0.07)
    assert cut.crown_cut == pytest.approx(1.25 + 0.10 - 0.8 / 3)
    assert cut.old_slot_left == 0.0


def test_old_slot_deeper_than_the_cut_is_told() -> None:
    """A string that comes down 0.12 into a wanted slot of 0.267, with a slot of 0.5 now: 0.147 of the old stays."""
    found = plan()
    cut = string_cut(board=BOARD, target=found.strings[0], state=StringState(0.5, 5.1, 0.5), diameter=0.8)
    assert cut.cut == pytest.approx(0.12)
    assert cut.old_slot_left == pytest.approx(0.8 / 3 - 0.12)


def test_a_bridge_that_is_too_low_has_no_old_slot_to_speak_of() -> None:
    cut = string_cut(board=BOARD, target=plan().strings[0], state=StringState(0.5, 4.0, 0.1), diameter=0.8)
    assert cut.cut == pytest.approx(-1.2)
    assert cut.crown_cut is not None
    assert cut.crown_cut < 0
    assert cut.old_slot_left is None


@given(st.floats(0.2, 1.5), st.floats(2.5, 9), st.floats(0, 1))
def test_taking_the_wood_off_leaves_nothing_to_take(nut: float, end: float, slot: float) -> None:
    """After a cut as computed, with the slot as wanted and the nut as wanted, the next cut is 0."""
    found = plan()
    goal, target = GOALS[0], found.strings[0]
    cut = string_cut(board=BOARD, target=target, state=StringState(nut, end, slot), diameter=goal.diameter)
    after = StringState(goal.nut_height, target.end_height, goal.diameter / 3)
    left = string_cut(board=BOARD, target=target, state=after, diameter=goal.diameter)
    assert cut.crown_cut is not None
    assert left.crown_cut == pytest.approx(0, abs=1e-9)
    assert left.cut == pytest.approx(0, abs=1e-9)


def test_bow_room_and_waist_of_a_symmetric_bridge_is_symmetric() -> None:
    """Equal strings at equal heights on a level board: the outer rooms are the same, so are the inner."""
    goals = [StringGoal(n, 0.6, 0.4, 4.0) for n in "GDAE"]
    rooms = [s.bow_separation for s in plan(goals=goals, waist=Waist(110, -12)).strings]
    assert None not in rooms
    assert rooms[0] == pytest.approx(rooms[3])
    assert rooms[1] == pytest.approx(rooms[2])


def test_without_a_waist_the_outer_strings_have_no_room_told() -> None:
    rooms = [s.bow_separation for s in plan().strings]
    assert rooms[0] is None
    assert rooms[3] is None


@pytest.mark.parametrize(
    ("changes", "path"),
    [
        ({"crown_radius": 10}, ("crown_radius",)),
        ({"crown_radius": 4000, "board": replace(BOARD, radius_end=22)}, ("crown_radius",)),
        ({"crown_radius": None}, ("crown_radius",)),
        ({"board": replace(BOARD, radius_end=14)}, ("fingerboard_radius",)),
        ({"board": replace(BOARD, radius_nut=8)}, ("fingerboard_radius_nut",)),
        ({"bridge_spread": 2}, ("bridge_spread",)),
        ({"nut_spread": 2}, ("nut_spread",)),
        ({"goals": [*GOALS[:3], replace(GOALS[3], height=None)]}, ("strings", 3, "height")),
        ({"curve": "heights"}, ("strings", 1, "height")),
    ],
)
def test_shapes_that_cannot_be_name_their_field(changes: dict[str, object], path: tuple[object, ...]) -> None:
    with pytest.raises((DoesNotFitError, MissingInputError)) as refused:
        plan(**changes)  # type: ignore[arg-type]
    assert refused.value.path == path


def test_board_must_end_before_the_bridge() -> None:
    with pytest.raises(DoesNotFitError) as refused:
        Board(string_length=300, fingerboard_length=300, radius_end=42, projection=27)
    assert refused.value.path == ("fingerboard_length",)


def test_every_string_must_be_measured() -> None:
    with pytest.raises(MismatchError) as refused:
        cuts_of_all(board=BOARD, plan=plan(), goals=GOALS, current=[StringState(0.5, 5.0)])
    assert refused.value.path == ("current",)


def test_nearest_template_takes_the_smaller_of_two_as_near() -> None:
    assert nearest_template(radius=41, templates=[42, 40, 46]) == 40
    assert nearest_template(radius=41, templates=[]) is None


def test_arch_is_never_over_the_crest() -> None:
    assert arch(radius=42, offset=0) == 0
    assert arch(radius=42, offset=41.999) == pytest.approx(-42, abs=0.3)
    with pytest.raises(DoesNotFitError):
        arch(radius=42, offset=42)
