"""A paper as a PDF: selectable text, the typeface embedded, title and language set."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from io import BytesIO
from typing import TYPE_CHECKING, Any
from xml.sax.saxutils import escape

from fidicula.documents.fonts import registered
from fidicula.documents.paper.model import (
    Block,
    Grid,
    Heading,
    Paper,
    Pictures,
    Points,
    Sign,
    Sketch,
    Stroke,
    Text,
)

if TYPE_CHECKING:
    from reportlab.graphics.shapes import Drawing
    from reportlab.lib.styles import ParagraphStyle
    from reportlab.platypus import Flowable

_INK, _QUIET, _HAIR = "#1f272b", "#4a5357", "#9aa3a6"
_WEIGHTS = {"thin": 0.5, "plain": 1.0, "bold": 2.2}
_SMALL_PAGE_MM = 120.0
_LOW_PAGE_MM = 45.0
_SIGN = (280.0, 88.0)
_PADDING = 6.0
"""That a page's frame has of its own. [pt]"""


def paper_pdf(paper: Paper, *, pictures: Mapping[str, bytes] | None = None) -> bytes:
    """As many pages as it needs. pictures : JPEG by id."""
    return _Printer(paper, pictures or {}).pdf()


class _Printer:
    def __init__(self, paper: Paper, pictures: Mapping[str, bytes]) -> None:
        from reportlab.lib.colors import HexColor
        from reportlab.lib.enums import TA_RIGHT
        from reportlab.lib.styles import ParagraphStyle
        from reportlab.lib.units import mm

        self.paper, self.pictures, self.mm = paper, pictures, mm
        self.text, self.bold = registered()
        self.ink, self.hair = HexColor(_INK), HexColor(_HAIR)
        self.is_small = small_page = paper.size[0] < _SMALL_PAGE_MM
        is_low = paper.size[1] < _LOW_PAGE_MM
        self.margin = (3.0 if is_low else 4.0 if small_page else 16.0) * mm
        self.gap = (1.0 if is_low else 2.0) * mm
        self.width = paper.size[0] * mm - 2 * self.margin - 2 * _PADDING
        size = 8.0 if small_page else 10.0
        self.plain = ParagraphStyle("plain", fontName=self.text, textColor=self.ink, fontSize=size, leading=size * 1.36)
        self.small = ParagraphStyle("small", self.plain, fontSize=size * 0.85, leading=size * 1.14)
        self.small.textColor = HexColor(_QUIET)
        self.strong = ParagraphStyle("strong", self.plain, fontName=self.bold)
        self.right = ParagraphStyle("right", self.plain, alignment=TA_RIGHT)
        self.strong_right = ParagraphStyle("strong right", self.strong, alignment=TA_RIGHT)
        self.small_right = ParagraphStyle("small right", self.small, alignment=TA_RIGHT)
        title = size * (1.6 if is_low else 2.6 if small_page else 1.7)
        self.head = ParagraphStyle("head", self.strong, fontSize=title, leading=title * 1.2)
        self.section = ParagraphStyle(
            "section", self.strong, fontSize=size * 1.2, leading=size * 1.6, spaceBefore=size * 0.9, spaceAfter=2
        )

    def pdf(self) -> bytes:
        from reportlab.platypus import KeepInFrame, SimpleDocTemplate, Spacer

        story: list[Flowable] = []
        if self.paper.title:
            story += [self.said(self.paper.title, self.head)]
        story += [self.said(line, self.plain) for line in self.paper.subject]
        story.append(Spacer(1, self.gap))
        for blocks in beside_each_other(self.paper.blocks):
            story += self._row(blocks) if len(blocks) > 1 else self.block(blocks[0])
        if self.is_small:
            # What is stuck on is one piece, however long a set's name: smaller then, and never a second page.
            high = self.paper.size[1] * self.mm - 2 * self.margin - 2 * _PADDING
            story = [KeepInFrame(self.width, high, story, mode="shrink")]
        out = BytesIO()
        document = SimpleDocTemplate(
            out,
            # The same paper is the same file, byte for byte.
            invariant=1,
            pagesize=(self.paper.size[0] * self.mm, self.paper.size[1] * self.mm),
            title=self.paper.title or self.paper.file,
            subject=", ".join(self.paper.subject),
            lang="en-GB",
            displayDocTitle=True,
            leftMargin=self.margin,
            rightMargin=self.margin,
            topMargin=self.margin,
            bottomMargin=self.margin + (4 * self.mm if self.paper.foot else 0),
        )
        document.build(story, onFirstPage=self._foot, onLaterPages=self._foot)
        return out.getvalue()

    def _foot(self, canvas: Any, document: Any) -> None:
        if not self.paper.foot:
            return
        canvas.saveState()
        canvas.setFont(self.text, 8)
        canvas.setFillColor(self.ink)
        canvas.drawString(self.margin, self.margin - 2 * self.mm, self.paper.foot)
        canvas.drawRightString(self.margin + self.width, self.margin - 2 * self.mm, str(document.page))
        canvas.restoreState()

    def said(self, words: str, style: ParagraphStyle) -> Flowable:
        from reportlab.platypus import Paragraph

        return Paragraph(escape(words), style)

    def block(self, block: Block) -> list[Flowable]:
        from reportlab.platypus import CondPageBreak, Spacer

        match block:
            case Heading():
                # A heading does not stand alone at the foot of a page.
                return [CondPageBreak(24 * self.mm), self.said(block.words, self.section)]
            case Text():
                style = self.small if block.small else self.strong if block.strong else self.plain
                return [self.said(block.words, style)]
            case Points():
                return [self._point(block, i) for i in range(len(block.lines))]
            case Grid():
                return [self._grid(block), Spacer(1, 2 * self.mm)]
            case Sketch():
                return self._sketch(block)
            case Pictures():
                return self._pictures(block)
            case Sign():
                return self._sign(block)

    def _point(self, block: Points, i: int) -> Flowable:
        from reportlab.platypus import Table, TableStyle

        # A box is drawn by hand: no typeface here has one.
        size = self.plain.fontSize * 0.8
        box = _box(size, ticked=block.ticked[i], ink=self.ink) if block.ticked else self.said("–", self.plain)
        row = Table(
            [[box, self.said(block.lines[i], self.plain)]],
            colWidths=[5 * self.mm, self.width - 5 * self.mm],
            hAlign="LEFT",
            splitInRow=1,
        )
        row.setStyle(TableStyle([("VALIGN", (0, 0), (-1, -1), "TOP"), *_TIGHT]))
        return row

    def _grid(self, block: Grid) -> Flowable:
        from reportlab.platypus import Table, TableStyle

        def cell(words: str, row: int, column: int) -> Flowable:
            strong = row in block.strong
            if column in block.right:
                return self.said(words, self.strong_right if strong else self.right)
            return self.said(words, self.strong if strong else self.plain)

        rows: list[list[Flowable]] = []
        if any(block.head):
            heads = [self.small_right if i in block.right else self.small for i in range(len(block.head))]
            rows.append([self.said(one, style) for one, style in zip(block.head, heads, strict=True)])
        first = len(rows)
        rows += [[cell(words, r, c) for c, words in enumerate(row)] for r, row in enumerate(block.rows)]
        count = len(rows[0]) if rows else 1
        shares = block.widths or [1.0] * count
        widths = [self.width * share / sum(shares) for share in shares]
        table = Table(rows or [[""]], colWidths=widths, repeatRows=first, hAlign="LEFT", splitInRow=1)
        table.setStyle(
            TableStyle(
                [("LINEABOVE", (0, first), (-1, -1), 0.4, self.hair), ("VALIGN", (0, 0), (-1, -1), "TOP"), *_TIGHT]
            )
        )
        return table

    def _row(self, blocks: Sequence[Block]) -> list[Flowable]:
        from reportlab.platypus import Table, TableStyle

        there = [block for block in blocks if isinstance(block, Sketch)]
        table = Table(
            [[[self._drawn(one), self.said(one.caption, self.small)] for one in there]],
            colWidths=[self.width * one.across for one in there],
            hAlign="LEFT",
        )
        table.setStyle(TableStyle([("VALIGN", (0, 0), (-1, -1), "BOTTOM"), *_TIGHT]))
        return self._together([table])

    def _sketch(self, block: Sketch) -> list[Flowable]:
        from reportlab.platypus import Spacer

        parts: list[Flowable] = [self._drawn(block)]
        if block.caption:
            parts.append(self.said(block.caption, self.small))
        return [*self._together(parts), Spacer(1, self.gap)]

    def _together(self, parts: list[Flowable]) -> list[Flowable]:
        """Not parted by the end of a page; a small paper is one page anyway."""
        from reportlab.platypus import KeepTogether

        return parts if self.is_small else [KeepTogether(parts)]

    def _drawn(self, block: Sketch) -> Drawing:
        from reportlab.graphics.shapes import Drawing, Polygon, PolyLine, String

        scale = (self.width * block.across - _PADDING) / block.width
        drawing = Drawing(block.width * scale, block.height * scale)
        for stroke in block.strokes:
            flat = [value * scale for point in stroke.points for value in point]
            drawing.add(self._filled(flat, Polygon) if stroke.filled else self._line(stroke, flat, PolyLine))
        for mark in block.marks:
            font, size = (self.bold, 12) if mark.large else (self.text, 8)
            drawing.add(
                String(
                    mark.x * scale,
                    mark.y * scale,
                    mark.words,
                    fontName=font,
                    fontSize=size,
                    textAnchor=mark.anchor,
                    fillColor=self.ink,
                )
            )
        return drawing

    def _filled(self, flat: list[float], shape: Any) -> Any:
        return shape(flat, fillColor=self.ink, strokeWidth=0, strokeColor=None)

    def _line(self, stroke: Stroke, flat: list[float], shape: Any) -> Any:
        return shape(
            flat,
            strokeWidth=_WEIGHTS[stroke.weight],
            strokeDashArray=(3, 2) if stroke.dashed else None,
            strokeColor=self.ink,
        )

    def _pictures(self, block: Pictures) -> list[Flowable]:
        from reportlab.platypus import Image, Table, TableStyle

        there = [(one, words) for one, words in zip(block.ids, block.words, strict=True) if one in self.pictures]
        if not there:
            return []
        wide = self.width / 2 - 3 * self.mm
        cells: list[list[Any]] = []
        for one, words in there:
            image = Image(BytesIO(self.pictures[one]), width=wide, height=70 * self.mm, kind="proportional")
            cells.append([image, self.said(words, self.small)])
        rows = [cells[i : i + 2] for i in range(0, len(cells), 2)]
        rows[-1] += [[""]] * (2 - len(rows[-1]))
        table = Table(rows, colWidths=[self.width / 2] * 2, hAlign="LEFT")
        table.setStyle(TableStyle([("VALIGN", (0, 0), (-1, -1), "TOP"), *_TIGHT]))
        return self._together([table])

    def _sign(self, block: Sign) -> list[Flowable]:
        from reportlab.graphics.shapes import Drawing, Line, PolyLine

        wide = min(self.width, 90 * self.mm)
        scale = wide / _SIGN[0]
        drawing = Drawing(wide, _SIGN[1] * scale if block.strokes else 16 * self.mm)
        drawing.add(Line(0, 2, wide, 2, strokeColor=self.ink, strokeWidth=0.7))
        for points in strokes_of(block.strokes):
            flat = [value for x, y in points for value in (x * scale, (_SIGN[1] - y) * scale)]
            if len(points) > 1:
                drawing.add(PolyLine(flat, strokeColor=self.ink, strokeWidth=1.2))
        return self._together([drawing, self.said(block.label, self.small)])


