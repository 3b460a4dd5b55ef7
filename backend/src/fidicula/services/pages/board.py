"""The board: how it is scooped on both sides, what to plane off where, and what that does to everything over it."""

from __future__ import annotations

import math
from collections.abc import Iterator

from fidicula.core.geometry.scoop import Dressing, Station, edge_left, gap_along, plan_dressing, removal_across
from fidicula.core.reach import nearest_that_can_be
from fidicula.services.assessment.scoop import FAULT_WORDS, SHARES, SIDES, stations_of
from fidicula.services.assessment.state import Held
from fidicula.services.assessment.thresholds import WORTH_TAKING
from fidicula.services.numbers import listed, number, short
from fidicula.services.pages.bench import PageBench, told
from fidicula.services.pages.model import Consequence, Curve, Impossible, PageView, Plot, Table

_DRAWN = 32
_DYED = "Dyed wood shows where the plane has been: try it where it does not show, and say so to the owner first."
_SHARP = "Plane with the grain, a set iron, the board firm: an ebony chip flies. Wear a mask: its dust is harmful."


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
    finding = [line for side, plan in plans.items() for line in _found(side, plan)]
    finding += _cross(bench)
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
    takes = {}
    if whole:
        base = _base(plans)
        most = max(plan.max_removal for plan in plans.values())
        dressing = [
            f"up to {number(most, 2)} mm off",
            f"the board's line comes down {number(base, 2)}",
            _left_words(bench, plans),
        ]
        takes = {"dress": dressing, "dress_warned": dressing, "leave": ["nothing comes off; what was found stays"]}
    return bench.view(
        "board",
        "The board",
        finding=finding
        or ["Read the scoop at three places on each side; then its faults and its dressing stand here."],
        impossible=impossible,
        consequences=list(_consequences(bench, plans)) if whole else [],
        plots=[_plot(side, plan) for side, plan in plans.items()],
        tables=[_table(plans)] if plans else [],
        ways=bench.ways_of("board", takes),
        question="board" if bench.question("board") else "",
        caution=_DYED if soft else _SHARP,
        work="board_dressed",
    )


def _too_thin(bench: PageBench, i: int, side: str, length: float) -> Impossible | None:
    """A scoop that is wished for and would leave too thin an edge; the nearest that does not."""
    name = f"relief_{side}"
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
        f"A scoop of {short(wished)} on the {side} side would leave {number(left(wished))} at the edge, never under "
        f"{short(least.band.low)}."
        + ("" if nearest is None else f" {number(nearest, 2)} is the nearest that can be had."),
        nearest,
    )


