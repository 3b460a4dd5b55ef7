"""What a question can name: families, measures, works and kinds of visit, by every phrase that means them."""

from __future__ import annotations

from functools import cache

from fidicula.codes import MeasureCode, WorkCode
from fidicula.domain.asking import Vocabulary
from fidicula.judgement.measures import MEASURES, said_of_all
from fidicula.tables.figures import string_names
from fidicula.tables.pricing import FAMILIES
from fidicula.tables.work import works
from fidicula.tables.workflow import visit_kinds

_PLURALS = {family: "basses" if family == "bass" else f"{family}s" for family in FAMILIES}
_COUNTS = (4, 5)
_NAMED_ALONE = frozenset({"recheck", "look-over and estimate", "full set-up"})
"""Of the kinds of visit: “strings” and “bridge” are parts too, and named by the field `kind:`."""


@cache
def vocabulary() -> Vocabulary:
    """Every phrase in small letters."""
    families = {phrase: family for family, many in _PLURALS.items() for phrase in (family, many)}
    measures: dict[str, MeasureCode] = {}
    places: dict[str, tuple[str, ...]] = {}
    of_all = [string_names(family=family, count=n) or () for family in FAMILIES for n in _COUNTS]
    names = tuple(dict.fromkeys(name for of in of_all for name in of))
    for measure, row in MEASURES.items():
        for phrase in (measure, measure.replace("_", " "), row.label, said_of_all(measure)):
            measures.setdefault(phrase.lower(), measure)
        if row.for_each_string:
            places[measure] = names
            measures.setdefault(f"height {row.label.lower()}", measure)
        elif row.places is not None and not row.for_each_gap:
            places[measure] = row.places
    done: dict[str, WorkCode] = {}
    for work, line in works().items():
        label = line.label.lower()
        first, _, rest = label.partition(" ")
        for phrase in (label, f"{first}s {rest}".strip(), work.replace("_", " ")):
            done.setdefault(phrase, work)
    kinds = {phrase: kind for kind, row in visit_kinds().items() for phrase in (row.label.lower(), kind)}
    return Vocabulary(
        families=families,
        measures=measures,
        places=places,
        works=done,
        kinds={phrase: kind for phrase, kind in kinds.items() if phrase in _NAMED_ALONE},
    )
