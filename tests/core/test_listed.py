"""What an extension costs by the lists."""

from __future__ import annotations

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.selling import IRISH, market, rows, seller
from vinetag.core.cost import PriceRow, Promotion, Quoted, Said, listed, said_of


def test_it_is_the_seller_where_staying_costs_least_over_all_the_years() -> None:
    cheap_first = (seller("cheap"), rows("1", "30"))
    even = (seller("even"), rows("12", "12"))
    of = market(cheap_first, even)
    one, five = listed(of, "com", 1), listed(of, "com", 5)
    assert one
    assert five
    assert (one.seller, one.first, one.later, one.whole) == ("cheap", 1_000, 30_000, 1_000)
    # Five years at once for 1 each are cheaper still: nobody renews then.
    assert (five.seller, five.whole) == ("cheap", 5_000)
    yearly = market((seller("cheap", years_max=1), rows("1", "30")), even)
    other = listed(yearly, "com", 5)
    assert other
    assert (other.seller, other.first, other.later, other.whole) == ("even", 12_000, 12_000, 60_000)


def test_it_is_told_with_tax_and_what_is_not_known_is_none() -> None:
    taxed = listed(market((seller(), rows("10", "20")), buyer=IRISH), "com", 2)
    assert taxed
    assert (taxed.first, taxed.later) == (12_300, 24_600)
    assert listed(market((seller(), rows("10", "20"))), "net", 2) is None
    # A seller that renews nothing has a first year, and as many as are registered at once.
    [first, _] = rows("10", "20")
    only = listed(market((seller(), [first])), "com", 3)
    assert only
    assert (only.later, only.whole) == (None, 30_000)
    # One that sells no single year has no first one to tell.
    assert listed(market((seller(years_min=2), rows("10", "20"))), "com", 3) is None


@given(
    st.lists(st.tuples(st.integers(1, 40), st.integers(1, 40)), min_size=1, max_size=4),
    st.integers(1, 10),
    st.booleans(),
)
def test_another_seller_never_makes_it_dearer(
    prices: list[tuple[int, int]], years: int, promoted: bool
) -> None:
    offer = Promotion(Decimal(1), "first_year") if promoted else None

    def sold(place: int, register: int, renew: int) -> tuple[object, list[PriceRow]]:
        return seller(f"s{place}"), [
            PriceRow("com", "register", Decimal(register), promotion=offer),
            PriceRow("com", "renew", Decimal(renew)),
        ]

    sellers = [sold(place, *of_one) for place, of_one in enumerate(prices)]
    wholes = []
    for count in range(1, len(sellers) + 1):
        found = listed(market(*sellers[:count]), "com", years)  # type: ignore[arg-type]
        assert found
        assert found.whole >= 1_000
        wholes.append(found.whole)
    assert wholes == sorted(wholes, reverse=True)


@pytest.mark.parametrize(
    ("says", "currency", "first", "later", "said"),
    [
        ("premium", "EUR", "9", "8", Said(Quoted(Decimal(9), Decimal(8)), sold=True)),
        ("usual", "EUR", "9", "8", Said(Quoted(Decimal(9), Decimal(8), premium=False), sold=True)),
        ("unavailable", "", None, None, Said(sold=False)),
        ("offered", "EUR", "9", "8", Said(sold=False)),
        ("premium", "USD", "9", "8", Said()),
        ("premium", "EUR", "9", None, Said()),
        ("", "", None, None, Said()),
    ],
)
def test_an_answer_is_a_price_or_that_it_is_not_sold_or_nothing(
    says: str, currency: str, first: str | None, later: str | None, said: Said
) -> None:
    amounts = (None if amount is None else Decimal(amount) for amount in (first, later))
    assert said_of(says, currency, *amounts, listed_in="EUR") == said
