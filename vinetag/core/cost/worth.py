"""What one coupon would take off an order of some names."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date
from typing import Final

from vinetag.core.cost.coupons import Coupon
from vinetag.core.cost.market import Market
from vinetag.core.cost.orders import Item, PricedItem, close_order, price_item
from vinetag.core.cost.prices import Action

__all__ = ["coupon_worth"]

# Of what a coupon is for, the first of these is what it is weighed by.
WEIGHED: Final[tuple[Action, ...]] = ("register", "move", "renew")


def coupon_worth(market: Market, coupon: Coupon, items: Sequence[Item], on: date) -> int:
    """What it takes off, with the tax on it, in thousandths of the market's currency, when the
    items are bought together at its seller, for as many years as it needs; 0 where its conditions
    do not hold. Items that are not offered there are left out. Raises RateError for a currency
    without a rate.
    """
    action = next((one for one in WEIGHED if one in coupon.actions), None)
    if action is None or not coupon.holds(on):
        return 0
    seller, prices = market.sellers[coupon.seller], market.prices[coupon.seller]
    new = coupon.seller not in market.buyer.customer_of
    found: list[PricedItem] = []
    for item in items:
        wanted = item._replace(action=action, years=max(seller.years_min, coupon.years_from))
        priced = price_item(seller, prices, wanted, on, market.buyer, len(found), new_customer=new)
        if priced is not None:
            found.append(priced)
    if not found:
        return 0
    whole, less = (
        close_order(seller, found, on, market.buyer, new_customer=new, coupons=coupons)
        for coupons in ((), (coupon,))
    )
    return market.amount(whole) - market.amount(less)
