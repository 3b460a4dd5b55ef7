"""The typeface of the screen in papers: embedded, so that every reader shows the same."""

from __future__ import annotations

from functools import cache
from importlib import resources
from io import BytesIO

FACES = {"FidiculaText": "public-sans-400.ttf", "FidiculaBold": "public-sans-700.ttf"}


@cache
def registered() -> tuple[str, str]:
    """Names of the plain and the bold face for reportlab. Raises FileNotFoundError where the typeface is missing."""
    from reportlab.pdfbase import pdfmetrics
    from reportlab.pdfbase.ttfonts import TTFont

    folder = resources.files("fidicula.documents").joinpath("typeface")
    for name, file in FACES.items():
        pdfmetrics.registerFont(TTFont(name, BytesIO(folder.joinpath(file).read_bytes())))
    pdfmetrics.registerFontFamily("FidiculaText", normal="FidiculaText", bold="FidiculaBold")
    return "FidiculaText", "FidiculaBold"
