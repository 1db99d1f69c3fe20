"""Prices of single names beside the lists: which of them say something the list does not."""

from __future__ import annotations

from datetime import date
from decimal import Decimal
from typing import Final, NamedTuple

from vinetag.core.cost.prices import PriceList, PriceRow, Quoted
from vinetag.core.cost.sellers import Seller

__all__ = ["Said", "beside_list", "said_of"]

ELSEWHERE: Final = frozenset({"unavailable", "reserved", "offered"})


class Said(NamedTuple):
    """What a seller's answer about a name comes to: a price of the name, or that the seller does
    not sell it (`sold` False); neither where it says nothing of use.
    """

    quoted: Quoted | None = None
    sold: bool | None = None


def said_of(
    says: str, currency: str, first: Decimal | None, later: Decimal | None, listed_in: str
) -> Said:
    """`says` is the answer's word (core.checking), "" for none; prices in another currency than
    the seller's list is in, `listed_in`, are of no use.
    """
    if says in ELSEWHERE:
        return Said(sold=False)
    if first is None or later is None or currency != listed_in:
        return Said()
    return Said(Quoted(first, later, premium=says == "premium"), sold=True)


def beside_list(
    seller: Seller, prices: PriceList, extension: str, quoted: Quoted, on: date
) -> Quoted | None:
    """The quote where it beats the list: of a premium name, or where it differs by more than the
    seller's rounding. None where it says what the list says, which then stands with its promotions
    and terms.
    """
    if quoted.premium:
        return quoted
    first = prices.find(extension, "register", 1, on)
    later = prices.find(extension, "renew", 1, on)
    if first is None or later is None:
        return quoted
    usual = _alike(seller, quoted.first_year, first.of(1), _promoted(first))
    return None if usual and _alike(seller, quoted.renewal, later.of(1)) else quoted


def _promoted(row: PriceRow) -> Decimal:
    return row.promotion.price if row.promotion else row.of(1)


def _alike(seller: Seller, amount: Decimal, *listed: Decimal) -> bool:
    return any(abs(amount - one) <= seller.rounding for one in listed)
