"""Every target of one instrument in numbers, and what another choice would change in them."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from fidicula.codes import TargetQuestionCode
from fidicula.judgement.assessment.computing import Computed, compute
from fidicula.judgement.assessment.stance import halving_lean
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.measures import MEASURES
from fidicula.judgement.targets.wanted import Wanted
from fidicula.tables.figures import figure_measures
from fidicula.tables.schools import school
from fidicula.views.sheet.model import TargetChange, TargetLine
from fidicula.words import target_lines as say

_CHANGED_OVER = 0.004
"""Less than this does not show in a figure with two places. [mm]"""


def target_lines(state: BenchState) -> list[TargetLine]:
    """What is wanted, part by part; lines without a figure are there too, saying so."""
    outcome = compute(state)
    computed = outcome if isinstance(outcome, Computed) else None
    return [
        *_heights(state, computed),
        *_nut(state, computed),
        *_bridge(state, computed),
        *(
            _line(measure, "neck and board", MEASURES[measure].label, state.wanted((measure, None)))
            for measure in ("projection", "string_length", "fingerboard_length", "fingerboard_radius")
        ),
        *_others(state),
        _afterlength(state),
        *_schools_alone(state),
    ]


def _heights(state: BenchState, computed: Computed | None) -> Iterator[TargetLine]:
    names = state.instrument.string_names
    for i, name in enumerate(names):
        wanted = state.wanted_upright(("end_height", i))
        aim = None if computed is None else computed.plan.strings[i].end_height
        known = None if computed is None else computed.known_to[i].end_height
        source = say.FOLLOWS_CROWN if wanted is None and 0 < i < state.count - 1 else ""
        yield _line(f"end_height:{i}", "heights", say.at_board_end(name), wanted, aim, known, source)
    if computed is None:
        return
    for i, name in enumerate(names):
        mark, known = computed.plan.strings[i].mark_height, computed.known_to[i].mark
        yield _line(f"mark:{i}", "heights", say.over_mark(name), None, mark, known, say.CARRIED_ON)


def _nut(state: BenchState, computed: Computed | None) -> Iterator[TargetLine]:
    targets, names = state.targets, state.instrument.string_names
    for i, name in enumerate(names):
        yield _line(f"nut_height:{i}", "nut", say.at_nut(name), state.wanted_upright(("nut_height", i)))
    for i, diameter in enumerate(state.diameters):
        depth = None if targets.slot_depth_ratio is None else targets.slot_depth_ratio * diameter
        yield _line(f"slot_depth:{i}", "nut", f"{names[i]} slot depth", None, depth, None, targets.slot_depth_source)
    yield _line("nut_spread", "nut", MEASURES["nut_spread"].label, state.wanted(("nut_spread", None)))
    if computed is not None:
        label, margin = say.LABELS["nut_centre"], targets.nut_margin
        source = say.CENTRED
        if margin is not None:
            source = say.beside_highest(margin.band.aim, margin.source)
        yield _line("nut_centre", "nut", label, None, computed.nut_centre, None, source)


def _bridge(state: BenchState, computed: Computed | None) -> Iterator[TargetLine]:
    part = "bridge"
    yield _line("bridge_spread", part, MEASURES["bridge_spread"].label, state.wanted(("bridge_spread", None)))
    if computed is None or state.targets.curve == "template":
        yield _line("crown_radius", part, "crown radius", state.targets.crown_radius)
    else:
        yield _line("crown_radius", part, "crown radius", None, computed.plan.crown.radius, None, say.NEAREST_ARC)
    if computed is None:
        return
    for target in computed.plan.strings:
        label = say.from_middle(target.name)
        yield _line(f"place:{target.name}", part, label, None, target.line.bridge_offset, None, say.SPREAD_AND_SPACING)
    for i, result in enumerate(computed.results):
        if result is not None and result.cut.crown_cut is not None:
            label = say.wood(state.instrument.string_names[i])
            yield _line(
                f"wood:{i}", part, label, None, result.cut.crown_cut, result.uncertainty, say.PRESENT_LESS_WANTED
            )


def _others(state: BenchState) -> Iterator[TargetLine]:
    measures = figure_measures()
    for measure, wanted in state.targets.others.items():
        if measure != "afterlength_divisor":
            kind = measures[measure]
            yield _line(measure, kind.part, kind.label, wanted, unit=kind.unit)


def _schools_alone(state: BenchState) -> Iterator[TargetLine]:
    """What a school says that is no figure of the family: how many fine tuners, how bridge and post stand."""
    schools, count = state.targets.schools, state.count
    tuners = {"all": count, "none": 0}.get(schools["fine_tuners"], 1)
    yield _line(
        "fine_tuners", "tailpiece and body", "fine tuners", None, float(tuners), None, _says("fine_tuners", state)
    )
    yield _line(
        "bridge_place", "bridge", say.LABELS["bridge_place"], None, None, None, _says("bridge_place", state), unit=""
    )
    lean = 0.0 if schools["bridge_stance"] == "back_square" else halving_lean(state)
    label = say.LABELS["both" if schools["bridge_stance"] == "both" else "back_square"]
    yield _line("bridge_stance", "bridge", label, None, lean, None, _says("bridge_stance", state), unit="°")
    upright = schools["post_stance"] != "with_bridge"
    yield _line(
        "post_stance", "post and bar", say.LABELS["post_stance"], None,
        0.0 if upright else lean, None, _says("post_stance", state), unit="°",
    )  # fmt: skip
    yield _line(
        "post_work", "post and bar", say.LABELS["post_work"], None, None, None, _says("post_work", state), unit=""
    )
    for question, part in _BY_SCHOOL:
        if question in schools:
            yield _line(question, part, say.LABELS[question], None, None, None, _says(question, state), unit="")
    yield _line(
        "post_statement", "post and bar", say.LABELS["post_statement"], None, None, None,
        _says("post_statement", state), unit="",
    )  # fmt: skip


_BY_SCHOOL: tuple[tuple[TargetQuestionCode, str], ...] = (
    ("post_moves", "post and bar"),
    ("slot_turn", "nut"),
    ("board_edges", "board"),
    ("peg_grip", "nut"),
    ("judging", "bridge"),
)
"""Questions whose schools are told in words, each with its part."""


def _says(question: TargetQuestionCode, state: BenchState) -> str:
    row = school(question, state.targets.schools[question])
    return "" if row is None else f"{row.label}: {row.says}"


def _line(
    key: str,
    part: str,
    label: str,
    wanted: Wanted | None,
    aim: float | None = None,
    plus_minus: float | None = None,
    source: str = "",
    unit: str = "mm",
) -> TargetLine:
    band = None if wanted is None else wanted.band
    return TargetLine(
        key=key,
        part=part,
        label=label,
        unit=unit,
        low=_end(None if band is None else band.low),
        aim=aim if band is None else band.aim,
        high=_end(None if band is None else band.high),
        plus_minus=plus_minus if band is None or wanted is None else wanted.known_to or None,
        source=(wanted.source if wanted is not None else source) or ("" if aim is not None else say.NO_FIGURE),
    )


def _end(value: float | None) -> float | None:
    return None if value is None or value in (float("inf"), float("-inf")) else value


def _afterlength(state: BenchState) -> TargetLine:
    part, label = "tailpiece and body", "afterlength"
    divisor, length = state.targets.figure("afterlength_divisor"), state.held("string_length")
    if divisor is None or length is None:
        words = say.NEAR_SADDLE if divisor is None else ""
        return TargetLine("afterlength", part, label, "mm", None, None, None, None, words or say.NO_FIGURE)
    times = divisor.band.aim
    return _line(
        "afterlength",
        part,
        label,
        None,
        length.value / times,
        length.resolution / times,
        say.of_string_length(length.value, times, divisor.source),
    )


def changes(before: Sequence[TargetLine], after: Sequence[TargetLine]) -> list[TargetChange]:
    """The lines whose number differs, in the order of the lines after."""
    was = {line.key: line for line in before}
    found = [
        TargetChange(
            line.key,
            line.part,
            line.label,
            line.unit,
            old.aim if (old := was.get(line.key)) else None,
            line.aim,
            line.source,
        )
        for line in after
        if _differs(was.get(line.key), line)
    ]
    gone = {line.key for line in after}
    return found + [
        TargetChange(line.key, line.part, line.label, line.unit, line.aim, None, say.NO_FIGURE)
        for line in before
        if line.key not in gone and line.aim is not None
    ]


def _differs(before: TargetLine | None, after: TargetLine) -> bool:
    old = None if before is None else before.aim
    if old is None or after.aim is None:
        return old is not after.aim
    return abs(old - after.aim) > _CHANGED_OVER
