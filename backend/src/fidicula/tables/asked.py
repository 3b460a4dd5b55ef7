"""Questions about the house that come along."""

from __future__ import annotations

from functools import cache

from fidicula.tables.rows import TableRow, read_rows


class AskedQuestion(TableRow):
    """name : what it is called.  words : as somebody would type it."""

    name: str
    words: str


@cache
def asked_questions() -> tuple[AskedQuestion, ...]:
    return read_rows("asked", AskedQuestion)
