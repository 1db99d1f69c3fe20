"""What one order costs: lines, tax, coupons, and amounts in other money, by hand."""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, date, datetime, timedelta
from decimal import Decimal

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.selling import IRISH, RATES, TODAY, euros, rows, seller
from vinetag.core.cost import (
    Buyer,
    Coupon,
    Item,
    Order,
    PriceList,
    PriceRow,
    Promotion,
    Quoted,
    RateError,
    Report,
    Seller,
    changes_between,
    odds_of,
    price_order,
    tax_of,
)
from vinetag.core.money import Money


def order_of(
    who: Seller, listed: list[PriceRow], *items: Item, buyer: Buyer = IRISH, **how: object
) -> Order:
    made = price_order(who, PriceList(who.code, TODAY, listed), items, TODAY, buyer, **how)  # type: ignore[arg-type]
    assert made is not None
    return made


def told(order: Order) -> list[tuple[str, str]]:
    return [(line.kind, str(line.amount)) for line in order.lines]


class TestOrders:
    def test_lines_are_rounded_one_by_one_and_taxed_together(self) -> None:
        listed = [*rows("9.99", "14"), PriceRow("*", "fee", Decimal("0.18"))]
        made = order_of(seller(), listed, Item("ink", "com", "register", 2))
        # 19.98 and 0.36 are 20.34; 23 % of that are 4.6782.
        assert told(made) == [("registration", "19.98"), ("registry_fee", "0.36"), ("tax", "4.68")]
        assert (made.subtotal, made.total) == (euros("20.34"), euros("25.02"))

    def test_a_first_year_is_cheap_once_and_privacy_may_cost(self) -> None:
        offer = Promotion(Decimal("0.99"), "first_year")
        listed = [
            replace(rows("12", "16")[0], promotion=offer),
            PriceRow("*", "privacy", Decimal(3)),
        ]
        made = order_of(seller(privacy="charged"), listed, Item("ink", "com", "register", 3))
        assert told(made)[:3] == [
            ("registration", "36.00"), ("promotion", "-11.01"), ("privacy", "9.00"),
        ]  # fmt: skip
        hidden = replace(IRISH, privacy=False)
        bare = order_of(
            seller(privacy="charged"), listed, Item("ink", "com", "register", 3), buyer=hidden
        )
        assert bare.subtotal == euros("24.99")

    def test_a_promotion_for_the_first_names_ends_with_them(self) -> None:
        first = PriceRow(
            "com", "register", Decimal(10), promotion=Promotion(Decimal(1), "first_names", 2)
        )
        items = [Item(label, "com", "register", 1) for label in ("a", "b", "c")]
        assert order_of(seller(), [first], *items).subtotal == euros(12)

    def test_a_premium_name_costs_what_it_is_quoted_each_year(self) -> None:
        premium = Quoted(Decimal(900), Decimal(90))
        made = order_of(seller(), rows("9", "12"), Item("ink", "com", "register", 3, premium))
        assert made.lines[0].amount == Decimal(1080)
        assert made.lines[0].reason == "premium"
        renewed = order_of(seller(), rows("9", "12"), Item("ink", "com", "renew", 2, premium))
        assert renewed.subtotal == euros(180)

    def test_a_term_that_is_not_offered_is_no_order(self) -> None:
        listed = PriceList("harbour", TODAY, rows("9", "12"))
        for item, terms in (
            (Item("ink", "net", "register", 1), {}),
            (Item("ink", "com", "move", 1), {}),
            (Item("ink", "com", "register", 1), {"years_min": 2}),
        ):
            assert price_order(seller(**terms), listed, [item], TODAY, IRISH) is None

    def test_a_list_says_what_it_is_until_its_end_and_after_it_without_promotion(self) -> None:
        offer = Promotion(Decimal(1), "first_year")
        end = TODAY + timedelta(30)
        listed = PriceList(
            "harbour", TODAY,
            [PriceRow("com", "renew", Decimal(8), promotion=offer, valid_until=end)],
        )  # fmt: skip
        assert listed.find("com", "renew", 1, end).promotion == offer  # type: ignore[union-attr]
        after = listed.find("com", "renew", 1, end + timedelta(1))
        assert after is not None
        assert (after.price, after.promotion) == (Decimal(8), None)


