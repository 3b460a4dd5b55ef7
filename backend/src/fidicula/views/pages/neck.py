"""Neck and projection: what may be done about it, what each way takes, and where the bridge should stand."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from fidicula.core.bands import Band, side_of_band
from fidicula.core.errors import CoreError
from fidicula.core.geometry.neck import (
    ProjectionJudgement,
    StopJudgement,
    judge_projection,
    judge_stop,
    lift_at_board_end,
    wedge_for_lift,
    wedge_lifts,
)
from fidicula.judgement.assessment.projection import accepted_of
from fidicula.views.pages.bench import PageBench, told
from fidicula.views.pages.drawn import NeckDrawing
from fidicula.views.pages.model import Consequence, Impossible, PageView
from fidicula.words.findings import found_words
from fidicula.words.numbers import sentence
from fidicula.words.pages import neck as say

_MOST_SHIFT = 12.0
_SAME = 0.05
"""Projections as near as this are the same wish. [mm]"""


@dataclass(frozen=True)
class _Neck:
    """What this page rests on. [mm]"""

    projection: float
    band: Band
    string_length: float
    neck_length: float
    board_length: float


def neck_page(bench: PageBench) -> PageView:
    """What the projection and the stop ask for."""
    neck = _neck(bench)
    finding: list[str] = []
    consequences: list[Consequence] = []
    takes: dict[str, list[str]] = {}
    impossible = None
    if neck is not None:
        judged, impossible = _judged(bench, neck)
        if judged is not None:
            finding.append(say.finding(projection=neck.projection, wanted=neck.band, judged=judged))
            thickest = bench.figure("max_wedge_at_heel")
            takes = say.takes(
                projection=neck.projection, judged=judged, thickest=None if thickest is None else thickest.band.aim
            )
            consequences += _lifted(bench, neck)
            impossible = impossible or _contradicting(bench, neck)
    stop = _stop(bench)
    if stop is not None:
        finding += _said_of_stop(bench, stop)
        consequences += _moved(bench, stop)
    finding += [found.says for found in found_words(bench.state) if found.of in ("edge_projection", "neck_to_nick")]
    asked = bench.question("projection")
    drawing = _drawing(bench, neck, consequences)
    return bench.view(
        "neck",
        say.TITLE,
        finding=finding or [say.NOTHING_READ],
        impossible=impossible,
        consequences=consequences,
        ways=bench.ways_of("projection", takes),
        question="projection" if asked else "",
        work="wedge_fitted",
        drawing=drawing,
    )


def _drawing(bench: PageBench, neck: _Neck | None, consequences: list[Consequence]) -> NeckDrawing | None:
    """None where the figures or the lengths along the neck are missing; without a reading it shows what is wanted."""
    state, wanted = bench.state, bench.state.wanted(("projection", None))
    length, heel, board = (
        state.read_or_figure(name) for name in ("string_length", "neck_length", "fingerboard_length")
    )
    if wanted is None or length is None or heel is None or board is None:
        return None
    tried = {handle.name: handle.at for handle in bench.handles}
    then = next((one.then for one in consequences if one.key == "projection"), None)
    return NeckDrawing(
        "neck",
        wanted.band.low,
        tried.get("projection", wanted.band.aim),
        wanted.band.high,
        None if neck is None else neck.projection,
        "in_band" if neck is None else side_of_band(value=neck.projection, band=wanted.band),
        then,
        tried.get("wedge", 0.0),
        heel.value,
        board.value,
        length.value,
    )


def _neck(bench: PageBench) -> _Neck | None:
    projection, wanted = bench.read("projection"), bench.state.wanted(("projection", None))
    length, neck = bench.read_or_figure("string_length"), bench.read_or_figure("neck_length")
    board = bench.read_or_figure("fingerboard_length")
    if projection is None or wanted is None or length is None or neck is None or board is None:
        return None
    return _Neck(projection.value, wanted.band, length.value, neck.value, board.value)


def _judged(bench: PageBench, neck: _Neck) -> tuple[ProjectionJudgement | None, Impossible | None]:
    aim = bench.slide(
        "projection",
        say.LABELS["projection"],
        rests_at=neck.band.aim,
        low=neck.band.low - (neck.band.high - neck.band.low),
        high=neck.band.high + (neck.band.high - neck.band.low),
        step=0.1,
        rests_on=say.AIM_OF_FIGURE,
    )
    outside = aim < neck.band.low - 1e-9 or aim > neck.band.high + 1e-9
    nearest = min(max(aim, neck.band.low), neck.band.high)
    impossible = None
    if outside:
        impossible = Impossible("projection", say.outside_of_band(aim=aim, wanted=neck.band), nearest)
    least, most = accepted_of(bench.state)
    thickest = bench.figure("max_wedge_at_heel")
    try:
        judged = judge_projection(
            measured=neck.projection,
            band=Band(low=neck.band.low, aim=nearest, high=neck.band.high),
            string_length=neck.string_length,
            neck_length=neck.neck_length,
            fingerboard_length=neck.board_length,
            accept_low=least,
            accept_high=most,
            **({} if thickest is None else {"max_wedge": thickest.band.aim}),
        )
    except CoreError as error:
        return None, Impossible(str(error.path[0]), sentence(error.sentence), None)
    return judged, impossible


def _contradicting(bench: PageBench, neck: _Neck) -> Impossible | None:
    """A wedge and a projection that are both tried, and do not go together."""
    at = {handle.name: handle.at for handle in bench.handles}
    if not {"wedge", "projection"} <= bench.tried.keys():
        return None
    brings = neck.projection + wedge_lifts(
        at_heel=at["wedge"], neck_length=neck.neck_length, string_length=neck.string_length
    )
    if abs(brings - at["projection"]) < _SAME:
        return None
    needed = wedge_for_lift(
        lift=at["projection"] - neck.projection, neck_length=neck.neck_length, string_length=neck.string_length
    )
    thickest = next(handle.high for handle in bench.handles if handle.name == "wedge")
    return Impossible(
        "wedge",
        say.contradiction(wedge=at["wedge"], brings=brings, projection=at["projection"], needed=needed),
        round(min(max(needed, 0.0), thickest), 2),
    )


def _lifted(bench: PageBench, neck: _Neck) -> Iterator[Consequence]:
    thickest = bench.figure("max_wedge_at_heel")
    heel = bench.slide(
        "wedge",
        say.LABELS["wedge"],
        rests_at=0.0,
        low=0.0,
        high=thickest.band.aim if thickest else 2.0,
        step=0.05,
        rests_on="none",
    )
    lifts = wedge_lifts(at_heel=heel, neck_length=neck.neck_length, string_length=neck.string_length)
    at_end = lift_at_board_end(lift=lifts, fingerboard_length=neck.board_length, string_length=neck.string_length)
    yield told(
        "projection",
        "projection",
        neck.projection,
        neck.projection + lifts,
        [say.why_lift(heel=heel, string_length=neck.string_length, neck_length=neck.neck_length, lifts=lifts)],
        wanted=bench.state.wanted(("projection", None)),
    )
    yield told(
        "board_end",
        say.LABELS["board_end"],
        0.0,
        at_end,
        [
            say.why_board_end(
                lifts=lifts, board_length=neck.board_length, string_length=neck.string_length, at_end=at_end
            )
        ],
        places=2,
    )
    for position in (0, bench.state.count - 1):
        height = bench.state.held("end_height", position)
        if height is not None:
            name = bench.state.instrument.string_names[position]
            yield told(
                f"end_height{position}",
                say.at_board_end(name),
                height.value,
                height.value - at_end,
                [say.why_end_height(height=height.value, at_end=at_end)],
                places=2,
                wanted=bench.state.wanted_as_read(("end_height", position)),
            )


@dataclass(frozen=True)
class _Step:
    neck: float
    stop: float | None
    length: float
    ratio: tuple[float, float]
    nominal: float | None
    judged: StopJudgement
    neck_assumed: bool


def _stop(bench: PageBench) -> _Step | None:
    state = bench.state
    neck, length = bench.read_or_figure("neck_length"), state.held("string_length")
    stop, ratio = state.held("stop_length", 0), bench.figure("neck_to_stop")
    if neck is None or length is None or length.assumed or ratio is None:
        return None
    # What neck and string leave is no stop, for the string runs up to the crown: unread, nothing is said of it.
    measured = stop.value if stop is not None else neck.value / ratio.band.aim
    nominal = state.wanted(("string_length", None))
    try:
        judged = judge_stop(
            neck_length=neck.value,
            stop_length=measured,
            string_length=length.value,
            ratio=(ratio.band.aim, 1.0),
            nominal_string_length=None if nominal is None else nominal.band.aim,
        )
    except CoreError:
        return None
    return _Step(
        neck.value,
        None if stop is None else measured,
        length.value,
        (ratio.band.aim, 1.0),
        None if nominal is None else nominal.band.aim,
        judged,
        neck.assumed,
    )


def _said_of_stop(bench: PageBench, stop: _Step) -> Iterator[str]:
    judged, state = stop.judged, bench.state
    yield say.READ_THE_STOP if stop.stop is None else say.stop(judged, ratio=stop.ratio[0])
    before = state.last_time.get(("string_length", None))
    yield from say.string_length(
        judged,
        low_string=state.instrument.string_names[0],
        length=stop.length,
        before=None if before is None else before.value,
        nominal=stop.nominal,
    )


def _moved(bench: PageBench, stop: _Step) -> Iterator[Consequence]:
    shift = bench.slide(
        "bridge_shift",
        say.LABELS["bridge_shift"],
        rests_at=0.0,
        low=-_MOST_SHIFT,
        high=_MOST_SHIFT,
        step=0.5,
        rests_on=say.WHERE_IT_STANDS,
    )
    then = judge_stop(
        neck_length=stop.neck,
        stop_length=(stop.stop or stop.judged.ideal_stop) + shift,
        string_length=stop.length + shift,
        ratio=stop.ratio,
        nominal_string_length=stop.nominal,
    )
    yield told(
        "string_length",
        "string length",
        stop.length,
        stop.length + shift,
        say.why_string_length(length=stop.length, shift=shift),
        wanted=bench.state.wanted(("string_length", None)),
    )
    if stop.stop is not None:
        yield told(
            "stop",
            "stop",
            stop.stop,
            stop.stop + shift,
            [say.why_stop(measured=stop.stop, shift=shift)],
            wanted=bench.figure("stop_length"),
        )
        yield told(
            "neck_to_stop",
            "neck to stop",
            stop.judged.neck_to_stop,
            then.neck_to_stop,
            [say.why_neck_to_stop(neck=stop.neck, measured=stop.stop + shift, ratio=stop.ratio[0])],
            unit="",
            places=3,
            assumed=stop.neck_assumed,
        )
    if then.deviation is not None and stop.judged.deviation is not None:
        yield told(
            "octave",
            say.LABELS["octave"],
            stop.judged.deviation / 2,
            then.deviation / 2,
            [say.why_octave(stop.nominal)],
        )
