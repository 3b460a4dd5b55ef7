"""Fittings and what came along, in words."""

from __future__ import annotations

from fidicula.domain.belongings import BelongingEntry
from fidicula.numerals import short
from fidicula.tables.belongings import belonging_kinds
from fidicula.words.numbers import day_and_year

_WANTED_TUNERS = {"top_string": 1, "none": 0}


def thing(entry: BelongingEntry) -> str:
    """“2 bows: silver mounted”, “bridge: hard blank, 2.1 g, made 4 March 2026, off: in the drawer”."""
    kind = belonging_kinds().get(entry.kind)
    label = entry.kind if kind is None else kind.label
    told = [
        entry.which,
        entry.material,
        f"{short(entry.mass)} g" if entry.mass else "",
        f"made {day_and_year(entry.made_on)}" if entry.made_on else "",
        f"stamp {entry.stamp}" if entry.stamp else "",
    ]
    if entry.place == "off":
        told.append(f"off it now: {entry.lies}" if entry.lies else "off it now")
    name = f"{label} × {entry.count}" if entry.count else label
    words = ", ".join(one for one in told if one)
    return f"{name}: {words}" if words else name


def tuners(count: int | None, *, school: str, strings: int) -> list[str]:
    """Where as many fine tuners are on it as its recipe does not want."""
    wanted = _WANTED_TUNERS.get(school, strings)
    if count is None or count == wanted:
        return []
    return [f"{count} fine tuners are on it; its recipe wants {wanted or 'none'}. What the player is used to may stay."]


def off_now(entries: list[BelongingEntry]) -> str:
    return f"Off it, and not yet back: {'; '.join(thing(entry) for entry in entries)}"


def lent(entries: list[BelongingEntry]) -> str:
    return f"The shop's own, on it: {'; '.join(thing(entry) for entry in entries)}"


OFF_LABEL = "What was taken off is back on it"
OFF_MEANS = "it stays behind in the shop"
LENT_LABEL = "What the shop lent"
LENT_MEANS = "it leaves with the instrument: ask for it, or write down until when"
