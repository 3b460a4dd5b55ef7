"""Strings at one instrument: which are on it, put on whole or one by one, how they settle, where the old ones went."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime
from uuid import UUID, uuid4, uuid5

from fidicula.core.errors import CoreError
from fidicula.core.readings.typed import in_unit, millimetres
from fidicula.core.sound.ratings import mean_rating
from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.domain.errors import NotFoundError, RefusedError
from fidicula.domain.instruments import Instrument
from fidicula.domain.sound import Retuning
from fidicula.domain.strings import SetString, StringSet
from fidicula.domain.work_details import StringsFitted
from fidicula.domain.works import NewWork, WorkDone
from fidicula.judgement.visit_record import VisitRecord
from fidicula.numerals import short
from fidicula.services.adjusting.records import fitted_sets, load_trail, strings_now
from fidicula.services.loading.records import changed_sheet, check_in_house, load_bench, load_to_change
from fidicula.tables.sound import fitting
from fidicula.views.adjustments.heard import best_line, by_player, rated_of
from fidicula.views.adjustments.strings_on import (
    FITTED,
    FittedView,
    RetuningView,
    StringsView,
    checks_of,
    drift_words,
    fitted_at,
    hours_a_week_of,
    mixed_name,
    removed_of,
    step_views,
    strings_on,
)
from fidicula.views.adjustments.view import made_trail
from fidicula.views.choices import MATERIALS
from fidicula.views.sheet.model import BenchSheet, SetView, StringOn
from fidicula.words import strings as say
from fidicula.words.acts import act_words

MOST_CENTS = 300.0
"""A string that has gone further is not settling, it was let off."""
_WEEK = 168.0
_MIXED = UUID("6f1d3f0e-5f0a-4c37-9a53-1f6f2f3a7c11")
"""The namespace that ids of mixed sets are made in."""


@dataclass(frozen=True)
class OwnSet:
    """A set that the shelf does not have yet; diameters as typed, low string first.

    tensions : as typed [N], empty where nobody knows.
    """

    name: str
    material: str
    diameters: Sequence[str]
    tensions: Sequence[str] = ()


@dataclass(frozen=True)
class Stringing:
    """Which strings. set_id, own : from the shelf, or a set that it does not have yet.

    positions : which of them, low string 0; empty for all.  put_on_now : else they were on it already.
    since : the day they went on, where somebody knows.  hours_a_week : that it is played, as typed.
    fate : of those that came off, one of FATES or empty.
    """

    set_id: UUID | None
    own: OwnSet | None
    put_on_now: bool
    positions: Sequence[int] = ()
    since: date | None = None
    hours_a_week: str = ""
    fate: str = ""


class Strings:
    """Use cases around strings."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def view(self, ticket: str) -> StringsView:
        """What is on it, what was, how it settles."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            return _view(uow, load_bench(uow, ticket), datetime.now(UTC))

    def sets(self, ticket: str) -> list[SetView]:
        """Sets on the shelf that fit this instrument: of its family, with as many strings."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            found = uow.instruments.by_ticket(ticket)
            if found is None:
                raise NotFoundError(f"there is no instrument with the ticket {ticket} in the house", field="ticket")
            instrument = found[0]
            return [
                _set_view(s)
                for s in uow.string_sets.of_family(instrument.family)
                if tuple(string.name for string in s.strings) == instrument.string_names
            ]

    def sets_of(self, family: str) -> list[SetView]:
        """Sets on the shelf for a family, of however many strings."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            return [_set_view(s) for s in uow.string_sets.of_family(family)]

    def name(self, ticket: str, stringing: Stringing, *, work_id: UUID, by: str) -> BenchSheet:
        """Say which strings are on the instrument, or that they, or some of them, were put on now."""
        with UnitOfWork(self._engine) as uow:
            loaded = load_to_change(uow, ticket)
            check_in_house(loaded)
            if not any(done.id == work_id for done in loaded.works):
                uow.log.add_work(fitted(uow, loaded, stringing, work_id=work_id, by=by))
            return changed_sheet(uow, ticket)

    def retune(self, ticket: str, *, retuning_id: UUID, cents: Sequence[str], remark: str, by: str) -> StringsView:
        """How far each string had gone before it was tuned again, as typed; empty where nobody looked."""
        with UnitOfWork(self._engine) as uow:
            loaded = load_to_change(uow, ticket)
            check_in_house(loaded)
            names = loaded.instrument.string_names
            told = tuple(_cents(typed, name, i) for i, (typed, name) in enumerate(zip(cents, names, strict=False)))
            if all(one is None for one in told):
                raise RefusedError(
                    "say how far a string had gone, for instance -8 cents; 0 for one that held", field="0"
                )
            after = max((w.number for w in loaded.works if not w.taken_back), default=0)
            uow.sound.tune(Retuning(retuning_id, loaded.visit.id, after, told, remark.strip(), by))
            view = _view(uow, loaded, datetime.now(UTC))
            uow.commit()
            return view

    def take_back_retuning(self, ticket: str, retuning_id: UUID, by: str) -> StringsView:
        """Undo a tuning that was written down by mistake."""
        with UnitOfWork(self._engine) as uow:
            loaded = load_to_change(uow, ticket)
            check_in_house(loaded)
            if not uow.sound.take_back("retuning", retuning_id, loaded.visit.id, by):
                raise NotFoundError("that tuning is not among this visit's")
            view = _view(uow, loaded, datetime.now(UTC))
            uow.commit()
            return view


def _set_view(found: StringSet) -> SetView:
    strings = [StringOn(string.name, string.diameter) for string in found.strings]
    return SetView(id=str(found.id), name=found.name, material=found.material, strings=strings)


def _view(uow: UnitOfWork, loaded: VisitRecord, now: datetime) -> StringsView:
    names = loaded.instrument.string_names
    works = [one for one in uow.sound.works(loaded.instrument.id) if one.work in FITTED]
    sets = fitted_sets(uow, works)
    hours = hours_a_week_of(works)
    retunings = uow.sound.retunings(loaded.instrument.id)
    return StringsView(
        strings=strings_now(uow, loaded.instrument.id, len(names)),
        fitted=[
            FittedView(
                str(one.id),
                fitted_at(one) or one.done_at,
                _fitted_words(one),
                one.done_by,
                one.visit_id == loaded.visit.id,
            )
            for one in reversed(works)
        ],
        removed=removed_of(works, sets, len(names)),
        checks=checks_of(works, retunings, now),
        retunings=[
            RetuningView(str(r.id), list(r.cents), r.remark, r.tuned_by, r.tuned_at) for r in reversed(retunings)
        ],
        drift=drift_words(retunings, names),
        steps=step_views(fitting(), loaded.instrument.family),
        hours_a_week=hours,
        best=_best(uow, loaded, works),
        fates=dict(say.FATES),
        string_names=list(names),
    )


def _fitted_words(work: WorkDone) -> str:
    said = act_words(work.work, work.detail)
    return say.fitted(said, is_change=work.work == "strings_changed", since_known=fitted_at(work) is not None)


def _best(uow: UnitOfWork, loaded: VisitRecord, works: Sequence[WorkDone]) -> str:
    """Which set was on when it sounded best, whatever changed since."""
    records = load_trail(uow, loaded)
    line = best_line(made_trail(loaded, records), records.player, comparable=False)
    heard = None if line is None else by_player(line, records.player)
    if line is None or heard is None:
        return ""
    upto = {visit.id: i for i, visit in enumerate(records.visits)}
    when = (upto[line.visit.id], 0 if line.work is None else line.work.number)
    before = [one for one in works if (upto[one.visit_id], one.number) <= when or one.visit_id == line.visit.id]
    on = act_words(before[-1].work, before[-1].detail) if before else ""
    mean = mean_rating(rated_of(heard)) or 0.0
    at = heard.heard_at or line.at
    return say.best(records.player, at.astimezone().date(), mean=mean, place=line.spot, on=on)


def fitted(uow: UnitOfWork, loaded: VisitRecord, stringing: Stringing, *, work_id: UUID, by: str) -> NewWork:
    """The work as it is kept. Raises RefusedError naming what cannot be."""
    names = loaded.instrument.string_names
    positions = sorted(set(stringing.positions))
    if any(not 0 <= position < len(names) for position in positions):
        raise RefusedError(f"it has {len(names)} strings", field="positions")
    if stringing.fate and stringing.fate not in say.FATES:
        raise RefusedError(f"the old strings are one of: {', '.join(say.FATES.values())}", field="fate")
    chosen = _chosen_set(uow, loaded.instrument, stringing.set_id, stringing.own)
    detail = StringsFitted(set=chosen.name)
    on_it = chosen
    if 0 < len(positions) < len(names):
        on_it = _mixed(uow, loaded, chosen, positions)
        some = {"positions": tuple(positions), "which": tuple(names[i] for i in positions), "of_set": chosen.id}
        detail = detail.model_copy(update=some)
    if stringing.put_on_now:
        detail = detail.model_copy(update={"fate": stringing.fate})
    elif stringing.since is not None:
        if stringing.since > datetime.now(UTC).astimezone().date():
            raise RefusedError("that day is still to come: say when they went on", field="since")
        detail = detail.model_copy(update={"since": stringing.since})
    if stringing.hours_a_week.strip():
        detail = detail.model_copy(update={"hours_a_week": _hours(stringing.hours_a_week)})
    return NewWork(
        id=work_id,
        visit_id=loaded.visit.id,
        work="strings_changed" if stringing.put_on_now else "strings_named",
        done_by=by,
        detail=detail,
        string_set_id=on_it.id,
    )


def _mixed(uow: UnitOfWork, loaded: VisitRecord, of: StringSet, positions: Sequence[int]) -> StringSet:
    """What is on it once some strings are of another set. Raises RefusedError where nobody knows the others."""
    base, names = loaded.string_set, loaded.instrument.string_names
    if base is None:
        raise RefusedError("say first which strings are on it; then one of them can be another", field="positions")
    works = [one for one in uow.sound.works(loaded.instrument.id) if one.work in FITTED]
    on = strings_on(works, fitted_sets(uow, works), len(names))
    sources = [of.id if i in positions else base.id if one is None else one.set_id for i, one in enumerate(on)]
    if set(sources) == {of.id}:
        return of
    # Which strings of which sets it is says which mixed set it is: the same ones are the same set.
    mixed_id = uuid5(_MIXED, " ".join(str(source) for source in sources))
    there = uow.string_sets.by_id(mixed_id)
    if there is not None:
        return there
    strings = tuple(of.strings[i] if i in positions else base.strings[i] for i in range(len(names)))
    material = base.material if 2 * len(positions) <= len(names) else of.material
    mixed = StringSet(mixed_id, mixed_name(on, positions, of), base.family, material, strings, is_mixed=True)
    uow.string_sets.add(mixed)
    return mixed


def _hours(typed: str) -> float:
    try:
        hours = in_unit("h", typed, what="hours a week")
    except CoreError as error:
        raise RefusedError(error.sentence, field="hours_a_week") from error
    if hours > _WEEK:
        raise RefusedError(f"a week has {short(_WEEK)} hours; it was {short(hours)}", field="hours_a_week")
    return hours


def _cents(typed: str, name: str, position: int) -> float | None:
    if not typed.strip():
        return None
    try:
        cents = in_unit("cents", typed, what=f"the {name}", signed=True)
    except CoreError as error:
        raise RefusedError(error.sentence, field=str(position)) from error
    if abs(cents) > MOST_CENTS:
        raise RefusedError(
            f"{short(cents)} cents of the {name} is no settling: say that the tension was let off", field=str(position)
        )
    return cents


def _chosen_set(uow: UnitOfWork, instrument: Instrument, set_id: UUID | None, own: OwnSet | None) -> StringSet:
    if set_id is not None:
        found = uow.string_sets.by_id(set_id)
        if found is None:
            raise NotFoundError("that set of strings is not on the shelf", field="set_id")
        if tuple(s.name for s in found.strings) != instrument.string_names:
            raise RefusedError(
                f"the set {found.name} does not fit the strings {' '.join(instrument.string_names)}",
                field="set_id",
            )
        return found
    if own is None:
        raise RefusedError("choose a set from the shelf, or enter its diameters", field="set_id")
    if not own.name.strip():
        raise RefusedError("give the set a name, so that it can be found again", field="name")
    if own.material not in MATERIALS:
        raise RefusedError(f"the material must be one of {', '.join(MATERIALS)}", field="material")
    if len(own.diameters) != len(instrument.string_names):
        raise RefusedError(f"{len(instrument.string_names)} diameters are needed", field="diameters")
    strings = []
    for i, (name, typed) in enumerate(zip(instrument.string_names, own.diameters, strict=True)):
        try:
            diameter = millimetres(typed, what=say.diameter_of(name))
        except CoreError as error:
            raise RefusedError(error.sentence, field=f"diameters.{i}") from error
        if not 0.1 <= diameter <= 10:
            raise RefusedError(
                f"the {name} string's diameter of {short(diameter)} mm is not a string's: type mm, for instance 0.8",
                field=f"diameters.{i}",
            )
        tension = _tension(own.tensions[i], name, field=f"tensions.{i}") if i < len(own.tensions) else None
        strings.append(SetString(name, diameter, tension))
    new = StringSet(uuid4(), own.name.strip(), instrument.family, own.material, tuple(strings))
    if not uow.string_sets.add(new):
        raise RefusedError(f"the shelf has a {instrument.family} set named {new.name} already", field="name")
    return new


def _tension(typed: str, name: str, *, field: str) -> float | None:
    """As a maker gives it. [N] Raises RefusedError."""
    if not typed.strip():
        return None
    try:
        tension = in_unit("N", typed, what=say.tension_of(name))
    except CoreError as error:
        raise RefusedError(error.sentence, field=field) from error
    if not 1 <= tension <= 1000:
        raise RefusedError(f"the {name} string's tension is between 1 and 1000 N; it was {short(tension)}", field=field)
    return tension
