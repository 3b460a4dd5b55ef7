"""The bridge: what to take at each string, in which order, and what any other wish would make of it."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import replace
from itertools import pairwise

from fidicula.codes import MeasureCode, WorkCode
from fidicula.core.fitting.bridge_wood import thickness_at, to_plane
from fidicula.core.fitting.nut import file_range, smallest_file
from fidicula.core.geometry.bow import nearest_template
from fidicula.core.reach import nearest_that_can_be
from fidicula.core.readings.states import MeasurementKey
from fidicula.judgement.assessment.computing import Computed, Impossibility, compute
from fidicula.judgement.assessment.cut import cut_facts
from fidicula.judgement.assessment.model import CutFacts
from fidicula.judgement.assessment.questions import to_measure_again
from fidicula.judgement.assessment.thresholds import WORTH_TAKING
from fidicula.numerals import short
from fidicula.views.pages.bench import AT_THE_CROWN, PageBench, banded, told
from fidicula.views.pages.drawn import CrownDrawing
from fidicula.views.pages.load import stance_said
from fidicula.views.pages.model import Consequence, Impossible, PageView, Table
from fidicula.views.pages.trying import aim_of, aims_at, tried_state
from fidicula.views.sheet.drawing import drawing
from fidicula.words.cut import assumed_words
from fidicula.words.numbers import sentence
from fidicula.words.pages import bridge as say

FILES, TEMPLATES = "slot_files", "crown_templates"
SLOT_OVER_STRING = (1.05, 1.35)
"""How much wider than its string a slot is filed: too exact chokes it, too wide lets it wander."""


def bridge_page(bench: PageBench) -> PageView:
    """The cut, string by string."""
    state, now = bench.state, bench.a.computed
    finding: list[str] = []
    consequences: list[Consequence] = []
    tables: list[Table] = []
    impossible = None
    drawn = None
    for measure, position in to_measure_again(state):
        bench.read(measure, position)
    if now is not None:
        then = _tried(bench, now)
        if isinstance(then, Computed):
            drawn = drawing(state, then)
            would = cut_facts(state, then)
            bench.assumed += [line for line in assumed_words(bench.a) if line not in bench.assumed]
            finding += _short(would)
            finding += stance_said(bench, now)
            if not bench.retake:
                consequences = list(_consequences(bench, now, then, bench.a.cut, would))
                tables = [_table(bench, then, would), *_wood_left(bench)]
        elif then is not None:
            impossible = _nearest(bench, now, then)
    return bench.view(
        "bridge",
        say.TITLE,
        finding=finding,
        impossible=impossible,
        consequences=consequences,
        tables=tables,
        ways=bench.ways_of("bridge_low"),
        question="bridge_low" if bench.question("bridge_low") else "",
        shelf=TEMPLATES,
        work=_work(bench),
        drawing=None if drawn is None else CrownDrawing("crown", drawn),
    )


def _work(bench: PageBench) -> WorkCode:
    """What of crown and slots the instruction asks for now."""
    record = bench.instruction.record
    return record.work if record is not None and record.work in AT_THE_CROWN else "crown_cut"


_HANDLES: tuple[tuple[MeasureCode, float], ...] = (("end_height", 2.0), ("nut_height", 0.5))
"""Heights that are tried at the outer strings, and so far on either side of their aims. [mm]"""


def _tried(bench: PageBench, now: Computed) -> Computed | Impossibility | None:
    """The bridge for where the handles stand."""
    state, names, last = bench.state, bench.state.instrument.string_names, bench.state.count - 1
    aims: dict[MeasurementKey, float] = {}
    readings: dict[MeasurementKey, float] = {}
    for side, position in (("bass", 0), ("treble", last)):
        for measure, most in _HANDLES:
            aim = aim_of(state.targets[measure, position])
            if aim is None:
                continue
            low = max(0.1, round(aim - most, 2))
            label = say.wanted_at(names[position], measure)
            aims[measure, position] = bench.slide(
                f"{measure}_{side}", label, rests_at=aim, low=low, high=round(aim + most, 2), step=0.05, rests_on=""
            )
    aims |= _between(bench, aims)
    radius = aim_of(state.targets.crown_radius)
    if radius is not None:
        wanted = state.targets.crown_radius
        radius = bench.slide(
            "crown_radius",
            say.LABELS["crown_radius"],
            rests_at=radius,
            low=round(radius * 0.3, 1),
            high=round(radius * 2, 1),
            step=0.5,
            rests_on="" if wanted is None else wanted.source,
        )
    for measure, share in (("bridge_spread", 0.1), ("nut_spread", 0.1), ("projection", 0.06)):
        value = now.singles[measure].value
        at = bench.slide(
            measure,
            say.LABELS[measure],
            rests_at=value,
            low=round(value * (1 - share), 1),
            high=round(value * (1 + share), 1),
            step=0.1,
            rests_on="a figure" if now.singles[measure].assumed else "as read",
        )
        if abs(at - value) > 1e-9:
            readings[measure, None] = at
    shift = bench.slide("shift", say.LABELS["shift"], rests_at=0.0, low=-3.0, high=3.0, step=0.1)
    return compute(tried_state(bench, aims_at(bench, aims, crown_radius=radius), readings, shift=shift))


def _nearest(bench: PageBench, now: Computed, problem: Impossibility) -> Impossible:
    """Which wish cannot be, and the nearest to it that can: the first handle that would put it right by itself."""
    for handle in list(bench.handles):
        wished = bench.tried.get(handle.name)
        if isinstance(wished, str) or wished is None:
            continue
        name = handle.name

        def can_be(value: float, name: str = name) -> bool:
            trying = replace(bench, tried={**bench.tried, name: value}, handles=[], assumed=[], retake=[])
            return isinstance(_tried(trying, now), Computed)

        if can_be(handle.rests_at):
            found = nearest_that_can_be(wished=wished, known_good=handle.rests_at, can_be=can_be)
            outward = math.ceil if wished < handle.rests_at else math.floor
            nearest = outward(round(found * 10, 6)) / 10
            said = say.nearest(problem=problem.says, label=handle.label, value=nearest)
            return Impossible(name, said, nearest)
    return Impossible("", sentence(problem.says), None)


def _between(bench: PageBench, aims: dict[MeasurementKey, float]) -> dict[MeasurementKey, float]:
    """Inner nut heights, and end heights where each string has its own, follow the outer two."""
    state, last = bench.state, bench.state.count - 1
    found: dict[MeasurementKey, float] = {}
    for measure in ("end_height", "nut_height"):
        moved = [
            aims.get((measure, outer), 0.0) - (aim_of(state.targets[measure, outer]) or 0.0) for outer in (0, last)
        ]
        for i in range(1, last):
            aim = aim_of(state.targets[measure, i])
            if aim is not None:
                found[measure, i] = max(0.0, aim + moved[0] + (moved[1] - moved[0]) * i / last)
    return found


def _short(cut: CutFacts) -> Iterator[str]:
    """Where the bridge would be too low for what is tried."""
    short = [s for s in cut.strings if s.wood is not None and s.wood <= -WORTH_TAKING]
    if short:
        yield say.too_low(short)


def _consequences(
    bench: PageBench, now: Computed, then: Computed, cut: CutFacts, would: CutFacts
) -> Iterator[Consequence]:
    state = bench.state
    for i, (one, other) in enumerate(zip(cut.strings, would.strings, strict=True)):
        target, before = then.plan.strings[i], now.plan.strings[i]
        if other.wood is not None:
            yield told(
                f"wood{i}",
                say.wood_at(one.name),
                one.wood,
                other.wood,
                say.why_wood(other, slot=_slot(bench, i)),
                assumed=other.state == "provisional",
            )
        yield told(
            f"mark{i}",
            say.mark_at(one.name),
            before.mark_height,
            target.mark_height,
            [say.WHY_MARK],
            places=2,
        )
    radius = then.plan.crown.radius
    near = nearest_template(radius=radius, templates=list(bench.shelf.get(TEMPLATES, ())))
    yield told(
        "crown_radius",
        say.LABELS["crown_radius"],
        now.plan.crown.radius,
        radius,
        [say.why_crown(near)],
        wanted=state.targets.crown_radius,
    )
    for i, target in enumerate(then.plan.strings):
        if target.bow_separation is not None:
            yield told(
                f"bow{i}",
                say.bow_at(target.name),
                now.plan.strings[i].bow_separation,
                target.bow_separation,
                say.why_bow(target.bow_rise),
                unit="°",
            )


def _slot(bench: PageBench, i: int) -> float:
    return (bench.state.targets.slot_depth_ratio or 0.0) * bench.state.diameters[i]


def _table(bench: PageBench, then: Computed, would: CutFacts) -> Table:
    """What is done at the vise, string by string."""
    files = list(bench.shelf.get(FILES, ()))
    marks = [0.0]
    for left, right in pairwise(then.plan.strings):
        marks.append(marks[-1] + right.line.bridge_offset - left.line.bridge_offset)
    rows = []
    for i, string in enumerate(would.strings):
        file = smallest_file(files=files, wanted=file_range(diameter=bench.state.diameters[i], ratio=SLOT_OVER_STRING))
        by_slots = would.begun and not would.rough
        rows.append(say.vise_row(string, mark=marks[i], slot=_slot(bench, i), file=file, by_slots=by_slots))
    return Table(say.VISE_TITLE, list(say.VISE_HEAD), rows, [], say.VISE_SAYS)


_UP = (0.25, 0.5, 0.75)
"""The places on the way up, in the order of `bridge_thickness`."""


def _thickness(bench: PageBench) -> Iterator[Table]:
    """What to plane where: straight from the feet to the crown, off the front."""
    foot, crown = bench.figure("bridge_foot_thickness"), bench.figure("bridge_top_thickness")
    if foot is None or crown is None:
        return
    places: list[tuple[MeasurementKey, float]] = [(("bridge_foot_thickness", None), 0.0)]
    places += [(("bridge_thickness", i), share) for i, share in enumerate(_UP)]
    places.append((("bridge_top_thickness", None), 1.0))
    rows = []
    for (measure, position), share in places:
        held = bench.state.known(measure, position)
        if held is None:
            continue
        wanted = thickness_at(foot=foot.band.aim, crown=crown.band.aim, share=share)
        off = to_plane(read=held.value, foot=foot.band.aim, crown=crown.band.aim, share=share)
        rows.append(say.thickness_row(share, read=held.value, wanted=wanted, off=off))
    if rows:
        yield Table(say.THICKNESS_TITLE, list(say.THICKNESS_HEAD), rows, [], say.THICKNESS_SAYS)


_LEFT: tuple[MeasureCode, ...] = ("bridge_foot_thickness", "bridge_top_thickness", "bridge_waist")


def _wood_left(bench: PageBench) -> Iterator[Table]:
    """Thickness at feet and crown and the waist, as far as they are read, against what is wanted."""
    state, floor = bench.state, bench.figure("bridge_waist_floor")
    rows: list[list[str]] = []
    marked: list[list[int]] = []
    for measure in _LEFT:
        held, wanted = state.held(measure), bench.figure(measure)
        if held is None:
            continue
        words, stands = banded(wanted, held.value)
        if measure == "bridge_waist" and floor is not None:
            words = say.never_under(words, floor.band.low)
        if stands not in ("", "in_band"):
            marked.append([len(rows), 1])
        rows.append([state.name((measure, None)), short(held.value), words])
    yield from _thickness(bench)
    if rows:
        yield Table(say.LEFT_TITLE, list(say.LEFT_HEAD), rows, marked, say.LEFT_SAYS)