_TIGHT = [
    ("LEFTPADDING", (0, 0), (-1, -1), 0),
    ("RIGHTPADDING", (0, 0), (-1, -1), 6),
    ("TOPPADDING", (0, 0), (-1, -1), 1.5),
    ("BOTTOMPADDING", (0, 0), (-1, -1), 1.5),
]


def _box(size: float, *, ticked: bool, ink: Any) -> Drawing:
    from reportlab.graphics.shapes import Drawing, PolyLine

    drawing = Drawing(size, size + 2)
    drawing.add(PolyLine([0, 0, size, 0, size, size, 0, size, 0, 0], strokeColor=ink, strokeWidth=0.8))
    if ticked:
        flat = [0.2 * size, 0.5 * size, 0.42 * size, 0.22 * size, 0.82 * size, 0.8 * size]
        drawing.add(PolyLine(flat, strokeColor=ink, strokeWidth=1.2))
    return drawing


def beside_each_other(blocks: Sequence[Block]) -> list[list[Block]]:
    """Blocks as they come, narrow drawings that follow each other as one row."""
    rows: list[list[Block]] = []
    room = 0.0
    for block in blocks:
        if isinstance(block, Sketch) and rows and isinstance(rows[-1][-1], Sketch) and block.across <= room:
            rows[-1].append(block)
            room -= block.across
            continue
        rows.append([block])
        room = 1.0 - block.across if isinstance(block, Sketch) else 0.0
    return rows


def strokes_of(path: str) -> list[list[tuple[float, float]]]:
    """The strokes of a signature: “M1 2 L3 4 M…” as points."""
    strokes = []
    for stroke in path.split("M")[1:]:
        numbers = [float(one) for one in re.findall(r"-?\d+(?:\.\d+)?", stroke)]
        strokes.append(list(zip(numbers[::2], numbers[1::2], strict=False)))
    return strokes
