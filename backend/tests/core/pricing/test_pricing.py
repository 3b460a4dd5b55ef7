"""Money exact: a worked sheet with a pencil, and what holds of any lines."""

from __future__ import annotations

from dataclasses import replace
from decimal import Decimal

import pytest
from fidicula.core.errors import CoreError
from fidicula.core.pricing.estimate import Item, PartUsed, Priced, Terms, priced, share_of_value, totals, weight
from fidicula.core.pricing.minutes import minutes_of
from fidicula.core.pricing.money import NOTHING, Rounding, Span, certain, total
from fidicula.core.pricing.order import ordered, out_of_order
from hypothesis import given
from hypothesis import strategies as st

CENTS = Rounding(Decimal("0.01"))
FIVES = Rounding(Decimal("0.05"))


def span(low: float | str, usual: float | str, high: float | str) -> Span:
    return Span(Decimal(low), Decimal(usual), Decimal(high))


money = st.decimals(min_value=0, max_value=10_000, places=2)
spans = st.tuples(money, money, money).map(lambda found: Span(*sorted(found)))
items = st.builds(
    Item,
    minutes=spans,
    hourly=st.decimals(min_value=0, max_value=500, places=2),
    parts=st.lists(st.builds(PartUsed, count=st.decimals(0, 20, places=1), price=money), max_size=4),
)
roundings = st.sampled_from([CENTS, FIVES, Rounding(Decimal(1)), Rounding(Decimal("0.01"), "even")])
percents = st.decimals(min_value=0, max_value=100, places=2)
terms = st.builds(Terms, rounding=roundings, discount=percents, tax=percents, deposit=percents)


def test_a_sheet_with_a_pencil() -> None:
    """50 min at 47.00 are 39.17 (39.1666…); 2 at 3.35 are 6.70. 10 % off 45.87 are 4.59; 19 % of 41.28 are 7.84."""
    line = priced(Item(span(40, 50, 90), Decimal(47), [PartUsed(Decimal(2), Decimal("3.35"))]), CENTS)
    assert line == Priced(span("31.33", "39.17", "70.50"), Decimal("6.70"))
    found = totals([line], Terms(CENTS, discount=Decimal(10), tax=Decimal(19), deposit=Decimal(30)))
    assert found.usual.net == Decimal("45.87")
    assert found.usual.discount == Decimal("4.59")
    assert found.usual.tax == Decimal("7.84")
    assert found.usual.total == Decimal("49.12")
    assert found.deposit == Decimal("14.74")
    bare = totals([line], Terms(CENTS))
    assert (bare.usual.total, bare.usual.discount, bare.usual.tax, bare.deposit) == (Decimal("45.87"), 0, 0, 0)


@pytest.mark.parametrize(
    ("amount", "rounding", "rounded"),
    [
        ("0.125", CENTS, "0.13"),
        ("0.125", Rounding(Decimal("0.01"), "even"), "0.12"),
        ("0.135", Rounding(Decimal("0.01"), "even"), "0.14"),
        ("2.025", FIVES, "2.05"),
        ("2.024", FIVES, "2.00"),
    ],
)
def test_a_half_goes_where_the_shop_says(amount: str, rounding: Rounding, rounded: str) -> None:
    assert rounding.of(Decimal(amount)) == Decimal(rounded)


@given(st.lists(items, max_size=12), terms)
def test_what_is_printed_adds_up(lines: list[Item], of: Terms) -> None:
    told = [priced(line, of.rounding) for line in lines]
    found = totals(told, of)
    for name in ("low", "usual", "high"):
        one = getattr(found, name)
        assert one.net == sum((getattr(line.labour, name) + line.parts for line in told), Decimal(0))
        assert one.total == one.net - one.discount + one.tax
        for amount in (one.net, one.discount, one.tax, one.total):
            assert amount % of.rounding.step == 0
    assert found.low.total <= found.usual.total <= found.high.total
    assert found.deposit <= found.usual.total