def _plan(bench: PageBench, i: int, side: str, length: float) -> Dressing | None:
    wanted = bench.figure(f"relief_{side}")
    rests_at = 0.0 if wanted is None else wanted.band.aim
    label = f"scoop wanted, {side} side"
    relief = bench.slide(
        f"relief_{side}",
        label,
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
    """What comes off the board's middle line everywhere. [mm]"""
    return removal_across(bass=plans["bass"].base_removal, treble=plans["treble"].base_removal, share=0.5)


def _found(side: str, plan: Dressing) -> Iterator[str]:
    if plan.relief > 0:
        at = number(plan.relief_at, 0)
        said = f"{side.capitalize()} side: deepest {number(plan.relief, 2)} at {at} mm from the nut."
    else:
        said = f"{side.capitalize()} side: nowhere below the straightedge."
    faults = [FAULT_WORDS[fault] for fault in plan.faults]
    yield said + (f" It has {listed(faults)}." if faults else " As wanted.")


def _cross(bench: PageBench) -> Iterator[str]:
    state = bench.state
    gauge = state.held("fingerboard_radius")
    told_by = state.derived(("fingerboard_radius", None))
    wanted = state.wanted(("fingerboard_radius", None))
    if gauge is not None and not gauge.assumed:
        band = "" if wanted is None else f", wanted {short(wanted.band.low)} to {short(wanted.band.high)}"
        yield f"Across, the board's radius is {number(gauge.value)} mm{band}."
        if told_by is not None and abs(told_by.value - gauge.value) > told_by.known_to + gauge.resolution:
            yield (
                f"Chord and rise tell {number(told_by.value)} where the gauge says {number(gauge.value)}: "
                "a flat facet under a low string, or the gauge held aslant."
            )


def _thickness(bench: PageBench, i: int) -> Held | None:
    return bench.state.held("fingerboard_thickness", i)


def _left_words(bench: PageBench, plans: dict[str, Dressing]) -> str:
    least = bench.figure("fingerboard_thickness_min")
    left = [
        edge_left(thickness=held.value, max_removal=plans[side].max_removal)
        for i, side in enumerate(SIDES)
        if (held := _thickness(bench, i)) is not None
    ]
    if not left:
        return "the thickness at the edge is not read: read it before anything is planed"
    said = f"{number(min(left))} left at the thinner edge"
    if least is not None and min(left) < least.band.low - 1e-9:
        said += f": too thin, never under {short(least.band.low)}"
    return said


def _consequences(bench: PageBench, plans: dict[str, Dressing]) -> Iterator[Consequence]:
    state, base = bench.state, _base(plans)
    bass, treble = (number(plans[side].base_removal, 2) for side in ("bass", "treble"))
    halves = f"Half of {bass} and {treble}, off bass and treble side."
    projection = state.held("projection")
    if projection is not None:
        yield told(
            "projection",
            "projection",
            projection.value,
            projection.value - base,
            [f"{short(projection.value)} − {number(base, 2)}: the board's line comes down with its surface.", halves],
            wanted=state.wanted(("projection", None)),
            assumed=projection.assumed,
        )
    for measure, where in (("nut_height", "at the nut"), ("end_height", "at the board's end")):
        for position in (0, state.count - 1):
            height = state.held(measure, position)
            if height is None or height.assumed:
                continue
            off = plans[SIDES[0 if position == 0 else 1]].base_removal
            name = state.instrument.string_names[position]
            yield told(
                f"{measure}{position}",
                f"{name} {where}",
                height.value,
                height.value + off,
                [f"{short(height.value)} + {number(off, 2)}: the board sinks under a string that stays."],
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
            f"edge left, {side} side",
            "mm",
            thick.value,
            left,
            1,
            [
                f"{short(thick.value)} − {number(plans[side].max_removal, 2)}, the most that comes off: "
                f"the cautious reading."
            ],
            band="" if least is None else f"never under {short(least.band.low)}",
            side="below" if too_thin else "in_band",
        )


def _table(plans: dict[str, Dressing]) -> Table:
    first = next(iter(plans.values()))
    rows, marked = [], []
    for side, plan in plans.items():
        rows.append([f"gap, {side}", *(number(station.gap, 2) for station in plan.stations)])
        rows.append([f"wanted, {side}", *(number(station.target_gap, 2) for station in plan.stations)])
        rows.append([f"off, {side}", *(number(station.removal, 2) for station in plan.stations)])
        most = max(range(len(plan.stations)), key=lambda n: plan.stations[n].removal)
        if plan.max_removal >= WORTH_TAKING:
            marked.append([len(rows) - 1, most + 1])
    return Table("What comes off", ["from the nut", *(number(s.x, 0) for s in first.stations)], rows, marked)


def _plot(side: str, plan: Dressing) -> Plot:
    length = plan.stations[-1].x
    wanted = gap_along(fingerboard_length=length, relief=plan.target_relief)
    now = [[s.x, s.gap] for s in plan.stations]
    along = [length * i / _DRAWN for i in range(_DRAWN + 1)]
    then = [[x, wanted(x) + plan.base_removal] for x in along]
    # Between the stations nobody read it: what comes off there lies between straight lines.
    removed = [*now, *([s.x, s.gap + s.removal] for s in reversed(plan.stations))]
    offs = ", ".join(f"{number(s.removal, 2)} at {number(s.x, 0)}" for s in plan.stations)
    return Plot(
        key=f"scoop_{side}",
        title=f"Scoop, {side} side",
        x_label="mm from the nut",
        y_label="under the straightedge, mm",
        down=True,
        curves=[Curve("as it is", "now", now), Curve("dressed", "then", then)],
        removed=[removed],
        says=f"Scoop on the {side} side. To come off: {offs}.",
    )
