"""What the basket costs: now, name by name and seller by seller, and over some years."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from decimal import Decimal, InvalidOperation
from typing import Final

from vinetag.apps.accounts.models import User
from vinetag.apps.costs.listing import usual_currency
from vinetag.apps.costs.markets import market_for
from vinetag.apps.costs.quoting import quotes_for
from vinetag.apps.ordering.gateways import has_gateway
from vinetag.apps.ordering.models import BasketItem
from vinetag.apps.ordering.owners import Owners, owners_of
from vinetag.core.checking import buyable
from vinetag.core.cost import (
    Buyer,
    Eligible,
    Item,
    Line,
    Market,
    Order,
    PricedItem,
    Quoted,
    RateError,
    Seller,
    Wish,
    cheapest_way,
    close_order,
    price_item,
    privacy_lines,
)
from vinetag.core.names import FullName

__all__ = ["BasketPrices", "ItemPrice", "SellerOrder", "price_basket", "told_by_gateway"]

HORIZON: Final = 5


@dataclass(frozen=True, slots=True)
class ItemPrice:
    """Where an item is bought, what that comes to now with tax, and staying there over the horizon,
    in thousandths of the basket's currency; None where nobody sells it for that term. `waiting`:
    some seller has not been asked about the very name yet. `told`: the amount is what the seller's
    gateway asks for it.
    """

    seller: str
    seller_name: str
    amount: int | None
    whole: int | None
    premium: bool
    waiting: bool = False
    told: bool = False


@dataclass(frozen=True, slots=True)
class SellerOrder:
    """What is bought of one seller in one way of showing the holder, and what it comes to."""

    seller: str
    name: str
    country: str
    items: Sequence[BasketItem]
    order: Order


@dataclass(frozen=True, slots=True)
class BasketPrices:
    """By item; the orders, one a seller and way of showing the holder; what all of it comes to now
    (`total`), and over `years`. `nowhere`: names no seller sells so.
    """

    currency: str
    years: int
    country: str
    items: Mapping[int, ItemPrice]
    orders: Sequence[SellerOrder]
    total: int
    whole: int
    nowhere: Sequence[str]
    waiting: Sequence[FullName]


def price_basket(person: User, items: Sequence[BasketItem], years: int = HORIZON) -> BasketPrices:
    """By the lists in force and what sellers said of the names themselves, for whoever is asked
    about money in the usual set of contacts, or a buyer of the country of the first project's brief
    where nobody is named. No offer for new customers is counted on.
    """
    currency = usual_currency(person)
    buyer = buyer_of(owners_of(person), items)
    found: dict[int, ItemPrice] = {}
    orders: list[SellerOrder] = []
    waiting: list[FullName] = []
    total = whole = 0
    for privacy in (False, True):
        mine = [item for item in items if item.privacy is privacy]
        if not mine:
            continue
        market = market_for(person, replace(buyer, privacy=privacy), currency)
        told = quotes_for(person, market, [item.name for item in mine])
        quotes = told.names
        waiting += told.waiting
        by_seller: dict[str, list[BasketItem]] = {}
        for item in mine:
            of_name = quotes[item.name]
            price = _price(market, item, of_name.quoted, of_name.without, years)
            price = replace(price, waiting=item.name in told.waiting)
            found[item.pk] = price
            if price.amount is not None and not _gone(item):
                by_seller.setdefault(price.seller, []).append(item)
                whole += price.whole or 0
        for seller, bought in by_seller.items():
            order = _order(market, seller, [(i, quotes[i.name].quoted.get(seller)) for i in bought])
            if order is not None:
                where = market.sellers[seller]
                orders.append(SellerOrder(seller, where.name, where.country, bought, order))
                total += market.amount(order)
    nowhere = [str(item.name) for item in items if found[item.pk].amount is None]
    return BasketPrices(
        currency, years, buyer.country, found, orders, total, whole, nowhere, waiting
    )


def _gone(item: BasketItem) -> bool:
    """Whether the last look found that it cannot be registered: then it costs nothing."""
    return item.seen.get("status", "open") not in (*buyable(), "unsure")


def buyer_of(owners: Owners, items: Sequence[BasketItem]) -> Buyer:
    """Who pays for these, as far as it is known."""
    if owners.payer is not None:
        vat = owners.payer.identifiers.get("vat", "").upper()
        return Buyer(owners.payer.country, business=bool(vat), vat_country=vat[:2])
    return Buyer(str(items[0].project.brief["owner"]["country"]) if items else "")


def told_by_gateway(item: BasketItem, seller: Seller) -> Decimal | None:
    """What a seller's gateway asked for an item as it is to be bought, in the seller's currency and
    without tax, when it was last looked at; None where it did not say.
    """
    said = item.seen.get("gateway") or {}
    wanted = seller.code, item.years, item.coupon, seller.currency
    told = said.get("seller"), said.get("years"), said.get("coupon", ""), said.get("currency")
    if told != wanted:
        return None
    try:
        return None if said.get("fee") is None else Decimal(said["fee"])
    except InvalidOperation:
        return None


def _order(
    market: Market, seller: str, bought: Sequence[tuple[BasketItem, Quoted | None]]
) -> Order | None:
    """What these come to at a seller. In an order that is placed by a gateway coupons are those
    typed for single names (RFC 8495): what its gateway asks is with them.
    """
    terms, today = market.sellers[seller], market.today
    coupons = () if has_gateway(seller) else market.usable(seller, today)
    found: list[PricedItem] = []
    for place, (item, quoted) in enumerate(bought):
        wanted = Item(item.label, item.extension, "register", item.years, quoted)
        fee = told_by_gateway(item, terms)
        if fee is not None:
            line = Line(
                "registration", wanted.full_name, fee, "gateway", {"years": item.years}
            )  # fmt: skip
            beside = privacy_lines(terms, market.prices[seller], wanted, today, market.buyer)
            eligible = Eligible(item.extension, "register", item.years, fee, fee, True)
            found.append(PricedItem((line, *beside), eligible))
            continue
        priced = price_item(terms, market.prices[seller], wanted, today, market.buyer, place)
        if priced is None:
            return None
        found.append(priced)
    return close_order(terms, found, today, market.buyer, coupons=coupons)


def _price(
    market: Market, item: BasketItem, quoted: Mapping[str, Quoted], without: frozenset[str],
    years: int,
) -> ItemPrice:  # fmt: skip
    asked = [item.seller] if item.seller else list(market.prices)
    best: tuple[int, str] | None = None
    for code in asked:
        if code not in market.prices or code in without:
            continue
        try:
            order = _order(market, code, [(item, quoted.get(code))])
            amount = None if order is None else market.amount(order)
        except RateError:
            continue
        if amount is not None and (best is None or amount < best[0]):
            best = amount, code
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
        _is_premium(item, code, quote),
        told=told_by_gateway(item, market.sellers[code]) is not None,
    )


def _is_premium(item: BasketItem, seller: str, quoted: Quoted | None) -> bool:
    said = item.seen.get("gateway") or {}
    if said.get("seller") == seller and said.get("premium"):
        return True
    return quoted is not None and quoted.premium


def _whole(
    market: Market, name: FullName, seller: str, quoted: Quoted | None, years: int
) -> int | None:
    wish = Wish(
        name.extension, years, market.today, {seller: quoted} if quoted else {}, moving=False,
        sellers=frozenset({seller}),
    )  # fmt: skip
    way = cheapest_way(market, wish)
    return None if way is None else way.total
