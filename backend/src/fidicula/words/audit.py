"""The lines of the audit in words."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from fidicula.judgement.measures import MEASURES, name_of
from fidicula.numerals import short
from fidicula.tables.damage import STATES, damage_kinds
from fidicula.tables.rows import row_of
from fidicula.tables.signs import VERDICTS, items
from fidicula.tables.work import works
from fidicula.tables.workflow import questions, steps, visit_kinds

_ACTS = {
    "person.added": "Person added",
    "person.changed": "Person changed",
    "person.signed_in": "Signed in",
    "person.guessed_at": "Wrong password or PIN",
    "person.signed_out_everywhere": "Signed out everywhere",
    "device.paired": "Device paired",
    "device.revoked": "Device revoked",
    "house.restored": "Backup restored",
    "figure.entered": "Figure entered",
    "figure.withdrawn": "Figure reset to starting value",
    "figure.undone": "Figure undone",
    "recipe.saved": "Recipe saved",
    "recipe.retired": "Recipe withdrawn",
    "recipe.followed": "Shop recipe chosen",
    "shelf.entered": "Stock list changed",
    "stock.added": "Put into the drawers",
    "stock.counted": "Stock counted",
    "stock.priced": "Price changed",
    "setting.entered": "Shop setting changed",
    "plan_line": "Plan",
    "approval": "Approval",
    "document": "Document issued",
    "payment": "Payment",
    "instrument.arrived": "Arrival",
    "visit.opened": "Visit opened",
    "instrument.handed_over": "Hand-over",
    "instrument.handed_over.undone": "Hand-over undone",
    "archive.taken_in": "Archive taken in",
    "readings.taken_in": "Readings taken in from a table",
    "visit.added_to": "Addition to a sealed visit",
    "closing_point.entered": "Checklist changed",
    "reading": "Reading",
    "work_done": "Work",
    "decision": "Decision",
    "seen": "Inspection",
    "course_mark": "Step",
    "particular": "Particulars",
    "photo": "Photograph",
    "post_entry": "Sound post described",
    "belonging": "Fittings and belongings",
    "damage": "Damage map",
    "damage_signed": "Signed for damage",
    "player_session": "Player",
    "heard": "Listening note",
    "recording": "Recording",
    "blind_trial": "Blind comparison",
    "retuning": "Tuning",
    "target_choice": "Targets chosen",
}


def act_label(act: str) -> str:
    """What was done."""
    if act in _ACTS:
        return _ACTS[act]
    return f"{_ACTS[act.removesuffix('.undone')]} undone"


def subject_words(act: str, subject: str, detail: Mapping[str, object], string_names: Sequence[str]) -> str:
    """What it was done to, as the sheet calls it. string_names : of the instrument, low string first."""
    kind, position = act.removesuffix(".undone"), detail.get("position")
    if kind == "reading" and subject in MEASURES:
        return name_of(MEASURES[subject], tuple(string_names), position if isinstance(position, int) else None)
    if kind in ("work_done", "plan_line") and subject in works():
        return works()[subject].label
    if kind in ("seen", "photo") and subject in items():
        return items()[subject].label
    if kind == "damage" and subject in damage_kinds():
        return damage_kinds()[subject].label
    if kind == "decision" and subject in questions():
        return questions()[subject].title
    if kind == "course_mark" and subject in steps():
        return steps()[subject].label
    if kind == "document":
        return subject
    return subject.replace("_", " ")


_MARKS = {"done": "done", "passed": "skipped", "wait": "waits", "go_on": "wait ended"}


_SAYS: Mapping[str, Mapping[str, str]] = {
    "seen": VERDICTS,
    "course_mark": _MARKS,
    "damage": {str(state): label for state, label in STATES.items()},
}


def change_words(act: str, subject: str, detail: Mapping[str, object]) -> str:
    """Before and after, by name, or what a line says."""
    says = detail.get("says")
    if isinstance(says, str):
        kind = act.removesuffix(".undone")
        if kind == "decision" and subject in questions():
            return next((o.label for o in questions()[subject].outcomes if o.outcome == says), says)
        return _SAYS.get(kind, {}).get(says, says)
    if "was" in detail or "now" in detail:
        was = _words(detail.get("was")) or "no figure"
        return f"{was} → {_words(detail.get('now'))}"
    visit = row_of(visit_kinds(), str(detail.get("kind")))
    if visit is not None:
        return visit.label
    return ", ".join(f"{name}: {_words(value)}" for name, value in detail.items())


def _words(value: object) -> str:
    match value:
        case None:
            return ""
        case bool():
            return "yes" if value else "no"
        case float():
            return f"{short(value)}"
        case [before, after] if isinstance(before, str | bool):
            return f"{_words(before)} → {_words(after)}"
        case list():
            return " / ".join("–" if part is None else _words(part) for part in value)
    return str(value)
