"""Several names at once: shared coupons and thresholds, budgets, and how far from the best."""

from dataclasses import replace
from decimal import Decimal
from itertools import permutations, product

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.selling import IRISH, NOWHERE, TODAY, market, rows, seller
from vinetag.core.cost import (
    Coupon,
    Market,
    Member,
    PriceRow,
    Promotion,
    Quoted,
    RateError,
    Wish,
    plan_bundle,
    searching,
    within_budget,
)
from vinetag.core.cost.bundles import MOST_NAMES
from vinetag.core.cost.orders import Item
from vinetag.core.cost.ways import Ways


def members(*labels: str, years: int = 1, **more: object) -> list[Member]:
    wish = Wish("com", years, TODAY, **more)  # type: ignore[arg-type]
    return [Member(label, wish, used=place == 0) for place, label in enumerate(labels)]


PLAIN = (seller("plain"), rows("10", "10"))
MANY = (seller("many"), rows("11", "11"))


def test_a_threshold_draws_names_together() -> None:
    half = Coupon("THREE", "many", "percent", Decimal(50), least_names=3)
    of = market(PLAIN, MANY, coupons={"many": [half]})
    two = plan_bundle(of, members("a", "b"))
    assert (list(two.orders), two.total) == (["plain"], 20_000)
    three = plan_bundle(of, members("a", "b", "c"))
    assert (list(three.orders), three.total) == (["many"], 16_500)
    assert three.bound <= three.weight == three.total


def test_a_coupon_of_an_amount_is_used_once_for_all() -> None:
    of = market(PLAIN, coupons={"plain": [Coupon("FIVE", "plain", "amount", Decimal(5))]})
    plan = plan_bundle(of, members("a", "b", "c"))
    assert plan.total == 25_000
    assert [line.kind for line in plan.orders["plain"].lines].count("coupon") == 1
    assert plan.total - plan.bound < 100


def test_what_coupons_take_off_beyond_a_name_goes_to_the_others_of_its_order(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    monkeypatch.setattr(searching, "MOST_TRIED", 0)
    share = Coupon("SHARE", "x", "percent", Decimal(60), combines=True)
    price = Coupon("ONE", "x", "price", Decimal(1), frozenset({"com"}), combines=True)
    of = market((seller("x"), [*rows("10", "10"), PriceRow("net", "register", Decimal(10))]),
                coupons={"x": [share, price]})  # fmt: skip
    plan = plan_bundle(of, [Member("a", Wish("com", 1, TODAY)), Member("a", Wish("net", 1, TODAY))])
    # 12 of 20 by the one, 9 by the other, and nothing is left to pay.
    assert plan.bound <= plan.weight == plan.total == 0


def test_the_first_names_are_those_that_save_most() -> None:
    offer = Promotion(Decimal(1), "first_names", 1)
    dear = PriceRow("net", "register", Decimal(30), promotion=offer)
    of = market((seller("x"), [replace(rows("10", "10")[0], promotion=offer), dear]))
    wishes = [Member("a", Wish("com", 1, TODAY)), Member("a", Wish("net", 1, TODAY))]
    assert plan_bundle(of, wishes).total == 11_000


def test_names_held_for_protection_are_dropped_for_a_budget_and_the_used_one_never() -> None:
    dear = {"plain": Quoted(Decimal(40), Decimal(40))}
    wished = [*members("a", "b"), Member("c", Wish("com", 1, TODAY, quotes=dear))]
    plan, left_out = within_budget(market(PLAIN), wished, 25_000)
    assert (left_out, plan.total) == (("c.com",), 20_000)
    plan, left_out = within_budget(market(PLAIN), wished, 1_000)
    assert (set(plan.ways), set(left_out)) == ({"a.com"}, {"b.com", "c.com"})


def test_what_cannot_be_planned_is_said() -> None:
    nowhere = Member("a", Wish("net", 1, TODAY))
    plan = plan_bundle(market(PLAIN), [nowhere, *members("b")])
    assert (plan.nowhere, list(plan.ways)) == (("a.net",), ["b.com"])
    assert plan_bundle(market(PLAIN), []).total == 0
    with pytest.raises(ValueError, match="at most 200 names"):
        plan_bundle(market(PLAIN), members(*map(str, range(MOST_NAMES + 1))))
    later = Member("z", Wish("com", 1, TODAY.replace(day=28)))
    with pytest.raises(ValueError, match="one day"):
        plan_bundle(market(PLAIN), [*members("a"), later])
    yen = market((seller("yen", currency="JPY"), rows("10", "10")))
    with pytest.raises(RateError):
        plan_bundle(yen, members("a"))


@st.composite
def markets(draw: st.DrawFn) -> Market:
    price = st.integers(1, 30).map(Decimal)
    chosen, coupons = [], {}
    for code in ("a", "b"):
        offer = Promotion(draw(price), "first_names", draw(st.integers(1, 2)))
        first = PriceRow(
            "com", "register", draw(price), 1, 2, promotion=draw(st.sampled_from([None, offer]))
        )
        listed = [first, PriceRow("com", "renew", draw(price), 1, 2)]
        chosen.append((seller(code, years_max=2), listed))
        coupons[code] = draw(
            st.lists(
                st.builds(
                    Coupon,
                    st.sampled_from(["X", "Y", "Z"]),
                    st.just(code),
                    st.sampled_from(["percent", "amount", "price"]),
                    st.integers(1, 60).map(Decimal),
                    least_names=st.integers(1, 3),
                    least_sum=st.integers(0, 40).map(Decimal),
                    combines=st.booleans(),
                    on_promotions=st.booleans(),
                ),
                max_size=2,
                unique_by=lambda c: c.code,
            )
        )
    buyer = draw(st.sampled_from([NOWHERE, IRISH]))
    return market(*chosen, coupons=coupons, buyer=buyer)


@given(markets(), st.integers(1, 3))
@settings(max_examples=60, deadline=None)
def test_no_plan_costs_less_than_the_bound(of: Market, count: int) -> None:
    wished = members(*"abc"[:count], years=2)
    plan = plan_bundle(of, wished)
    with pytest.MonkeyPatch.context() as patch:
        patch.setattr(searching, "MOST_TRIED", 0)
        searched = plan_bundle(of, wished)
    starts = Ways(of, wished[0].wish).starts()
    weights = []
    for chosen in product(starts, repeat=count):
        weight = sum(start.rest for start in chosen)
        for code in {start.seller for start in chosen}:
            there = [s for s in chosen if s.seller == code]
            orders = [
                of.order(
                    code,
                    [Item("n", "com", "register", s.years) for s in order],
                    TODAY,
                    new_customer=code not in NOWHERE.customer_of,
                )
                for order in permutations(there)
            ]
            weight += min(of.amount(order) for order in orders if order)
        weights.append(weight)
    # So few are tried in every way; of more it is said how far from the best they may be.
    assert plan.bound == min(weights) == plan.weight == plan.total
    assert searched.bound <= min(weights) <= searched.weight == searched.total
