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
from fidicula.services.assessment.computing import Computed, compute
from fidicula.services.assessment.stance import body_geometry, body_of, present_or_wanted
from fidicula.services.assessment.state import Held
from fidicula.services.numbers import number, short
from fidicula.services.pages.bench import PageBench, told
from fidicula.services.pages.model import Consequence, Handle, PageView, Table
from fidicula.services.pages.strings import Sounding, set_tried, sounding

_FEET_APART = 0.72
"""Middle to middle of the feet, in parts of the width over them, where nobody read it."""
_CAUTION = "Let tension off and on a little at a time, the bridge held upright: it slaps down, and a post falls."


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
    if state.string_set is None:
        finding.append("Say which strings are on it: load and tension follow from the set.")
    elif isinstance(outcome, Computed) and length is not None:
        tried = set_tried(bench)
        now = loaded_by(bench, outcome, sounding(bench, state.string_set, length.value), length, as_read=True)
        strings = sounding(bench, tried or state.string_set, length.value)
        then = loaded_by(bench, outcome, strings, length, as_read=False)
        without = [one.name for one in strings if one.tension is None]
        if without:
            finding.append(f"The set has no figures for {', '.join(without)}: enter its density or tension.")
        if now is not None:
            finding += _said(now[0], now[1], over_treble="bar" if bench.state.instrument.opposite_build else "post")
        if now is not None and then is not None:
            consequences = _consequences(now[0], then[0], then[1], strings)
            tables.append(_table(strings, then[0]))
    elif not bench.retake:
        finding.append("The bridge cannot be worked out yet: look at the sheet for what it lacks.")
    return bench.view(
        "load",
        "Tension, and what presses on the top",
        finding=finding,
        consequences=consequences,
        tables=tables,
        caution=_CAUTION,
    )


def stance_said(bench: PageBench, computed: Computed) -> list[str]:
    """How the strings fall on both sides of the bridge, and how it stands between them; none where nothing is read."""
    if bench.state.held("break_angle") is None and bench.state.held("arch_height") is None:
        return []
    stance = _stance(bench, computed, computed.board.string_length, as_read=True)
    if stance is None:
        return []
    lean = stance.angles.halving_lean
    return [
        f"The strings fall {number(stance.angles.front)}° toward the board and "
        f"{number(stance.angles.rear)}° toward the "
        f"tailpiece; a bridge that halves it leans its top {number(abs(lean))}° {'back' if lean >= 0 else 'forward'}, "
        "the tailpiece face square to the top it stands by the other school."
    ]


def bridge_lean(bench: PageBench, computed: Computed) -> float | None:
    """How far a bridge leans that halves the strings' angle, toward the tailpiece; None where nothing is read. [°]"""
    if bench.state.held("arch_height") is None:
        return None
    stance = _stance(bench, computed, computed.board.string_length, as_read=True)
    return None if stance is None else stance.angles.halving_lean


