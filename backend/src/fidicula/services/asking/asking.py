"""Asking the whole house: a line read, explained, answered and kept."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from uuid import UUID

from fidicula.db import asking as db
from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.domain.asking import (
    CameFor,
    Condition,
    HasWords,
    IsDue,
    IsHere,
    Measured,
    OfFamily,
    OfSize,
    TensionChanged,
    WasDone,
)
from fidicula.domain.errors import NotFoundError, RefusedError
from fidicula.judgement.measures import MEASURES
from fidicula.services.asking.complete import Completion, completions
from fidicula.services.asking.parse import parse
from fidicula.services.asking.vocabulary import vocabulary
from fidicula.tables.asked import asked_questions
from fidicula.words import asking as say

MOST = 100
"""So many instruments are shown."""
LONGEST = 300


@dataclass(frozen=True)
class FoundRow:
    """An instrument that was asked for. shows : what it shows of each condition, where that says something."""

    ticket: str
    family: str
    size: str
    owner: str
    is_here: bool
    shows: list[str]


@dataclass(frozen=True)
class Answer:
    """explained : the question in plain words, a sentence for each condition.  counted : how many there are."""

    explained: list[str]
    counted: str
    rows: list[FoundRow]


@dataclass(frozen=True)
class KeptQuestion:
    """name : what it is called.  comes_along : it is not the shop's own."""

    name: str
    words: str
    comes_along: bool
    by: str


class Asking:
    """Use cases around questions."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def ask(self, words: str) -> Answer:
        """Raises RefusedError naming `words` for a word that means nothing."""
        conditions = _read(words)
        wanted = [_wanted(one) for one in conditions]
        with UnitOfWork(self._engine, only_reads=True) as uow:
            found = uow.asking.found(wanted, most=MOST)
        showing = [one for one, how in zip(conditions, wanted, strict=True) if how.shows is not None]
        return Answer(
            explained=say.explained(conditions),
            counted=say.counted(len(found), MOST),
            rows=[
                FoundRow(
                    row.ticket,
                    row.family,
                    row.size,
                    row.owner,
                    row.is_here,
                    [say.shows(one, value) for one, value in zip(showing, row.shown, strict=True)],
                )
                for row in found[:MOST]
            ],
        )

    def complete(self, words: str) -> list[Completion]:
        """What could come next."""
        return completions(words[:LONGEST], vocabulary())

    def questions(self) -> list[KeptQuestion]:
        """The shop's own first, then those that come along."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            own = {entry.name: entry for entry in uow.asking.questions()}
        kept = [KeptQuestion(e.name, e.words, False, e.entered_by) for e in own.values() if not e.retired]
        shipped = [KeptQuestion(row.name, row.words, True, "") for row in asked_questions() if row.name not in own]
        return [*kept, *shipped]

    def keep(self, name: str, words: str, *, entry_id: UUID, by: str) -> list[KeptQuestion]:
        """Keep a question under a name; one of this name that is there already asks this from now on."""
        if not name.strip():
            raise RefusedError("give it a name, for instance: cellos that sink", field="name")
        _read(words)
        with UnitOfWork(self._engine) as uow:
            uow.asking.keep(db.QuestionEntry(entry_id, name.strip(), words.strip(), False, by))
            uow.commit()
        return self.questions()

    def forget(self, name: str, *, entry_id: UUID, by: str) -> list[KeptQuestion]:
        """It is not in the list any more."""
        there = next((one for one in self.questions() if one.name == name), None)
        with UnitOfWork(self._engine) as uow:
            if not uow.check_entry():
                if there is None:
                    raise NotFoundError("there is no such question", field="name")
                uow.asking.keep(db.QuestionEntry(entry_id, name, there.words, True, by))
                uow.commit()
        return self.questions()


def _read(words: str) -> list[Condition]:
    if len(words) > LONGEST:
        raise RefusedError(f"a question has {LONGEST} characters at most", field="words")
    return parse(words, vocabulary(), today=datetime.now(UTC).astimezone().date())


def _wanted(condition: Condition) -> db.Wanted:
    match condition:
        case OfFamily(families):
            return db.of_families(families)
        case OfSize(size):
            return db.of_size(size)
        case HasWords(where, words):
            return db.has_words(where, words)
        case Measured():
            return _measured(condition)
        case WasDone(work, least, most, since, until):
            return db.was_done(work, least, most, since, until)
        case TensionChanged(since):
            return db.tension_changed(since)
        case IsDue(since, until):
            return db.is_due(since, until)
        case CameFor(kind, since, until):
            return db.came_for(kind, since, until)
        case IsHere(is_here):
            return db.is_here(is_here)


def _measured(asked: Measured) -> db.Wanted:
    row = MEASURES[asked.measure]
    positions: Sequence[int] | None = None
    string = ""
    if row.places is None:
        positions = [db.SINGLE]
    elif row.for_each_string:
        string = asked.place
    elif asked.place:
        positions = [row.places.index(asked.place)]
    return db.measured(asked.measure, asked.low, asked.high, strict=asked.is_strict, positions=positions, string=string)
