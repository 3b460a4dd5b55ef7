"""Particulars of an instrument and its visit, changed after it came in; two may write at once, no word is lost."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Any
from uuid import uuid4

from fidicula import limits
from fidicula.core.readings.plain import whole_number
from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.domain.errors import MeanwhileError, RefusedError
from fidicula.domain.instruments import ASKED, Particular
from fidicula.domain.typed_days import day_of
from fidicula.services.loading.records import changed_sheet, check_in_house, load_to_change
from fidicula.services.visits.arrivals import VisitAsked, check_dates, check_kind
from fidicula.views.sheet.build import sheet_of
from fidicula.views.sheet.model import BenchSheet

LONGEST = limits.STORY
"""Of anything that people say. [characters]"""


@dataclass(frozen=True)
class Change:
    """One particular, as text. was : what stood there when it was opened."""

    field: str
    was: str
    now: str


def _words(text: str) -> str:
    return text.strip()


def _yes(text: str) -> bool:
    if text not in ("yes", "no"):
        raise ValueError("it is yes or no")
    return text == "yes"


def _day(text: str) -> date | None:
    day = day_of(text)
    if text and day is None:
        raise ValueError("type a day as year, month and day, for instance 2026-12-24")
    return day


def _days(text: str) -> int:
    days = whole_number(text)
    if days is None or days > 60:
        raise ValueError("type a number of days, 0 to 60")
    return days


def _climate(text: str) -> str:
    if text not in ("", "damp", "dry"):
        raise ValueError("it comes from a damp or a dry place, or from neither")
    return text


def _kind(text: str) -> str:
    check_kind(text)
    return text


_OF_INSTRUMENT: Mapping[str, Callable[[str], Any]] = {
    "owner": _words,
    "description": _words,
    **dict.fromkeys(ASKED, _words),
    "is_fleet": _yes,
    "is_new": _yes,
    "left_handed": _yes,
    "opposite_build": _yes,
}
_OF_VISIT: Mapping[str, Callable[[str], Any]] = {
    "complaint": _words,
    "kind": _kind,
    "climate": _climate,
    "deadline": _day,
    "freeze_days": _days,
    "promised": _day,
}


def as_text(value: object) -> str:
    """A particular as it is written: yes or no, a day, words."""
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    return value.isoformat() if isinstance(value, date) else str(value)


class Particulars:
    """Use cases around the particulars of one instrument."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def change(self, ticket: str, changes: Sequence[Change], *, by: str) -> BenchSheet:
        """Write changed particulars; all of them, or none. Raises RefusedError naming the field at fault.

        Raises MeanwhileError where somebody else wrote at the same place since it was opened.
        """
        with UnitOfWork(self._engine) as uow:
            loaded = load_to_change(uow, ticket)
            check_in_house(loaded)
            instrument_id, visit_id = loaded.instrument.id, loaded.visit.id
            stands = uow.instruments.particulars_of(instrument_id, visit_id)
            values = {change.field: _value(change) for change in changes}
            meanwhile = {
                change.field: as_text(stands[change.field])
                for change in changes
                if as_text(stands[change.field]) not in (change.was.strip(), as_text(values[change.field]))
            }
            if meanwhile:
                last = {line.field: line.written_by for line in uow.instruments.particulars_log(visit_id)}
                said = "{} wrote here meanwhile: “{}”. Put the two together, then keep it"
                raise MeanwhileError(
                    {field: said.format(last.get(field, "somebody"), text) for field, text in meanwhile.items()}
                )
            new = [change for change in changes if as_text(stands[change.field]) != as_text(values[change.field])]
            _check_days(stands, values)
            if not new:
                return sheet_of(loaded.assess(), loaded.rules)
            uow.instruments.change_particulars(
                [
                    Particular(
                        uuid4(),
                        instrument_id,
                        visit_id,
                        change.field,
                        as_text(stands[change.field]),
                        as_text(values[change.field]),
                        by,
                    )
                    for change in new
                ],
                of_instrument={c.field: values[c.field] for c in new if c.field in _OF_INSTRUMENT},
                of_visit={c.field: values[c.field] for c in new if c.field in _OF_VISIT},
            )
            return changed_sheet(uow, ticket)


def _value(change: Change) -> Any:
    parse = _OF_INSTRUMENT.get(change.field) or _OF_VISIT.get(change.field)
    if parse is None:
        raise RefusedError(f"“{change.field}” is none of the particulars", field="changes")
    if len(change.now) > LONGEST:
        raise RefusedError(f"that is longer than {LONGEST} characters", field=change.field)
    try:
        return parse(change.now)
    except ValueError as error:
        raise RefusedError(str(error), field=change.field) from error
    except RefusedError as error:
        raise RefusedError(error.sentence, field=change.field) from error


def _check_days(stands: Mapping[str, Any], values: Mapping[str, Any]) -> None:
    """Days that are changed are to come; one that stands already may have passed."""
    merged = {name: values.get(name, stands[name]) for name in ("climate", "deadline", "freeze_days", "promised")}
    unchanged = [name for name in ("deadline", "promised") if merged[name] == stands[name]]
    if len(unchanged) < 2:
        check_dates(VisitAsked(**merged), but=unchanged)
