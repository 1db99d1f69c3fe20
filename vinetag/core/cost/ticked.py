"""What a seller's page would have somebody buy who changes nothing on it."""

from __future__ import annotations

from decimal import Decimal
from typing import NamedTuple

from vinetag.core.cost.market import Market, Term
from vinetag.core.cost.prices import Action
from vinetag.core.cost.sellers import Extra
from vinetag.core.cost.ways import Wish, years_after
from vinetag.core.money import Money, thousandths

__all__ = ["Ticked", "TickedExtra", "as_ticked"]


class TickedExtra(NamedTuple):
    """Something ticked in advance, and what it comes to over the horizon, in thousandths of the
    market's currency.
    """

    extra: Extra
    total: int


class Ticked(NamedTuple):
    """What is paid over the horizon by one who leaves all ticks and renews by the year, in
    thousandths of the market's currency; `first` is the first payment, for `years`.
    """

    total: int
    first: int
    years: int
    extras: tuple[TickedExtra, ...]


def as_ticked(market: Market, wish: Wish, seller: str) -> Ticked | None:
    """None where the seller does not offer it so. Raises RateError where a rate is missing."""
    terms = market.sellers[seller]
    new = seller not in market.buyer.customer_of
    first = _price(market, wish, seller, "register", terms.years_chosen, 0, new=new)
    if first is None:
        return None
    total, held = first, terms.years_chosen
    while held < wish.years:
        again = _price(market, wish, seller, "renew", 1, held, new=False)
        if again is None:
            return None
        total, held = total + again, held + 1
    extras = tuple(
        TickedExtra(extra, _with_tax(market, seller, extra.yearly * max(wish.years, held)))
        for extra in terms.extras
    )
    yearly = sum(_with_tax(market, seller, extra.yearly) for extra in terms.extras)
    return Ticked(
        total + sum(one.total for one in extras),
        first + yearly * terms.years_chosen,
        terms.years_chosen,
        extras,
    )


def _price(
    market: Market, wish: Wish, seller: str, action: Action, years: int, after: int, *, new: bool
) -> int | None:
    on = years_after(wish.start, after)
    term = Term(seller, wish.extension, action, years, on, new, wish.quotes.get(seller))
    priced = market.price(term)
    return None if priced is None else priced.amount


def _with_tax(market: Market, seller: str, amount: Decimal) -> int:
    """An amount beside the name, with tax as the seller adds it."""
    terms = market.sellers[seller]
    rate = market.tax(seller).rate if terms.tax == "added" else None
    whole = terms.rounded(amount * (1 + (rate or Decimal(0))))
    converted = market.rates.convert(Money(whole, terms.currency), market.currency, market.today)
    return thousandths(converted.money.amount)
