"""What is open: a worked account, and what holds of any."""

from __future__ import annotations

from decimal import Decimal

from fidicula.core.pricing.balance import Balance
from hypothesis import given
from hypothesis import strategies as st

amounts = st.decimals(min_value=0, max_value=10_000, places=2)


def test_an_account_with_a_pencil() -> None:
    """60.00 and 24.00 are billed, 70.00 is paid: the first is paid, 14.00 of the second is open."""
    account = Balance([Decimal("60.00"), Decimal("24.00")], Decimal("70.00"))
    assert (account.open, account.ahead) == (Decimal("14.00"), 0)
    assert [account.left_of(i) for i in (0, 1)] == [0, Decimal("14.00")]
    assert account.most_to_pay(Decimal("30.00")) == Decimal("44.00")
    deposit = Balance([], Decimal("15.50"))
    assert (deposit.open, deposit.ahead, deposit.most_to_pay(Decimal("76.80"))) == (
        0,
        Decimal("15.50"),
        Decimal("61.30"),
    )


@given(invoices=st.lists(amounts, max_size=5), paid=amounts, agreed=amounts)
def test_what_is_left_of_each_is_what_is_open_and_paying_the_most_settles_it(
    invoices: list[Decimal], paid: Decimal, agreed: Decimal
) -> None:
    account = Balance(invoices, paid)
    left = [account.left_of(i) for i in range(len(invoices))]
    assert sum(left, Decimal(0)) == account.open
    assert account.open - account.ahead == sum(invoices, Decimal(0)) - paid
    # The oldest first: nothing is paid of one before all of those before it are.
    assert all(later == whole for i, (later, whole) in enumerate(zip(left, invoices, strict=True)) if any(left[:i]))
    after = Balance(invoices, paid + account.most_to_pay(agreed))
    assert after.open == 0
    assert after.most_to_pay(agreed) == 0
