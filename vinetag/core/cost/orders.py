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

__all__ = ["Item", "Line", "LineKind", "Order", "price_order"]

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
    """An order as it would be on a day. `total` is with tax where that is known."""

    seller: str
    on: date
    lines: tuple[Line, ...]
    net: Money
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
    lines: list[Line] = []
    eligible: list[Eligible] = []
    for place, item in enumerate(items):
        priced = _item(seller, prices, item, on, buyer, place, new_customer)
        if priced is None:
            return None
        own, may_be_less = priced
        lines += own
        eligible.append(may_be_less)
    for coupon, off in best_coupons(coupons, eligible, new_customer=new_customer):
        args = {"code": coupon.code, "kind": coupon.kind, "value": coupon.value}
        lines.append(Line("coupon", "", -seller.rounded(off), "coupon", args))
    net = sum((line.amount for line in lines), Decimal(0))
    tax = tax_of(seller, buyer, on)
    return _taxed(seller, on, lines, net, tax)


def _item(
    seller: Seller,
    prices: PriceList,
    item: Item,
    on: date,
    buyer: Buyer,
    place: int,
    new_customer: bool,
) -> tuple[list[Line], Eligible] | None:
    """The lines of one item, and what a coupon may take off."""
    if item.action == "register" and not seller.years_min <= item.years <= seller.years_max:
        return None
    row = prices.find(item.extension, item.action, item.years, on)
    if row is None:
        return None
    name, years = item.full_name, item.years
    kind = KINDS[item.action]
    promotional = False
    if item.quoted:
        later = item.quoted.renewal
        first = item.quoted.first_year if item.action == "register" else later
        amount = first + later * (years - 1)
        reason = "premium" if item.quoted.premium else "quoted"
        lines = [Line(kind, name, seller.rounded(amount), reason, {"years": years, "later": later})]
    else:
        amount = row.of(years)
        first = row.price if row.per == "year" else amount
        args = {"years": years, "price": row.price, "per": row.per, "dated": prices.dated}
        lines = [Line(kind, name, seller.rounded(amount), "list", args)]
        less = _promoted(row, years, place, new_customer)
        if row.promotion and less > 0:
            promotional = True
            args = {"price": row.promotion.price, "until": row.valid_until}
            line = Line("promotion", name, -seller.rounded(less), row.promotion.kind, args)
            lines.append(line)
            amount, first = amount - less, first - less
    for action, word in (("privacy", "privacy"), ("fee", "registry_fee")):
        if action == "privacy" and not (buyer.privacy and seller.privacy == "charged"):
            continue
        beside = prices.find(item.extension, action, years, on)  # type: ignore[arg-type]
        if beside is not None and beside.price:
            args = {"years": years, "price": beside.price, "per": beside.per, "dated": prices.dated}
            lines.append(Line(word, name, seller.rounded(beside.of(years)), "list", args))  # type: ignore[arg-type]
    return lines, Eligible(item.extension, item.action, years, amount, first, promotional)


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


def _taxed(seller: Seller, on: date, lines: list[Line], net: Decimal, tax: Tax) -> Order:
    """With the tax as the seller shows it: added, or held by the prices already."""
    home = rate_in(seller.country, on)
    due = Decimal(0)
    if seller.tax == "added":
        due = seller.rounded(net * tax.rate) if tax.rate else due
        args = {"country": tax.country, "percent": None if tax.rate is None else tax.rate * 100}
        lines.append(Line("tax", "", due, tax.rule, args))
    elif tax.rule == "reverse" and home:
        # A business that accounts for the tax itself pays what the price is without it.
        due = seller.rounded(net / (1 + home)) - net
        lines.append(Line("tax", "", due, "reverse", {"country": tax.country}))
    else:
        held = net - net / (1 + home) if home else Decimal(0)
        lines.append(Line("tax_within", "", Decimal(0), "within", {"held": seller.rounded(held)}))
    money = (Money(amount, seller.currency) for amount in (net, net + due))
    return Order(seller.code, on, tuple(lines), next(money), tax, next(money))
