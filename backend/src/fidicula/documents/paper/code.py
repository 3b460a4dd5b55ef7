"""A square code of dark and light fields that a telephone reads, as strokes of a sketch."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from fidicula.documents.paper.model import Stroke

QUIET_ZONE = 4
"""Light fields around it, so that it is found."""


def qr_strokes(words: str) -> tuple[int, list[Stroke]]:
    """Fields to a side, the quiet zone counted in, and the dark ones as filled shapes, y upward."""
    from reportlab.graphics.barcode.qrencoder import QRCode, QRErrorCorrectLevel

    code: Any = QRCode(None, QRErrorCorrectLevel.M)
    code.addData(words)
    code.make()
    count = code.getModuleCount()
    return count + 2 * QUIET_ZONE, [
        Stroke(points=_rectangle(first, last, count - 1 - row), filled=True)
        for row in range(count)
        for first, last in _runs([bool(code.isDark(row, column)) for column in range(count)])
    ]


def _runs(dark: list[bool]) -> Iterator[tuple[int, int]]:
    """First and last of each unbroken row of dark fields."""
    start: int | None = None
    for i, one in enumerate([*dark, False]):
        if one and start is None:
            start = i
        elif not one and start is not None:
            yield start, i
            start = None


def _rectangle(first: int, last: int, row: int) -> list[tuple[float, float]]:
    left, right, low = first + QUIET_ZONE, last + QUIET_ZONE, row + QUIET_ZONE
    return [(left, low), (right, low), (right, low + 1), (left, low + 1)]
