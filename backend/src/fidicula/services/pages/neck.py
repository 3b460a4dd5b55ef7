"""Neck and projection: what may be done about it, what each way takes, and where the bridge should stand."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from fidicula.core.bands import Band
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
from fidicula.services.assessment.projection import accepted_of
from fidicula.services.numbers import number, short, signed, signed_short
from fidicula.services.pages.bench import PageBench, told
from fidicula.services.pages.model import Consequence, Impossible, PageView
from fidicula.services.pages.notes import note_at
from fidicula.services.phrasing.findings import found_words

_NOT_DAMP = "Nothing is wedged or cut on a swollen instrument: read it twice, days apart, and the same."
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
            finding.append(_said(neck, judged))
            takes = _takes(bench, neck, judged)
            consequences += _lifted(bench, neck)
            impossible = impossible or _contradicting(bench, neck)
    stop = _stop(bench)
    if stop is not None:
        finding += _said_of_stop(bench, stop)
        consequences += _moved(bench, stop)
    finding += [found.says for found in found_words(bench.state) if found.of in ("edge_projection", "neck_to_nick")]
    asked = bench.question("projection")
    return bench.view(
        "neck",
        "Neck and projection",
        finding=finding or ["Read the projection and the neck; then what may be done stands here."],
        impossible=impossible,
        consequences=consequences,
        ways=bench.ways_of("projection", takes),
        question="projection" if asked else "",
        caution=_NOT_DAMP,
        work="wedge_fitted",
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
        "projection wanted",
        rests_at=neck.band.aim,
        low=neck.band.low - (neck.band.high - neck.band.low),
        high=neck.band.high + (neck.band.high - neck.band.low),
        step=0.1,
        rests_on="the figure's aim",
    )
    outside = aim < neck.band.low - 1e-9 or aim > neck.band.high + 1e-9
    nearest = min(max(aim, neck.band.low), neck.band.high)
    impossible = None
    if outside:
        impossible = Impossible(
            "projection",
            f"{short(aim)} is outside of the band from {short(neck.band.low)} to "
            f"{short(neck.band.high)}: what is worked out goes to "
            "its nearest edge; to want another, change the figure or accept it with a reason.",
            nearest,
        )
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
        return None, Impossible(str(error.path[0]), _sentence(error.sentence), None)
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
        f"A wedge of {number(at['wedge'], 2)} brings {number(brings)}, and {short(at['projection'])} is "
        f"wanted: the two contradict "
        f"each other. For that it would be {number(needed, 2)} thick.",
        round(min(max(needed, 0.0), thickest), 2),
    )


def _sentence(words: str) -> str:
    return words[0].upper() + words[1:] + "."


def _said(neck: _Neck, judged: ProjectionJudgement) -> str:
    band = f"{short(neck.band.low)} to {short(neck.band.high)}"
    if judged.state == "in_band":
        return f"The projection of {short(neck.projection)} is within its band of {band}: nothing to do about it."
    side = "below" if judged.state == "low" else "above"
    return (
        f"The projection of {short(neck.projection)} is {side} its band of {band}: "
        f"{number(abs(judged.change_at_bridge))} mm {'short of' if judged.state == 'low' else 'beyond'} the aim."
    )


def _takes(bench: PageBench, neck: _Neck, judged: ProjectionJudgement) -> dict[str, list[str]]:
    thickest = bench.figure("max_wedge_at_heel")
    limit = "" if thickest is None else f"; at most {short(thickest.band.aim)} may go there"
    wedge = [
        f"{number(judged.change_at_heel, 2)} thick over the body's edge, nothing at the nut{limit}",
        f"{number(judged.change_at_board_end, 2)} under the board's end",
        f"the board turns by {number(judged.wedge_angle, 2)}°",
        "glue rests 12 to 24 hours; then everything over the board is read again",
    ]
    if judged.change_at_heel < 0:
        wedge = ["a wedge brings a board up, never down"]
    reset = [
        f"the neck turns by {number(judged.reset_angle, 2)}° at the body's edge",
        f"{signed(judged.change_at_bridge)} at the bridge",
        "dear: the owner agrees first, and the bridge is made anew",
    ]
    return {
        "wait": ["nothing yet: days in the shop's air, and read again"],
        "wedge": wedge,
        "accept": [f"the bridge is made to {short(neck.projection)}"],
        "reset": reset,
    }


def _lifted(bench: PageBench, neck: _Neck) -> Iterator[Consequence]:
    thickest = bench.figure("max_wedge_at_heel")
    heel = bench.slide(
        "wedge",
        "a wedge, thick at the heel",
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
        [
            f"{short(heel)} × {short(neck.string_length)} ÷ {short(neck.neck_length)} = "
            f"{number(lifts, 2)} at the bridge: hinged at the nut."
        ],
        wanted=bench.state.wanted(("projection", None)),
    )
    yield told(
        "board_end",
        "the board's end comes up",
        0.0,
        at_end,
        [f"{number(lifts, 2)} × {short(neck.board_length)} ÷ {short(neck.string_length)} = {number(at_end, 2)}."],
        places=2,
    )
    for position in (0, bench.state.count - 1):
        height = bench.state.held("end_height", position)
        if height is not None:
            name = bench.state.instrument.string_names[position]
            yield told(
                f"end_height{position}",
                f"{name} at the board's end",
                height.value,
                height.value - at_end,
                [f"{short(height.value)} − {number(at_end, 2)}: the board comes up under a string that stays."],
                places=2,
                wanted=bench.state.wanted_as_read(("end_height", position)),
            )


@dataclass(frozen=True)
class _Stop:
    neck: float
    stop: float | None
    length: float
    ratio: tuple[float, float]
    nominal: float | None
    judged: StopJudgement
    neck_assumed: bool


def _stop(bench: PageBench) -> _Stop | None:
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
    return _Stop(
        neck.value,
        None if stop is None else measured,
        length.value,
        (ratio.band.aim, 1.0),
        None if nominal is None else nominal.band.aim,
        judged,
        neck.assumed,
    )


def _said_of_stop(bench: PageBench, stop: _Stop) -> Iterator[str]:
    judged, state = stop.judged, bench.state
    if stop.stop is None:
        yield "Read the stop to be told where the bridge should stand."
    else:
        yield (
            f"Neck to stop stands at {number(judged.neck_to_stop, 3)}, wanted {number(stop.ratio[0], 3)}: "
            f"the bridge would stand at {number(judged.ideal_stop)} from the edge, "
            f"{number(abs(judged.bridge_shift))} mm "
            f"{'toward the tailpiece' if judged.bridge_shift >= 0 else 'toward the board'} of where it is."
        )
    low = state.instrument.string_names[0]
    yield f"At the body's edge {low} sounds {note_at(low, judged.edge_interval)}."
    before = state.last_time.get(("string_length", None))
    if before is not None and abs(stop.length - before.value) >= 0.5:
        gone = "the tailpiece" if stop.length > before.value else "the board"
        yield f"Since last time the bridge has walked {number(abs(stop.length - before.value))} mm toward {gone}."
    elif judged.deviation is not None and abs(judged.deviation) >= 0.5:
        side = "over" if judged.deviation > 0 else "under"
        yield f"The string length is {number(abs(judged.deviation))} mm {side} the nominal {short(stop.nominal)}."


def _moved(bench: PageBench, stop: _Stop) -> Iterator[Consequence]:
    shift = bench.slide(
        "bridge_shift",
        "the bridge moved, + toward the tailpiece",
        rests_at=0.0,
        low=-_MOST_SHIFT,
        high=_MOST_SHIFT,
        step=0.5,
        rests_on="where it stands",
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
        [
            f"{short(stop.length)} {signed_short(shift)}",
            "Strings, post and heights follow the bridge.",
        ],
        wanted=bench.state.wanted(("string_length", None)),
    )
    if stop.stop is not None:
        yield told(
            "stop",
            "stop",
            stop.stop,
            stop.stop + shift,
            [f"From the edge to the bridge's middle: {short(stop.stop)} {signed_short(shift)}."],
            wanted=bench.figure("stop_length"),
        )
        yield told(
            "neck_to_stop",
            "neck to stop",
            stop.judged.neck_to_stop,
            then.neck_to_stop,
            [f"{short(stop.neck)} ÷ {short(stop.stop + shift)}; wanted {number(stop.ratio[0], 3)}."],
            unit="",
            places=3,
            assumed=stop.neck_assumed,
        )
    if then.deviation is not None and stop.judged.deviation is not None:
        yield told(
            "octave",
            "the octave's place moves",
            stop.judged.deviation / 2,
            then.deviation / 2,
            [f"Half of what the string length is off its nominal {short(stop.nominal)}: a hand finds it elsewhere."],
        )
