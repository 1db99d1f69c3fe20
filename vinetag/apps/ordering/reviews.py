"""The last look before paying: every name asked about again, what is otherwise than planned told,
and agreed to or not.
"""

from __future__ import annotations

import hashlib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any, Final, cast

from django.db import transaction
from django.utils import timezone
from django.utils.dateparse import parse_datetime

from vinetag.apps.accounts.errors import ConflictError
from vinetag.apps.availability.catalogue import catalogue
from vinetag.apps.availability.models import Lookup
from vinetag.apps.availability.quick import BEFORE_BUYING, look_up
from vinetag.apps.naming.models import Project
from vinetag.apps.ordering.models import BasketItem
from vinetag.apps.ordering.pricing import BasketPrices, ItemPrice
from vinetag.core.checking import STATUS_KINDS, Status, buyable, is_fresh, reason_of
from vinetag.core.extensions import eligible
from vinetag.core.names import FullName, unicode_label

__all__ = ["Reviewed", "agree", "review", "reviewed_of", "spelled"]

# So long a look before paying is one.
LASTS: Final = timedelta(minutes=30)
WORDS: Final[Mapping[str, str]] = {
    "-": "hyphen", "0": "zero", "1": "one", "2": "two", "3": "three", "4": "four", "5": "five",
    "6": "six", "7": "seven", "8": "eight", "9": "nine",
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Reviewed:
    """What the last look at an item found: its status and when; `changed` are sentences on what is
    otherwise than planned, `missing` on what stands against its owner, `asks` on what the registry
    may ask of them. It `may` be bought when nothing does, and it is `agreed` where anything
    changed. `sign` is what is agreed to.
    """

    status: str
    reason: str
    at: datetime | None
    changed: Sequence[str]
    missing: Sequence[str]
    asks: Sequence[str]
    sign: str
    agreed: bool
    may: bool


def review(items: Sequence[BasketItem], prices: BasketPrices) -> None:
    """Ask about all of it as before buying, and keep what was found beside each item."""
    by_project: dict[Project, list[FullName]] = {}
    for item in items:
        by_project.setdefault(item.project, []).append(item.name)
    for project, names in by_project.items():
        look_up(project, names, BEFORE_BUYING, "buying")
    now = timezone.now()
    for item in items:
        row = item.project.lookups.filter(label=item.label, extension=item.extension).first()
        price = prices.items[item.pk]
        seen = _seen(row, price, prices.currency, now)
        if not item.planned:
            # What it cost when it was first looked at is what was planned.
            item.planned = {**seen, "status": "open"}
        item.seen = seen
        item.save(update_fields=["seen", "planned"])


def _seen(row: Lookup | None, price: ItemPrice, currency: str, now: datetime) -> dict[str, Any]:
    status, reason = "unsure", reason_of("late")
    # What was found out for a list, or long ago, is no last look.
    if row is not None and row.aim == "buying" and _holds(row, now):
        status, reason = row.status, reason_of(row.trouble)
    known = {
        "status": status,
        "reason": reason,
        "amount": price.amount,
        "currency": currency,
        "seller": price.seller,
        "at": now.isoformat(),
    }
    about = f"{status} {price.amount} {currency} {price.seller}"
    return {**known, "sign": hashlib.sha256(about.encode()).hexdigest()[:32]}


def _holds(row: Lookup, now: datetime) -> bool:
    if row.asked_at is None or row.status in ("unsure", "barred"):
        return row.asked_at is not None
    return is_fresh(cast(Status, row.status), row.asked_at, now)


def reviewed_of(item: BasketItem) -> Reviewed:
    """What the last look found, as far as there was one."""
    seen, planned = item.seen, item.planned
    at = parse_datetime(seen.get("at", "")) if seen else None
    missing, asks = _owner_says(item)
    if not seen:
        return Reviewed("unasked", "", None, (), missing, asks, "", False, False)
    status = str(seen["status"])
    changed = list(_changes(planned, seen))
    agreed = not changed or item.agreed == seen["sign"]
    young = at is not None and timezone.now() - at <= LASTS
    sold = seen["amount"] is not None
    may = status in buyable() and agreed and young and sold and not missing
    return Reviewed(
        status, str(seen.get("reason", "")), at, changed, missing, asks, str(seen["sign"]), agreed,
        may,
    )  # fmt: skip


def _changes(planned: Mapping[str, Any], seen: Mapping[str, Any]) -> Sequence[str]:
    found = []
    status = str(seen["status"])
    if status == "unsure":
        found.append("It could not be found out whether it can be registered.")
    elif status not in buyable():
        kind = STATUS_KINDS.get(status)
        found.append(f"It cannot be registered now: it is {kind.word if kind else status}.")
    elif status == "premium" and planned.get("status") != "premium":
        found.append("The registry asks a price of its own for it.")
    before, now, currency = planned.get("amount"), seen["amount"], seen["currency"]
    if now is None:
        found.append("No seller sells it for this term.")
    elif before is not None and planned.get("currency") == currency and before != now:
        how = "more" if now > before else "less"
        found.append(
            f"It costs {how} than planned: {_money(now, currency)}, not {_money(before, currency)}."
        )
    return found


def _money(thousandths: int, currency: str) -> str:
    cents = (thousandths + 5) // 10
    return f"{cents // 100:,}.{cents % 100:02} {currency}"


def _owner_says(item: BasketItem) -> tuple[list[str], list[str]]:
    """What rules out the owner the project's brief names, and what cannot be told from that."""
    owner = item.project.brief.get("owner", {})
    entry = catalogue()[item.extension]
    found = eligible(entry.eligibility, owner.get("country", ""), owner.get("kind", ""))
    if found.may == "no":
        return [found.sentence], []
    return [], [found.sentence] if found.may == "ask" else []


def agree(item: BasketItem, sign: str) -> None:
    """Agree to what the last look found: that is what is planned from now on. Raises ConflictError
    where it is otherwise by now, or cannot be bought.
    """
    with transaction.atomic():
        row = BasketItem.objects.select_for_update().get(pk=item.pk)
        if not sign or row.seen.get("sign") != sign:
            message = "This is otherwise by now. Look at it again."
            raise ConflictError("changed_elsewhere", message)
        if row.seen["status"] not in buyable() or row.seen["amount"] is None:
            raise ConflictError("not_sold", "It cannot be bought now.")
        row.planned, row.agreed = dict(row.seen), sign
        row.save(update_fields=["planned", "agreed"])


def spelled(name: FullName) -> list[tuple[str, str]]:
    """A full name letter by letter, each as it is said: capital letters, figures and hyphens by
    their words.
    """
    words = {**WORDS, ".": "dot"}
    text = f"{unicode_label(name.label)}.{name.extension}"
    return [(letter, words.get(letter, letter.upper())) for letter in text]
