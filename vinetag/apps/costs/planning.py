"""What full names cost over a horizon: at each seller, at best, and all of them together."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import date
from decimal import Decimal

from vinetag.apps.accounts.errors import RefusedError
from vinetag.apps.accounts.models import User
from vinetag.apps.costs.buying import Buying, buying_of
from vinetag.apps.costs.coupons import OfferedCoupon, offered_coupons
from vinetag.apps.costs.markets import market_for
from vinetag.apps.costs.quoting import NameQuotes, Quotes, quotes_for
from vinetag.core.cost import (
    Bundle,
    Holding,
    Market,
    Member,
    RateError,
    Ticked,
    Way,
    Wish,
    as_ticked,
    cheapest_way,
    holding_of,
    moves_add_year,
    plan_bundle,
    within_budget,
)
from vinetag.core.cost.vat import buyer_of
from vinetag.core.errors import Problem
from vinetag.core.names import FullName

__all__ = ["Affordable", "CostQuestion", "Costed", "Costs", "work_out"]


@dataclass(frozen=True)
class CostQuestion:
    """What is to be worked out: for whom, for how many years, in which currency, at which sellers
    (none: all of them); `trouble` in thousandths of the currency is what a move costs beside its
    price, `ahead` the percent a year by which what is paid later weighs less. The names `used` are
    kept whatever the `budget` (thousandths over the whole horizon, None for none) says, the others
    are held for protection; the first is used where none is said to be. `ceilings` are what the
    person bids at most in auctions, in thousandths.
    """

    names: Sequence[FullName]
    used: Collection[FullName] = ()
    budget: int | None = None
    years: int = 5
    country: str = ""
    vat: str = ""
    privacy: bool = True
    currency: str = "EUR"
    sellers: Sequence[str] = ()
    ceilings: Mapping[FullName, int] = field(default_factory=dict)
    moving: bool = True
    trouble: int = 0
    ahead: Decimal = Decimal(0)

    def is_used(self, name: FullName) -> bool:
        """Whether it is used, not only held."""
        return name in self.used if self.used else name == self.names[0]


@dataclass(frozen=True)
class Costed:
    """One full name: what staying with each seller comes to, what leaving all ticks does, and the
    cheapest way, None where no seller offers it. `ways` are the cheapest of staying with each;
    `quotes` what sellers say of the name itself.
    """

    name: FullName
    holdings: Mapping[str, Holding | None]
    ticked: Mapping[str, Ticked | None]
    cheapest: Way | None
    ways: Mapping[str, Way | None]
    quotes: NameQuotes


@dataclass(frozen=True)
class Affordable:
    """What is left out to keep a budget, and the plan for the rest; `kept` is false where even the
    names used cost more.
    """

    plan: Bundle
    left_out: Sequence[str]
    kept: bool


@dataclass(frozen=True)
class Costs:
    """The answer: name by name, and the plan for all of them, in `market`'s currency. `rates_of` is
    the day of the exchange rates; `buying` what names take that somebody holds and offers.
    """

    market: Market
    names: Sequence[Costed]
    plan: Bundle
    rates_of: date | None
    quotes: Quotes
    coupons: Sequence[OfferedCoupon]
    affordable: Affordable | None
    buying: Mapping[FullName, Buying]


def work_out(person: User, question: CostQuestion) -> Costs:
    """Raises VatError, and RefusedError for sellers there are not and currencies without a rate."""
    buyer = buyer_of(question.country, question.vat, privacy=question.privacy)
    market = market_for(person, buyer, question.currency)
    for code in question.sellers:
        if code not in market.sellers:
            raise RefusedError([Problem("sellers", "seller_unknown", {"value": code[:40]})])
    chosen = frozenset(question.sellers) if question.sellers else frozenset(market.sellers)
    try:
        return _worked_out(person, market, question, chosen)
    except RateError as error:
        args = {"value": str(error.args[0])[:10]}
        raise RefusedError([Problem("currency", "rate_missing", args)]) from error


def _worked_out(
    person: User, market: Market, question: CostQuestion, chosen: frozenset[str]
) -> Costs:
    quotes = quotes_for(person, market, question.names)
    # Names of an extension without prices of their own cost the same: one of each is worked out.
    of_one: dict[tuple[object, ...], tuple[Wish, Costed]] = {}
    wishes: list[Wish] = []
    costed: list[Costed] = []
    for name in question.names:
        of_name = quotes.names[name]
        key = name.extension, tuple(sorted(of_name.quoted.items())), of_name.without
        if key not in of_one:
            wish = Wish(
                name.extension, question.years, market.today, of_name.quoted,
                trouble=question.trouble, ahead=question.ahead, moving=question.moving,
                sellers=chosen - of_name.without, move_adds_year=moves_add_year(name.extension),
            )  # fmt: skip
            of_one[key] = wish, _costed(market, name, wish, of_name, chosen)
        wish, one = of_one[key]
        wishes.append(wish)
        costed.append(replace(one, name=name))
    members = [
        Member(name.label, wish, used=question.is_used(name))
        for name, wish in zip(question.names, wishes, strict=True)
    ]
    plan = plan_bundle(market, members)
    return Costs(
        market, costed, plan, market.rates.newest, quotes,
        offered_coupons(person, market, question.names),
        _affordable(market, members, plan, question.budget),
        buying_of(
            question.names, question.ceilings, market.currency, market.rates, market.today
        ),
    )  # fmt: skip


def _affordable(
    market: Market, members: Sequence[Member], plan: Bundle, budget: int | None
) -> Affordable | None:
    """None without a budget, or where the plan keeps it."""
    if budget is None or plan.total <= budget:
        return None
    smaller, left_out = within_budget(market, members, budget)
    return Affordable(smaller, left_out, smaller.total <= budget)


def _costed(
    market: Market, name: FullName, wish: Wish, quotes: NameQuotes, chosen: frozenset[str]
) -> Costed:
    sold = wish.sellers or frozenset()
    staying = {
        code: replace(wish, sellers=frozenset({code}), moving=False)
        for code in market.prices
        if code in chosen
    }
    ways = {
        code: cheapest_way(market, stay) if code in sold else None for code, stay in staying.items()
    }
    return Costed(
        name,
        {
            code: holding_of(market, way, staying[code]) if way else None
            for code, way in ways.items()
        },
        {code: as_ticked(market, wish, code) if code in sold else None for code in ways},
        cheapest_way(market, wish) if sold else None,
        ways,
        quotes,
    )
