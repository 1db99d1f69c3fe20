"""What a name costs: orders by hand, coupons, tax, and the cheapest way against trying them all."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from datetime import UTC, date, datetime, timedelta
from decimal import Decimal
from itertools import pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from vinetag.core.cost import (
    Buyer,
    Coupon,
    Extra,
    Item,
    Market,
    Order,
    PriceList,
    PriceRow,
    Promotion,
    Quoted,
    RateError,
    Rates,
    Report,
    Seller,
    Term,
    Wish,
    as_ticked,
    changes_between,
    cheapest_way,
    odds_of,
    price_order,
    tax_of,
    years_after,
)
from vinetag.core.money import Money

TODAY = date(2026, 11, 29)
IRISH = Buyer(country="IE")
NOWHERE = Buyer()  # whose tax nobody knows: what is told is net
RATES = Rates({date(2026, 11, 27): {"USD": Decimal("1.25"), "SEK": Decimal(11)}})


def euros(amount: object) -> Money:
    return Money(str(amount), "EUR")


def seller(code: str = "harbour", **terms: object) -> Seller:
    return Seller(code, code.title(), **{"country": "IE", "currency": "EUR", **terms})  # type: ignore[arg-type]


def rows(register: str, renew: str, move: str | None = None) -> list[PriceRow]:
    found = [
        PriceRow("com", "register", Decimal(register)),
        PriceRow("com", "renew", Decimal(renew)),
    ]
    return [*found, PriceRow("com", "move", Decimal(move))] if move else found


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
        assert (made.net, made.total) == (euros("20.34"), euros("25.02"))

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
        assert bare.net == euros("24.99")

    def test_a_promotion_for_the_first_names_ends_with_them(self) -> None:
        first = PriceRow(
            "com", "register", Decimal(10), promotion=Promotion(Decimal(1), "first_names", 2)
        )
        items = [Item(label, "com", "register", 1) for label in ("a", "b", "c")]
        assert order_of(seller(), [first], *items).net == euros(12)

    def test_a_premium_name_costs_what_it_is_quoted_each_year(self) -> None:
        premium = Quoted(Decimal(900), Decimal(90))
        made = order_of(seller(), rows("9", "12"), Item("ink", "com", "register", 3, premium))
        assert made.lines[0].amount == Decimal(1080)
        assert made.lines[0].reason == "premium"
        renewed = order_of(seller(), rows("9", "12"), Item("ink", "com", "renew", 2, premium))
        assert renewed.net == euros(180)

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
        assert made.total == made.net == euros(9)

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
        for coupon, net in (
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
            assert made.net == euros(net), coupon.code

    def test_those_are_taken_that_take_most_off_together(self) -> None:
        kinds = [("A", 30, False), ("B", 20, True), ("C", 15, True)]
        coupons = [Coupon(c, "harbour", "percent", Decimal(v), combines=t) for c, v, t in kinds]
        made = order_of(
            seller(), rows("10", "12"), Item("a", "com", "register", 1), coupons=coupons
        )
        used = [line.args["code"] for line in made.lines if line.kind == "coupon"]
        assert (used, made.net) == (["B", "C"], euros("6.50"))

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


def market(*sellers: tuple[Seller, list[PriceRow]], **how: object) -> Market:
    given = {"coupons": {}, "rates": RATES, "buyer": NOWHERE, "currency": "EUR", "today": TODAY}
    return Market(
        {s.code: s for s, _ in sellers},
        {s.code: PriceList(s.code, TODAY, listed) for s, listed in sellers},
        **{**given, **how},  # type: ignore[arg-type]
    )


class TestRates:
    def test_amounts_go_by_the_rate_of_the_last_day(self) -> None:
        dollars, crowns = Money(10, "USD"), Money(10, "SEK")
        assert RATES.convert(dollars, "EUR", TODAY) == (euros(8), date(2026, 11, 27))
        assert RATES.convert(dollars, "SEK", TODAY).money == Money(88, "SEK")
        assert RATES.convert(crowns, "SEK", TODAY).day is None
        for currency, day in (("JPY", TODAY), ("USD", date(2026, 11, 26))):
            with pytest.raises(RateError):
                RATES.convert(Money(1, currency), "EUR", day)


def yearly(code: str, years: int) -> list[tuple[str, str, int]]:
    """Of what costs the same, what is paid later."""
    return [("register", code, 1), *[("renew", code, 1)] * (years - 1)]


class TestWays:
    NET = seller("plain")

    def way(self, of: Market, years: int, **more: object) -> list[tuple[str, str, int]]:
        found = cheapest_way(of, Wish("com", years, TODAY, **more))  # type: ignore[arg-type]
        assert found is not None
        return [(s.action, s.seller, s.years) for s in found.steps]

    def test_a_cheap_first_year_is_left_for_a_fair_renewal(self) -> None:
        first, *others = rows("1", "30", "30")
        cheap = (seller("lure"), [replace(first, years_to=1), *others])
        fair = (seller("fair"), rows("12", "12", "12"))
        steps = self.way(market(cheap, fair), 3)
        assert steps == [("register", "lure", 1), ("move", "fair", 1), ("renew", "fair", 1)]
        assert self.way(market(cheap, fair), 3, moving=False) == yearly("fair", 3)
        assert self.way(market(cheap, fair), 3, trouble=12_000)[0][1] == "fair"
        assert self.way(market(cheap, fair), 2, sellers=frozenset({"lure"})) == yearly("lure", 2)

    def test_nobody_pays_more_than_ten_years_ahead_and_a_leap_day_has_its_place(self) -> None:
        of = market((self.NET, rows("10", "12", "9")))
        assert self.way(of, 10) == [("register", "plain", 10)]
        with pytest.raises(ValueError, match="1 to 10 years, not 11"):
            cheapest_way(of, Wish("com", 11, TODAY))
        assert cheapest_way(of, Wish("net", 3, TODAY)) is None
        assert years_after(date(2028, 2, 29), 1) == date(2029, 2, 28)

    def test_paying_later_is_worth_something_when_one_says_so(self) -> None:
        of = market((self.NET, rows("10", "10")))
        dear = market((self.NET, [*rows("10", "10")[:1], *rows("10", "10.50")[1:]]))
        assert self.way(dear, 3) == [("register", "plain", 3)]
        assert self.way(dear, 3, ahead=Decimal(20)) == yearly("plain", 3)
        ahead = cheapest_way(of, Wish("com", 3, TODAY))
        assert ahead is not None
        assert [(s.action, s.years) for s in ahead.steps] == [
            ("register", 1), ("renew", 1), ("renew", 1),
        ]  # fmt: skip
        assert ahead.by_year(Wish("com", 3, TODAY)) == [10_000, 10_000, 10_000]

    def test_an_offer_to_new_customers_is_used_once(self) -> None:
        offer = Promotion(Decimal(1), "new_customers")
        lure = [*rows("20", "20"), PriceRow("com", "move", Decimal(20), promotion=offer)]
        of = market((seller("lure"), lure), (self.NET, rows("6", "6", "6")))
        steps = self.way(of, 4)
        assert [s for s in steps if s[1] == "lure"] == [("move", "lure", 1)]
        known = replace(NOWHERE, customer_of=frozenset({"lure"}))
        assert self.way(replace(of, buyer=known, kept={}, _known={}), 4) == yearly("plain", 4)


class TestWhatIsTicked:
    EXTRAS = (Extra("Post box", "Mail", Decimal(10)), Extra("Seal", "A picture", Decimal(2)))

    def test_a_long_term_and_extras_are_added_up(self) -> None:
        pushy = seller("pushy", years_chosen=3, extras=self.EXTRAS)
        of = market((pushy, rows("10", "12")), buyer=IRISH)
        ticked = as_ticked(of, Wish("com", 5, TODAY), "pushy")
        assert ticked is not None
        # 30 for three years, 12 twice, 12 a year of extras, and 23 % on all of it.
        assert ticked.total == 36_900 + 2 * 14_760 + 61_500 + 12_300
        assert (ticked.years, ticked.first) == (3, 36_900 + 3 * (12_300 + 2_460))
        assert [(one.extra.name, one.total) for one in ticked.extras] == [
            ("Post box", 61_500), ("Seal", 12_300),
        ]  # fmt: skip

    def test_nothing_ticked_is_no_more_than_renewing_by_the_year(self) -> None:
        of = market((seller("plain"), rows("10", "12")))
        assert as_ticked(of, Wish("com", 3, TODAY), "plain") == (34_000, 10_000, 1, ())
        assert as_ticked(of, Wish("net", 3, TODAY), "plain") is None


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


@st.composite
def markets(draw: st.DrawFn) -> tuple[Market, Wish]:
    """Two or three sellers with odd prices, terms and offers, and a short horizon."""
    price = st.integers(0, 40).map(Decimal)
    horizon = draw(st.integers(1, 3))
    chosen = []
    for code in ("a", "b", "c")[: draw(st.integers(2, 3))]:
        listed = []
        for action in ("register", "renew", "move"):
            if action == "move" and draw(st.booleans()):
                continue
            most = draw(st.integers(1, 3))
            kind = draw(st.sampled_from(["first_year", "new_customers"]))
            promotion = draw(st.none() | st.builds(Promotion, price, st.just(kind)))
            ends = draw(st.sampled_from([date.max, TODAY + timedelta(400)]))
            per = draw(st.sampled_from(["year", "term"]))
            listed.append(
                PriceRow(
                    "com",
                    action,
                    draw(price),
                    1,
                    most,
                    per,
                    promotion,
                    valid_until=ends,  # type: ignore[arg-type]
                )
            )
        chosen.append((seller(code, years_max=3), listed))
    wish = Wish(
        "com", horizon, TODAY,
        trouble=draw(st.sampled_from([0, 3_000])),
        moving=draw(st.booleans()),
        move_adds_year=draw(st.booleans()),
    )  # fmt: skip
    return market(*chosen), wish


def every_way(of: Market, wish: Wish) -> Iterator[int]:
    """What each way costs, tried out one by one: at most two renewals on one day."""

    def cost(code: str, action: str, year: int, years: int, new: bool) -> int | None:
        day = years_after(TODAY, year)
        priced = of.price(Term(code, "com", action, years, day, new))  # type: ignore[arg-type]
        return priced and priced.amount

    def go(
        code: str, year: int, until: int, spent: int, used: frozenset[str], fresh: bool, again: int
    ) -> Iterator[int]:
        if until >= wish.years:
            yield spent
            return
        if until > year:
            yield from go(code, year + 1, until, spent, used, False, 0)
        for years in range(1, 11):
            amount = cost(code, "renew", year, years, False)
            if amount is not None and until + years - year <= 10 and again < 3:
                yield from go(code, year, until + years, spent + amount, used, fresh, again + 1)
        if wish.moving and not fresh:
            for other in of.sellers:
                amount = cost(other, "move", year, 1, other not in used)
                if other != code and amount is not None:
                    then = until + wish.move_adds_year
                    paid = spent + amount + wish.trouble
                    yield from go(other, year, then, paid, used | {other}, True, 0)

    for code in of.sellers:
        for years in range(1, 11):
            amount = cost(code, "register", 0, years, True)
            if amount is not None:
                yield from go(code, 0, years, amount, frozenset({code}), True, 0)


@given(markets())
@settings(max_examples=60, deadline=None)
def test_no_way_is_cheaper_than_the_one_found(given_: tuple[Market, Wish]) -> None:
    of, wish = given_
    found = cheapest_way(of, wish)
    costs = list(every_way(of, wish))
    assert (found is None) == (not costs)
    if found is None:
        return
    moves = sum(step.action == "move" for step in found.steps)
    assert found.total + moves * wish.trouble == min(costs)
    assert sum(found.by_year(wish)) == found.total
    assert found.steps[-1].until >= years_after(TODAY, wish.years)
    for one, other in pairwise(found.steps):
        assert one.on <= other.on <= one.until
        if other.action == "move" and one.action != "renew":
            assert (other.on - one.on).days >= 60
