"""What it takes to buy names others hold, beside what holding them costs: a price where one stands,
in an auction a range from what is bid to what the person would bid at most.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime
from decimal import Decimal
from typing import Any

from vinetag.apps.market.offers import market_names, offers_of
from vinetag.core.cost import RateError, Rates
from vinetag.core.market import Offer
from vinetag.core.money import Money, thousandths
from vinetag.core.names import FullName

__all__ = ["Buying", "buying_document", "buying_of", "one_document"]


@dataclass(frozen=True, slots=True)
class Buying:
    """One name somebody holds, by the offer that says most: for sale at the least, else the auction
    that ends first, else offers heard. `low` and `high` in thousandths of the currency of the plan,
    None where that is not known; `over`: more is bid than the person's `ceiling`.
    """

    offer: Offer
    market: str
    low: int | None
    high: int | None
    ceiling: int | None
    over: bool = False


def buying_of(
    names: Sequence[FullName], ceilings: Mapping[FullName, int], currency: str, rates: Rates,
    today: date,
) -> dict[FullName, Buying]:  # fmt: skip
    """By name, those that are offered; `ceilings` in thousandths of the currency."""
    known, markets = offers_of(names), market_names()
    found = {}
    for name, offers in known.items():
        priced = [(offer, _amount(offer, currency, rates, today)) for offer in offers]
        best = min(
            (one for one in priced if one[0].kind != "dropping"), key=_order, default=None
        )  # fmt: skip
        if best is None:
            continue
        offer, amount = best
        market = markets.get(offer.market, offer.market)
        ceiling = ceilings.get(name) if offer.kind == "auction" else None
        if offer.kind != "auction":
            found[name] = Buying(offer, market, amount, amount, None)
            continue
        over = ceiling is not None and amount is not None and amount > ceiling
        high = None if over else ceiling
        found[name] = Buying(offer, market, amount, high, ceiling, over)
    return found


def _order(one: tuple[Offer, int | None]) -> tuple[int, int, datetime, str]:
    offer, amount = one
    kind = ("fixed", "auction", "asking").index(offer.kind)
    far = datetime.max.replace(tzinfo=offer.told.tzinfo)
    cost = amount if amount is not None and kind == 0 else 10**15
    return kind, cost, offer.ends or far, offer.market


def _amount(offer: Offer, currency: str, rates: Rates, today: date) -> int | None:
    """The price in thousandths of a currency, None where there is none, or no rate."""
    if offer.price is None:
        return None
    try:
        money = rates.convert(Money(offer.price, offer.currency), currency, today).money
    except RateError:
        return None
    return thousandths(Decimal(money.amount))


def buying_document(found: Mapping[FullName, Buying]) -> dict[str, Any]:
    """What all of it takes together: at the least, and at the most where that is known of all."""
    lows = [one.low for one in found.values() if one.low is not None]
    highs = [one.high for one in found.values()]
    known = [high for high in highs if high is not None]
    return {
        "names": len(found),
        "low": _digits(sum(lows)),
        "high": _digits(sum(known)) if len(known) == len(highs) else None,
        "unknown": sum(one.low is None for one in found.values()),
    }


def one_document(one: Buying) -> dict[str, Any]:
    """As BuyingSerializer describes it."""
    return {
        "kind": one.offer.kind,
        "market": one.market,
        "low": None if one.low is None else _digits(one.low),
        "high": None if one.high is None else _digits(one.high),
        "ceiling": None if one.ceiling is None else _digits(one.ceiling),
        "over": one.over,
        "bids": one.offer.bids,
        "ends": one.offer.ends,
        "told": one.offer.told,
    }


def _digits(amount: int) -> str:
    cents = (amount + 5) // 10
    return f"{cents // 100}.{cents % 100:02}"
