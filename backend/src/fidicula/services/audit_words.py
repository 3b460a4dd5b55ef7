"""The lines of the audit in words."""

from __future__ import annotations

from collections.abc import Mapping

from fidicula.services.measures import MEASURES
from fidicula.tables.signs import items
from fidicula.tables.work import works

_ACTS = {
    "person.added": "Person added",
    "person.changed": "Person changed",
    "person.signed_in": "Signed in",
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
    "instrument.arrived": "Arrival",
    "visit.opened": "Visit opened",
    "instrument.handed_over": "Hand-over",
    "instrument.handed_over.undone": "Hand-over undone",
    "reading": "Reading",
    "work_done": "Work",
    "decision": "Decision",
    "seen": "Inspection",
    "course_mark": "Step",
    "particular": "Particulars",
    "photo": "Photograph",
    "post_entry": "Sound post described",
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


def subject_words(act: str, subject: str) -> str:
    """What it was done to, as the sheet calls it."""
    kind = act.removesuffix(".undone")
    if kind == "reading" and subject in MEASURES:
        return MEASURES[subject].label
    if kind == "work_done" and subject in works():
        return works()[subject].label
    if kind in ("seen", "photo") and subject in items():
        return items()[subject].label
    return subject.replace("_", " ")


def change_words(detail: Mapping[str, object]) -> str:
    """Before and after, by name."""
    if "was" in detail or "now" in detail:
        was = _words(detail.get("was")) or "no figure"
        return f"{was} → {_words(detail.get('now'))}"
    return ", ".join(f"{name}: {_words(value)}" for name, value in detail.items())


def _words(value: object) -> str:
    match value:
        case None:
            return ""
        case bool():
            return "yes" if value else "no"
        case float():
            return f"{value:g}"
        case [before, after] if isinstance(before, str | bool):
            return f"{_words(before)} → {_words(after)}"
        case list():
            return " / ".join("–" if part is None else _words(part) for part in value)
    return str(value)
