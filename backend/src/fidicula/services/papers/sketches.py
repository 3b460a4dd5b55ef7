"""Drawings of a paper: the bridge from the tailpiece, a code that opens the instrument."""

from __future__ import annotations

import math
from collections.abc import Sequence

from fidicula.documents.paper.code import qr_strokes
from fidicula.documents.paper.model import Mark, Sketch, Stroke
from fidicula.services.numbers import number
from fidicula.services.papers.loaded import PaperSource
from fidicula.services.phrasing import papers as say
from fidicula.services.sheet.model import Drawing, DrawnString

_ARC, _RING = 24, 14
"""So many points draw a crown, a string."""


def bridge(source: PaperSource) -> list[Sketch]:
    """The crown as it is and as it is wanted, in true proportion; nothing before strings are known."""
    drawing = source.loaded.sheet().drawing
    if drawing is None or not drawing.strings:
        return []
    state = source.assessment.state
    wide = max(drawing.foot_width, drawing.strings[-1].offset - drawing.strings[0].offset) * 1.5
    top = max(string.crown_wanted for string in drawing.strings)
    room = top * 0.24
    middle = wide / 2

    # Seen from the tailpiece the low string is on the left, on a left-handed instrument on the right.
    turn = -1.0 if source.instrument.left_handed else 1.0

    def at(points: Sequence[tuple[float, float]]) -> list[tuple[float, float]]:
        return [(turn * x + middle, y) for x, y in points]

    strokes = [
        Stroke(at(_outline(drawing, top)), "thin"),
        Stroke(at(_crown(drawing)), "bold"),
        Stroke([(0, 0), (wide, 0)], "thin"),
    ]
    now = [(string.offset, string.crown_now) for string in drawing.strings]
    if all(y is not None for _, y in now):
        strokes.append(Stroke(at([(x, y) for x, y in now if y is not None]), "plain", dashed=True))
    strokes += [Stroke(at(_ring(string)), "plain") for string in drawing.strings]
    marks = []
    for i, string in enumerate(drawing.strings):
        held = state.reading_states.get(("end_height", i))
        value = "" if held is None or held.usable is None else number(held.usable, 2)
        marks += [
            Mark(turn * string.offset + middle, top + room * 0.62, string.name, large=True),
            Mark(turn * string.offset + middle, top + room * 0.28, value),
        ]
    return [
        Sketch(
            says=say.CROWN,
            width=wide,
            height=top + room,
            strokes=strokes,
            marks=marks,
            across=0.5,
            caption=say.CROWN,
        )
    ]


def _crown(drawing: Drawing) -> list[tuple[float, float]]:
    """The wanted crown between the outer strings, along its circle."""
    first, last = drawing.strings[0].offset, drawing.strings[-1].offset
    x0, y0 = drawing.crown_centre
    edge = (last - first) * 0.06
    xs = [first - edge + (last - first + 2 * edge) * i / _ARC for i in range(_ARC + 1)]
    return [(x, y0 + math.sqrt(max(drawing.crown_radius**2 - (x - x0) ** 2, 0.0))) for x in xs]


def _outline(drawing: Drawing, top: float) -> list[tuple[float, float]]:
    """Feet, legs, waist and shoulders as a bridge has them, from the right foot round to the left one."""
    foot, waist, crown = drawing.foot_width / 2, drawing.waist_width / 2, _crown(drawing)

    def side(edge: tuple[float, float]) -> list[tuple[float, float]]:
        x = abs(edge[0])
        legs = [(foot, top * 0.05), (foot * 0.95, top * 0.1), (foot * 0.8, top * 0.2), (waist * 1.1, top * 0.36)]
        shoulders = [(waist, top * 0.5), (x * 0.92, top * 0.66), (x * 1.05, edge[1] * 0.84), (x, edge[1])]
        return [(foot * 0.5, 0.0), (foot, 0.0), *_smooth([*legs, *shoulders])]

    arch = _smooth([(foot * 0.5, 0.0), (foot * 0.42, top * 0.1), (0.0, top * 0.17)])
    left = [(-x, y) for x, y in reversed(side(crown[0]))]
    return [*side(crown[-1]), *reversed(crown[1:-1]), *left, *[(-x, y) for x, y in arch], *reversed(arch)]


def _smooth(points: Sequence[tuple[float, float]], steps: int = 6) -> list[tuple[float, float]]:
    """A line that bends through points: the curve of Catmull and Rom."""
    ends = [points[0], *points, points[-1]]
    found = []
    for a, b, c, d in zip(ends, ends[1:], ends[2:], ends[3:], strict=False):
        for i in range(steps):
            t = i / steps
            found.append((_between(a[0], b[0], c[0], d[0], t), _between(a[1], b[1], c[1], d[1], t)))
    return [*found, points[-1]]


def _between(a: float, b: float, c: float, d: float, t: float) -> float:
    return b + t / 2 * (c - a + t * (2 * a - 5 * b + 4 * c - d + t * (3 * (b - c) + d - a)))


def heights(source: PaperSource) -> list[Sketch]:
    """The outer strings over the board, from the nut to the bridge; heights drawn larger than lengths."""
    state, names = source.assessment.state, source.instrument.string_names
    board, length = state.held("fingerboard_length"), state.held("string_length")
    outer = (0, len(names) - 1)
    read = [[state.reading_states.get((measure, i)) for measure in ("nut_height", "end_height")] for i in outer]
    values = [[None if one is None else one.usable for one in pair] for pair in read]
    if board is None or length is None or any(value is None for pair in values for value in pair):
        return []
    known = [(pair[0] or 0.0, pair[1] or 0.0) for pair in values]
    long, most = length.value, max(end for _, end in known)
    rise, base, start = long * 0.2 / most, long * 0.09, long * 0.06
    end_x, bridge_x = start + board.value, start + long
    strokes = [
        Stroke([(start, base), (end_x, base)], "bold"),
        Stroke([(start, base), (start, base + known[0][0] * rise)], "bold"),
        Stroke([(end_x, base), (end_x, base + most * rise)], "thin"),
        Stroke([(bridge_x, 0), (bridge_x, base + most * rise * 1.3)], "bold"),
    ]
    marks = []
    for i, (nut, end) in enumerate(known):
        name, at_bridge = names[outer[i]], nut + (end - nut) * long / board.value
        line = [(start, base + nut * rise), (bridge_x, base + at_bridge * rise)]
        strokes.append(Stroke(line, "plain", dashed=i == 1))
        # The lower of the two is told under the board.
        under = base - long * 0.05
        at_end = base + end * rise + long * 0.015 if i == 0 else under
        at_nut = base + nut * rise + long * 0.03 if i == 0 else under
        marks += [
            Mark(end_x, at_end, f"{name} {number(end, 2)}", "end"),
            Mark(start, at_nut, f"{name} {number(nut, 2)}", "start"),
        ]
    wide, tall = long * 1.12, base + long * 0.32
    return [Sketch(say.HEIGHTS, wide, tall, strokes, marks, across=0.5, caption=say.HEIGHTS)]


def _ring(string: DrawnString) -> list[tuple[float, float]]:
    radius = string.diameter / 2
    centre = (string.underside_wanted if string.underside_now is None else string.underside_now) + radius
    turns = [2 * math.pi * i / _RING for i in range(_RING + 1)]
    return [(string.offset + radius * math.cos(turn), centre + radius * math.sin(turn)) for turn in turns]


def code(words: str, says: str, *, across: float) -> Sketch:
    """A code that a telephone reads."""
    count, strokes = qr_strokes(words)
    return Sketch(says=says, width=count, height=count, strokes=strokes, across=across)
