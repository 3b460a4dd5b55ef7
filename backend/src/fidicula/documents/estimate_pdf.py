"""An estimate written as a PDF."""

from __future__ import annotations

from io import BytesIO
from xml.sax.saxutils import escape

from reportlab.graphics.shapes import Circle, Drawing, PolyLine, String
from reportlab.lib.colors import HexColor
from reportlab.lib.enums import TA_RIGHT
from reportlab.lib.pagesizes import A4
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.units import mm
from reportlab.platypus import Flowable, KeepTogether, Paragraph, SimpleDocTemplate, Spacer, Table, TableStyle

from fidicula.documents.estimate import EstimatePaper, Figure
from fidicula.documents.fonts import registered

_WIDTH, _HEIGHT = 480.0, 118.0
"""Of a drawing. [pt]"""
_INK = "#1f272b"


class _Styles:
    """How words stand on the paper."""

    def __init__(self) -> None:
        self.text, self.bold = registered()
        self.plain = ParagraphStyle("plain", fontName=self.text, fontSize=10, leading=13.5)
        self.small = ParagraphStyle("small", parent=self.plain, fontSize=8.5, leading=11, textColor=HexColor("#4a5357"))
        self.small_right = ParagraphStyle("small right", parent=self.small, alignment=TA_RIGHT)
        self.right = ParagraphStyle("right", parent=self.plain, alignment=TA_RIGHT)
        self.head = ParagraphStyle("head", parent=self.plain, fontName=self.bold, fontSize=17, leading=22)
        self.strong = ParagraphStyle("strong", parent=self.plain, fontName=self.bold, fontSize=11)
        self.amount = ParagraphStyle("amount", parent=self.right, fontName=self.bold)


def _said(words: str, style: ParagraphStyle) -> Paragraph:
    return Paragraph(escape(words), style)


def written(paper: EstimatePaper) -> bytes:
    """A4, as many pages as it needs."""
    styles = _Styles()
    story: list[Flowable] = [_said(paper.title, styles.head), *(_said(line, styles.plain) for line in paper.subject)]
    story.append(Spacer(1, 4 * mm))
    for figure in paper.figures:
        drawn = [_said(figure.title, styles.strong), _drawn(figure, styles.text), _said(figure.stretch, styles.small)]
        story += [KeepTogether(drawn), Spacer(1, 3 * mm)]
    notes = [_said(note, styles.plain) for note in paper.notes]
    end = [_sums(paper, styles), Spacer(1, 4 * mm), *notes, Spacer(1, 18 * mm), _said(paper.sign, styles.small)]
    story += [_rows(paper, styles), Spacer(1, 6 * mm), KeepTogether(end)]
    out = BytesIO()
    sides, ends = 18 * mm, 16 * mm
    SimpleDocTemplate(
        out,
        pagesize=A4,
        title=paper.title,
        lang="en-GB",
        leftMargin=sides,
        rightMargin=sides,
        topMargin=ends,
        bottomMargin=ends,
    ).build(story)
    return out.getvalue()


def _rows(paper: EstimatePaper, styles: _Styles) -> Table:
    """Each work with what it says, and its steps below it."""
    cells: list[list[object]] = [[_said(head, styles.small) for head in paper.heads]]
    lines = []
    for row in paper.rows:
        lines.append(("LINEABOVE", (0, len(cells)), (-1, len(cells)), 0.8, _INK))
        what = [_said(row.label, styles.strong), *(_said(line, styles.small) for line in row.detail)]
        cells.append([what, _said(row.minutes, styles.right), _said(row.amount, styles.amount)])
        cells += [[_said(step.label, styles.small), _said(step.minutes, styles.small_right), ""] for step in row.steps]
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
    return table


def _sums(paper: EstimatePaper, styles: _Styles) -> Table:
    heads = [_said(cell, styles.small) for cell in paper.sum_heads]
    rows = [[_said(cell, styles.plain if i == 0 else styles.right) for i, cell in enumerate(row)] for row in paper.sums]
    sums = Table([heads, *rows], colWidths=[54 * mm, 28 * mm, 28 * mm, 28 * mm, 36 * mm])
    sums.setStyle(TableStyle([("LINEABOVE", (0, 1), (-1, -1), 0.4, "#9aa3a6"), ("VALIGN", (0, 0), (-1, -1), "MIDDLE")]))
    return sums


def _drawn(figure: Figure, font: str) -> Drawing:
    """Curves fitted into the drawing: lengths and heights each to their own scale."""
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
