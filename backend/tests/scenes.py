"""What several tests ask of an instrument."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from fidicula.services.bench.bench import Bench
from sqlalchemy import Engine


def moment_of_words(engine: Engine, ticket: str) -> Any:
    """What the sheet says, without what differs from house to house: numbers of lines."""
    sheet = Bench(engine).sheet(ticket)
    return replace(sheet, last_work=0)
