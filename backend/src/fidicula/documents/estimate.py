"""An estimate as a PDF for the owner: selectable text, the typeface embedded, a drawing of what is wrong."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from io import BytesIO
from typing import TYPE_CHECKING
from xml.sax.saxutils import escape

from fidicula.documents.fonts import registered

if TYPE_CHECKING:
    from reportlab.graphics.shapes import Drawing

_WIDTH, _HEIGHT = 480.0, 118.0
"""Of a drawing. [pt]"""
_INK = "#1f272b"


@dataclass(frozen=True)
class Step:
    label: str
    minutes: str


@dataclass(frozen=True)
class Point:
    """x : along.  y : upward."""

    x: float
    y: float


@dataclass(frozen=True)
class Name:
    """What stands at a place along a drawing."""

    x: float
    words: str


@dataclass(frozen=True)
class Row:
    """One work. detail : lines under it, small.  steps : what it takes, with minutes."""

    label: str
    detail: Sequence[str]
    minutes: str
    amount: str
    steps: Sequence[Step]


@dataclass(frozen=True)
class Curve:
    """Points along a line, level by level. kind : in words.  is_wanted : else as it is now."""

    kind: str
    is_wanted: bool
    points: Sequence[Point]


@dataclass(frozen=True)
class Figure:
    """A drawing. stretch : heights are drawn so many times larger than lengths, in words.  names : under the points."""

    title: str
    stretch: str
    curves: Sequence[Curve]
    names: Sequence[Name]


@dataclass(frozen=True)
class EstimatePaper:
    """Everything in words, as it is printed."""

    title: str
    subject: Sequence[str]
    rows: Sequence[Row]
    sums: Sequence[Sequence[str]]
    notes: Sequence[str]
    figures: Sequence[Figure]
    heads: Sequence[str]
    sum_heads: Sequence[str]
    sign: str


def as_pdf(paper: EstimatePaper) -> bytes:
    """A4, as many pages as it needs."""
    from reportlab.lib.colors import HexColor
    from reportlab.lib.enums import TA_RIGHT
    from reportlab.lib.pagesizes import A4
    from reportlab.lib.styles import ParagraphStyle
    from reportlab.lib.units import mm
    from reportlab.platypus import Flowable, KeepTogether, Paragraph, SimpleDocTemplate, Spacer, Table, TableStyle

    text, bold = registered()
    plain = ParagraphStyle("plain", fontName=text, fontSize=10, leading=13.5)
    small = ParagraphStyle("small", parent=plain, fontSize=8.5, leading=11, textColor=HexColor("#4a5357"))
    right = ParagraphStyle("right", parent=plain, alignment=TA_RIGHT)
    head = ParagraphStyle("head", parent=plain, fontName=bold, fontSize=17, leading=22)
    strong = ParagraphStyle("strong", parent=plain, fontName=bold, fontSize=11)

    def said(words: str, style: ParagraphStyle) -> Paragraph:
        return Paragraph(escape(words), style)

    story: list[Flowable] = [said(paper.title, head), *(said(line, plain) for line in paper.subject), Spacer(1, 4 * mm)]
    for figure in paper.figures:
        story += [
            KeepTogether([said(figure.title, strong), _drawn(figure, text), said(figure.stretch, small)]),
            Spacer(1, 3 * mm),
        ]
    cells: list[list[object]] = [
        [said(paper.heads[0], small), said(paper.heads[1], small), said(paper.heads[2], small)]
    ]
    lines = []
    for row in paper.rows:
        lines.append(("LINEABOVE", (0, len(cells)), (-1, len(cells)), 0.8, _INK))
        cells.append(
            [
                [said(row.label, strong), *(said(line, small) for line in row.detail)],
                said(row.minutes, right),
                said(row.amount, ParagraphStyle("amount", parent=right, fontName=bold)),
            ]
        )
        cells += [
            [said(step.label, small), said(step.minutes, ParagraphStyle("m", parent=small, alignment=TA_RIGHT)), ""]
            for step in row.steps
        ]
    table = Table(cells, colWidths=[108 * mm, 30 * mm, 36 * mm], repeatRows=1, splitInRow=1)
    table.setStyle(
        TableStyle(
            [
                ("VALIGN", (0, 0), (-1, -1), "TOP"),
                ("TOPPADDING", (0, 0), (-1, -1), 2),
                ("BOTTOMPADDING", (0, 0), (-1, -1), 1.5),
                *lines,
            ]
        )
    )
    story += [table, Spacer(1, 6 * mm)]
    sums = Table(
        [
            [said(cell, small) for cell in paper.sum_heads],
            *([said(cell, plain if i == 0 else right) for i, cell in enumerate(row)] for row in paper.sums),
        ],
        colWidths=[54 * mm, 28 * mm, 28 * mm, 28 * mm, 36 * mm],
    )
    sums.setStyle(TableStyle([("LINEABOVE", (0, 1), (-1, -1), 0.4, "#9aa3a6"), ("VALIGN", (0, 0), (-1, -1), "MIDDLE")]))
    story += [
        KeepTogether(
            [
                sums,
                Spacer(1, 4 * mm),
                *(said(note, plain) for note in paper.notes),
                Spacer(1, 18 * mm),
                said(paper.sign, small),
            ]
        )
    ]
    out = BytesIO()
    document = SimpleDocTemplate(
        out,
        pagesize=A4,
        title=paper.title,
        lang="en-GB",
        leftMargin=18 * mm,
        rightMargin=18 * mm,
        topMargin=16 * mm,
        bottomMargin=16 * mm,
    )
    document.build(story)
    return out.getvalue()


def _drawn(figure: Figure, font: str) -> Drawing:
    """Curves fitted into the drawing: lengths and heights each to their own scale."""
    from reportlab.graphics.shapes import Circle, Drawing, PolyLine, String
    from reportlab.lib.colors import HexColor

    ink = HexColor(_INK)
    drawing = Drawing(_WIDTH, _HEIGHT)
    points = [point for curve in figure.curves for point in curve.points]
    xs, ys = [point.x for point in points], [point.y for point in points]
    low, high = min(ys), max(ys)
    wide, tall = max(max(xs) - min(xs), 1e-6), max(high - low, 1e-6)

    def at(x: float, y: float) -> tuple[float, float]:
        return 30 + (x - min(xs)) / wide * (_WIDTH - 150), 26 + (y - low) / tall * (_HEIGHT - 46)

    for i, curve in enumerate(figure.curves):
        places = [at(point.x, point.y) for point in curve.points]
        is_now = not curve.is_wanted
        drawing.add(
            PolyLine(
                [value for place in places for value in place],
                strokeWidth=1.0 if is_now else 2.4,
                strokeDashArray=(3, 2) if is_now else (1, 0),
                strokeColor=ink,
            )
        )
        for x, y in places:
            drawing.add(Circle(x, y, 2.6 if is_now else 1.4, fillColor=ink, strokeColor=ink))
        # Which line is which stands apart from where they meet.
        level = _HEIGHT - 20 - 16 * i
        drawing.add(
            PolyLine(
                [_WIDTH - 96, level, _WIDTH - 66, level],
                strokeWidth=1.0 if is_now else 2.4,
                strokeDashArray=(3, 2) if is_now else (1, 0),
                strokeColor=ink,
            )
        )
        drawing.add(String(_WIDTH - 58, level - 3, curve.kind, fontName=font, fontSize=9))
    for name in figure.names:
        drawing.add(String(at(name.x, low)[0], 6, name.words, fontName=font, fontSize=9, textAnchor="middle"))
    return drawing
