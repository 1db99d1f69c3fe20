"""What holding a name comes to at each seller, for many names at once."""

from __future__ import annotations

from collections.abc import Mapping
from typing import NamedTuple

from vinetag.core.cost.market import Market
from vinetag.core.cost.prices import Quoted
from vinetag.core.cost.ways import Way, Wish, cheapest_way

__all__ = ["Holding", "holding_of", "totals"]

NO_QUOTES: Mapping[str, Quoted] = {}


class Holding(NamedTuple):
    """The cheapest way to stay with a seller, in thousandths of the market's currency: all of it,
    what has to be paid first, and the dearest year.
    """

    total: int
    first: int
    dearest: int


def totals(
    market: Market, extension: str, years: int, quotes: Mapping[str, Quoted] = NO_QUOTES
) -> dict[str, Holding | None]:
    """By seller, from today on; None where it is not offered. Names of an extension without a
    price of their own cost the same, and are worked out once. Raises ValueError for a horizon that
    cannot be, RateError for a currency without a rate.
    """
    found = {}
    for code in market.prices:
        key = (extension, years, code, quotes.get(code))
        if key not in market.kept:
            market.kept[key] = _holding(market, *key)
        found[code] = market.kept[key]
    return found


def _holding(
    market: Market, extension: str, years: int, code: str, quoted: Quoted | None
) -> Holding | None:
    wish = Wish(
        extension, years, market.today, {code: quoted} if quoted else NO_QUOTES, moving=False,
        sellers=frozenset({code}),
    )  # fmt: skip
    way = cheapest_way(market, wish)
    return None if way is None else holding_of(market, way, wish)


def holding_of(market: Market, way: Way, wish: Wish) -> Holding:
    """What a way comes to; its first payment is with what has to be paid into an account."""
    first = market.paid_in(way.steps[0].priced.order)
    return Holding(way.total, first, max(way.by_year(wish)))
