"""What was seen of an instrument, item by item."""

from __future__ import annotations

from fidicula.services.sheet.held import BenchState
from fidicula.services.sheet.model import FindingView, ItemView
from fidicula.services.sheet.signs import standing_seen
from fidicula.tables.signs import Finding, findings, findings_of, items
from fidicula.tables.work import works

_HARDEST = ("work", "watch", "fine")


def item_views(state: BenchState, kind: str) -> list[ItemView]:
    """Every item that this family is looked over for, in working order. kind : of visit, which asks for some."""
    seen = standing_seen(state)
    views = []
    for item, rows in findings_of(state.instrument.family).items():
        line = seen.get(item)
        there = () if line is None else line.findings
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
            )
        )
    return views


def led_to(row: Finding) -> str:
    """What a finding proposes: what to look at or measure, and the work to plan."""
    work = works()[row.work].label.lower() if row.work in works() else ""
    return "; ".join(part for part in (row.leads_to or "", f"plan: {work}" if work else "") if part)


def proposals(state: BenchState) -> list[str]:
    """What the findings of this visit lead on to, each until its work was done after it was seen."""
    found = []
    for line in standing_seen(state).values():
        for name in line.findings:
            row = findings().get(name)
            if row is None or not led_to(row):
                continue
            if row.work and any(w.work == row.work and w.number > line.after_work for w in state.standing_works):
                continue
            found.append(f"{items()[row.item].label}, {row.label}: {led_to(row)}")
    return found


def left_blank(state: BenchState, kind: str) -> list[str]:
    """Labels of the items that a kind of visit asks for and that nobody has said anything of."""
    seen = standing_seen(state)
    return [
        row.label
        for row in items().values()
        if row.fits(state.instrument.family) and kind in row.kinds.split() and row.item not in seen
    ]


def verdict_of(family: str, item: str, found: list[str]) -> str:
    """What the findings at an item ask for: the hardest of them; fine without any."""
    asked = {row.verdict for row in findings_of(family).get(item, ()) if row.finding in found}
    return next((verdict for verdict in _HARDEST if verdict in asked), "fine")
