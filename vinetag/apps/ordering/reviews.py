"""The last look before paying: every name asked about again, what is otherwise than planned told,
and agreed to or not.
"""

from __future__ import annotations

import hashlib
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any, Final, cast

from django.db import transaction
from django.utils import timezone
from django.utils.dateparse import parse_datetime

from vinetag.apps.accounts.errors import ConflictError
from vinetag.apps.availability.models import Lookup
from vinetag.apps.availability.quick import BEFORE_BUYING, look_up
from vinetag.apps.naming.models import Project
from vinetag.apps.ordering.asked import ask_gateways
from vinetag.apps.ordering.gateways import has_gateway
from vinetag.apps.ordering.models import BasketItem
from vinetag.apps.ordering.owners import Owners
from vinetag.apps.ordering.pricing import BasketPrices, ItemPrice
from vinetag.core.checking import STATUS_KINDS, Status, buyable, is_fresh, reason_of
from vinetag.core.names import FullName, unicode_label
from vinetag.core.ordering import said_in_words

__all__ = ["Reviewed", "agree", "plan", "review", "reviewed_of", "spelled"]

# So long a look before paying is one.
LASTS: Final = timedelta(minutes=30)
WORDS: Final[Mapping[str, str]] = {
    "-": "hyphen", "0": "zero", "1": "one", "2": "two", "3": "three", "4": "four", "5": "five",
    "6": "six", "7": "seven", "8": "eight", "9": "nine",
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Reviewed:
    """What the last look at an item found: its status and when; `changed` are sentences on what is
    otherwise than planned by now, `missing` on what stands against its owner, `asks` on what the
    registry may ask of them. It `may` be bought when nothing does and everything is known.
    `sign` is what is agreed to, "" where that cannot be. It can be ordered `here` when its seller's
    gateway said so, too; `not_here` tells why not.
    """

    status: str
    reason: str
    at: datetime | None
    changed: Sequence[str]
    missing: Sequence[str]
    asks: Sequence[str]
    sign: str
    may: bool
    here: bool = False
    not_here: str = ""


def plan(items: Sequence[BasketItem], prices: BasketPrices) -> None:
    """What these cost by now is what is planned, and they are to be looked at again."""
    for item in items:
        item.planned, item.seen = _planned(prices.items[item.pk], prices.currency), {}
        item.save(update_fields=["planned", "seen"])


def _planned(price: ItemPrice, currency: str) -> dict[str, Any]:
    return {
        "amount": price.amount,
        "currency": currency,
        "seller": price.seller,
        "premium": price.premium,
    }


def review(items: Sequence[BasketItem], prices: BasketPrices, owners: Owners) -> None:
    """Ask about all of it as before buying, registries and the sellers' gateways, and keep what was
    found beside each item.
    """
    by_project: dict[Project, list[FullName]] = {}
    for item in items:
        by_project.setdefault(item.project, []).append(item.name)
    for project, names in by_project.items():
        look_up(project, names, BEFORE_BUYING, "buying")
    said = ask_gateways(items, prices, owners)
    now = timezone.now()
    for item in items:
        row = item.project.lookups.filter(label=item.label, extension=item.extension).first()
        item.seen = _seen(row, now)
        if item.pk in said:
            item.seen["gateway"] = said[item.pk]
        item.save(update_fields=["seen"])


def _seen(row: Lookup | None, now: datetime) -> dict[str, Any]:
    status, reason = "unsure", reason_of("late")
    # What was found out for a list, or long ago, is no last look.
    if row is not None and row.aim == "buying" and _holds(row, now):
        status, reason = row.status, reason_of(row.trouble)
    return {"status": status, "reason": reason, "at": now.isoformat()}


def _holds(row: Lookup, now: datetime) -> bool:
    if row.asked_at is None or row.status in ("unsure", "barred"):
        return row.asked_at is not None
    return is_fresh(cast(Status, row.status), row.asked_at, now)


def reviewed_of(item: BasketItem, price: ItemPrice, currency: str, owners: Owners) -> Reviewed:
    """What the last look found, as far as there was one, beside what it costs by now."""
    seen = item.seen
    missing, asks = owners.says(item)
    if not seen:
        return Reviewed("unasked", "", None, (), missing, asks, "", False)
    at, status = parse_datetime(seen["at"]), str(seen["status"])
    gateway = seen.get("gateway") or {}
    told = gateway if gateway.get("seller") == price.seller else {}
    refused = str(told.get("refused", ""))
    hidden = status == "premium" and not price.premium
    changed = [
        *_status_says(status, price, hidden=hidden),
        *([f"{price.seller_name} does not sell it: {refused}."] if refused else []),
        *_price_says(item.planned, price, currency),
    ]
    missing = [*missing, *([str(told["contact"])] if told.get("contact") else [])]
    sold = status in buyable() and price.amount is not None and not hidden and not refused
    young = at is not None and timezone.now() - at <= LASTS
    may = sold and young and not changed and not missing and not price.waiting
    sign = _sign(status, price, currency) if sold and changed else ""
    not_here = _why_not_here(item, price, told, owners)
    return Reviewed(
        status, str(seen["reason"]), at, changed, missing, asks, sign, may,
        may and not not_here, not_here,
    )  # fmt: skip


def _why_not_here(
    item: BasketItem, price: ItemPrice, told: Mapping[str, Any], owners: Owners
) -> str:
    """Why a name cannot be ordered here, "" where nothing is in the way."""
    if not price.seller:
        return "No seller sells it for this term."
    if not has_gateway(price.seller):
        return f"Nothing can be ordered here from {price.seller_name}."
    if owners.set_of(item) is None:
        return "Nobody is named whom it is for."
    if told.get("trouble"):
        return f"{said_in_words(0, str(told['trouble']))} ({price.seller_name})"
    if not price.told:
        return f"{price.seller_name} has not been asked what it takes for it."
    return ""


def _sign(status: str, price: ItemPrice, currency: str) -> str:
    about = f"{status} {price.amount} {currency} {price.seller} {price.premium}"
    return hashlib.sha256(about.encode()).hexdigest()[:32]


def _status_says(status: str, price: ItemPrice, *, hidden: bool) -> Iterator[str]:
    if status == "unsure":
        yield "It could not be found out whether it can be registered."
    elif status not in buyable():
        kind = STATUS_KINDS.get(status)
        yield f"It cannot be registered now: it is {kind.word if kind else status}."
    elif hidden:
        yield f"It has a price of its own, which {price.seller_name or 'no seller'} has not told."


def _price_says(planned: Mapping[str, Any], price: ItemPrice, currency: str) -> Iterator[str]:
    before, now = planned.get("amount"), price.amount
    if now is None:
        yield "No seller sells it for this term."
        return
    if price.premium and not planned.get("premium"):
        yield "The registry asks a price of its own for it."
    if before is not None and planned.get("currency") == currency and before != now:
        how = "more" if now > before else "less"
        amounts = f"{_money(now, currency)}, not {_money(before, currency)}"
        yield f"It costs {how} than planned: {amounts}."


def _money(thousandths: int, currency: str) -> str:
    cents = (thousandths + 5) // 10
    return f"{cents // 100:,}.{cents % 100:02} {currency}"


def agree(item: BasketItem, price: ItemPrice, currency: str, sign: str, owners: Owners) -> None:
    """Agree to what the last look found and what it costs: that is what is planned from now on.
    Raises ConflictError where it is otherwise by now, or cannot be bought.
    """
    with transaction.atomic():
        row = BasketItem.objects.select_for_update().select_related("project").get(pk=item.pk)
        found = reviewed_of(row, price, currency, owners)
        if not found.sign:
            raise ConflictError("not_sold", "There is nothing to agree to.")
        if found.sign != sign:
            message = "This is otherwise by now. Look at it again."
            raise ConflictError("changed_elsewhere", message)
        row.planned = _planned(price, currency)
        row.save(update_fields=["planned"])


def spelled(name: FullName) -> list[tuple[str, str]]:
    """A full name letter by letter, each as it is said: capital letters, figures and hyphens by
    their words.
    """
    words = {**WORDS, ".": "dot"}
    text = f"{unicode_label(name.label)}.{name.extension}"
    return [(letter, words.get(letter, letter.upper())) for letter in text]
