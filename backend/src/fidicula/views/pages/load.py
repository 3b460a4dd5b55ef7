"""Tension, and what of it presses on the top: two figures that are often taken for each other."""

from __future__ import annotations

from dataclasses import dataclass

from fidicula.core.mechanics.load import (
    KGF,
    BridgeAngles,
    angles_of,
    down_force,
    feet_loads,
)
from fidicula.judgement.assessment.computing import Computed, compute
from fidicula.judgement.assessment.held import ResolvedValue
from fidicula.judgement.assessment.stance import body_geometry, body_of, present_or_wanted
from fidicula.views.pages.bench import PageBench, told
from fidicula.views.pages.drawn import LoadDrawing
from fidicula.views.pages.model import Consequence, Handle, PageView, Table
from fidicula.views.pages.perspective import of_strings
from fidicula.views.pages.strings import Sounding, set_tried, sounding
from fidicula.words.pages import load as say

_FEET_APART = 0.72
"""Middle to middle of the feet, in parts of the width over them, where nobody read it."""


@dataclass(frozen=True)
class _Stance:
    angles: BridgeAngles
    why: str


@dataclass(frozen=True)
class Load:
    """forces : on the bridge, string by string. [N]"""

    tensions: list[float]
    forces: list[float]
    bass: float
    treble: float
    angles: BridgeAngles

    @property
    def down(self) -> float:
        return sum(self.forces)


def load_page(bench: PageBench) -> PageView:
    """What the strings pull and press."""
    state = bench.state
    outcome = compute(state)
    length = bench.read_or_figure("string_length")
    finding: list[str] = []
    consequences: list[Consequence] = []
    tables: list[Table] = []
    drawing = None
    perspective = ""
    if state.string_set is None:
        finding.append(say.NO_STRINGS)
    elif isinstance(outcome, Computed) and length is not None:
        tried = set_tried(bench)
        now = loaded_by(bench, outcome, sounding(bench, state.string_set, length.value), length, as_read=True)
        strings = sounding(bench, tried or state.string_set, length.value)
        then = loaded_by(bench, outcome, strings, length, as_read=False)
        without = [one.name for one in strings if one.tension is None]
        if without:
            finding.append(say.without_figures(without))
        if now is not None:
            finding += say.finding(
                tension=sum(now[0].tensions),
                down=now[0].down,
                bass=now[0].bass,
                treble=now[0].treble,
                lean=now[1].angles.halving_lean,
                over_treble="bar" if bench.state.instrument.opposite_build else "post",
            )
        if now is not None and then is not None:
            consequences = _consequences(now[0], then[0], then[1], strings)
            tables.append(_table(strings, then[0]))
            drawing = _drawing(bench, outcome, strings, then[0])
            forces = [(one.name, force) for one, force in zip(strings, then[0].forces, strict=True)]
            perspective = of_strings(forces, pull=sum(then[0].tensions))
    elif not bench.retake:
        finding.append(say.NOT_YET)
    return bench.view(
        "load",
        say.TITLE,
        finding=finding,
        consequences=consequences,
        tables=tables,
        caution=say.CAUTION,
        drawing=drawing,
        perspective=perspective,
    )


def _drawing(bench: PageBench, computed: Computed, strings: list[Sounding], load: Load) -> LoadDrawing:
    return LoadDrawing(
        "load",
        load.angles.front,
        load.angles.rear,
        load.angles.over_bridge,
        [one.name for one in strings],
        [string.line.bridge_offset for string in computed.plan.strings],
        load.tensions,
        load.forces,
        sum(load.tensions),
        load.down,
        load.down / KGF,
        load.bass,
        load.treble,
        _foot_spread(bench) or 0.0,
    )


def stance_said(bench: PageBench, computed: Computed) -> list[str]:
    """How the strings fall on both sides of the bridge, and how it stands between them; none where nothing is read."""
    if bench.state.held("break_angle") is None and bench.state.held("arch_height") is None:
        return []
    stance = _stance(bench, computed, computed.board.string_length, as_read=True)
    if stance is None:
        return []
    return [say.stance(stance.angles)]


def bridge_lean(bench: PageBench, computed: Computed) -> float | None:
    """How far a bridge leans that halves the strings' angle, toward the tailpiece; None where nothing is read. [°]"""
    if bench.state.held("arch_height") is None:
        return None
    stance = _stance(bench, computed, computed.board.string_length, as_read=True)
    return None if stance is None else stance.angles.halving_lean


