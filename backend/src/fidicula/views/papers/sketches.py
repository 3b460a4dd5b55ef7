"""Drawings of a paper: the bridge from the tailpiece, a code that opens the instrument."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence

from fidicula.documents.paper.code import qr_strokes
from fidicula.documents.paper.model import Mark, Sketch, Stroke
from fidicula.numerals import number
from fidicula.tables.shapes import bridge_shape
from fidicula.views.papers.source import PaperSource
from fidicula.views.sheet.model import Drawing, DrawnString
from fidicula.words import papers as say

_ARC, _RING = 24, 14
"""So many points draw a crown, a string."""


def bridge(source: PaperSource) -> list[Sketch]:
    """The crown as it is and as it is wanted, in true proportion; nothing before strings are known."""
    drawing = source.sheet.drawing
    if drawing is None or not drawing.strings:
        return []
    state = source.assessment.state
    family = source.instrument.family
    wide = max(drawing.foot_width, drawing.strings[-1].offset - drawing.strings[0].offset) * 1.5
    across, scale = _to_scale(wide)
    top = max(string.crown_wanted for string in drawing.strings)
    room = top * 0.24
    middle = wide / 2

    # Seen from the tailpiece the low string is on the left, on a left-handed instrument on the right.
    turn = -1.0 if source.instrument.left_handed else 1.0

    def at(points: Sequence[tuple[float, float]]) -> list[tuple[float, float]]:
        return [(turn * x + middle, y) for x, y in points]

    strokes = [
        Stroke(at(_outline(drawing, family)), "plain"),
        Stroke(at(_heart(drawing, family, top)), "plain"),
        *(Stroke(at(wheel), "plain") for wheel in _wheels(drawing, top)),
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
            height=top + room * 1.2,
            strokes=strokes,
            marks=marks,
            across=across,
            caption=f"{say.CROWN} {scale}",
        )
    ]


_TEXT_WIDTH, _INSET = 178.0 - 4.2, 2.1
"""Of an A4 sheet, within its margins; left beside a sketch. [mm]"""


def _to_scale(wide: float) -> tuple[float, str]:
    """Share of the sheet's width that a drawing takes at its true size, or at a half or a quarter of it, and what is
    said of that. wide : of the drawing. [mm]"""
    for scale, words in ((1.0, say.TRUE_SIZE), (0.5, say.HALF_SIZE), (0.25, say.QUARTER_SIZE)):
        share = (wide * scale + _INSET) / _TEXT_WIDTH
        if share <= _MOST_SHARE:
            return share, words
    return _MOST_SHARE, ""


_MOST_SHARE = 0.72


def _crown(drawing: Drawing) -> list[tuple[float, float]]:
    """The wanted crown between the outer strings, along its circle."""
    first, last = drawing.strings[0].offset, drawing.strings[-1].offset
    x0, y0 = drawing.crown_centre
    edge = (last - first) * 0.06
    xs = [first - edge + (last - first + 2 * edge) * i / _ARC for i in range(_ARC + 1)]
    return [(x, y0 + math.sqrt(max(drawing.crown_radius**2 - (x - x0) ** 2, 0.0))) for x in xs]


def _outline(drawing: Drawing, family: str) -> list[tuple[float, float]]:
    """Feet, legs, arch and shoulders as a bridge of the family has them, from the crown's treble end round to it."""
    crown = _crown(drawing)
    half = {"crown": crown[-1][0], "waist": drawing.waist_width / 2, "foot": drawing.foot_width / 2}
    shoulder = min(crown[0][1], crown[-1][1])
    rows = [row for row in bridge_shape(family) if row.line == "side"]
    down = _smooth([crown[-1], *((row.across * half[row.of], row.height * shoulder) for row in rows[1:])])
    up = [(-x, y) for x, y in reversed(down[:-1])]
    return [*crown[1:-1], *down, *up[:-1], crown[0]]


_DROP = ((0.0, 0.42), (0.35, 0.72), (0.8, 0.55), (0.8, 0.15), (0.45, -0.42), (0.0, -0.95))
"""Half of the heart, of its size: a plain drop of wood, point down."""


def _heart(drawing: Drawing, family: str, top: float) -> list[tuple[float, float]]:
    row = next(row for row in bridge_shape(family) if row.line == "heart")
    size = row.across * drawing.waist_width
    half = _smooth([(x * size, row.height * top + y * size) for x, y in _DROP])
    return [*half, *((-x, y) for x, y in reversed(half))]


def _wheels(drawing: Drawing, top: float) -> Iterator[list[tuple[float, float]]]:
    """Height wheels in the legs, seen from their edge."""
    if drawing.wheels is None:
        return
    half, low, high = drawing.foot_width * 0.085, top * 0.18, top * 0.23
    for side in (-1, 1):
        x = side * drawing.wheels / 2
        yield [(x - half, low), (x + half, low), (x + half, high), (x - half, high), (x - half, low)]


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
