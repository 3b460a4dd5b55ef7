"""Targets that are read somewhere on record: as found, as at an earlier visit, as another instrument here."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import datetime
from uuid import UUID

from fidicula.codes import MeasureCode
from fidicula.core.readings.states import (
    MeasurementKey,
)
from fidicula.db.unit_of_work import UnitOfWork
from fidicula.domain.errors import RefusedError
from fidicula.domain.instruments import Instrument
from fidicula.domain.visits import Visit
from fidicula.judgement.measures import MEASURES
from fidicula.judgement.targets.sources import (
    ANOTHER,
    AS_FOUND,
    EARLIER_VISIT,
    MEASURES_FROM_ELSEWHERE,
    SOURCES,
    first_of_each,
    logged,
    reading_states_of,
    taken_of,
)
from fidicula.judgement.targets.wanted import Taken
from fidicula.words.following import SOURCE_WORDS


def load_taken(
    uow: UnitOfWork, instrument: Instrument, visit: Visit, sources: Mapping[MeasureCode, Mapping[str, str]]
) -> dict[MeasurementKey, Taken]:
    """The places whose target is read somewhere else than in the recipe. Raises RefusedError for what cannot be."""
    found: dict[MeasurementKey, Taken] = {}
    seen: dict[tuple[str, str], dict[MeasurementKey, Taken]] = {}
    for measure, source in sources.items():
        if measure not in MEASURES_FROM_ELSEWHERE:
            raise RefusedError(f"“{measure}” cannot be wanted as it was read somewhere", field="sources")
        kind, of = source.get("from", ""), source.get("of", "")
        if (kind, of) not in seen:
            seen[kind, of] = _read_there(uow, instrument, visit, kind, of)
        positions: Sequence[int | None] = (
            range(len(instrument.string_names)) if MEASURES[measure].for_each_string else [None]
        )
        there = seen[kind, of]
        words = f"{SOURCE_WORDS[kind].format(of=of)}: not read there"
        for position in positions:
            place = (measure, position)
            found[place] = there.get(place, Taken(None, 0.0, "vertical", words))
    return found


def _read_there(
    uow: UnitOfWork, instrument: Instrument, visit: Visit, kind: str, of: str
) -> dict[MeasurementKey, Taken]:
    if kind == AS_FOUND:
        return as_found(uow, visit, f"as found, {_day(visit.opened_at)}")
    if kind == EARLIER_VISIT:
        earlier = next((v for v in uow.visits.of(instrument.id) if str(v.id) == of), None)
        if earlier is None or earlier.id == visit.id:
            raise RefusedError("that is no earlier visit of this instrument", field="sources")
        return last_of(uow, earlier.id, f"as at the visit of {_day(earlier.opened_at)}")
    if kind == ANOTHER:
        other = uow.instruments.by_ticket(of)
        if other is None:
            raise RefusedError(f"there is no instrument with the ticket {of} here", field="sources")
        its = other[0]
        same = (its.family, its.size, len(its.string_names)) == (
            instrument.family,
            instrument.size,
            len(instrument.string_names),
        )
        if its.id == instrument.id or not same:
            raise RefusedError(
                f"{of} is a {its.family} {its.size} with {len(its.string_names)} strings: targets are taken over "
                "from another instrument of the same family, size and number of strings, and never scaled",
                field="sources",
            )
        return last_of(uow, other[1].id, f"as {its.ticket} stands")
    raise RefusedError(f"a target comes from {', '.join(SOURCES)}; it was “{kind}”", field="sources")


def _day(when: datetime) -> str:
    return f"{when.day} {when:%B %Y}"


def as_found(uow: UnitOfWork, visit: Visit, words: str) -> dict[MeasurementKey, Taken]:
    """What each place first held at a visit. words : said of each."""
    readings = first_of_each(uow.log.all_readings(visit.id))
    return taken_of(readings, reading_states_of(logged(readings), []), words)


def last_of(uow: UnitOfWork, visit_id: UUID, words: str) -> dict[MeasurementKey, Taken]:
    """What each place held at the end of a visit, or holds now. words : said of each."""
    readings = uow.log.standing_readings(visit_id)
    return taken_of(readings, reading_states_of(logged(readings), uow.log.works(visit_id)), words)
