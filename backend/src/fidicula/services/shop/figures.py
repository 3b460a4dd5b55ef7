"""The shop's figures, family by family and size by size: what is in force, who set it, and what stood before."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import datetime
from uuid import UUID, uuid4

from pydantic import ValidationError

from fidicula.core.errors import CoreError
from fidicula.core.readings.doubt import plausible_around
from fidicula.core.readings.typed import signed_number
from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.domain.errors import ConflictError, NotFoundError, RefusedError
from fidicula.domain.targets import FigureEntry
from fidicula.judgement.targets.rules import Rules
from fidicula.numerals import short
from fidicula.services.loading.rules import load_rules
from fidicula.services.people.audit import note
from fidicula.tables.figures import (
    FigureBook,
    FigureKey,
    FigureValues,
    figure_measures,
)
from fidicula.views.figure_pages import FigurePage, figure_page, measures_of
from fidicula.words.names import RESET

_LARGEST = 3000.0


@dataclass(frozen=True)
class FigureLine:
    """One line of a figure's history, newest first; the last is what the shop started from."""

    low: float | None
    aim: float | None
    high: float | None
    source: str
    confirmed_by: str | None
    entered_by: str
    entered_at: datetime | None
    what: str


@dataclass(frozen=True)
class FigureTyped:
    """A figure as it was typed. sure : an odd value is meant."""

    low: str
    aim: str
    high: str
    source: str
    confirmed: bool
    sure: bool


class Figures:
    """Use cases around the shop's figures."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def page(self, family: str, size: str) -> FigurePage:
        with UnitOfWork(self._engine, only_reads=True) as uow:
            rules = load_rules(uow, family)
            _check_size(rules, size)
            return figure_page(rules, size)

    def history(self, key: FigureKey) -> list[FigureLine]:
        """Everything that a figure ever was."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            entries = uow.rules.figure_history(**vars(key))
        lines = [
            FigureLine(
                entry.low,
                entry.aim,
                entry.high,
                entry.source,
                entry.confirmed_by,
                entry.entered_by,
                entry.entered_at,
                RESET if entry.withdrawn else "entered",
            )
            for entry in entries
        ]
        start = FigureBook().find(
            family=key.family, size=key.size, measure=key.measure, question=key.question, school=key.school
        )
        if start is not None:
            lines.append(
                FigureLine(
                    start.low, start.aim, start.high, start.source, start.confirmed_by, "", None, "starting value"
                )
            )
        return lines

    def enter(self, key: FigureKey, typed: FigureTyped, *, page_size: str, entry_id: UUID, by: str) -> FigurePage:
        """Put the shop's own figure in the place of the one so far. Raises RefusedError naming the part at fault."""
        with UnitOfWork(self._engine) as uow:
            rules = load_rules(uow, key.family)
            _check_key(rules, key)
            before = rules.book.find(
                family=key.family, size=key.size, measure=key.measure, question=key.question, school=key.school
            )
            values = _values(key, typed, before, by)
            uow.rules.add_figure(
                FigureEntry(
                    id=entry_id,
                    **vars(key),
                    low=values.low,
                    aim=values.aim,
                    high=values.high,
                    source=values.source,
                    confirmed_by=values.confirmed_by,
                    withdrawn=False,
                    entered_by=by,
                )
            )
            note(uow, "figure.entered", _named(key), by=by, detail={"was": _numbers(before), "now": _numbers(values)})
            uow.commit()
            return figure_page(load_rules(uow, key.family), page_size)

    def withdraw(self, key: FigureKey, *, page_size: str, entry_id: UUID, by: str) -> FigurePage:
        """Let the starting value stand again; where there is none, there is no figure."""
        with UnitOfWork(self._engine) as uow:
            entries = uow.rules.figure_history(**vars(key))
            if uow.check_entry():
                return figure_page(load_rules(uow, key.family), page_size)
            if not entries or entries[0].withdrawn:
                raise ConflictError("the starting value stands already")
            uow.rules.add_figure(replace(entries[0], id=entry_id, withdrawn=True, entered_by=by))
            note(uow, "figure.withdrawn", _named(key), by=by)
            uow.commit()
            return figure_page(load_rules(uow, key.family), page_size)

    def undo(self, key: FigureKey, *, page_size: str, by: str) -> FigurePage:
        """Put back what stood before the newest entry; both stay in the history."""
        with UnitOfWork(self._engine) as uow:
            entries = uow.rules.figure_history(**vars(key))
            if uow.check_entry():
                return figure_page(load_rules(uow, key.family), page_size)
            if not entries:
                raise NotFoundError("the shop has not changed this figure")
            before = entries[1] if len(entries) > 1 else replace(entries[0], withdrawn=True)
            uow.rules.add_figure(replace(before, id=uuid4(), entered_by=by))
            note(uow, "figure.undone", _named(key), by=by)
            uow.commit()
            return figure_page(load_rules(uow, key.family), page_size)


