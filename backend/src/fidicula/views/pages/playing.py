"""Playing it: where a string would rattle against the board, and what the finger presses."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fidicula.codes import MeasureCode
from fidicula.core.geometry.scoop import BoardGap, GapBetween, gap_along, removal_across
from fidicula.core.mechanics.stopped import (
    Bow,
    Pluck,
    StoppedClearance,
    clearances,
    press_efforts,
    swing_along,
)
from fidicula.judgement.assessment.scoop import RELIEFS, SHARES, SIDES, stations_of
from fidicula.views.pages.bench import PageBench, told
from fidicula.views.pages.drawn import DrawnStop, DrawnSwing, SwingDrawing
from fidicula.views.pages.model import Consequence, Curve, HandleChoice, PageView, Plot, Table
from fidicula.views.pages.strings import Sounding, set_tried, sounding
from fidicula.words.pages import playing as say
from fidicula.words.pages.notes import note_of

_HARD = {"soft": 0.25, "middling": 0.4, "hard": 0.6}
"""Speed of the bow. [m/s]"""
_PLUCKED = {"soft": 1.5, "middling": 3.0, "hard": 5.0}
"""How far a string is drawn aside, in thousandths of its length."""
_SHARE = 0.5
"""Of the amplitude toward the board: a bow swings the string along the board more than into it."""
_FIRST_POSITION, _OCTAVE = 2, 12
_COLUMNS = 13
_SURFACE = 30
"""So many stretches of the board are drawn."""


@dataclass(frozen=True)
class _Over:
    """One string over the board. nut, end : upright heights. [mm]  gap : of the board under its line."""

    name: str
    nut: float
    end: float
    pitch: float
    tension: float | None
    gap: BoardGap


def playing_page(bench: PageBench) -> PageView:
    """The rattle map and the press effort."""
    state = bench.state
    length, board = bench.read_or_figure("string_length"), bench.read_or_figure("fingerboard_length")
    finding: list[str] = []
    consequences: list[Consequence] = []
    plots: list[Plot] = []
    tables: list[Table] = []
    drawing = None
    if state.string_set is None:
        finding.append(say.NO_STRINGS)
    elif length is not None and board is not None and board.value >= length.value:
        bench.take_again("fingerboard_length", why=say.board_passes_bridge(board.value, length.value))
    elif length is not None and board is not None and _heights_are_read(bench):
        tried = set_tried(bench)
        now = _over(bench, sounding(bench, state.string_set, length.value), board.value, as_read=True)
        then = _over(bench, sounding(bench, tried or state.string_set, length.value), board.value, as_read=False)
        excitation = _excitation(bench, length.value)
        shown = bench.choose(
            "shown", say.SHOWN, [HandleChoice(one.name, one.name) for one in then], rests_at=then[0].name
        )
        share = bench.slide("share", say.SHARE, unit="", rests_at=_SHARE, low=0.2, high=1.0, step=0.05)

        def margins(over: _Over) -> list[StoppedClearance]:
            return clearances(
                string_length=length.value,
                fingerboard_length=board.value,
                nut_height=over.nut,
                end_height=over.end,
                pitch=over.pitch,
                gap=over.gap,
                excitation=excitation,
                share=share,
            )

        before, after = [margins(one) for one in now], [margins(one) for one in then]
        finding += _said(then, after)
        tables.append(_map(then, after))
        consequences = _rooms(then, before, after)
        efforts = _efforts(now, then, length.value, board.value)
        consequences += efforts[0]
        plots += efforts[1]
        if then:
            at = next(i for i, one in enumerate(then) if one.name == shown)
            noted = bench.slide(
                "note", say.NOTE, unit="", rests_at=0.0, low=0.0, high=float(len(after[at]) - 1), step=1.0
            )
            drawing = _drawing(then[at], after[at], round(noted), length.value, board.value, excitation, share)
    return bench.view(
        "playing",
        say.TITLE,
        finding=finding,
        consequences=consequences,
        plots=plots,
        tables=tables,
        caution=say.CAUTION,
        drawing=drawing,
    )


def _rooms(
    strings: Sequence[_Over], before: Sequence[Sequence[StoppedClearance]], after: Sequence[Sequence[StoppedClearance]]
) -> list[Consequence]:
    """The least room of each string, as it is and as it would be."""
    return [
        told(
            f"margin{i}",
            say.least_room(one.name),
            min(stop.margin for stop in before[i]),
            min(stop.margin for stop in after[i]),
            [say.why_least(one.name, _least(after[i]))],
            places=2,
        )
        for i, one in enumerate(strings)
    ]


def _drawing(
    over: _Over,
    stops: list[StoppedClearance],
    semitone: int,
    length: float,
    board: float,
    excitation: Bow | Pluck,
    share: float,
) -> SwingDrawing:
    """One note of one string, as it swings, and the room at every other."""
    points = swing_along(
        string_length=length,
        fingerboard_length=board,
        nut_height=over.nut,
        end_height=over.end,
        pitch=over.pitch,
        gap=over.gap,
        excitation=excitation,
        share=share,
        semitone=semitone,
    )
    return SwingDrawing(
        "swing",
        over.name,
        semitone,
        board,
        length,
        [DrawnSwing(round(one.place, 2), round(one.rest, 3), round(one.lowest, 3)) for one in points],
        [DrawnStop(one.stop, one.margin, note_of(over.name, one.semitone)) for one in stops],
        _surface_of(over.gap, board),
    )


def _surface_of(gap: BoardGap, board: float) -> list[list[float]]:
    """The board's surface under a string, from the nut to its end."""
    return [[board * i / _SURFACE, -gap(board * i / _SURFACE)] for i in range(_SURFACE + 1)]


