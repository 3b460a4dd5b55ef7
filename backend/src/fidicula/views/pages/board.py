"""The board: how it is scooped on both sides, what to plane off where, and what that does to everything over it."""

from __future__ import annotations

import math
from collections.abc import Iterator

from fidicula.core.geometry.scoop import Dressing, Station, edge_left, gap_along, plan_dressing, removal_across
from fidicula.core.reach import nearest_that_can_be
from fidicula.judgement.assessment.held import ResolvedValue
from fidicula.judgement.assessment.scoop import RELIEFS, SHARES, SIDES, stations_of
from fidicula.judgement.assessment.thresholds import WORTH_TAKING
from fidicula.numerals import number
from fidicula.views.pages.bench import PageBench, told
from fidicula.views.pages.model import Consequence, Curve, Impossible, PageView, Plot, Table
from fidicula.words.pages import board as say

_DRAWN = 32


def board_page(bench: PageBench) -> PageView:
    """What the scoop's readings ask for."""
    length = bench.read_or_figure("fingerboard_length")
    plans: dict[str, Dressing] = {}
    if length is not None:
        for i, side in enumerate(SIDES):
            plan = _plan(bench, i, side, length.value)
            if plan is not None:
                plans[side] = plan
    whole = len(plans) == len(SIDES)
    finding = [say.found(side, plan) for side, plan in plans.items()]
    finding += _cross(bench)
    finding += _facet(bench)
    impossible = (
        None
        if length is None
        else next(
            (
                found
                for i, side in enumerate(SIDES)
                if side in plans and (found := _too_thin(bench, i, side, length.value))
            ),
            None,
        )
    )
    soft = "board_soft" in bench.seen
    takes: dict[str, list[str]] = {}
    if whole:
        most = max(plan.max_removal for plan in plans.values())
        takes = say.takes(most=most, base=_base(plans), left_words=_left_words(bench, plans))
    return bench.view(
        "board",
        say.TITLE,
        finding=finding or [say.NOTHING_READ],
        impossible=impossible,
        consequences=list(_consequences(bench, plans)) if whole else [],
        plots=[_plot(side, plan) for side, plan in plans.items()],
        tables=[_table(plans)] if plans else [],
        ways=bench.ways_of("board", takes),
        question="board" if bench.question("board") else "",
        caution=say.DYED if soft else say.SHARP,
        work="board_dressed",
    )


def _too_thin(bench: PageBench, i: int, side: str, length: float) -> Impossible | None:
    """A scoop that is wished for and would leave too thin an edge; the nearest that does not."""
    name = RELIEFS[i]
    thick, least, wanted = _thickness(bench, i), bench.figure("fingerboard_thickness_min"), bench.figure(name)
    if name not in bench.tried or thick is None or least is None or wanted is None:
        return None
    stations = stations_of(bench.state, i, length)

    def left(relief: float) -> float:
        plan = plan_dressing(fingerboard_length=length, stations=stations, target_relief=relief)
        return edge_left(thickness=thick.value, max_removal=plan.max_removal)

    def is_thick_enough(relief: float) -> bool:
        return left(relief) >= least.band.low - 1e-9

    wished = next(handle.at for handle in bench.handles if handle.name == name)
    if is_thick_enough(wished):
        return None
    nearest = None
    if is_thick_enough(wanted.band.aim):
        found = nearest_that_can_be(wished=wished, known_good=wanted.band.aim, can_be=is_thick_enough)
        nearest = math.floor(found * 100 + 1e-6) / 100 if wished > wanted.band.aim else math.ceil(found * 100) / 100
    return Impossible(
        name,
        say.too_thin(wished=wished, side=side, left=left(wished), least=least.band.low, nearest=nearest),
        nearest,
    )


def _plan(bench: PageBench, i: int, side: str, length: float) -> Dressing | None:
    wanted = bench.figure(RELIEFS[i])
    rests_at = 0.0 if wanted is None else wanted.band.aim
    relief = bench.slide(
        f"relief_{side}",
        say.scoop_wanted(side),
        rests_at=rests_at,
        low=0.0,
        high=max(2.0, rests_at * 2),
        step=0.05,
        rests_on="" if wanted is None else wanted.source,
    )
    read = [bench.read("relief", i * len(SHARES) + n) for n in range(len(SHARES))]
    known = [held for held in read if held is not None]
    if len(known) < len(SHARES):
        return None
    stations = [Station(share * length, held.value) for share, held in zip(SHARES, known, strict=True)]
    return plan_dressing(fingerboard_length=length, stations=stations, target_relief=relief)


def _base(plans: dict[str, Dressing]) -> float:
    """Wood to remove the board's middle line everywhere. [mm]"""
    return removal_across(bass=plans["bass"].base_removal, treble=plans["treble"].base_removal, share=0.5)


