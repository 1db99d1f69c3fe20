"""What the basket costs: now, name by name and seller by seller, and over some years."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Final

from vinetag.apps.accounts.models import User
from vinetag.apps.costs.listing import usual_currency
from vinetag.apps.costs.markets import market_for
from vinetag.apps.costs.quoting import quotes_for
from vinetag.apps.ordering.models import BasketItem
from vinetag.core.checking import buyable
from vinetag.core.cost import (
    Buyer,
    Item,
    Market,
    Order,
    Quoted,
    RateError,
    Term,
    Wish,
    cheapest_way,
)
from vinetag.core.names import FullName

__all__ = ["BasketPrices", "ItemPrice", "price_basket"]

HORIZON: Final = 5


@dataclass(frozen=True, slots=True)
class ItemPrice:
    """Where an item is bought, what that comes to now with tax, and staying there over the horizon,
    in thousandths of the basket's currency; None where nobody sells it for that term. `waiting`:
    some seller has not been asked about the very name yet.
    """

    seller: str
    seller_name: str
    amount: int | None
    whole: int | None
    premium: bool
    waiting: bool = False


@dataclass(frozen=True, slots=True)
class BasketPrices:
    """By item; the orders, one a seller and way of showing the holder; what all of it comes to now
    (`total`), and over `years`. `nowhere`: names no seller sells so.
    """

    currency: str
    years: int
    country: str
    items: Mapping[int, ItemPrice]
    orders: Sequence[tuple[str, Order]]
    total: int
    whole: int
    nowhere: Sequence[str]
    waiting: Sequence[FullName]


def price_basket(
    person: User, items: Sequence[BasketItem], years: int = HORIZON, country: str = ""
) -> BasketPrices:
    """By the lists in force and what sellers said of the names themselves, for a buyer of a country
    (that of the first project's brief where none is given). No offer for new customers is counted
    on.
    """
    currency = usual_currency(person)
    if not country and items:
        country = str(items[0].project.brief["owner"]["country"])
    found: dict[int, ItemPrice] = {}
    orders: list[tuple[str, Order]] = []
    waiting: list[FullName] = []
    total = whole = 0
    for privacy in (False, True):
        mine = [item for item in items if item.privacy is privacy]
        if not mine:
            continue
        market = market_for(person, Buyer(country, privacy=privacy), currency)
        told = quotes_for(person, market, [item.name for item in mine])
        quotes = told.names
        waiting += told.waiting
        by_seller: dict[str, list[Item]] = {}
        for item in mine:
            of_name = quotes[item.name]
            price = _price(market, item, of_name.quoted, of_name.without, years)
            price = replace(price, waiting=item.name in told.waiting)
            found[item.pk] = price
            if price.amount is not None and not _gone(item):
                by_seller.setdefault(price.seller, []).append(
                    _item(item, of_name.quoted.get(price.seller))
                )
                whole += price.whole or 0
        for seller, bought in by_seller.items():
            order = market.order(seller, bought, market.today, new_customer=False)
            if order is not None:
                orders.append((market.sellers[seller].name, order))
                total += market.amount(order)
    nowhere = [str(item.name) for item in items if found[item.pk].amount is None]
    return BasketPrices(currency, years, country, found, orders, total, whole, nowhere, waiting)


def _gone(item: BasketItem) -> bool:
    """Whether the last look found that it cannot be registered: then it costs nothing."""
    return item.seen.get("status", "open") not in (*buyable(), "unsure")


def _item(item: BasketItem, quoted: Quoted | None) -> Item:
    return Item(item.label, item.extension, "register", item.years, quoted)


def _price(
    market: Market, item: BasketItem, quoted: Mapping[str, Quoted], without: frozenset[str],
    years: int,
) -> ItemPrice:  # fmt: skip
    asked = [item.seller] if item.seller else list(market.prices)
    best: tuple[int, str] | None = None
    for code in asked:
        if code not in market.prices or code in without:
            continue
        term = Term(
            code, item.extension, "register", item.years, market.today, quoted=quoted.get(code)
        )
        try:
            priced = market.price(term)
        except RateError:
            continue
        if priced is not None and (best is None or priced.amount < best[0]):
            best = priced.amount, code
    if best is None:
        known = market.sellers.get(item.seller)
        return ItemPrice(item.seller, known.name if known else item.seller, None, None, False)
    amount, code = best
    quote = quoted.get(code)
    return ItemPrice(
        code,
        market.sellers[code].name,
        amount,
        _whole(market, item.name, code, quote, years),
        quote is not None and quote.premium,
    )


def _whole(
    market: Market, name: FullName, seller: str, quoted: Quoted | None, years: int
) -> int | None:
    wish = Wish(
        name.extension, years, market.today, {seller: quoted} if quoted else {}, moving=False,
        sellers=frozenset({seller}),
    )  # fmt: skip
    way = cheapest_way(market, wish)
    return None if way is None else way.total
