"""The plans of a fleet's instruments in one."""

from __future__ import annotations

from decimal import Decimal

from fidicula.core.pricing.money import Span
from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.domain.errors import NotFoundError
from fidicula.services.loading.records import load_bench
from fidicula.services.shop.pricing.reckoning import reckon
from fidicula.services.shop.pricing.view import FleetEstimate, FleetLine
from fidicula.tables.work import works
from fidicula.words import pricing as say
from fidicula.words.numbers import money


class Fleets:
    """Use cases around a fleet's plans."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def estimate(self, owner: str) -> FleetEstimate:
        """The plans of all of an owner's instruments in the house, in one."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            found = [(ticket, reckon(uow, load_bench(uow, ticket))) for ticket in uow.instruments.in_house_of(owner)]
        planned = [(ticket, one) for ticket, one in found if one.lines]
        if not planned:
            raise NotFoundError(f"nothing is planned for an instrument of {owner} in the house", field="owner")
        currency = planned[0][1].shop.currency
        sums = [one.whole for _, one in planned]
        ends = (sum((getattr(one, end).total for one in sums), Decimal(0)) for end in ("low", "usual", "high"))
        low, usual, high = (money(end, currency) for end in ends)
        return FleetEstimate(
            owner=owner,
            lines=[
                FleetLine(
                    ticket,
                    [works()[line.line.work].label for line in one.lines],
                    say.amount(Span(one.whole.low.total, one.whole.usual.total, one.whole.high.total), currency),
                )
                for ticket, one in planned
            ],
            low=low,
            usual=usual,
            high=high,
        )
