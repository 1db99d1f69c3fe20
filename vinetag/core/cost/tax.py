"""Value added tax on what a seller asks: whose rate, by which rule, or that it is not known.

The rules are those for services sold over the net (Directive 2006/112/EC, articles 44, 58 and 196,
and what other countries have taken over of them): a private buyer pays the rate of the buyer's
country, a business of another country with a valid number accounts for the tax itself.
"""

from __future__ import annotations

import csv
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from decimal import Decimal
from functools import cache
from importlib.resources import files
from typing import Final, Literal

from vinetag.core.cost.sellers import Buyer, Seller

__all__ = ["Tax", "days_of_change", "rate_in", "tax_of"]

Rule = Literal["charged", "reverse", "abroad", "unknown"]
SHIPPED: Final = "tax.csv"


@dataclass(frozen=True, slots=True)
class Tax:
    """`rate` is the share of the net price, None where the rule is not known; `country` whose."""

    rule: Rule
    rate: Decimal | None
    country: str = ""


UNKNOWN: Final = Tax("unknown", None)


@cache
def _rates() -> Mapping[str, Sequence[tuple[date, Decimal, bool]]]:
    """By country: from which day, which rate, and whether the Union's rules hold there."""
    text = files("vinetag.core.cost").joinpath(SHIPPED).read_text("utf-8")
    found: dict[str, list[tuple[date, Decimal, bool]]] = {}
    for row in csv.DictReader(text.splitlines()):
        since = date.fromisoformat(row["since"])
        found.setdefault(row["country"], []).append(
            (since, Decimal(row["percent"]) / 100, row["union"] == "yes")
        )
    return {country: sorted(rates) for country, rates in found.items()}


def rate_in(country: str, on: date) -> Decimal | None:
    """The usual rate of a country on a day, as a share; None where it is not known."""
    rates = [rate for since, rate, _ in _rates().get(country, ()) if since <= on]
    return rates[-1] if rates else None


def days_of_change() -> frozenset[date]:
    """The days on which some rate began."""
    return frozenset(since for rates in _rates().values() for since, _, _ in rates)


def _in_union(country: str) -> bool:
    return any(union for _, _, union in _rates().get(country, ()))


def tax_of(seller: Seller, buyer: Buyer, on: date) -> Tax:
    """What the seller adds for this buyer on a day."""
    if not buyer.country:
        return UNKNOWN
    if buyer.business and buyer.vat_country and buyer.vat_country != seller.country:
        return Tax("reverse", Decimal(0), buyer.vat_country)
    rate = rate_in(buyer.country, on)
    # Whoever sells into the Union over the net charges the rate of the buyer's country.
    if rate is not None and (buyer.country == seller.country or _in_union(buyer.country)):
        return Tax("charged", rate, buyer.country)
    if rate is None and _in_union(seller.country):
        # Sold out of the Union, which asks for nothing then.
        return Tax("abroad", Decimal(0), buyer.country)
    return UNKNOWN
