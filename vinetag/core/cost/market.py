"""Everything needed to price an order, and prices of single terms kept once they are known."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Hashable, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date, timedelta
from decimal import Decimal
from typing import Any, NamedTuple

from vinetag.core.cost.coupons import Coupon
from vinetag.core.cost.orders import Item, Order, price_order
from vinetag.core.cost.prices import EVERY, Action, PriceList, Quoted
from vinetag.core.cost.rates import Rates
from vinetag.core.cost.sellers import Buyer, Seller
from vinetag.core.cost.tax import Tax, days_of_change, tax_of
from vinetag.core.money import Money, thousandths

__all__ = ["Market", "Priced", "Term"]


class Term(NamedTuple):
    """One thing bought alone: what, where, for how many years, and on which day."""

    seller: str
    extension: str
    action: Action
    years: int
    on: date
    new_customer: bool = False
    quoted: Quoted | None = None


class Priced(NamedTuple):
    """What a term costs: its order, and the total in thousandths of the currency asked for."""

    order: Order
    amount: int


@dataclass
class Market:
    """Sellers with their lists and coupons, and the exchange rates, for one buyer who wants to see
    `currency`. Amounts that fall due later are converted by the rate of `today`. `kept` is for
    what is worked out of it once.
    """

    sellers: Mapping[str, Seller]
    prices: Mapping[str, PriceList]
    coupons: Mapping[str, Sequence[Coupon]]
    rates: Rates
    buyer: Buyer
    currency: str
    today: date
    kept: dict[Hashable, Any] = field(default_factory=dict, repr=False, compare=False)
    _known: dict[Term, Priced | None] = field(default_factory=dict, repr=False)
    _edges: dict[tuple[str, str], list[date]] = field(default_factory=dict, repr=False)

    def price(self, term: Term) -> Priced | None:
        """What it costs, None where it is not offered. Raises RateError for a currency without a
        rate.
        """
        term = term._replace(on=self._same(term.seller, term.extension, term.on))
        if term not in self._known:
            self._known[term] = self._price(term)
        return self._known[term]

    def order(
        self, seller: str, items: Sequence[Item], on: date, *, new_customer: bool
    ) -> Order | None:
        """An order of several things at once, with the coupons that take most off."""
        return price_order(
            self.sellers[seller], self.prices[seller], items, on, self.buyer,
            new_customer=new_customer,
            coupons=self.usable(seller, on),
        )  # fmt: skip

    def usable(self, seller: str, on: date) -> list[Coupon]:
        """The seller's coupons that hold on that day."""
        return [c for c in self.coupons.get(seller, ()) if c.holds(on)]

    def amount(self, order: Order) -> int:
        """The total in thousandths of the market's currency."""
        converted = self.rates.convert(order.total, self.currency, self.today)
        return thousandths(converted.money.amount)

    def paid_in(self, order: Order) -> int:
        """What has to be paid at once for it, in thousandths of the market's currency: more than
        the total where the seller is paid from an account that has to be filled first.
        """
        whole = self.sellers[order.seller].paid_in(order.total.amount)
        money = Money(whole, order.total.currency)
        return thousandths(self.rates.convert(money, self.currency, self.today).money.amount)

    def tax(self, seller: str) -> Tax:
        """What the seller adds today."""
        return tax_of(self.sellers[seller], self.buyer, self.today)

    def at_most(self, seller: str, amount: Decimal) -> int:
        """An amount of the seller's with the tax on it, in thousandths of the market's currency,
        rounded up.
        """
        rate = self.tax(seller).rate or Decimal(0)
        whole = Money(amount * (1 + rate), self.sellers[seller].currency)
        return thousandths(self.rates.convert(whole, self.currency, self.today).money.amount) + 1

    def _price(self, term: Term) -> Priced | None:
        item = Item("name", term.extension, term.action, term.years, term.quoted)
        order = self.order(term.seller, [item], term.on, new_customer=term.new_customer)
        return None if order is None else Priced(order, self.amount(order))

    def _same(self, seller: str, extension: str, on: date) -> date:
        """The first day from which on nothing changes until `on`: terms of both cost the same."""
        edges = self._edges.get((seller, extension))
        if edges is None:
            found = {self.today, *days_of_change()}
            for row in self.prices[seller].rows:
                if row.extension in (extension, EVERY):
                    found.add(row.valid_from)
                    if row.valid_until < date.max:
                        found.add(row.valid_until + timedelta(1))
            for coupon in self.coupons.get(seller, ()):
                found.add(coupon.starts)
                if coupon.ends < date.max:
                    found.add(coupon.ends + timedelta(1))
            edges = self._edges[seller, extension] = sorted(found)
        return max(edges[bisect_right(edges, on) - 1], self.today)
