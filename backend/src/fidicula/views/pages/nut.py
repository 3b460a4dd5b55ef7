"""The nut: what to file at each string and never below, how deep and wide its slot is, and with which file."""

from __future__ import annotations

from collections.abc import Iterator

from fidicula.core.errors import CoreError
from fidicula.core.fitting.nut import (
    end_height_given,
    file_range,
    floor_points,
    nut_top,
    smallest_file,
)
from fidicula.core.geometry.spacing import edge_gaps, string_offsets
from fidicula.judgement.assessment.findings import spacing
from fidicula.judgement.assessment.nut import slot_turn, wanted_offsets
from fidicula.judgement.assessment.thresholds import WORTH_TAKING
from fidicula.numerals import number
from fidicula.views.pages.bench import PageBench, told
from fidicula.views.pages.bridge import FILES, SLOT_OVER_STRING
from fidicula.views.pages.drawn import NutDrawing, NutString
from fidicula.views.pages.model import Consequence, Curve, PageView, Plot, Table
from fidicula.views.pages.trying import aim_of
from fidicula.words.numbers import listed
from fidicula.words.pages import nut as say


def nut_page(bench: PageBench) -> PageView:
    """What is filed, string by string."""
    state = bench.state
    consequences: list[Consequence] = []
    tables: list[Table] = []
    finding: list[str] = list(_by_cards(bench))
    aims: list[float] | None = None
    drawing = None
    if state.string_set is None:
        pass
    else:
        aims = _aims(bench)
        heights = [bench.read("nut_height", i) for i in range(state.count)]
        if aims is not None and not bench.retake:
            now = [_upright(bench, i, held.value) for i, held in enumerate(heights) if held is not None]
            consequences = list(_consequences(bench, now, aims))
        tables = list(_tables(bench, aims))
        drawing = _drawing(bench, aims)
        finding += _deep(bench)
        finding += _tight(bench)
        finding += _top(bench, aims)
        if bench.seen & {"buzz_open"}:
            finding.append(say.PLUCKED)
    asked = next((one for one in ("nut_low", "glued_nut") if bench.question(one)), "")
    return bench.view(
        "nut",
        say.TITLE,
        finding=finding,
        consequences=consequences,
        plots=list(_floors(bench)),
        tables=tables,
        ways=bench.ways_of(asked) if asked else [],
        question=asked,
        shelf=FILES,
        work="nut_filed",
        drawing=drawing,
    )


def _aims(bench: PageBench) -> list[float] | None:
    """Wanted heights, straight up, between those of the outer strings where the handles stand. [mm]"""
    state, last = bench.state, bench.state.count - 1
    outer = []
    for side, position in (("bass", 0), ("treble", last)):
        wanted = state.wanted_upright(("nut_height", position))
        aim = aim_of(wanted)
        if aim is None or wanted is None:
            return None
        outer.append(
            bench.slide(
                f"nut_{side}",
                say.wanted_at(state.instrument.string_names[position]),
                rests_at=round(aim, 2),
                low=0.1,
                high=round(aim + 1, 2),
                step=0.05,
                rests_on=wanted.source,
            )
        )
    return [outer[0] + (outer[1] - outer[0]) * i / last for i in range(state.count)]


def _consequences(bench: PageBench, now: list[float], aims: list[float]) -> Iterator[Consequence]:
    state = bench.state
    carry = None if state.geometry is None else state.geometry.board.carry
    for i, (height, aim) in enumerate(zip(now, aims, strict=True)):
        name = state.instrument.string_names[i]
        off = max(0.0, height - aim)
        yield told(
            f"nut{i}",
            say.at_nut(name),
            height,
            height - off,
            [say.why_filed(height=height, aim=aim, off=off)],
            places=2,
            wanted=state.wanted_upright(("nut_height", i)),
        )
        end = state.held("end_height", i)
        if carry is not None and off > 0 and end is not None:
            gives = end_height_given(filed=off, carry=carry)
            yield told(
                f"end{i}",
                say.at_board_end(name),
                end.value,
                end.value - gives,
                [say.why_end(off=off, carry=carry, gives=gives)],
                places=2,
                wanted=state.wanted_as_read(("end_height", i)),
            )


def _upright(bench: PageBench, i: int, height: float) -> float:
    return bench.state.upright(("nut_height", i), height, bench.state.direction("nut_height", i))


def _width_ratio(bench: PageBench) -> tuple[float, float]:
    """Of a slot over its string, as the school has it."""
    wanted = bench.figure("slot_width_ratio")
    return SLOT_OVER_STRING if wanted is None else (wanted.band.low, wanted.band.high)


def _tables(bench: PageBench, aims: list[float] | None) -> Iterator[Table]:
    state, files = bench.state, list(bench.shelf.get(FILES, ()))
    ratio = state.targets.slot_depth_ratio or 1 / 3
    rows, missing = [], []
    for i, (name, diameter) in enumerate(zip(state.instrument.string_names, state.diameters, strict=True)):
        wanted = file_range(diameter=diameter, ratio=_width_ratio(bench))
        file = smallest_file(files=files, wanted=wanted)
        if file is None:
            missing.append([i, 4])
        rows.append(
            say.slot_row(
                name,
                diameter=diameter,
                deep=ratio * diameter,
                wide=wanted,
                file=file,
                top=None if aims is None else nut_top(floor=aims[i], diameter=diameter, ratio=ratio),
                turn=_turn_words(bench, i),
            )
        )
    yield Table(
        say.SLOTS_TITLE,
        list(say.SLOTS_HEAD),
        rows,
        missing,
        say.slots_says(state.targets.schools["slot_width"], state.targets.schools["slot_turn"]),
    )
    yield from _spacing(bench)