def _cross(bench: PageBench) -> Iterator[str]:
    state = bench.state
    gauge = state.held("fingerboard_radius")
    told_by = state.derived(("fingerboard_radius", None))
    wanted = state.wanted(("fingerboard_radius", None))
    if gauge is not None and not gauge.assumed:
        yield say.radius(gauge.value, wanted)
        if told_by is not None and abs(told_by.value - gauge.value) > told_by.known_to + gauge.resolution:
            yield say.told_otherwise(by_chord=told_by.value, by_gauge=gauge.value)


def _facet(bench: PageBench) -> Iterator[str]:
    state = bench.state
    width, string = state.held("facet_width"), state.held("facet_string")
    if width is None or string is None or state.geometry is None or width.value <= 0:
        return
    name = state.instrument.string_names[0]
    carry = state.geometry.board.carry
    yield say.facet(name, width=width.value, from_ridge=string.value, drop=state.facet, carry=carry)


def _thickness(bench: PageBench, i: int) -> ResolvedValue | None:
    return bench.state.held("fingerboard_thickness", i)


def _left_words(bench: PageBench, plans: dict[str, Dressing]) -> str:
    least = bench.figure("fingerboard_thickness_min")
    left = [
        edge_left(thickness=held.value, max_removal=plans[side].max_removal)
        for i, side in enumerate(SIDES)
        if (held := _thickness(bench, i)) is not None
    ]
    return say.left(min(left, default=None), None if least is None else least.band.low)


def _consequences(bench: PageBench, plans: dict[str, Dressing]) -> Iterator[Consequence]:
    state, base = bench.state, _base(plans)
    projection = state.held("projection")
    if projection is not None:
        yield told(
            "projection",
            "projection",
            projection.value,
            projection.value - base,
            say.why_projection(projection=projection.value, base=base, plans=plans),
            wanted=state.wanted(("projection", None)),
            assumed=projection.assumed,
        )
    for measure in ("nut_height", "end_height"):
        for position in (0, state.count - 1):
            height = state.held(measure, position)
            if height is None or height.assumed:
                continue
            off = plans[SIDES[0 if position == 0 else 1]].base_removal
            name = state.instrument.string_names[position]
            yield told(
                f"{measure}{position}",
                say.height(name, measure),
                height.value,
                height.value + off,
                [say.why_height(height=height.value, off=off)],
                places=2,
                wanted=state.wanted_as_read((measure, position)),
            )
    for i, side in enumerate(SIDES):
        thick = _thickness(bench, i)
        least = bench.figure("fingerboard_thickness_min")
        if thick is None:
            bench.read("fingerboard_thickness", i)
            continue
        left = edge_left(thickness=thick.value, max_removal=plans[side].max_removal)
        too_thin = least is not None and left < least.band.low - 1e-9
        yield Consequence(
            f"thickness_{side}",
            say.edge_left(side),
            "mm",
            thick.value,
            left,
            1,
            [say.why_left(thick=thick.value, most=plans[side].max_removal)],
            band=say.never_under(None if least is None else least.band.low),
            side="below" if too_thin else "in_band",
        )


def _table(plans: dict[str, Dressing]) -> Table:
    first = next(iter(plans.values()))
    rows: list[list[str]] = []
    marked: list[list[int]] = []
    for side, plan in plans.items():
        rows += say.rows(side, plan)
        most = max(range(len(plan.stations)), key=lambda n: plan.stations[n].removal)
        if plan.max_removal >= WORTH_TAKING:
            marked.append([len(rows) - 1, most + 1])
    return Table(say.TABLE_TITLE, [say.FROM_NUT, *(number(s.x, 0) for s in first.stations)], rows, marked)


def _plot(side: str, plan: Dressing) -> Plot:
    length = plan.stations[-1].x
    wanted = gap_along(fingerboard_length=length, relief=plan.target_relief)
    now = [[s.x, s.gap] for s in plan.stations]
    along = [length * i / _DRAWN for i in range(_DRAWN + 1)]
    then = [[x, wanted(x) + plan.base_removal] for x in along]
    # Between the stations nobody read it: what comes off there lies between straight lines.
    removed = [*now, *([s.x, s.gap + s.removal] for s in reversed(plan.stations))]
    return Plot(
        key=f"scoop_{side}",
        title=say.scoop(side),
        x_label=say.ACROSS_LABEL,
        y_label=say.DOWN_LABEL,
        down=True,
        curves=[Curve(say.AS_IT_IS, "now", now), Curve("dressed", "then", then)],
        removed=[removed],
        says=say.comes_off(side, plan),
    )
