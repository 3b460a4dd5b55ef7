"""What a finding leads on to, in words."""

from __future__ import annotations

from fidicula.judgement.assessment.inspection import is_mended, standing_seen
from fidicula.judgement.assessment.state import BenchState
from fidicula.tables.signs import Finding, findings, items
from fidicula.tables.work import works
from fidicula.words.numbers import lower_first


def led_to(row: Finding) -> str:
    """What a finding proposes: what to look at or measure, and the work to plan."""
    # What is fine as it is names the work that does away with it, which nobody plans for its sake.
    work = lower_first(works()[row.works[0]].label) if row.works and row.verdict != "fine" else ""
    return "; ".join(part for part in (row.leads_to or "", f"plan: {work}" if work else "") if part)


def proposals(state: BenchState) -> list[str]:
    """What the findings of this visit lead on to, each until it was mended; and what was found in one's own words."""
    found = []
    for line in standing_seen(state).values():
        label = items()[line.item].label if line.item in items() else line.item
        open_ = [name for name in line.findings if name in findings() and not is_mended(state, line, name)]
        told = [(findings()[name].label, led_to(findings()[name]), findings()[name].verdict) for name in open_]
        found += [
            f"{label}, {what}: {led}" if led else f"{label}, {what}"
            for what, led, verdict in told
            if led or verdict == "work"
        ]
        if line.verdict == "work" and line.words and not _is_told_done(state, line.after_work, line.findings):
            found.append(f"{label}: {line.words}")
        elif line.verdict == "work" and not line.findings:
            found.append(f"{label}: work needed")
    return found


def _is_told_done(state: BenchState, after_work: int, named: tuple[str, ...]) -> bool:
    """Whether every finding with a work was mended, so that its words are done with too."""
    works_of = {work for name in named if name in findings() for work in findings()[name].works}
    return bool(works_of) and any(w.work in works_of and w.number > after_work for w in state.standing_works)