class TestTax:
    @pytest.mark.parametrize(
        ("home", "buyer", "rule", "rate"),
        [
            ("IE", Buyer("IE"), "charged", "0.23"),
            ("DE", Buyer("IE"), "charged", "0.23"),
            ("DE", Buyer("IE", business=True, vat_country="IE"), "reverse", "0"),
            ("IE", Buyer("IE", business=True, vat_country="IE"), "charged", "0.23"),
            ("IE", Buyer("IE", business=True), "charged", "0.23"),
            ("DE", Buyer("JP"), "abroad", "0"),
            ("US", Buyer("IE"), "charged", "0.23"),
            ("US", Buyer("IE", business=True, vat_country="IE"), "reverse", "0"),
            ("GB", Buyer("GB"), "charged", "0.20"),
        ],
    )
    def test_whose_rate_it_is(self, home: str, buyer: Buyer, rule: str, rate: str) -> None:
        tax = tax_of(seller(country=home), buyer, TODAY)
        assert (tax.rule, tax.rate) == (rule, Decimal(rate))

    @pytest.mark.parametrize(
        ("home", "buyer"),
        [("IE", Buyer()), ("US", Buyer("JP")), ("IE", Buyer("GB")), ("GB", Buyer("JP"))],
    )
    def test_what_is_not_known_is_said_and_the_price_is_net(self, home: str, buyer: Buyer) -> None:
        made = order_of(
            seller(country=home), rows("9", "12"), Item("ink", "com", "register", 1), buyer=buyer
        )
        assert made.tax.rate is None
        assert made.total == made.subtotal == euros(9)

    def test_a_rate_has_its_days(self) -> None:
        at = [tax_of(seller(country="EE"), Buyer("EE"), day).rate for day in
              (date(2025, 6, 30), date(2025, 7, 1))]  # fmt: skip
        assert at == [Decimal("0.22"), Decimal("0.24")]

    def test_tax_in_the_price_is_taken_out_for_a_business_of_another_country(self) -> None:
        german = seller(country="DE", tax="included")
        item = Item("ink", "com", "register", 1)
        assert order_of(german, rows("11.90", "12"), item).total == euros("11.90")
        business = Buyer("IE", business=True, vat_country="IE")
        assert order_of(german, rows("11.90", "12"), item, buyer=business).total == euros("10.00")


class TestCoupons:
    def test_conditions_hold_or_nothing_is_taken_off(self) -> None:
        items = [Item(label, "com", "register", 1) for label in ("a", "b")]
        for coupon, subtotal in (
            (Coupon("TEN", "harbour", "percent", Decimal(10)), "18.00"),
            (Coupon("FIVE", "harbour", "amount", Decimal(5)), "15.00"),
            (Coupon("MUCH", "harbour", "amount", Decimal(50)), "0.00"),
            (Coupon("ONE", "harbour", "price", Decimal(1)), "2.00"),
            (Coupon("NET", "harbour", "percent", Decimal(10), frozenset({"net"})), "20"),
            (Coupon("THREE", "harbour", "percent", Decimal(10), least_names=3), "20"),
            (Coupon("SUM", "harbour", "percent", Decimal(10), least_sum=Decimal(21)), "20"),
            (Coupon("NEW", "harbour", "percent", Decimal(10), new_customers=True), "20"),
            (Coupon("LONG", "harbour", "percent", Decimal(10), years_from=2), "20"),
        ):
            made = order_of(seller(), rows("10", "12"), *items, coupons=[coupon])
            assert made.subtotal == euros(subtotal), coupon.code

    def test_those_are_taken_that_take_most_off_together(self) -> None:
        kinds = [("A", 30, False), ("B", 20, True), ("C", 15, True)]
        coupons = [Coupon(c, "harbour", "percent", Decimal(v), combines=t) for c, v, t in kinds]
        made = order_of(
            seller(), rows("10", "12"), Item("a", "com", "register", 1), coupons=coupons
        )
        used = [line.args["code"] for line in made.lines if line.kind == "coupon"]
        assert (used, made.subtotal) == (["B", "C"], euros("6.50"))

    def test_odds_follow_the_reports_and_old_ones_fade(self) -> None:
        now = datetime(2026, 11, 29, tzinfo=UTC)
        none = odds_of([], now)
        assert none.mean == 0.5
        assert none.low == pytest.approx(0.05, abs=1e-6)  # a flat distribution
        fresh = [Report(True, now)] * 8 + [Report(False, now)] * 2
        assert odds_of(fresh, now).mean == pytest.approx(9 / 12)
        # The 5 % and 95 % points of Beta(9, 3), from tables.
        assert odds_of(fresh, now).low == pytest.approx(0.5299, abs=2e-4)
        assert odds_of(fresh, now).high == pytest.approx(0.9210, abs=2e-4)
        old = [report._replace(at=now - timedelta(days=450)) for report in fresh]
        assert odds_of(old, now).mean == pytest.approx(0.5, abs=0.01)
        assert odds_of(old, now).reports == 10


class TestRates:
    def test_amounts_go_by_the_rate_of_the_last_day(self) -> None:
        dollars, crowns = Money(10, "USD"), Money(10, "SEK")
        assert RATES.convert(dollars, "EUR", TODAY) == (euros(8), date(2026, 11, 27))
        assert RATES.convert(dollars, "SEK", TODAY).money == Money(88, "SEK")
        assert RATES.convert(crowns, "SEK", TODAY).day is None
        for currency, day in (("JPY", TODAY), ("USD", date(2026, 11, 26))):
            with pytest.raises(RateError):
                RATES.convert(Money(1, currency), "EUR", day)


