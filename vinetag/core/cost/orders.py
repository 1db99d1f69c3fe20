"""What one order costs: line by line, with the reason of each, rounded as the seller does it."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date
from decimal import Decimal
from typing import Literal, NamedTuple

from vinetag.core.cost.coupons import Coupon, Eligible, best_coupons
from vinetag.core.cost.prices import Action, PriceList, PriceRow, Quoted
from vinetag.core.cost.sellers import Buyer, Seller
from vinetag.core.cost.tax import Tax, rate_in, tax_of
from vinetag.core.money import Money

__all__ = [
    "Item", "Line", "LineKind", "Order", "PricedItem", "close_order", "price_item", "price_order",
    "privacy_lines",
]  # fmt: skip

LineKind = Literal[
    "registration", "renewal", "move", "promotion", "privacy", "registry_fee", "coupon", "tax",
    "tax_within",
]  # fmt: skip
KINDS: Mapping[Action, LineKind] = {
    "register": "registration",
    "renew": "renewal",
    "move": "move",
}


class Item(NamedTuple):
    """What is bought: for which full name, for how many years; `quoted` where the seller asks a
    price of its own for that name.
    """

    label: str
    extension: str
    action: Action
    years: int
    quoted: Quoted | None = None

    @property
    def full_name(self) -> str:
        return f"{self.label}.{self.extension}"


@dataclass(frozen=True, slots=True)
class Line:
    """One amount of an order, in the seller's currency, below 0 where it is taken off: what for,
    for which full name ("" for the whole order), and why, as a code with arguments.
    """

    kind: LineKind
    full_name: str
    amount: Decimal
    reason: str
    args: Mapping[str, object] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Order:
    """An order as it would be on a day. `subtotal` is what the lines come to before the one of the
    tax, in prices as the seller shows them; `total` is with tax where that is known.
    """

    seller: str
    on: date
    lines: tuple[Line, ...]
    subtotal: Money
    tax: Tax
    total: Money


def price_order(
    seller: Seller,
    prices: PriceList,
    items: Sequence[Item],
    on: date,
    buyer: Buyer,
    *,
    new_customer: bool = False,
    coupons: Collection[Coupon] = (),
) -> Order | None:
    """The order, with the coupons that take most off; None where the seller does not offer one of
    the items for that term.
    """
    found: list[PricedItem] = []
    for place, item in enumerate(items):
        priced = price_item(seller, prices, item, on, buyer, place, new_customer=new_customer)
        if priced is None:
            return None
        found.append(priced)
    return close_order(seller, found, on, buyer, new_customer=new_customer, coupons=coupons)


class PricedItem(NamedTuple):
    """The lines of one item, and what a coupon may take something off."""

    lines: tuple[Line, ...]
    eligible: Eligible


def price_item(
    seller: Seller,
    prices: PriceList,
    item: Item,
    on: date,
    buyer: Buyer,
    place: int = 0,
    *,
    new_customer: bool = False,
) -> PricedItem | None:
    """An item in that place of an order, counted from 0; None where it is not offered."""
    if item.action == "register" and not seller.years_min <= item.years <= seller.years_max:
        return None
    row = prices.find(item.extension, item.action, item.years, on)
    if item.quoted:
        lines, amount, first = _by_quote(seller, item, item.quoted, row)
        promotional = False
    elif row is not None:
        lines, amount, first = _by_list(seller, prices, item, row)
        less = _promoted(row, item.years, place, new_customer)
        promotional = less > 0
        if row.promotion and promotional:
            args = {"price": row.promotion.price, "until": row.valid_until}
            off = -seller.rounded(less)
            lines.append(Line("promotion", item.full_name, off, row.promotion.kind, args))
            amount, first = amount - less, first - less
    else:
        return None
    lines += privacy_lines(seller, prices, item, on, buyer)
    lines += _beside(seller, prices, item, "fee", "registry_fee", on)
    may_be_less = Eligible(item.extension, item.action, item.years, amount, first, promotional)
    return PricedItem(tuple(lines), may_be_less)


def close_order(
    seller: Seller,
    items: Sequence[PricedItem],
    on: date,
    buyer: Buyer,
    *,
    new_customer: bool = False,
    coupons: Collection[Coupon] = (),
) -> Order:
    """The order of items that are priced: coupons, and tax as the seller shows it."""
    lines = [line for item in items for line in item.lines]
    eligible = [item.eligible for item in items]
    for coupon, off in best_coupons(coupons, eligible, new_customer=new_customer):
        args = {"code": coupon.code, "kind": coupon.kind, "value": coupon.value}
        lines.append(Line("coupon", "", -seller.rounded(off), "coupon", args))
    subtotal = sum((line.amount for line in lines), Decimal(0))
    return _taxed(seller, on, lines, subtotal, tax_of(seller, buyer, on))


def privacy_lines(
    seller: Seller, prices: PriceList, item: Item, on: date, buyer: Buyer
) -> list[Line]:
    """What keeping the holder of an item out of the public record costs, if anything."""
    if not buyer.privacy or seller.privacy != "charged":
        return []
    return _beside(seller, prices, item, "privacy", "privacy", on)


def _by_quote(
    seller: Seller, item: Item, quoted: Quoted, row: PriceRow | None
) -> tuple[list[Line], Decimal, Decimal]:
    """The line of a name with a price of its own, its amount, and that of its first year. Where a
    list says otherwise of a name that is not premium, both are told.
    """
    first = quoted.first_year if item.action == "register" else quoted.renewal
    amount = first + quoted.renewal * (item.years - 1)
    args: dict[str, object] = {"years": item.years, "first": first, "later": quoted.renewal}
    if row is not None and abs(row.of(item.years) - amount) > seller.rounding:
        args["listed"] = row.of(item.years)
    reason = "premium" if quoted.premium else "quoted"
    line = Line(KINDS[item.action], item.full_name, seller.rounded(amount), reason, args)
    return [line], amount, first


def _by_list(
    seller: Seller, prices: PriceList, item: Item, row: PriceRow
) -> tuple[list[Line], Decimal, Decimal]:
    amount = row.of(item.years)
    args = {"years": item.years, "price": row.price, "per": row.per, "dated": prices.dated}
    line = Line(KINDS[item.action], item.full_name, seller.rounded(amount), "list", args)
    return [line], amount, row.price if row.per == "year" else amount


def _beside(
    seller: Seller, prices: PriceList, item: Item, action: Action, kind: LineKind, on: date
) -> list[Line]:
    """What is asked beside the name itself, if anything."""
    row = prices.find(item.extension, action, item.years, on)
    if row is None or not row.price:
        return []
    args = {"years": item.years, "price": row.price, "per": row.per, "dated": prices.dated}
    return [Line(kind, item.full_name, seller.rounded(row.of(item.years)), "list", args)]


def _promoted(row: PriceRow, years: int, place: int, new_customer: bool) -> Decimal:
    """What the promotion of a row takes off the item in that place of an order."""
    offer = row.promotion
    if offer is None:
        return Decimal(0)
    if offer.kind == "first_names" and place >= offer.names:
        return Decimal(0)
    if offer.kind == "new_customers" and not new_customer:
        return Decimal(0)
    usual = row.price if row.per == "year" else row.of(years)
    return max(Decimal(0), usual - offer.price)


def _taxed(seller: Seller, on: date, lines: list[Line], subtotal: Decimal, tax: Tax) -> Order:
    """With the tax as the seller shows it: added, or held by the prices already."""
    home = rate_in(seller.country, on)
    due = Decimal(0)
    if seller.tax == "added":
        due = seller.rounded(subtotal * tax.rate) if tax.rate else due
        args = {"country": tax.country, "percent": None if tax.rate is None else tax.rate * 100}
        lines.append(Line("tax", "", due, tax.rule, args))
    elif tax.rule == "reverse" and home:
        # A business that accounts for the tax itself pays what the price is without it.
        due = seller.rounded(subtotal / (1 + home)) - subtotal
        lines.append(Line("tax", "", due, "reverse", {"country": tax.country}))
    else:
        held = subtotal - subtotal / (1 + home) if home else Decimal(0)
        lines.append(Line("tax_within", "", Decimal(0), "within", {"held": seller.rounded(held)}))
    money = (Money(amount, seller.currency) for amount in (subtotal, subtotal + due))
    return Order(seller.code, on, tuple(lines), next(money), tax, next(money))
