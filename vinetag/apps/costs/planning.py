"""What full names cost over a horizon: at each seller, at best, and all of them together."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date

from vinetag.apps.accounts.errors import RefusedError
from vinetag.apps.costs.sellers import market_for
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
    moves_add_year,
    plan_bundle,
    totals,
)
from vinetag.core.cost.vat import buyer_of
from vinetag.core.errors import Problem
from vinetag.core.names import FullName

__all__ = ["CostQuestion", "Costed", "Costs", "work_out"]


@dataclass(frozen=True)
class CostQuestion:
    """What is to be worked out: for whom, for how many years, in which currency, at which sellers
    (none: all of them); `trouble` in thousandths of the currency is what a move costs beside its
    price. The first of the names is the one used, the others are held for protection.
    """

    names: Sequence[FullName]
    years: int = 5
    country: str = ""
    vat: str = ""
    privacy: bool = True
    currency: str = "EUR"
    sellers: Sequence[str] = ()
    moving: bool = True
    trouble: int = 0


@dataclass(frozen=True)
class Costed:
    """One full name: what staying with each seller comes to, what leaving all ticks does, and the
    cheapest way, None where no seller offers it.
    """

    name: FullName
    holdings: Mapping[str, Holding | None]
    ticked: Mapping[str, Ticked | None]
    cheapest: Way | None


@dataclass(frozen=True)
class Costs:
    """The answer: name by name, and the plan for all of them, in `market`'s currency. `rates_of` is
    the day of the exchange rates.
    """

    market: Market
    names: Sequence[Costed]
    plan: Bundle
    rates_of: date | None


def work_out(question: CostQuestion) -> Costs:
    """Raises VatError, and RefusedError for sellers there are not and currencies without a rate."""
    buyer = buyer_of(question.country, question.vat, privacy=question.privacy)
    market = market_for(buyer, question.currency)
    for code in question.sellers:
        if code not in market.sellers:
            raise RefusedError([Problem("sellers", "seller_unknown", {"value": code[:40]})])
    chosen = frozenset(question.sellers) if question.sellers else None
    try:
        return _worked_out(market, question, chosen)
    except RateError as error:
        args = {"value": str(error.args[0])[:10]}
        raise RefusedError([Problem("currency", "rate_missing", args)]) from error


def _worked_out(market: Market, question: CostQuestion, chosen: frozenset[str] | None) -> Costs:
    wishes: dict[str, Wish] = {}
    # Names of an extension cost the same: one of each is worked out.
    of_one: dict[str, Costed] = {}
    for name in question.names:
        if name.extension not in wishes:
            wish = wishes[name.extension] = Wish(
                name.extension, question.years, market.today, trouble=question.trouble,
                moving=question.moving, sellers=chosen,
                move_adds_year=moves_add_year(name.extension),
            )  # fmt: skip
            of_one[name.extension] = _costed(market, name, wish)
    members = [
        Member(name.label, wishes[name.extension], used=place == 0)
        for place, name in enumerate(question.names)
    ]
    costed = [replace(of_one[name.extension], name=name) for name in question.names]
    return Costs(market, costed, plan_bundle(market, members), market.rates.newest)


def _costed(market: Market, name: FullName, wish: Wish) -> Costed:
    holdings = totals(market, name.extension, wish.years)
    kept = [code for code in holdings if wish.sellers is None or code in wish.sellers]
    return Costed(
        name,
        {code: holdings[code] for code in kept},
        {code: as_ticked(market, wish, code) for code in kept},
        cheapest_way(market, wish),
    )
