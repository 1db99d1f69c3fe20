"""What of one full name became otherwise, and is worth telling."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime, timedelta
from decimal import Decimal
from typing import Final

from vinetag.core.concepts import HappeningName
from vinetag.core.watching.seen import Seen

__all__ = ["Change", "changes"]

DAY: Final = timedelta(days=1)
# Registries round moments, and offers of one list are a second apart.
A_LITTLE: Final = timedelta(minutes=1)
# Statuses in which a name is let go, or can be had again.
LET_GO: Final = frozenset({"dropping", "open", "premium"})


@dataclass(frozen=True, slots=True)
class Change:
    """`what` became otherwise, from `before` to `after`: statuses and kinds by name, prices as
    "12.00 EUR", moments in ISO 8601; "" for nothing.
    """

    what: HappeningName
    before: str
    after: str


def changes(before: Seen, after: Seen, *, expiry_only: bool = False) -> list[Change]:
    """What became otherwise. Nothing is told by the first look, nor by one that found nothing out;
    what is not known any more is not told to have gone. `expiry_only`: nothing of offers and
    prices.
    """
    if not before.status or not after.status:
        return []
    found = list(_of_dates(before, after))
    if before.status != after.status:
        if not expiry_only or after.status in LET_GO or before.status in LET_GO:
            found.insert(0, Change("status", before.status, after.status))
    elif not expiry_only:
        found += _of_offers(before, after)
    return found


def _of_offers(before: Seen, after: Seen) -> Iterator[Change]:
    if before.kind and after.kind and before.kind != after.kind:
        yield Change("kind", before.kind, after.kind)
    elif before.kind == after.kind == "auction":
        # Bids rise by themselves; that its end is another is what one has to know.
        if before.ends and after.ends and abs(after.ends - before.ends) > A_LITTLE:
            yield Change("extended", _moment(before.ends), _moment(after.ends))
    else:
        old = _price(before.price, before.currency)
        new = _price(after.price, after.currency)
        if old != new and old and new:
            yield Change("price", old, new)
    old = _price(before.first_year, before.terms_currency)
    new = _price(after.first_year, after.terms_currency)
    if old and new and old != new:
        yield Change("terms", old, new)


def _of_dates(before: Seen, after: Seen) -> Iterator[Change]:
    if before.expires and after.expires and abs(after.expires - before.expires) >= DAY:
        yield Change("expires", _moment(before.expires), _moment(after.expires))
    if before.status == after.status == "dropping" and _moved(before, after):
        yield Change("drops", _range(before), _range(after))


def _moved(before: Seen, after: Seen) -> bool:
    """Whether the range is another than it was, more than by what it is unsure of itself."""
    if not (after.drops_from and after.drops_to):
        return False
    if not (before.drops_from and before.drops_to):
        return True
    width = before.drops_to - before.drops_from
    middle = before.drops_from + width / 2
    now = after.drops_from + (after.drops_to - after.drops_from) / 2
    return abs(now - middle) > max(DAY, width / 2)


def _range(seen: Seen) -> str:
    if not (seen.drops_from and seen.drops_to):
        return ""
    return f"{_moment(seen.drops_from)}/{_moment(seen.drops_to)}"


def _moment(at: datetime) -> str:
    return at.isoformat()


def _price(amount: Decimal | None, currency: str) -> str:
    return "" if amount is None else f"{amount:.2f} {currency}".strip()