@given(st.lists(items, max_size=8), st.integers(0, 8), terms)
def test_variants_of_the_same_lines_add_up(lines: list[Item], at: int, of: Terms) -> None:
    """What one variant has less, the rest of the lines has: not a cent is lost between them."""
    told = [priced(line, of.rounding) for line in lines]
    whole, least, rest = (totals(some, of).usual.net for some in (told, told[:at], told[at:]))
    assert least + rest == whole


@given(st.lists(spans, max_size=10))
def test_spans_add_up_at_each_end(some: list[Span]) -> None:
    found = total(some)
    assert (found.low, found.high) == (sum(s.low for s in some), sum(s.high for s in some))
    assert found + NOTHING == found


@pytest.mark.parametrize("wrong", [(3, 2, 4), (1, 5, 4), (-1, 0, 1)])
def test_a_span_goes_upward_from_nothing(wrong: tuple[int, int, int]) -> None:
    with pytest.raises(CoreError, match="go upward from 0"):
        span(*wrong)


@pytest.mark.parametrize("name", ["discount", "tax", "deposit"])
@pytest.mark.parametrize("percent", ["-0.01", "100.01"])
def test_terms_name_what_is_no_share(name: str, percent: str) -> None:
    with pytest.raises(CoreError) as refused:
        Terms(CENTS, **{name: Decimal(percent)})
    assert refused.value.path == (name,)


def test_what_a_sum_takes_of_the_value_is_said_from_its_limit_on() -> None:
    limits = {"say": Decimal(25), "discuss": Decimal(50), "advise_against": Decimal(100)}
    told = [weight(Decimal(share), **limits) for share in ("24.99", "25", "49.99", "50", "99.99", "100")]
    assert told == ["little", "say", "say", "discuss", "discuss", "advise_against"]
    assert share_of_value(Decimal(300), Decimal(200)) == 150
    with pytest.raises(CoreError):
        share_of_value(Decimal(1), Decimal(0))
    with pytest.raises(CoreError):
        weight(Decimal(1), say=Decimal(50), discuss=Decimal(25), advise_against=Decimal(100))


def test_the_shops_own_minutes_take_the_place_of_the_starting_ones() -> None:
    """From three on, the median of the last nine: the tenth back no longer counts."""
    starting = span(20, 30, 60)
    assert minutes_of(starting, [Decimal(40), Decimal(50)], least=3).span == starting
    found = minutes_of(starting, [Decimal(m) for m in (900, 900, 900, 40, 41, 42, 44, 45, 46, 47, 48, 50)], least=3)
    assert found.own == 45
    assert found.span == span(30, 45, 90)
    assert found.starting == starting


def test_works_keep_their_gates_and_otherwise_their_order() -> None:
    after = {"crown": ("board", "nut"), "nut": ("board",)}
    assert ordered(["crown", "pegs", "nut", "board"], after) == ["pegs", "board", "nut", "crown"]
    assert out_of_order(["nut", "board", "crown"], after) == ("nut", "board")
    assert out_of_order(["board", "nut", "crown"], after) is None
    with pytest.raises(CoreError, match="wait for each other: a, b"):
        ordered(["a", "b"], {"a": ("b",), "b": ("a",)})


def test_amounts_are_rounded_to_something() -> None:
    with pytest.raises(CoreError, match="over 0"):
        Rounding(Decimal(0))
    assert certain(Decimal(3)).is_certain
    assert not span(1, 2, 2).is_certain


@given(
    told=st.lists(st.tuples(items, st.sampled_from([None, Decimal(7), Decimal("19.6"), Decimal(20)])), max_size=6),
    of=terms,
)
def test_lines_of_several_rates_are_taxed_each_by_its_own_and_add_up(
    told: list[tuple[Item, Decimal | None]], of: Terms
) -> None:
    lines = [replace(priced(item, of.rounding), tax=rate) for item, rate in told]
    found = totals(lines, of).usual
    assert found.net == sum(line.amount.usual for line in lines)
    assert found.total == sum((one.base + one.tax for one in found.by_rate), Decimal(0))
    for one in found.by_rate:
        own = [line.amount.usual for line in lines if (of.tax if line.tax is None else line.tax) == one.rate]
        assert one.net == sum(own)
        assert abs(one.tax - one.base * one.rate / 100) <= of.rounding.step / 2
