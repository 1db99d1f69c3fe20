"""Amounts are exact, bounded, and of one currency."""

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vinetag.core.money import DEAREST, Money, amount_of, currency_of, thousandths

amounts = st.decimals(0, DEAREST, places=3, allow_nan=False)


@given(amounts, amounts)
def test_sums_and_order_are_exact(one: Decimal, two: Decimal) -> None:
    assert (Money(one, "EUR") + Money(two, "EUR")).amount == one + two
    assert (Money(one, "EUR") < Money(two, "EUR")) == (one < two)
    assert (Money(one, "EUR") <= Money(two, "EUR")) == (thousandths(one) <= thousandths(two))


def test_unlike_currencies_are_never_set_against_each_other() -> None:
    euro, crown = Money(Decimal(10), "EUR"), Money(Decimal(10), "SEK")
    assert euro != crown
    for work in (lambda: euro < crown, lambda: euro <= crown, lambda: euro + crown):
        with pytest.raises(TypeError, match="different currencies"):
            work()


@pytest.mark.parametrize(
    ("given", "amount"),
    [
        (12.1, "12.1"), (0.1, "0.1"), ("12.50", "12.5"), (30, "30"), ("0", "0"),
        (1e9, "1000000000"),
        ("2.00050", "2"), ("2.0015", "2.002"), (Decimal("9.999"), "9.999"),
    ],
)  # fmt: skip
def test_numbers_become_what_they_print_as(given: object, amount: str) -> None:
    assert str(amount_of(given)) == amount


@pytest.mark.parametrize(
    "given", ["", "ten", "-1", "NaN", "Infinity", "1e400", "1e10", None, [], "1,5", -0.01]
)
def test_what_is_no_amount_is_refused(given: object) -> None:
    with pytest.raises(ValueError, match="amount"):
        amount_of(given)


@pytest.mark.parametrize("code", ["eur", "", "EURO", "QQQ", "E1R"])
def test_what_is_no_currency_is_refused(code: str) -> None:
    assert currency_of("SEK") == "SEK"
    with pytest.raises(ValueError, match="no currency"):
        currency_of(code)
