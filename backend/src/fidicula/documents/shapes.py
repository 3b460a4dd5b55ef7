"""A template at true size as plain shapes, and its writing as PDF, SVG and DXF by well-kept libraries. All in mm."""

from __future__ import annotations

import io
import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal
from xml.etree import ElementTree

from fidicula.documents.fonts import registered

Kind = Literal["cut", "old", "mark"]
"""What a line is: cut along it, as it is now, a mark to prick through."""

PAGE = (210.0, 297.0)
MARGIN = 15.0
CHECK = 100.0
"""A line of this length stands on every sheet of paper: where it is not that long, the printer has scaled. [mm]"""


@dataclass(frozen=True)
class Line:
    """points : [x, y] upward, to be joined; two make a straight one."""

    kind: Kind
    points: Sequence[tuple[float, float]]


@dataclass(frozen=True)
class Words:
    """x, y : of its middle's foot.  size : of the letters."""

    text: str
    x: float
    y: float
    size: float = 3.0


@dataclass(frozen=True)
class Template:
    """title, notes : said on paper beside it.  ticket : of the instrument."""

    title: str
    ticket: str
    notes: Sequence[str]
    lines: Sequence[Line]
    words: Sequence[Words]

    def box(self) -> tuple[float, float, float, float]:
        """Left, foot, right and top of all that is drawn."""
        xs = [x for line in self.lines for x, _ in line.points] + [word.x for word in self.words]
        ys = [y for line in self.lines for _, y in line.points] + [word.y for word in self.words]
        return min(xs), min(ys), max(xs), max(ys)


_WIDTHS: dict[Kind, float] = {"cut": 0.25, "old": 0.15, "mark": 0.15}


def as_pdf(template: Template) -> bytes:
    """One sheet of A4, with a check line. Raises ValueError for one that does not go on it."""
    from reportlab.lib.units import mm
    from reportlab.pdfgen.canvas import Canvas

    left, foot, right, top = template.box()
    if right - left > PAGE[0] - 2 * MARGIN or top - foot > PAGE[1] - 110:
        raise ValueError(f"{template.title} does not go on a sheet of A4")
    text, bold = registered()
    out = io.BytesIO()
    canvas = Canvas(out, pagesize=(PAGE[0] * mm, PAGE[1] * mm), pageCompression=0)
    canvas.setTitle(f"{template.ticket}: {template.title}")
    across, up = PAGE[0] / 2 - (left + right) / 2, PAGE[1] - 70 - top
    for line in template.lines:
        canvas.setLineWidth(_WIDTHS[line.kind] * mm)
        canvas.setDash(*((2 * mm, 1.2 * mm) if line.kind == "old" else ()))
        for (x1, y1), (x2, y2) in zip(line.points, line.points[1:], strict=False):
            canvas.line((x1 + across) * mm, (y1 + up) * mm, (x2 + across) * mm, (y2 + up) * mm)
    canvas.setDash()
    for word in template.words:
        canvas.setFont(text, word.size * mm)
        canvas.drawCentredString((word.x + across) * mm, (word.y + up) * mm, word.text)
    canvas.setFont(bold, 6 * mm)
    canvas.drawString(MARGIN * mm, (PAGE[1] - 24) * mm, f"{template.ticket}  {template.title}")
    canvas.setFont(text, 3.6 * mm)
    for i, note in enumerate(template.notes):
        canvas.drawString(MARGIN * mm, (PAGE[1] - 32 - 5.5 * i) * mm, note)
    canvas.setLineWidth(0.25 * mm)
    canvas.line(MARGIN * mm, 22 * mm, (MARGIN + CHECK) * mm, 22 * mm)
    for x in (MARGIN, MARGIN + CHECK):
        canvas.line(x * mm, 19.5 * mm, x * mm, 24.5 * mm)
    canvas.drawString(MARGIN * mm, 13 * mm, "This line is 100 mm long: measure it. Print at true size, not fitted.")
    canvas.save()
    return out.getvalue()


def as_svg(template: Template) -> bytes:
    """The drawing alone, in mm."""
    left, foot, right, top = template.box()
    pad = 4.0
    width, height = right - left + 2 * pad, top - foot + 2 * pad
    root = ElementTree.Element(
        "svg",
        xmlns="http://www.w3.org/2000/svg",
        width=f"{width:g}mm",
        height=f"{height:g}mm",
        viewBox=f"{left - pad:g} {-top - pad:g} {width:g} {height:g}",
    )
    ElementTree.SubElement(root, "title").text = f"{template.ticket}: {template.title}"
    for line in template.lines:
        shape = ElementTree.SubElement(
            root,
            "polyline",
            points=" ".join(f"{x:.5f},{-y:.5f}" for x, y in line.points),
            fill="none",
            stroke="black",
        )
        shape.set("class", line.kind)
        shape.set("stroke-width", f"{_WIDTHS[line.kind]}")
        if line.kind == "old":
            shape.set("stroke-dasharray", "2 1.2")
    for word in template.words:
        text = ElementTree.SubElement(root, "text", x=f"{word.x:.3f}", y=f"{-word.y:.3f}")
        text.set("font-size", f"{word.size:g}")
        text.set("font-family", "sans-serif")
        text.set("text-anchor", "middle")
        text.text = word.text
    written: bytes = ElementTree.tostring(root, encoding="utf-8", xml_declaration=True)
    return written


def as_dxf(template: Template) -> bytes:
    """The drawing alone, in mm, a layer for each kind of line."""
    from ezdxf.document import Drawing
    from ezdxf.enums import TextEntityAlignment
    from ezdxf.units import MM

    document = Drawing.new("R2010")
    document.units = MM
    for kind in _WIDTHS:
        document.layers.add(kind)
    document.layers.add("words")
    space = document.modelspace()
    for line in template.lines:
        space.add_lwpolyline(list(line.points), dxfattribs={"layer": line.kind})
    for word in template.words:
        text = space.add_text(word.text, height=word.size, dxfattribs={"layer": "words"})
        text.set_placement((word.x, word.y), align=TextEntityAlignment.CENTER)
    out = io.StringIO()
    document.write(out)
    return out.getvalue().encode("utf-8")


def arc(
    *, centre: tuple[float, float], radius: float, from_x: float, to_x: float, step: float = 0.25
) -> list[tuple[float, float]]:
    """The upper side of a circle between two places across, as points close enough to cut by. [mm]"""
    count = max(2, math.ceil((to_x - from_x) / step))
    xs = [from_x + (to_x - from_x) * i / count for i in range(count + 1)]
    return [(x, centre[1] + math.sqrt(max(0.0, radius**2 - (x - centre[0]) ** 2))) for x in xs]
