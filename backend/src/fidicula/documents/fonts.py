"""The typeface of the screen in papers: embedded, so that every reader shows the same."""

from __future__ import annotations

from functools import cache
from io import BytesIO
from pathlib import Path

FACES = {"FidiculaText": "public-sans-latin-400-normal", "FidiculaBold": "public-sans-latin-700-normal"}


@cache
def registered(assets: Path) -> tuple[str, str]:
    """Names of the plain and the bold face for reportlab. assets : of the built front end.

    Without them reportlab's own take their place, whose letters are those of western Europe alone.
    """
    from fontTools.ttLib import TTFont as Face
    from reportlab.pdfbase import pdfmetrics
    from reportlab.pdfbase.ttfonts import TTFont

    for name, file in FACES.items():
        found = next(iter(sorted(assets.glob(f"{file}-*.woff"))), None)
        if found is None:
            return "Helvetica", "Helvetica-Bold"
        face = Face(found)
        face.flavor = None
        plain = BytesIO()
        face.save(plain)
        plain.seek(0)
        pdfmetrics.registerFont(TTFont(name, plain))
    pdfmetrics.registerFontFamily("FidiculaText", normal="FidiculaText", bold="FidiculaBold")
    return "FidiculaText", "FidiculaBold"