class TestChanges:
    def test_what_rose_fell_came_and_went_is_told_once_for_terms_alike(self) -> None:
        offer = Promotion(Decimal(1), "first_year")
        before = [*rows("10", "11"), PriceRow("net", "renew", Decimal(9))]
        after = [
            replace(rows("10", "14")[0], promotion=offer),
            replace(rows("10", "14")[1], years_to=5),
            PriceRow("com", "renew", Decimal(10), 6, 10),
            PriceRow("org", "register", Decimal(8), 1, 1),
        ]
        lists = [PriceList("x", TODAY, listed) for listed in (before, after)]
        found = changes_between(*lists, TODAY)
        assert [tuple(change) for change in found] == [
            ("rose", "com", "renew", 1, 5, Decimal(11), Decimal(14)),
            ("fell", "com", "renew", 6, 10, Decimal(11), Decimal(10)),
            ("went", "net", "renew", 1, 10, Decimal(9), None),
            ("came", "org", "register", 1, 1, None, Decimal(8)),
        ]
        assert changes_between(lists[0], lists[0], TODAY) == []


PRICES = st.integers(1, 9_999).map(lambda cents: Decimal(cents) / 100)
COUPONS = st.builds(
    Coupon,
    st.sampled_from(["X", "Y", "Z"]),
    st.just("harbour"),
    st.sampled_from(["percent", "amount", "price"]),
    st.integers(1, 90).map(Decimal),
    least_names=st.integers(1, 3),
    years_from=st.integers(1, 2),
    combines=st.booleans(),
    on_promotions=st.booleans(),
)


@st.composite
def orders(draw: st.DrawFn) -> tuple[Seller, list[PriceRow], list[Item], Buyer]:
    """A seller of any kind, with a promotion and fees, and one to four names for some years."""
    kind = draw(st.sampled_from(["first_year", "first_names", "new_customers"]))
    offer = draw(st.none() | st.builds(Promotion, PRICES, st.just(kind), st.integers(1, 3)))
    per = draw(st.sampled_from(["year", "term"]))
    listed = [
        PriceRow("com", "register", draw(PRICES), 1, 10, per, offer),  # type: ignore[arg-type]
        PriceRow("*", "privacy", draw(PRICES)),
        PriceRow("*", "fee", draw(PRICES)),
    ]
    who = seller(
        country=draw(st.sampled_from(["IE", "DE", "US"])),
        privacy=draw(st.sampled_from(["included", "charged", "none"])),
        tax=draw(st.sampled_from(["added", "included"])),
    )
    items = [
        Item(f"n{place}", "com", "register", draw(st.integers(1, 10)))
        for place in range(draw(st.integers(1, 4)))
    ]
    buyers = [IRISH, Buyer(), Buyer("JP"), Buyer("IE", business=True, vat_country="IE")]
    return who, listed, items, draw(st.sampled_from(buyers))


@given(orders(), st.lists(COUPONS, max_size=3, unique_by=lambda c: c.code), st.booleans())
@settings(max_examples=150, deadline=None)
def test_lines_add_up_and_no_coupon_makes_an_order_dearer(
    given_: tuple[Seller, list[PriceRow], list[Item], Buyer], coupons: list[Coupon], new: bool
) -> None:
    who, listed, items, buyer = given_
    made = order_of(who, listed, *items, buyer=buyer, new_customer=new, coupons=coupons)
    plain = order_of(who, listed, *items, buyer=buyer, new_customer=new)
    added = [line.amount for line in made.lines if line.kind != "tax_within"]
    assert sum(added) == made.total.amount
    assert all(amount == round(amount, 2) for amount in added)
    assert 0 <= made.total.amount <= plain.total.amount
    assert made.tax.rule == "reverse" or made.subtotal.amount <= made.total.amount
    of_names = {line.full_name for line in made.lines} - {""}
    assert of_names == {item.full_name for item in items}
    if not any(line.kind == "coupon" for line in made.lines):
        assert made == plain


@given(orders())
@settings(max_examples=60, deadline=None)
def test_what_is_bought_apart_is_bought_together_but_for_rounding_and_first_names(
    given_: tuple[Seller, list[PriceRow], list[Item], Buyer],
) -> None:
    who, listed, items, buyer = given_
    apart = sum(order_of(who, listed, item, buyer=buyer).total.amount for item in items)
    together = order_of(who, listed, *items, buyer=buyer).total.amount
    first_names = listed[0].promotion and listed[0].promotion.kind == "first_names"
    if not first_names:
        assert abs(together - apart) <= Decimal("0.01") * len(items)