def loaded_by(
    bench: PageBench, computed: Computed, strings: list[Sounding], length: ResolvedValue, *, as_read: bool
) -> tuple[Load, _Stance] | None:
    """as_read : with no handle moved."""
    stance = _stance(bench, computed, length.value, as_read=as_read)
    spread = _foot_spread(bench)
    tensions = [one.tension for one in strings]
    if stance is None or spread is None or None in tensions:
        return None
    known = [tension for tension in tensions if tension is not None]
    forces = [down_force(tension=tension, angles=stance.angles) for tension in known]
    offsets = [string.line.bridge_offset for string in computed.plan.strings]
    bass, treble = feet_loads(offsets=offsets, forces=forces, foot_spread=spread)
    return Load(known, forces, bass, treble, stance.angles), stance


def _foot_spread(bench: PageBench) -> float | None:
    read = bench.state.held("foot_spread")
    if read is not None:
        return read.value
    width = bench.state.read_or_figure("bridge_foot_width")
    if width is None:
        bench.read("foot_spread")
        return None
    bench.assume(say.assumed_feet(apart=width.value * _FEET_APART, share=_FEET_APART))
    return width.value * _FEET_APART


def _stance(bench: PageBench, computed: Computed, length: float, *, as_read: bool) -> _Stance | None:
    """By the body's heights where they are read, else by the angle over the bridge, halved."""
    body = body_of(bench.state)
    if body is None:
        return _halved(bench, as_read=as_read)
    crowns, marks, is_present = present_or_wanted(computed)
    if not is_present:
        bench.assume(say.ASSUMED_CROWN)
    projection, saddle = computed.board.projection, body.saddle.value
    if not as_read:
        projection = _slide(bench, "projection", "projection", projection, 0.9, 1.1)
        saddle = _slide(bench, "saddle_height", say.LABELS["saddle_height"], saddle, 0.5, 2.0)
    geometry = body_geometry(
        body, computed, crown_heights=crowns, mark_heights=marks, projection=projection, saddle=saddle
    )
    angles = angles_of(geometry=geometry, string_length=length)
    why = say.why_by_heights(
        arch=body.arch.value,
        projection=projection,
        board_at_edge=body.board_at_edge.value,
        stop=body.stop.value,
        crown=geometry.crown_height,
        saddle=saddle,
        behind=body.bridge_to_saddle.value,
    )
    return _Stance(angles, why)


def _slide(bench: PageBench, name: str, label: str, value: float, least: float, most: float) -> float:
    known: Handle | None = next((one for one in bench.handles if one.name == name), None)
    if known is not None:
        return known.at
    return bench.slide(
        name, label, rests_at=round(value, 2), low=round(value * least, 1), high=round(value * most, 1), step=0.1
    )


def _halved(bench: PageBench, *, as_read: bool) -> _Stance | None:
    read = bench.state.read_or_figure("break_angle")
    if read is None:
        bench.read("break_angle")
        return None
    angle = read.value
    if read.assumed:
        bench.assume(say.assumed_angle(angle))
    bench.assume(say.ASSUMED_HALVES)
    if not as_read:
        angle = bench.slide(
            "break_angle",
            say.LABELS["break_angle"],
            unit="°",
            rests_at=read.value,
            low=145.0,
            high=170.0,
            step=0.5,
            rests_on="a figure" if read.assumed else "as read",
        )
    halved = BridgeAngles.halved(angle)
    return _Stance(halved, say.why_halved(angle, halved))


def _consequences(now: Load, then: Load, stance: _Stance, strings: list[Sounding]) -> list[Consequence]:
    parts = [one.why for one in strings]
    pulls = [sum(now.tensions), sum(then.tensions)]
    angles = say.why_down(then.angles, stance.why)
    return [
        told("tension", say.LABELS["tension"], pulls[0], pulls[1], parts, unit="N", places=0),
        told("tension_kgf", say.LABELS["same"], pulls[0] / KGF, pulls[1] / KGF, [say.WHY_KG], unit="kg", places=1),
        told("down", say.LABELS["down"], now.down, then.down, [angles], unit="N", places=0),
        told("down_kgf", say.LABELS["same"], now.down / KGF, then.down / KGF, [say.WHY_KG], unit="kg", places=1),
        told("bass_foot", say.LABELS["bass_foot"], now.bass, then.bass, [say.WHY_FEET], unit="N", places=0),
        told("treble_foot", say.LABELS["treble_foot"], now.treble, then.treble, [say.WHY_FEET], unit="N", places=0),
        told(
            "break",
            say.LABELS["break"],
            now.angles.over_bridge,
            then.angles.over_bridge,
            [say.WHY_BREAK, stance.why],
            unit="°",
        ),
        told(
            "lean",
            say.LABELS["lean"],
            now.angles.halving_lean,
            then.angles.halving_lean,
            [say.WHY_LEAN],
            unit="°",
        ),
    ]


def _table(strings: list[Sounding], load: Load) -> Table:
    rows = [
        say.row(one.name, tension, force)
        for one, tension, force in zip(strings, load.tensions, load.forces, strict=True)
    ]
    return Table(say.TABLE_TITLE, list(say.TABLE_HEAD), rows, [])
