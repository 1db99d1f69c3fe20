"""What an extension costs by the lists: at the seller where staying comes to least."""

from __future__ import annotations

from typing import NamedTuple

from vinetag.core.cost.market import Market, Term
from vinetag.core.cost.totals import totals
from vinetag.core.cost.ways import years_after

__all__ = ["Listed", "listed"]


class Listed(NamedTuple):
    """A year alone, each later year, and all of the years, in thousandths of the market's currency,
    with tax where it is known; the last as the cheapest way of staying has it, which may pay for
    several years at once. `later` is None where the seller renews for no single year.
    """

    seller: str
    first: int
    later: int | None
    whole: int


def listed(market: Market, extension: str, years: int) -> Listed | None:
    """Where holding a usual name for so many years without moving costs least; None where nobody
    offers it, or a year of it. Raises ValueError for a horizon that cannot be, RateError.
    """
    found = totals(market, extension, years)
    for code in sorted((c for c in found if found[c]), key=lambda c: (found[c], c)):
        holding = found[code]
        new = code not in market.buyer.customer_of
        first = market.price(Term(code, extension, "register", 1, market.today, new))
        if holding is None or first is None:
            continue
        next_year = years_after(market.today, 1)
        later = market.price(Term(code, extension, "renew", 1, next_year))
        return Listed(code, first.amount, later and later.amount, holding.total)
    return None
