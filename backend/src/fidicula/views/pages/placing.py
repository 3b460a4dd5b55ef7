"""Where the bridge goes: the schools beside each other from where it stands, and how it stands there."""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from fidicula.codes import TargetQuestionCode
from fidicula.core.errors import CoreError
from fidicula.core.fitting.bridge_place import PlaceSchool, aside, cents_of_turn, moved_by
from fidicula.judgement.assessment.held import ResolvedValue
from fidicula.judgement.assessment.placing import SCHOOLS, Placed, leans_forward, nick_line, placed
from fidicula.views.pages.bench import PageBench, told
from fidicula.views.pages.drawn import PlaceDrawing, SchoolPlace
from fidicula.views.pages.model import Consequence, PageView, Table
from fidicula.words.pages import placing as say

QUESTION: TargetQuestionCode = "bridge_place"
_MOST_SHIFT = 15.0


def placing_page(bench: PageBench) -> PageView:
    """What each way to find the bridge's place comes to here."""
    bench.read("nick_stop", 0)
    bench.read("stop_length", 0)
    length = bench.read("string_length")
    setback = bench.state.known("post_setback", 0)
    schools = placed(bench.state)
    consequences: list[Consequence] = []
    shift = 0.0
    if length is not None:
        shift = bench.slide(
            "bridge_shift",
            say.LABELS["bridge_shift"],
            rests_at=0.0,
            low=-_MOST_SHIFT,
            high=_MOST_SHIFT,
            step=0.5,
            rests_on=say.WHERE_IT_STANDS,
        )
        consequences = list(_moved(bench, length, setback, shift))
    question = bench.question(QUESTION)
    return bench.view(
        "place",
        say.TITLE,
        finding=list(_finding(bench, schools)),
        consequences=consequences,
        tables=[_table(bench, length, setback, schools)] if length is not None and schools else [],
        ways=bench.ways_of(QUESTION, {school: say.takes(place.shift) for school, place in schools.items()}),
        question="" if question is None else QUESTION,
        work="bridge_moved",
        drawing=_drawing(bench, schools, shift),
        perspective=_perspective(bench, length),
    )


def _finding(bench: PageBench, schools: Mapping[PlaceSchool, Placed]) -> Iterator[str]:
    chosen = bench.state.targets.schools[QUESTION]
    rule = next((school for school in SCHOOLS if school == chosen), None)
    if rule is not None and rule in schools:
        yield say.by_recipe(_label(bench, rule), schools[rule].shift)
    elif schools:
        yield say.cannot_tell(_label(bench, chosen))
    else:
        yield say.NOTHING_READ
    nicks = [bench.state.known("nick_stop", side) for side in (0, 1)]
    if nicks[0] is not None and nicks[1] is not None:
        yield from say.nicks_apart(nicks[0].value - nicks[1].value)
    gaps = [bench.state.known("foot_gap", side) for side in (0, 1)]
    if gaps[0] is not None and gaps[1] is not None:
        yield say.centred(aside(bass_gap=gaps[0].value, treble_gap=gaps[1].value))
    lean, warp = bench.state.known("bridge_lean"), bench.state.known("bridge_warp")
    if lean is not None:
        yield say.lean(lean.value, pull_up=leans_forward(bench.state))
    if warp is not None:
        yield say.warp(warp.value)


def _table(
    bench: PageBench, length: ResolvedValue, setback: ResolvedValue | None, schools: Mapping[PlaceSchool, Placed]
) -> Table:
    """One row a school; never a mean of two."""
    rows: list[list[str]] = []
    marked: list[list[int]] = []
    behind = None if setback is None else setback.value
    for school, place in schools.items():
        try:
            then = moved_by(shift=place.shift, string_length=length.value)
        except CoreError:
            continue
        if school == bench.state.targets.schools[QUESTION]:
            marked.append([len(rows), 0])
        rows.append(
            say.row(
                _label(bench, school),
                place,
                string_length=length.value,
                then=then,
                setback=behind,
            )
        )
    head = [*say.TABLE_HEAD, *([] if behind is None else [say.POST_HEAD])]
    return Table(say.TABLE_TITLE, head, rows, marked, say.TABLE_SAYS)


def _moved(
    bench: PageBench, length: ResolvedValue, setback: ResolvedValue | None, shift: float
) -> Iterator[Consequence]:
    then = moved_by(shift=shift, string_length=length.value)
    yield told(
        "string_length",
        "string length",
        length.value,
        length.value + then.string_length,
        say.why_length(length=length.value, shift=shift),
        wanted=bench.state.wanted(("string_length", None)),
    )
    yield told("octave", say.LABELS["octave"], 0.0, then.octave, [say.WHY_OCTAVE])
    yield told("pull", say.LABELS["pull"], 0.0, then.pull * 100, [say.WHY_PULL], unit="%")
    stop = bench.state.known("stop_length", 0)
    if stop is not None:
        yield told(
            "stop",
            "stop",
            stop.value,
            stop.value + shift,
            say.why_length(length=stop.value, shift=shift),
            wanted=bench.figure("stop_length"),
        )
    if setback is not None:
        yield told("setback", say.LABELS["setback"], setback.value, setback.value + then.setback, [say.WHY_POST])


def _perspective(bench: PageBench, length: ResolvedValue | None) -> str:
    turn = bench.state.known("bridge_turn")
    foot = bench.state.read_or_figure("bridge_foot_width", figure="bridge_foot_width")
    spread = bench.state.held("bridge_spread")
    if turn is None or not turn.value or length is None or foot is None or spread is None:
        return ""
    try:
        cents = cents_of_turn(turn=turn.value, foot_width=foot.value, spread=spread.value, string_length=length.value)
    except CoreError:
        return ""
    return say.turned(turn=turn.value, cents=cents)


def _drawing(bench: PageBench, schools: Mapping[PlaceSchool, Placed], shift: float) -> PlaceDrawing | None:
    foot = bench.state.read_or_figure("bridge_foot_thickness", figure="bridge_foot_thickness")
    width = bench.state.read_or_figure("bridge_foot_width", figure="bridge_foot_width")
    if foot is None or width is None:
        return None
    stop, turn, line = bench.state.known("stop_length", 0), bench.state.known("bridge_turn"), nick_line(bench.state)
    gaps = [bench.state.known("foot_gap", side) for side in (0, 1)]
    nicks = [bench.state.known("nick_stop", side) for side in (0, 1)]
    return PlaceDrawing(
        kind="place",
        foot_thickness=foot.value,
        foot_width=width.value,
        shift=shift,
        turn=0.0 if turn is None else turn.value,
        gaps=[None if gap is None else gap.value for gap in gaps],
        nicks=[
            None if stop is None or line is None else (nick.value if nick is not None else line) - stop.value
            for nick in nicks
        ],
        schools=[
            SchoolPlace(_label(bench, school), place.shift, school == bench.state.targets.schools[QUESTION])
            for school, place in schools.items()
        ],
    )


def _label(bench: PageBench, school: str) -> str:
    return next((row.label for row in bench.schools.get(QUESTION, ()) if row.school == school), school)
