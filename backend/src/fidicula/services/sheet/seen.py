"""What was seen of an instrument, item by item."""

from __future__ import annotations

from fidicula.services.sheet.held import BenchState
from fidicula.services.sheet.model import FindingView, ItemView
from fidicula.services.sheet.signs import standing_seen
from fidicula.tables.signs import findings_of

_HARDEST = ("work", "watch", "fine")


def item_views(state: BenchState) -> list[ItemView]:
    """Every item that this family is looked over for, in working order."""
    seen = standing_seen(state)
    views = []
    for item, rows in findings_of(state.instrument.family).items():
        line = seen.get(item)
        there = () if line is None else line.findings
        views.append(
            ItemView(
                item=item,
                verdict="" if line is None else line.verdict,
                words="" if line is None else line.words,
                by="" if line is None else line.seen_by,
                at=None if line is None else line.seen_at,
                findings=[FindingView(row.finding, row.label, row.finding in there) for row in rows],
            )
        )
    return views


def verdict_of(family: str, item: str, found: list[str]) -> str:
    """What the findings at an item ask for: the hardest of them; fine without any."""
    asked = {row.verdict for row in findings_of(family).get(item, ()) if row.finding in found}
    return next((verdict for verdict in _HARDEST if verdict in asked), "fine")
