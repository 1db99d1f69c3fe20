"""What coupons are worth, and which quotes beat a list."""

from __future__ import annotations

from datetime import date, timedelta
from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.selling import IRISH, TODAY, market, rows, seller
from vinetag.core.cost import (
    Coupon,
    Item,
    PriceList,
    PriceRow,
    Promotion,
    Quoted,
    RateError,
    beside_list,
    coupon_worth,
    plan_bundle,
    price_order,
)
from vinetag.core.cost.coupon_files import read_coupons, write_coupons
from vinetag.core.cost.members import Member
from vinetag.core.cost.ways import Wish

NAMES = [Item(label, "com", "register", 1) for label in ("a", "b", "c")]


def coupon(kind: str = "percent", value: str = "10", **more: object) -> Coupon:
    return Coupon("CODE", "harbour", kind, Decimal(value), **more)  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("one", "saves"),
    [
        (coupon(), 3_000),
        (coupon("amount", "5"), 5_000),
        (coupon("price", "4"), 18_000),
        (coupon(least_names=4), 0),
        (coupon(least_sum=Decimal("30.01")), 0),
        (coupon(extensions=frozenset({"net"})), 0),
        (coupon(starts=TODAY + timedelta(1)), 0),
        (coupon(ends=TODAY - timedelta(1)), 0),
        (coupon(new_customers=True), 3_000),
        (coupon(actions=frozenset({"renew"})), 3_600),
        (coupon(years_from=2), 6_000),
    ],
)
def test_a_coupon_is_worth_what_it_takes_off_an_order(one: Coupon, saves: int) -> None:
    of = market((seller(), rows("10", "12")))
    assert coupon_worth(of, one, NAMES, TODAY) == saves


def test_its_worth_is_told_with_the_tax_on_it_and_in_the_currency_asked_for() -> None:
    taxed = market((seller(), rows("10", "12")), buyer=IRISH)
    assert coupon_worth(taxed, coupon(), NAMES, TODAY) == 3_690
    dollars = market((seller(currency="USD"), rows("10", "12")))
    assert coupon_worth(dollars, coupon(), NAMES, TODAY) == 2_400
    yen = market((seller(currency="JPY"), rows("10", "12")))
    with pytest.raises(RateError):
        coupon_worth(yen, coupon(), NAMES, TODAY)
    nowhere = [Item("a", "net", "register", 1)]
    assert coupon_worth(taxed, coupon(), nowhere, TODAY) == 0


@given(
    st.sampled_from(("percent", "amount", "price")),
    st.integers(0, 40),
    st.integers(1, 4),
    st.booleans(),
)
def test_a_coupon_that_is_worth_something_makes_the_order_that_much_cheaper(
    kind: str, value: int, least: int, promoted: bool
) -> None:
    offer = Promotion(Decimal(3), "first_year") if promoted else None
    listed = [PriceRow("com", "register", Decimal(10), promotion=offer)]
    one = coupon(kind, str(value), least_names=least)
    of = market((seller(), listed))
    worth = coupon_worth(of, one, NAMES, TODAY)
    whole, less = (
        price_order(of.sellers["harbour"], of.prices["harbour"], NAMES, TODAY, of.buyer,
                    new_customer=True, coupons=coupons)
        for coupons in ((), (one,))
    )  # fmt: skip
    assert whole
    assert less
    assert worth == of.amount(whole) - of.amount(less)
    assert 0 <= worth <= of.amount(whole)
    assert worth == 0 or (len(NAMES) >= least and not promoted)


OFFER = Promotion(Decimal(2), "first_year")
LIST = PriceList(
    "harbour",
    TODAY,
    (
        PriceRow("com", "register", Decimal(10), promotion=OFFER),
        PriceRow("com", "renew", Decimal(12)),
    ),
)


@pytest.mark.parametrize(
    ("first", "later", "premium", "beats"),
    [
        ("10", "12", False, False),
        ("2", "12", False, False),
        ("10.01", "11.99", False, False),
        ("10.02", "12", False, True),
        ("10", "13", False, True),
        ("10", "12", True, True),
    ],
)
def test_a_quote_beats_the_list_where_it_says_something_else(
    first: str, later: str, premium: bool, beats: bool
) -> None:
    quoted = Quoted(Decimal(first), Decimal(later), premium)
    found = beside_list(seller(), LIST, "com", quoted, TODAY)
    assert found == (quoted if beats else None)
    assert beside_list(seller(), LIST, "net", quoted, TODAY) == quoted


def test_where_quote_and_list_differ_the_line_tells_both() -> None:
    quoted = Quoted(Decimal(15), Decimal(20), premium=False)
    item = Item("a", "com", "register", 1, quoted)
    order = price_order(seller(), LIST, [item], TODAY, IRISH)
    assert order
    line = order.lines[0]
    assert (line.reason, line.amount, line.args["listed"]) == ("quoted", Decimal(15), Decimal(10))


def test_a_seller_that_does_not_sell_a_name_is_left_out_for_it_alone() -> None:
    of = market((seller("cheap"), rows("5", "5")), (seller("dear"), rows("9", "9")))
    everywhere = frozenset({"cheap", "dear"})
    members = [
        Member("a", Wish("com", 1, TODAY, sellers=everywhere)),
        Member("b", Wish("com", 1, TODAY, sellers=everywhere - {"cheap"})),
    ]
    plan = plan_bundle(of, members)
    assert {name: way.steps[0].seller for name, way in plan.ways.items()} == {
        "a.com": "cheap", "b.com": "dear",
    }  # fmt: skip
    assert plan.total == 14_000


days = st.one_of(st.just(date.min), st.dates(date(2020, 1, 1), date(2025, 1, 1)))
ends = st.one_of(st.just(date.max), st.dates(date(2025, 1, 2), date(2035, 1, 1)))


@given(
    st.lists(
        st.builds(
            Coupon,
            code=st.text("ABC-10", min_size=1, max_size=12),
            seller=st.just("harbour"),
            kind=st.sampled_from(("percent", "amount", "price")),
            value=st.decimals(0, 100, places=2),
            extensions=st.frozensets(st.sampled_from(("com", "net", "co.uk"))),
            actions=st.frozensets(st.sampled_from(("register", "renew", "move")), min_size=1),
            years_from=st.integers(1, 3),
            years_to=st.integers(3, 10),
            least_names=st.integers(1, 9),
            least_sum=st.decimals(0, 99, places=2),
            new_customers=st.booleans(),
            combines=st.booleans(),
            on_promotions=st.booleans(),
            starts=days,
            ends=ends,
        ),
        unique_by=lambda one: one.code,
        max_size=6,
    )
)
def test_coupons_are_written_so_that_they_can_be_read_back(coupons: list[Coupon]) -> None:
    read = read_coupons(write_coupons(coupons), "harbour", {"com", "net", "co.uk"})
    assert (list(read.coupons), read.problems) == (coupons, ())


def test_an_account_is_filled_before_anything_is_bought() -> None:
    filled = seller(top_up=Decimal(25))
    of = market((filled, rows("10", "12")))
    order = of.order("harbour", NAMES[:1], TODAY, new_customer=True)
    many = of.order("harbour", NAMES, TODAY, new_customer=True)
    assert order
    assert many
    assert (of.amount(order), of.paid_in(order)) == (10_000, 25_000)
    assert of.paid_in(many) == 30_000
