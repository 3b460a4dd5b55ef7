"""What was found at an instrument, item by item, as the screen shows it."""

from __future__ import annotations

from fidicula.judgement.assessment.inspection import is_mended, standing_seen
from fidicula.judgement.assessment.state import BenchState
from fidicula.tables.signs import findings_of, items
from fidicula.views.sheet.model import FindingView, ItemView
from fidicula.words.inspection import led_to


def item_views(state: BenchState, kind: str) -> list[ItemView]:
    """Every item that this family is looked over for, in working order. kind : of visit, which asks for some."""
    seen = standing_seen(state)
    views = []
    for item, rows in findings_of(state.instrument.family).items():
        line = seen.get(item)
        there = () if line is None else line.findings
        mended = (
            []
            if line is None
            else [row.label for row in rows if row.finding in there and is_mended(state, line, row.finding)]
        )
        views.append(
            ItemView(
                item=item,
                label=items()[item].label,
                look=items()[item].look,
                is_asked=kind in items()[item].kinds.split(),
                verdict="" if line is None else line.verdict,
                words="" if line is None else line.words,
                by="" if line is None else line.seen_by,
                at=None if line is None else line.seen_at,
                findings=[FindingView(row.finding, row.label, row.finding in there, led_to(row)) for row in rows],
                mended=mended,
                is_mended=bool(mended) and len(mended) == len(there),
            )
        )
    return views