def _drawing(bench: PageBench, aims: list[float] | None) -> NutDrawing | None:
    """The nut from the front; None where its width, the board's radius or the strings' places are not known."""
    state = bench.state
    width = state.read_or_figure("fingerboard_width", 0, figure="fingerboard_width_nut")
    radius = state.held("fingerboard_radius_nut") or state.held("fingerboard_radius")
    spread = state.held("nut_spread")
    if width is None or radius is None or spread is None:
        return None
    read = spacing(state, "nut")
    try:
        wanted = string_offsets(spread=spread.value, diameters=state.diameters, rule=state.targets.spacing)
    except CoreError:
        return None
    offsets = wanted if read is None else read.offsets
    strings = []
    for i, (name, diameter) in enumerate(zip(state.instrument.string_names, state.diameters, strict=True)):
        held = state.held("nut_height", i)
        wide, _ = file_range(diameter=diameter, ratio=_width_ratio(bench))
        now = None if held is None else _upright(bench, i, held.value)
        strings.append(
            NutString(
                name,
                offsets[i],
                diameter,
                now,
                None if aims is None else aims[i],
                None if aims is None or now is None else now - aims[i],
                wide,
                held is not None and held.assumed,
            )
        )
    record = bench.instruction.record
    return NutDrawing("nut", width.value, radius.value, strings, record is not None and record.work == "nut_filed")


def _turn_words(bench: PageBench, i: int) -> str:
    """The slot's turn in side and plan, where the nut and the peg were read."""
    try:
        turn = slot_turn(bench.state, i)
    except CoreError as error:
        return error.sentence
    return "–" if turn is None else say.turn(turn)


def _by_cards(bench: PageBench) -> Iterator[str]:
    """Strings of which one card alone was tried: a bound, and no number."""
    for i, name in enumerate(bench.state.instrument.string_names):
        passes, stops = (bench.state.known(measure, i) for measure in ("nut_passes", "nut_stops"))
        known = [(held, over) for held, over in ((passes, True), (stops, False)) if held is not None]
        if len(known) == 1:
            yield say.bound(name, card=known[0][0].value, over=known[0][1])


def _deep(bench: PageBench) -> Iterator[str]:
    """Strings of which over half lies in the nut."""
    for i, (name, diameter) in enumerate(zip(bench.state.instrument.string_names, bench.state.diameters, strict=True)):
        held = bench.state.known("nut_slot_depth", i)
        if held is not None and held.value > diameter / 2 + held.resolution:
            yield say.deep(name, depth=held.value, diameter=diameter)


def _tight(bench: PageBench) -> Iterator[str]:
    """Slots that are narrower or wider than their school has them for the string in them."""
    low, high = _width_ratio(bench)
    for i, (name, diameter) in enumerate(zip(bench.state.instrument.string_names, bench.state.diameters, strict=True)):
        held = bench.state.known("nut_slot_width", i)
        if held is not None and not low * diameter - held.resolution <= held.value <= high * diameter + held.resolution:
            yield say.wide(name, width=held.value, low=low * diameter, high=high * diameter)


def _top(bench: PageBench, aims: list[float] | None) -> Iterator[str]:
    """The nut's top beside the outer strings, where it is not as high as the school wants it."""
    state, ratio = bench.state, bench.state.targets.slot_depth_ratio or 1 / 3
    for place, i in enumerate((0, state.count - 1)):
        held = state.known("nut_over_board", place)
        if held is None or aims is None:
            continue
        wanted = nut_top(floor=aims[i], diameter=state.diameters[i], ratio=ratio)
        if abs(held.value - wanted) > WORTH_TAKING + held.resolution:
            yield say.top(state.instrument.string_names[i], top=held.value, wanted=wanted)


def _floors(bench: PageBench) -> Iterator[Plot]:
    """Each slot's floor from the side, level at the front edge."""
    depth = bench.state.held("nut_thickness")
    if depth is None:
        return
    curves = []
    for i, name in enumerate(bench.state.instrument.string_names):
        try:
            turn = slot_turn(bench.state, i)
        except CoreError:
            continue
        if turn is not None:
            points = [[x, y] for x, y in floor_points(turn, nut_thickness=depth.value)]
            curves.append(Curve(name, "wanted", points))
    if curves:
        falls = listed([f"{curve.label} {number(curve.points[-1][1], 2)}" for curve in curves])
        yield Plot("floors", say.FLOORS_TITLE, say.FLOORS_X, say.FLOORS_Y, True, curves, [], say.floors(falls))


def _spacing(bench: PageBench) -> Iterator[Table]:
    """Old and new places of the strings across the nut, from the bass edge where that was read."""
    state = bench.state
    width = state.read_or_figure("fingerboard_width", 0, figure="fingerboard_width_nut")
    try:
        new = wanted_offsets(state)
    except CoreError:
        return
    if new is None or width is None:
        return
    old = spacing(state, "nut")
    rows = [[say.WANTED_ROW, *(number(width.value / 2 + y, 2) for y in new)]]
    if old is not None and old.by_edge:
        rows.insert(0, [say.PRESENT_ROW, *(number(width.value / 2 + y, 2) for y in old.offsets)])
    gaps = edge_gaps(offsets=new, diameters=state.diameters)
    said = say.spacing(gaps=gaps, width=width.value)
    yield Table(say.SPACING_TITLE, ["", *state.instrument.string_names], rows, [], said)
