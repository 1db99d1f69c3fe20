"""The order as a file, and as one reads it from paper at any seller: CSV and JSON."""

from __future__ import annotations

import json
from collections.abc import Sequence
from typing import Any, Final

from django.utils import timezone

from vinetag.apps.ordering.models import BasketItem
from vinetag.apps.ordering.owners import Owners
from vinetag.apps.ordering.pricing import BasketPrices
from vinetag.apps.ordering.reviews import reviewed_of
from vinetag.core.names import unicode_label
from vinetag.core.spreadsheet import as_csv

__all__ = ["COLUMNS", "FORMAT", "order_file"]

FORMAT: Final = "vinetag-order"
VERSION: Final = 1
COLUMNS: Final = (
    "full name", "as typed", "years", "renewal", "privacy", "name servers", "coupon", "seller",
    "price now", "currency", "status", "looked at (UTC)",
)  # fmt: skip


def order_file(
    items: Sequence[BasketItem], prices: BasketPrices, owners: Owners, form: str
) -> bytes:
    """One name a row; `form` is csv or json. Prices are what the term costs now, with tax."""
    rows = [_row(item, prices, owners) for item in items]
    if form == "csv":
        return as_csv(COLUMNS, [_cells(row) for row in rows])
    document = {
        "format": FORMAT,
        "version": VERSION,
        "written_at": timezone.now().isoformat(timespec="seconds"),
        "country": prices.country,
        "currency": prices.currency,
        "total": neat_thousandths(prices.total),
        "names": rows,
    }
    return json.dumps(document, ensure_ascii=False, indent=1, default=str).encode()


def _row(item: BasketItem, prices: BasketPrices, owners: Owners) -> dict[str, Any]:
    price = prices.items[item.pk]
    seen = reviewed_of(item, price, prices.currency, owners)
    return {
        "full_name": str(item.name),
        "as_typed": f"{unicode_label(item.label)}.{item.extension}",
        "years": item.years,
        "renewal": item.renewal,
        "privacy": item.privacy,
        "name_servers": list(item.servers),
        "coupon": item.coupon,
        "seller": price.seller_name,
        "price_now": None if price.amount is None else neat_thousandths(price.amount),
        "currency": prices.currency,
        "status": seen.status,
        "looked_at": None if seen.at is None else seen.at.isoformat(timespec="minutes"),
    }


def _cells(row: dict[str, Any]) -> list[Any]:
    cells = dict(row)
    cells["privacy"] = "yes" if row["privacy"] else "no"
    cells["name_servers"] = " ".join(row["name_servers"])
    return ["" if value is None else value for value in cells.values()]


def neat_thousandths(amount: int) -> str:
    """An amount in digits, of two decimal places."""
    cents = (amount + 5) // 10
    return f"{cents // 100}.{cents % 100:02}"