def _heights_are_read(bench: PageBench) -> bool:
    outer = (0, bench.state.count - 1)
    return all(bench.read("end_height", i) is not None for i in outer)


def _over(bench: PageBench, strings: list[Sounding], board: float, *, as_read: bool) -> list[_Over]:
    state, last = bench.state, bench.state.count - 1
    shift: dict[MeasureCode, tuple[float, float]] = {"end_height": (0.0, 0.0), "nut_height": (0.0, 0.0)}
    relief: tuple[float | None, float | None] = (None, None)
    if not as_read:
        shift = {measure: _shift(bench, measure) for measure in shift}
        relief = _relief(bench)
    found = []
    for i, string in enumerate(strings):
        share = i / last
        nut, end = (_height(bench, measure, i, shift[measure], share) for measure in ("nut_height", "end_height"))
        if nut is None or end is None or string.pitch is None:
            continue
        gap = _gap(bench, board, share, relief)
        found.append(_Over(string.name, nut, end, string.pitch, string.tension, gap))
    if len(found) < state.count:
        bench.assume(say.LEFT_OUT)
    return found


def _shift(bench: PageBench, measure: MeasureCode) -> tuple[float, float]:
    names, most = bench.state.instrument.string_names, 0.5 if measure == "nut_height" else 2.0
    bass, treble = (
        bench.slide(
            f"{measure}_{side}",
            say.changed(names[position], measure),
            rests_at=0.0,
            low=-most,
            high=most,
            step=0.05,
            rests_on="as read",
        )
        for side, position in ((SIDES[0], 0), (SIDES[1], -1))
    )
    return bass, treble


def _relief(bench: PageBench) -> tuple[float | None, float | None]:
    """The scoop that is tried on each side; None where it was left as it is."""
    found: list[float | None] = []
    for i, side in enumerate(SIDES):
        read = stations_of(bench.state, i, 1.0)
        figure = bench.figure(RELIEFS[i])
        rests = max((station.gap for station in read), default=0.0 if figure is None else figure.band.aim)
        at = bench.slide(
            f"relief_{side}",
            say.scoop(side),
            rests_at=round(rests, 2),
            low=0.0,
            high=max(2.0, round(rests * 2, 1)),
            step=0.05,
            rests_on="as read" if read else "a figure",
        )
        found.append(None if abs(at - round(rests, 2)) < 1e-9 else at)
    return found[0], found[1]


