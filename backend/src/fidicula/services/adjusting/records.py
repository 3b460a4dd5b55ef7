"""Reading what a trail is made of."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import UTC, datetime
from uuid import UUID

from fidicula.db.unit_of_work import UnitOfWork
from fidicula.domain.sound import PlayerSession
from fidicula.domain.strings import StringSet
from fidicula.domain.work_details import StringsFitted
from fidicula.domain.works import WorkDone
from fidicula.judgement.visit_record import VisitRecord
from fidicula.views.adjustments.records import GAUGED, TrailRecords
from fidicula.views.adjustments.strings_on import FITTED, StringView, hours_a_week_of, string_view, strings_on


def fitted_sets(uow: UnitOfWork, works: Sequence[WorkDone]) -> dict[UUID, StringSet]:
    """The sets that works of fitting name, by id."""
    wanted = {one.string_set_id for one in works if one.string_set_id is not None}
    wanted |= {one.detail.of_set for one in works if isinstance(one.detail, StringsFitted) and one.detail.of_set}
    return {key: found for key in wanted if (found := uow.string_sets.by_id(key)) is not None}


def strings_now(uow: UnitOfWork, instrument_id: UUID, count: int) -> list[StringView]:
    """What is on it, string by string; those that nobody named are left out."""
    works = [one for one in uow.sound.works(instrument_id) if one.work in FITTED]
    hours, now = hours_a_week_of(works), datetime.now(UTC)
    on = strings_on(works, fitted_sets(uow, works), count)
    return [string_view(one, hours_a_week=hours, now=now) for one in on if one is not None]


def load_trail(uow: UnitOfWork, loaded: VisitRecord) -> TrailRecords:
    """Everything of one instrument's sound."""
    instrument = loaded.instrument
    heard = uow.sound.heard(instrument.id)
    session: PlayerSession | None = next(iter(reversed(uow.sound.sessions(loaded.visit.id))), None)
    player = instrument.owner
    if session is not None:
        player = session.player
    elif heard:
        player = heard[-1].player
    return TrailRecords(
        visits=list(reversed(uow.visits.of(instrument.id))),
        works=uow.sound.works(instrument.id),
        readings=uow.sound.readings(instrument.id, GAUGED),
        heard=heard,
        recordings=uow.sound.recordings(instrument.id),
        posts=uow.sound.posts(instrument.id),
        trials=uow.sound.trials(instrument.id),
        strings_past=any(one.is_past for one in strings_now(uow, instrument.id, len(instrument.string_names))),
        player=player,
        begun=session is not None,
        player_words=uow.sound.words_of(player) if player else [],
    )
