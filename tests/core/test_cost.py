"""What keeping a name costs: the cheapest way, against trying them all."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from datetime import date, timedelta
from decimal import Decimal
from itertools import pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.selling import IRISH, NOWHERE, TODAY, market, rows, seller
from vinetag.core.cost import (
    Extra,
    Market,
    PriceRow,
    Promotion,
    Term,
    Wish,
    as_ticked,
    cheapest_way,
    years_after,
)


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


@given(markets())
@settings(max_examples=60, deadline=None)
def test_more_years_are_never_cheaper_and_more_choice_is_never_dearer(
    given_: tuple[Market, Wish],
) -> None:
    of, wish = given_

    def least(**other: object) -> float:
        asked = replace(wish, **other)  # type: ignore[arg-type]
        way = cheapest_way(of, asked)
        if way is None:
            return float("inf")
        return way.total + asked.trouble * sum(step.action == "move" for step in way.steps)

    usual = least()
    assert usual <= least(years=wish.years + 1)
    assert usual <= min(least(sellers=frozenset({code})) for code in of.sellers)
    assert least(moving=True) <= usual <= least(moving=False)
    assert least(trouble=0) <= usual <= least(trouble=wish.trouble + 1_000)