def loaded_by(
    bench: PageBench, computed: Computed, strings: list[Sounding], length: Held, *, as_read: bool
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
    bench.assume(f"feet {number(width.value * _FEET_APART)} apart, {short(_FEET_APART)} of the width over them")
    return width.value * _FEET_APART


def _stance(bench: PageBench, computed: Computed, length: float, *, as_read: bool) -> _Stance | None:
    """By the body's heights where they are read, else by the angle over the bridge, halved."""
    body = body_of(bench.state)
    if body is None:
        return _halved(bench, as_read=as_read)
    crowns, marks, is_present = present_or_wanted(computed)
    if not is_present:
        bench.assume("the crown as it is wanted: the heights at the board's end are not read")
    projection, saddle = computed.board.projection, body.saddle.value
    if not as_read:
        projection = _slide(bench, "projection", "projection", projection, 0.9, 1.1)
        saddle = _slide(bench, "saddle_height", "saddle's height", saddle, 0.5, 2.0)
    geometry = body_geometry(
        body, computed, crown_heights=crowns, mark_heights=marks, projection=projection, saddle=saddle
    )
    angles = angles_of(geometry=geometry, string_length=length)
    why = (
        f"Front: the board rises {short(body.arch.value)} + {short(projection)} − {short(body.board_at_edge.value)} "
        f"over a stop of {short(body.stop.value)}, the string over it; behind: {short(body.arch.value)} + "
        f"{number(geometry.crown_height)} − {short(saddle)} over {short(body.bridge_to_saddle.value)}."
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
        bench.assume(f"{short(angle)}° over the bridge")
    bench.assume("the same angle on both sides of the bridge; read the heights over the ribs to have both")
    if not as_read:
        angle = bench.slide(
            "break_angle",
            "strings' angle over the bridge",
            unit="°",
            rests_at=read.value,
            low=145.0,
            high=170.0,
            step=0.5,
            rests_on="a figure" if read.assumed else "as read",
        )
    halved = BridgeAngles.halved(angle)
    return _Stance(halved, f"{short(angle)}° over the bridge, halved: {short(halved.front)}° on each side.")


def _said(load: Load, stance: _Stance, *, over_treble: str) -> list[str]:
    total = sum(load.tensions)
    lean = stance.angles.halving_lean
    said = [
        f"All strings pull with {number(total, 0)} N, {number(total / KGF)} kg: this is often called the "
        f"weight on the top.",
        f"What presses on the top is less: {number(load.down, 0)} N, {number(load.down / KGF)} kg, "
        f"{number(load.treble / load.down * 100, 0)} % of it on the treble foot, over the {over_treble}.",
    ]
    if load.bass < 0 or load.treble < 0:
        said.append(
            f"The {'bass' if load.bass < 0 else 'treble'} foot would lift: a string stands outside of the feet."
        )
    if abs(lean) >= 0.05:
        side = "the tailpiece" if lean > 0 else "the board"
        said.append(f"A bridge that halves the angle leans its top {number(abs(lean))}° toward {side}.")
    return said


def _consequences(now: Load, then: Load, stance: _Stance, strings: list[Sounding]) -> list[Consequence]:
    parts = [one.why for one in strings]
    pulls = [sum(now.tensions), sum(then.tensions)]
    angles = (
        f"sin {number(then.angles.front, 2)}° + sin {number(then.angles.rear, 2)}° of each string's pull. {stance.why}"
    )
    feet = "By moments about the feet: each string presses on both, the nearer more."
    return [
        told("tension", "all strings pull", pulls[0], pulls[1], parts, unit="N", places=0),
        told("tension_kgf", "the same", pulls[0] / KGF, pulls[1] / KGF, [f"÷ {short(KGF, 3)}"], unit="kg", places=1),
        told("down", "presses on the top", now.down, then.down, [angles], unit="N", places=0),
        told("down_kgf", "the same", now.down / KGF, then.down / KGF, [f"÷ {short(KGF, 3)}"], unit="kg", places=1),
        told("bass_foot", "on the bass foot", now.bass, then.bass, [feet], unit="N", places=0),
        told("treble_foot", "on the treble foot", now.treble, then.treble, [feet], unit="N", places=0),
        told(
            "break",
            "over the bridge",
            now.angles.over_bridge,
            then.angles.over_bridge,
            ["180 − front − rear", stance.why],
            unit="°",
        ),
        told(
            "lean",
            "lean once the angle is halved, + to the tailpiece",
            now.angles.halving_lean,
            then.angles.halving_lean,
            ["(rear − front) ÷ 2"],
            unit="°",
        ),
    ]


def _table(strings: list[Sounding], load: Load) -> Table:
    rows = [
        [one.name, number(tension), number(tension / KGF, 2), number(force)]
        for one, tension, force in zip(strings, load.tensions, load.forces, strict=True)
    ]
    return Table("String by string", ["", "pulls, N", "kg", "presses, N"], rows, [])
