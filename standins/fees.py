"""What the simulated gateways charge: by the seller's own list of the day, but for names with a
price of their own.
"""

from __future__ import annotations

import csv
import io
from datetime import date
from decimal import Decimal
from functools import lru_cache

from standins.sellers import BEHIND, SELLERS, Seller, coupons_of, prices_of, quote_of
from standins.world import Offer

__all__ = ["fee_of", "privacy_of", "sells"]

CENT = Decimal("0.01")
BY_CODE = {seller.code: seller for seller in SELLERS}


@lru_cache(64)
def _list(code: str, on: date) -> dict[tuple[str, str], list[dict[str, str]]]:
    found: dict[tuple[str, str], list[dict[str, str]]] = {}
    for row in csv.DictReader(io.StringIO(prices_of(BY_CODE[code], on))):
        if not row["valid_from"] or row["valid_from"] <= on.isoformat():
            found.setdefault((row["extension"], row["action"]), []).append(row)
    return found


def taken_off(
    seller: Seller, token: str, name: str, years: int, fee: Decimal, on: date
) -> Decimal | None:
    """What a registration costs with a coupon of the seller's; None where it is none for this name.
    Those that count the names of an order, or what it comes to, are none for single names.
    """
    for row in csv.DictReader(coupons_of(seller, on).splitlines()):
        if row["code"] != token.upper() or not row["starts"] <= on.isoformat() <= row["ends"]:
            continue
        extensions = row["extensions"].split() or [name.partition(".")[2]]
        least, most = int(row["years_from"] or 1), int(row["years_to"] or 10)
        alone = not (row["least_names"] or row["least_sum"])
        fits = "register" in row["actions"] and name.partition(".")[2] in extensions
        if not (fits and alone and least <= years <= most):
            continue
        value = Decimal(row["value"])
        by_kind = {"percent": fee * (100 - value) / 100, "amount": fee - value, "price": value}
        return max(Decimal(0), by_kind[row["takes"]]).quantize(CENT)
    return None


def sells(seller: Seller, extension: str, on: date) -> bool:
    """Whether the extension can be had there."""
    return (extension, "register") in _list(seller.code, on)


def privacy_of(seller: Seller, years: int, on: date) -> Decimal:
    """What staying out of the public record costs."""
    rows = _list(seller.code, on).get(("*", "privacy"), [])
    return (Decimal(rows[0]["price"]) * years).quantize(CENT) if rows else Decimal(0)


def fee_of(
    seller: Seller, name: str, action: str, years: int, on: date, offer: Offer
) -> Decimal | None:
    """In the seller's currency, without tax; None where it is not to be had for that term. `offer`
    is how the name can be had. An offer for the first names of an order is none here, where every
    name is an order of its own.
    """
    extension = name.partition(".")[2]
    listed = _list(seller.code, on)
    fits = [
        row
        for row in listed.get((extension, action), [])
        if action in ("move", "restore") or int(row["years_from"]) <= years <= int(row["years_to"])
    ]
    if not fits:
        return None
    row = fits[0]
    price, times = Decimal(row["price"]), 1 if row["per"] == "term" else years
    amount = price * times
    if action == "register" and row["promotion"] == "first_year":
        amount -= price - Decimal(row["promotional_price"])
    if offer.kind == "premium" and action in ("register", "renew"):
        quoted = quote_of(seller, name, offer, on)
        if quoted is None:
            return None
        first, later = Decimal(str(quoted["first_year"])), Decimal(str(quoted["renewal"]))
        amount = (first if action == "register" else later) + later * (years - 1)
    else:
        behind, more = BEHIND.get(seller.code, ("", 1.0))
        amount *= Decimal(str(more)) if behind == extension else 1
    for beside in listed.get(("*", "fee"), []):
        amount += Decimal(beside["price"]) * years if action != "restore" else 0
    return amount.quantize(CENT)