def _named(key: FigureKey) -> str:
    return " ".join(part for part in (key.family, key.size, key.measure, key.school) if part)


def _numbers(values: FigureValues | None) -> list[float | None] | None:
    return None if values is None else [values.low, values.aim, values.high]


def _check_size(rules: Rules, size: str) -> None:
    if size not in rules.sizes:
        raise NotFoundError(f"there are no figures for a {rules.family} of size “{size}”", field="size")


def _check_key(rules: Rules, key: FigureKey) -> None:
    if key.size:
        _check_size(rules, key.size)
    if (key.question, key.school) != ("", "") and key.measure not in measures_of(key.question, key.school):
        raise RefusedError("that school has no such figure", field="school")


def _values(key: FigureKey, typed: FigureTyped, before: FigureValues | None, by: str) -> FigureValues:
    kind = figure_measures()[key.measure]
    parts: dict[str, float | None] = {}
    for name, text in (("low", typed.low), ("aim", typed.aim), ("high", typed.high)):
        try:
            parts[name] = signed_number(text, what=f"{kind.label}, {name}") if text.strip() else None
        except CoreError as error:
            raise RefusedError(error.sentence, field=name) from error
    given = {name: value for name, value in parts.items() if value is not None}
    if not given:
        raise RefusedError(f"{kind.label}: nothing was typed; type the shop's figure", field="aim")
    for name, value in given.items():
        if abs(value) > _LARGEST or (value < 0 and kind.shape != "change"):
            raise RefusedError(
                f"{kind.label}: {short(value)} {kind.unit} cannot be; type 0 to {short(_LARGEST)}", field=name
            )
    _check_order(parts, kind.label)
    try:
        values = FigureValues(
            measure=key.measure,
            **parts,
            source=typed.source.strip() or "the shop's own",
            confirmed_by=by if typed.confirmed else None,
        )
    except ValidationError as error:
        message = str(error.errors()[0]["ctx"]["error"]) if "ctx" in error.errors()[0] else error.errors()[0]["msg"]
        raise RefusedError(f"{kind.label}: {message}", field=_first_open(kind.shape, parts)) from error
    if before is not None and before.value > 0 and not typed.sure:
        plausible = plausible_around(before.value)
        if not plausible.low <= values.value <= plausible.high:
            raise RefusedError(
                f"{kind.label}: {short(values.value)} {kind.unit} is far from the {short(before.value)} so far; "
                "if it is meant, say so and enter it again",
                field="sure",
            )
    return values


def _check_order(parts: dict[str, float | None], label: str) -> None:
    low, aim, high = parts["low"], parts["aim"], parts["high"]
    if low is not None and high is not None and low > high:
        raise RefusedError(f"{label}: the high end {short(high)} is under the low end {short(low)}", field="high")
    if aim is not None and ((low is not None and aim < low) or (high is not None and aim > high)):
        raise RefusedError(f"{label}: the aim {short(aim)} has to lie between the low and the high end", field="aim")


def _first_open(shape: str, parts: dict[str, float | None]) -> str:
    wanted = {"band": ("low", "aim", "high"), "floor": ("low",), "ceiling": ("high",)}.get(shape, ("aim",))
    return next((name for name in wanted if parts[name] is None), wanted[0])