def _height(bench: PageBench, measure: MeasureCode, i: int, shift: tuple[float, float], share: float) -> float | None:
    state, last = bench.state, bench.state.count - 1
    held = state.held(measure, i)
    if held is None and measure == "end_height":
        outer = state.held(measure, 0), state.held(measure, last)
        if outer[0] is None or outer[1] is None:
            return None
        value = removal_across(bass=outer[0].value, treble=outer[1].value, share=share)
        bench.assume(say.assumed_between(state.name((measure, i)), value))
    elif held is None:
        return None
    else:
        value = state.upright((measure, i), held.value, state.direction(measure, i))
        if held.assumed:
            bench.assume_value((measure, i), held.value)
    return max(0.0, value + removal_across(bass=shift[0], treble=shift[1], share=share))


def _gap(bench: PageBench, board: float, share: float, relief: tuple[float | None, float | None]) -> BoardGap:
    """The board's gap under one string: between what is on both sides."""
    sides = []
    for i, tried in enumerate(relief):
        read = stations_of(bench.state, i, board)
        if tried is not None or len(read) < len(SHARES):
            figure = bench.figure(RELIEFS[i])
            deepest = tried if tried is not None else (0.0 if figure is None else figure.band.aim)
            if tried is None:
                bench.assume(say.assumed_scoop(deepest, SIDES[i]))
            sides.append(gap_along(fingerboard_length=board, relief=deepest))
        else:
            sides.append(gap_along(fingerboard_length=board, stations=read))
    return GapBetween(sides[0], sides[1], share)


def _excitation(bench: PageBench, length: float) -> Bow | Pluck:
    manner = bench.choose(
        "manner", "played", [HandleChoice("bowed", "bowed"), HandleChoice("plucked", "plucked")], rests_at="bowed"
    )
    hard = bench.choose("hard", "how hard", [HandleChoice(key, key) for key in _HARD], rests_at="middling")
    if manner == "bowed":
        return Bow(speed=_HARD[hard])
    return Pluck(displacement=_PLUCKED[hard] * length / 1000)


def _least(stops: Sequence[StoppedClearance]) -> StoppedClearance:
    return min(stops, key=lambda stop: stop.margin)


def _said(over: list[_Over], stops: list[list[StoppedClearance]]) -> list[str]:
    said = []
    for one, own in zip(over, stops, strict=True):
        bad = [stop.semitone for stop in own if stop.margin < 0]
        if bad:
            said.append(say.rattles(one.name, bad))
    return said or [say.NO_RATTLE]


def _map(over: list[_Over], stops: list[list[StoppedClearance]]) -> Table:
    """A row for each string, a column for each note as far as the columns go; below zero it rattles."""
    shown = [own[:_COLUMNS] for own in stops]
    rows = [say.map_row(one.name, own) for one, own in zip(over, shown, strict=True)]
    marked = [[i, k + 1] for i, own in enumerate(shown) for k, stop in enumerate(own) if stop.margin < 0]
    head = ["", *(str(k) for k in range(max((len(own) for own in shown), default=0)))]
    return Table(say.MAP_TITLE, head, rows, marked, say.MAP_SAYS)


def _efforts(now: list[_Over], then: list[_Over], length: float, board: float) -> tuple[list[Consequence], list[Plot]]:
    consequences, curves = [], []
    before = {one.name: _effort(one, length, board) for one in now}
    for one in then:
        forces = _effort(one, length, board)
        was = before.get(one.name, {})
        if not forces:
            continue
        curves.append(Curve(one.name, "then", [[float(k), force] for k, force in forces.items()]))
        for semitone, where in ((_FIRST_POSITION, "first position"), (_OCTAVE, "the octave")):
            if semitone in forces:
                consequences.append(
                    told(
                        f"press{one.name}{semitone}",
                        say.pressed(one.name, where),
                        was.get(semitone),
                        forces[semitone],
                        [say.why_press(one.name, semitone, one.tension or 0)],
                        unit="N",
                        places=1,
                    )
                )
    says = say.press_says([(curve.label, curve.points[0][1], curve.points[-1][1]) for curve in curves])
    plot = Plot("press", say.PRESS_TITLE, say.PRESS_ACROSS, "N", False, curves, [], says)
    return consequences, [plot] if curves else []


def _effort(over: _Over, length: float, board: float) -> dict[int, float]:
    if over.tension is None:
        return {}
    found = press_efforts(
        string_length=length,
        fingerboard_length=board,
        nut_height=over.nut,
        end_height=over.end,
        tension=over.tension,
        gap=over.gap,
    )
    return {one.semitone: one.force for one in found}
