"""The newest thing that can be undone, and what it is called."""

from __future__ import annotations

from datetime import datetime

from fidicula.judgement.assessment.state import BenchState
from fidicula.tables.signs import items
from fidicula.tables.work import works as work_rows
from fidicula.tables.workflow import steps
from fidicula.words.model import Undoable
from fidicula.words.names import key_name

MARK_WORDS = {"done": "done", "passed": "skipped", "wait": "waits", "go_on": "waits no longer"}


def undoable(state: BenchState, since: datetime) -> Undoable | None:
    """The newest reading, work, decision or choice of targets of this visit that stands."""
    found: list[tuple[datetime, Undoable]] = []
    reading = max((r for r in state.readings if not r.taken_back), key=lambda r: r.recorded_at, default=None)
    if reading is not None:
        words = f"{key_name(state.instrument, (reading.measure, reading.position))} {reading.typed}"
        found.append((reading.recorded_at, Undoable("reading", str(reading.id), words)))
    work = max(state.standing_works, key=lambda w: w.done_at, default=None)
    if work is not None:
        found.append((work.done_at, Undoable("work", str(work.id), work_rows()[work.work].done_label)))
    decision = next((d for d in reversed(state.decisions) if not d.taken_back), None)
    if decision is not None and decision.decided_at is not None:
        found.append((decision.decided_at, Undoable("decision", str(decision.id), "the decision")))
    mark = next((m for m in reversed(state.marks) if not m.taken_back), None)
    if mark is not None and mark.made_at is not None and mark.step in steps():
        said = f"{steps()[mark.step].label} {MARK_WORDS[mark.mark]}"
        found.append((mark.made_at, Undoable("mark", str(mark.id), said)))
    line = next((entry for entry in reversed(state.seen) if not entry.taken_back), None)
    if line is not None and line.seen_at is not None:
        found.append((line.seen_at, Undoable("seen", str(line.id), f"inspection of {items()[line.item].label}")))
    choice = state.instrument.choice
    if choice.id is not None and choice.chosen_at is not None and choice.chosen_at >= since:
        found.append((choice.chosen_at, Undoable("choice", str(choice.id), "the choice of recipe")))
    return max(found, key=lambda entry: entry[0])[1] if found else None
