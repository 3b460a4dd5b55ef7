"""The sound of an instrument: its post, who played and what was heard, recordings, blind comparisons, tunings."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from sqlalchemy import Connection, Table, func, select, update

from fidicula.codes import MeasureCode
from fidicula.db import schema
from fidicula.db.log import reading_of, work_of
from fidicula.db.once import add_once
from fidicula.domain.readings import Reading
from fidicula.domain.sound import BlindTrial, Heard, NewRecording, PlayerSession, PostEntry, Recording, Retuning
from fidicula.domain.works import WorkDone

_visit = schema.visit
_WRITTEN_BY_THE_DATABASE = ("heard_at", "recorded_at", "entered_at", "begun_at", "tuned_at", "done_at")


class Sound:
    """Logs that run through all of an instrument's visits, each in the order of its visits and its lines."""

    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def works(self, instrument_id: UUID) -> list[WorkDone]:
        """Works that stand, of every visit."""
        return [work_of(m) for m in self._lines(schema.work_done, instrument_id)]

    def readings(self, instrument_id: UUID, measures: tuple[MeasureCode, ...]) -> list[Reading]:
        """Readings of some measures that stand, of every visit."""
        t = schema.reading
        lines = self._lines(t, instrument_id, t.c.measure.in_(measures), t.c.corrected_by.is_(None))
        return [reading_of(m) for m in lines]

    def posts(self, instrument_id: UUID) -> list[PostEntry]:
        return [PostEntry(**_without(m)) for m in self._lines(schema.post_entry, instrument_id)]

    def heard(self, instrument_id: UUID) -> list[Heard]:
        return [Heard(**_without(m)) for m in self._lines(schema.heard, instrument_id)]

    def recordings(self, instrument_id: UUID) -> list[Recording]:
        return [Recording(**_without(m, "sound")) for m in self._lines(schema.recording, instrument_id)]

    def retunings(self, instrument_id: UUID) -> list[Retuning]:
        return [Retuning(**_without(m)) for m in self._lines(schema.retuning, instrument_id)]

    def sessions(self, visit_id: UUID) -> list[PlayerSession]:
        t = schema.player_session
        rows = self._connection.execute(select(t).where(t.c.visit_id == visit_id).order_by(t.c.number))
        return [PlayerSession(**_without(dict(row._mapping))) for row in rows]

    def trials(self, instrument_id: UUID) -> list[BlindTrial]:
        return [BlindTrial(**_without(m)) for m in self._lines(schema.blind_trial, instrument_id)]

    def trial(self, trial_id: UUID) -> BlindTrial | None:
        t = schema.blind_trial
        row = self._connection.execute(select(t).where(t.c.id == trial_id)).one_or_none()
        return None if row is None else BlindTrial(**_without(dict(row._mapping)))

    def words_of(self, player: str) -> list[str]:
        """The player's own words, at any instrument, those used most often first."""
        t = schema.heard
        word = func.unnest(t.c.player_words).label("word")
        words = select(word).where(t.c.player == player, t.c.taken_back_at.is_(None)).subquery()
        often = select(words.c.word).group_by(words.c.word).order_by(func.count().desc(), words.c.word)
        return list(self._connection.execute(often).scalars())

    def sound(self, recording_id: UUID) -> tuple[str, bytes] | None:
        """A recording's media type and bytes; None for one that is not here, or was taken back."""
        t = schema.recording
        found = select(t.c.media_type, t.c.sound).where(t.c.id == recording_id, t.c.taken_back_at.is_(None))
        row = self._connection.execute(found).one_or_none()
        return None if row is None else (row.media_type, row.sound)

    def add_post(self, new: PostEntry) -> None:
        self._add(schema.post_entry, new)

    def begin(self, new: PlayerSession) -> None:
        self._add(schema.player_session, new)

    def hear(self, new: Heard) -> None:
        self._add(schema.heard, new)

    def record(self, new: NewRecording) -> None:
        self._add(schema.recording, new)

    def tune(self, new: Retuning) -> None:
        self._add(schema.retuning, new)

    def try_blind(self, new: BlindTrial) -> None:
        self._add(schema.blind_trial, new)

    def choose(self, trial_id: UUID, chosen: str) -> None:
        """What the player chose; the first word stands."""
        t = schema.blind_trial
        self._connection.execute(
            update(t).where(t.c.id == trial_id, t.c.chosen.is_(None)).values(chosen=chosen, chosen_at=func.now())
        )

    def give_up(self, series_id: UUID) -> None:
        """What of a series nobody chose yet is not chosen any more."""
        t = schema.blind_trial
        self._connection.execute(
            update(t)
            .where(t.c.series_id == series_id, t.c.chosen.is_(None))
            .values(chosen="given_up", chosen_at=func.now())
        )

    def take_back(self, kind: str, line_id: UUID, visit_id: UUID, by: str) -> bool:
        """Mark a line of `heard`, `recording`, `post_entry` or `retuning`, once; whether this visit has one."""
        t = schema.metadata.tables[kind]
        found = self._connection.execute(
            update(t)
            .where(t.c.id == line_id, t.c.visit_id == visit_id)
            .values(
                taken_back_at=func.coalesce(t.c.taken_back_at, func.now()),
                taken_back_by=func.coalesce(t.c.taken_back_by, by),
            )
        )
        return found.rowcount > 0

    def _lines(self, table: Table, instrument_id: UUID, *more: object) -> list[dict[str, Any]]:
        columns = [column for column in table.c if column.name != "sound"]
        stands = [table.c.taken_back_at.is_(None)] if "taken_back_at" in table.c else []
        rows = self._connection.execute(
            select(*columns)
            .join(_visit, _visit.c.id == table.c.visit_id)
            .where(_visit.c.instrument_id == instrument_id, *stands, *more)  # type: ignore[arg-type]
            .order_by(_visit.c.opened_at, table.c.number)
        )
        return [dict(row._mapping) for row in rows]

    def _add(self, table: Table, new: object) -> None:
        """Add a line; one of this id that is there already stays as it is."""
        values = {
            name: list(value) if isinstance(value, tuple) else value
            for name, value in vars(new).items()
            if name in table.c and not (value is None and name in _WRITTEN_BY_THE_DATABASE)
        }
        add_once(self._connection, table, values)


def _without(m: dict[str, Any], *more: str) -> dict[str, Any]:
    """A row as its record's fields."""
    left_out = {"number", "taken_back_at", "taken_back_by", "chosen_at", *more}
    return {name: tuple(v) if isinstance(v, list) else v for name, v in m.items() if name not in left_out}
