"""Which strings are on an instrument, one by one, since when, how long they still serve, where the old ones went."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, time, timedelta
from uuid import UUID

from fidicula.core.sound.wear import days_left, hours_played
from fidicula.domain.sound import Retuning
from fidicula.domain.strings import SetString, StringSet
from fidicula.domain.work_details import StringsFitted
from fidicula.domain.works import WorkDone
from fidicula.tables.sound import Fitting, StringLife, string_life
from fidicula.words import strings as say

FITTED = ("strings_changed", "strings_named")
FIRST_CHECK, SECOND_CHECK = timedelta(hours=2), timedelta(hours=24)
SETTLED = timedelta(days=14)
"""After this nobody asks whether new strings were looked at."""
EARLY = timedelta(minutes=30)
"""So much before its time a check counts."""


@dataclass(frozen=True)
class StringView:
    """One string on it. tension [N], diameter [mm].

    fitted_at : None where nobody knows.  served : in words.  is_past : its time is over, by months or by hours.
    """

    name: str
    set_name: str
    material: str
    diameter: float
    tension: float | None
    fitted_at: datetime | None
    served: str
    is_past: bool


@dataclass(frozen=True)
class FittedView:
    """One time that strings were put on, or named."""

    work_id: str
    at: datetime
    says: str
    by: str
    is_of_this_visit: bool


@dataclass(frozen=True)
class RemovedView:
    """A string that came off. fate : where it went, in words."""

    name: str
    set_name: str
    at: datetime
    fate: str


@dataclass(frozen=True)
class CheckView:
    """A look after new strings. due : from when on.  done_at : None until it was tuned again."""

    label: str
    due: datetime
    done_at: datetime | None
    is_due: bool


@dataclass(frozen=True)
class RetuningView:
    """How far each string had gone, low string first; None where it was not looked at. [cents]"""

    id: str
    cents: list[float | None]
    remark: str
    by: str
    at: datetime | None


@dataclass(frozen=True)
class StepView:
    kind: str
    says: str
    because: str


@dataclass(frozen=True)
class StringsView:
    """best : which set was on when it sounded best, in words.  drift : what the last tunings say, in words."""

    strings: list[StringView]
    fitted: list[FittedView]
    removed: list[RemovedView]
    checks: list[CheckView]
    retunings: list[RetuningView]
    drift: str
    steps: list[StepView]
    hours_a_week: float | None
    best: str
    fates: dict[str, str]
    string_names: list[str]


@dataclass(frozen=True)
class OnIt:
    """One string: of which set, since when. fitted_at : None where nobody knows.  hours_a_week : that it is played."""

    string: SetString
    set_id: UUID
    set_name: str
    material: str
    fitted_at: datetime | None


def strings_on(works: Sequence[WorkDone], sets: Mapping[UUID, StringSet], count: int) -> list[OnIt | None]:
    """What is on each string's place, low string first.

    works : of all visits, in order.  sets : by id, those that the works name.
    """
    found: list[OnIt | None] = [None] * count
    for work in works:
        string_set = _set_of(work, sets)
        if string_set is None:
            continue
        for position in positions_of(work, count):
            string = string_set.strings[position]
            found[position] = OnIt(string, string_set.id, string_set.name, string_set.material, fitted_at(work))
    return found


def _set_of(work: WorkDone, sets: Mapping[UUID, StringSet]) -> StringSet | None:
    """The set that the strings came from, also where a mixed one is on it since."""
    if work.work not in FITTED or work.taken_back:
        return None
    of = _fitted(work).of_set or work.string_set_id
    return None if of is None else sets.get(of)


def _fitted(work: WorkDone) -> StringsFitted:
    return work.detail if isinstance(work.detail, StringsFitted) else StringsFitted()


def positions_of(work: WorkDone, count: int) -> Sequence[int]:
    """Which strings a work put on."""
    return _fitted(work).positions or range(count)


def fitted_at(work: WorkDone) -> datetime | None:
    """When they were put on: now, on a day that somebody knew, or nobody knows."""
    if work.work == "strings_changed":
        return work.done_at
    since = _fitted(work).since
    return None if since is None else datetime.combine(since, time()).astimezone()


def hours_a_week_of(works: Sequence[WorkDone]) -> float | None:
    """How long it is played, as was said last. [hours a week]"""
    said = [hours for work in works if (hours := _fitted(work).hours_a_week) is not None]
    return said[-1] if said else None


def string_view(on: OnIt, *, hours_a_week: float | None, now: datetime) -> StringView:
    life = string_life().get(on.material)
    served, is_past = _served(on, life, hours_a_week, now)
    return StringView(
        on.string.name,
        on.set_name,
        on.material,
        on.string.diameter,
        on.string.tension,
        on.fitted_at,
        served,
        is_past,
    )


def _served(on: OnIt, life: StringLife | None, hours_a_week: float | None, now: datetime) -> tuple[str, bool]:
    if on.fitted_at is None:
        return say.SINCE_UNKNOWN, False
    days = (now - on.fitted_at).days
    if life is None:
        return say.served(on.fitted_at.date(), hours=None, of_hours=None, days_left=None), False
    hours = hours_played(days=days, hours_a_week=hours_a_week) if hours_a_week else None
    left = days_left(days=days, months=life.months, hours=life.hours, hours_a_week=hours_a_week)
    return say.served(on.fitted_at.date(), hours=hours, of_hours=life.hours, days_left=left), left <= 0


def removed_of(works: Sequence[WorkDone], sets: Mapping[UUID, StringSet], count: int) -> list[RemovedView]:
    """Strings that came off, newest first."""
    found: list[RemovedView] = []
    on: list[OnIt | None] = [None] * count
    for i, work in enumerate(works):
        if work.work == "strings_changed" and not work.taken_back:
            for position in positions_of(work, count):
                old = on[position]
                if old is not None:
                    fate = say.FATES.get(_fitted(work).fate, say.FATE_UNSAID)
                    found.append(RemovedView(old.string.name, old.set_name, work.done_at, fate))
        on = strings_on(works[: i + 1], sets, count)
    return found[::-1]


def checks_of(works: Sequence[WorkDone], retunings: Sequence[Retuning], now: datetime) -> list[CheckView]:
    """The looks that new strings want after two hours and after a day; none before any were put on here."""
    changed = next((w for w in reversed(works) if w.work == "strings_changed" and not w.taken_back), None)
    if changed is None or now - changed.done_at > SETTLED:
        return []
    times = [r.tuned_at for r in retunings if r.tuned_at is not None and r.tuned_at >= changed.done_at]
    found = []
    for label, after in zip(say.CHECKS, (FIRST_CHECK, SECOND_CHECK), strict=True):
        due = changed.done_at + after
        done = next((at for at in times if at >= due - EARLY), None)
        found.append(CheckView(label, due, done, done is None and now >= due))
    return found


def drift_words(retunings: Sequence[Retuning], names: Sequence[str]) -> str:
    """How the strings settle, by what each had gone at the last tunings."""
    told = []
    for position, name in enumerate(names):
        gone = [r.cents[position] for r in retunings if position < len(r.cents)]
        known = [cents for cents in gone if cents is not None][-3:]
        if len(known) > 1:
            told.append((name, known))
    return say.drift(told)


def mixed_name(on: Sequence[OnIt | None], positions: Sequence[int], of: StringSet) -> str:
    """What a set is called that was put together on an instrument: “Harbour medium, E of Weir gut”."""
    sources = [of.name if i in positions else "" if one is None else one.set_name for i, one in enumerate(on)]
    main = max(dict.fromkeys(sources), key=sources.count)
    others = [
        f"{' '.join(of.strings[i].name for i, s in enumerate(sources) if s == source)} of {source}"
        for source in dict.fromkeys(sources)
        if source != main
    ]
    return ", ".join([main, *others])


def step_views(rows: Sequence[Fitting], family: str) -> list[StepView]:
    return [StepView(row.kind, row.says, row.because) for row in rows if row.fits(family)]
