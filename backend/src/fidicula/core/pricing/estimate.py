"""An estimate: lines of labour and parts, discount, tax and deposit, and what it takes of an instrument's value.

Source: arithmetic; every line is rounded once and all sums are sums of printed amounts, so that they add up on paper.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from typing import Literal

from fidicula.core.errors import CoreError
from fidicula.core.pricing.money import Rounding, Span, certain, total

_MINUTES = Decimal(60)
_WHOLE = Decimal(100)

Weight = Literal["little", "say", "discuss", "advise_against"]


@dataclass(frozen=True)
class PartUsed:
    """count : how many, or how much of it.  price : of one. [currency]"""

    count: Decimal
    price: Decimal


@dataclass(frozen=True)
class Item:
    """One line. minutes : low, usual, high.  hourly : of whoever does it. [currency/h]  parts : that go into it."""

    minutes: Span
    hourly: Decimal
    parts: Sequence[PartUsed] = ()


@dataclass(frozen=True)
class Priced:
    """One line in money, each amount rounded. [currency]  tax : its own rate; None for the one of the terms. [%]"""

    labour: Span
    parts: Decimal
    tax: Decimal | None = None

    @property
    def amount(self) -> Span:
        return self.labour + certain(self.parts)


@dataclass(frozen=True)
class Terms:
    """discount, tax, deposit : percent of what they are taken of: the lines, the rest, the usual total. [%]

    Raises CoreError naming the one that is not between 0 and 100.
    """

    rounding: Rounding
    discount: Decimal = Decimal(0)
    tax: Decimal = Decimal(0)
    deposit: Decimal = Decimal(0)

    def __post_init__(self) -> None:
        for name in ("discount", "tax", "deposit"):
            if not 0 <= getattr(self, name) <= _WHOLE:
                raise CoreError(name, sentence=f"the {name} is between 0 and 100 %; it was {getattr(self, name)}")


@dataclass(frozen=True)
class Taxed:
    """All lines of one rate. rate : [%]  net : of them.  discount : off them.  tax : on the rest. [currency]"""

    rate: Decimal
    net: Decimal
    discount: Decimal
    tax: Decimal

    @property
    def base(self) -> Decimal:
        """What the tax is on. [currency]"""
        return self.net - self.discount


@dataclass(frozen=True)
class Sum:
    """by_rate : lines of each rate of tax, lowest first.  net - discount + tax = total, exactly. [currency]"""

    by_rate: tuple[Taxed, ...]

    @property
    def net(self) -> Decimal:
        return sum((one.net for one in self.by_rate), Decimal(0))

    @property
    def discount(self) -> Decimal:
        return sum((one.discount for one in self.by_rate), Decimal(0))

    @property
    def tax(self) -> Decimal:
        return sum((one.tax for one in self.by_rate), Decimal(0))

    @property
    def total(self) -> Decimal:
        return self.net - self.discount + self.tax


@dataclass(frozen=True)
class Totals:
    """Three sums, and what is asked for beforehand, of the usual one. [currency]"""

    low: Sum
    usual: Sum
    high: Sum
    deposit: Decimal


def priced(item: Item, rounding: Rounding) -> Priced:
    """A line in money. [currency]

    item : the line in minutes and parts.  rounding : the shop's rule, which labour and parts are each rounded by, once.
    """
    minutes, hourly = item.minutes, item.hourly
    low, usual, high = (rounding.of(part * hourly / _MINUTES) for part in (minutes.low, minutes.usual, minutes.high))
    parts = rounding.of(sum((part.count * part.price for part in item.parts), Decimal(0)))
    return Priced(Span(low, usual, high), parts)


def totals(lines: Sequence[Priced], terms: Terms) -> Totals:
    """What lines come to. [currency]

    lines : each in money.  terms : discount, tax and deposit; discount and tax are rounded once for each rate of tax,
    of the exact sum of its lines.
    """
    rates = sorted({terms.tax if line.tax is None else line.tax for line in lines})
    nets = {
        rate: total(line.amount for line in lines if (terms.tax if line.tax is None else line.tax) == rate)
        for rate in rates
    }
    usual = Sum(tuple(_taxed(rate, net.usual, terms) for rate, net in nets.items()))
    return Totals(
        low=Sum(tuple(_taxed(rate, net.low, terms) for rate, net in nets.items())),
        usual=usual,
        high=Sum(tuple(_taxed(rate, net.high, terms) for rate, net in nets.items())),
        deposit=terms.rounding.of(usual.total * terms.deposit / _WHOLE),
    )


def _taxed(rate: Decimal, net: Decimal, terms: Terms) -> Taxed:
    discount = terms.rounding.of(net * terms.discount / _WHOLE)
    return Taxed(rate, net, discount, terms.rounding.of((net - discount) * rate / _WHOLE))


def share_of_value(amount: Decimal, value: Decimal) -> Decimal:
    """What an amount takes of an instrument's value. [%]  Raises CoreError for a value that is not over zero."""
    if value <= 0:
        raise CoreError("value", sentence=f"an instrument's value is over 0; it was {value}")
    return amount * _WHOLE / value


def weight(share: Decimal, *, say: Decimal, discuss: Decimal, advise_against: Decimal) -> Weight:
    """What a share of the value asks for; a limit counts in.

    share : of an instrument's value that a sum takes.  say, discuss, advise_against : limits. [%]
    Raises CoreError for limits that do not go up. Source: habit of the trade; the shop sets its own limits.
    """
    if not say <= discuss <= advise_against:
        raise CoreError("thresholds", sentence=f"the limits go upward; they were {say}, {discuss}, {advise_against} %")
    if share >= advise_against:
        return "advise_against"
    if share >= discuss:
        return "discuss"
    return "say" if share >= say else "little"
