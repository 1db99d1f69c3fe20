"""Sellers and their lists, kept up to date."""

from __future__ import annotations

import asyncio
import hashlib
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta
from functools import lru_cache
from typing import Any, Final

from django.core.cache import cache
from django.db import transaction
from django.utils import timezone

from vinetag.apps.accounts.models import User
from vinetag.apps.availability.lookups import lookup_settings
from vinetag.apps.costs.listing import prices_changed
from vinetag.apps.costs.markets import known_extensions, may_change, price_version, sellers_for
from vinetag.apps.costs.models import PriceVersion, SellerRow
from vinetag.core.cost import PriceChange, changes_between
from vinetag.core.cost.seller_documents import SellerEntry, read_seller, seller_document
from vinetag.lookup.feeds import Validators
from vinetag.lookup.sellers import FoundSellers, fetch_sellers

__all__ = [
    "STALE_AFTER", "SellerState", "ask_again", "is_due", "new_version", "refresh_sellers",
    "seller_states",
]  # fmt: skip

EVERY: Final = timedelta(days=1)
# After a failure it is tried again sooner.
AGAIN: Final = timedelta(minutes=20)
STALE_AFTER: Final = timedelta(days=3)
KEPT_FRESH: Final = timedelta(days=366)
MOST_CHANGES: Final = 40
# In the cache: that somebody asks just now, and that they were asked lately.
UNDER_WAY: Final = "sellers-under-way"
ASKED: Final = "sellers-asked"
LONGEST_REFRESH: Final = 300


@dataclass(frozen=True)
class SellerState:
    """A seller as the interface shows it: the day of its list, whether that is stale, what went
    wrong since, and what changed from the list before; whether it is kept by hand, and whether it
    is the person's own, and may be changed by them.
    """

    entry: SellerEntry
    dated: date | None
    fetched_at: datetime | None
    stale: bool
    trouble: str
    changes: Sequence[PriceChange]
    changed_on: date | None
    by_hand: bool
    own: bool
    may_change: bool

    @property
    def terms(self) -> dict[str, Any]:
        """Its entry, as documents have it."""
        return seller_document(self.entry)

    @property
    def publishes(self) -> bool:
        """Whether it has a list that can be asked for."""
        return bool(self.entry.prices)


def is_due(now: datetime | None = None) -> bool:
    """Whether the sellers are to be asked again: once a day, and sooner after a failure."""
    if not lookup_settings().sellers:
        return False
    now = now or timezone.now()
    followed = SellerRow.objects.filter(listed=True, by_hand=False)
    rows = followed.values_list("asked_at", "fetched_at")
    if not rows:
        return cache.get(ASKED) is None
    return any(
        asked < now - (EVERY if fetched and fetched >= asked else AGAIN) for asked, fetched in rows
    )


def ask_again() -> None:
    """Makes the sellers due: they are asked by the next round of the schedule at the latest."""
    SellerRow.objects.filter(by_hand=False).update(
        asked_at=datetime.min.replace(year=2000, tzinfo=UTC)
    )
    cache.delete(ASKED)


def refresh_sellers() -> FoundSellers | None:
    """Ask for everything, and keep what is new. A file that cannot be had or read leaves the one
    there is in force, and is told of. None when somebody else is at it.
    """
    if not cache.add(UNDER_WAY, 1, LONGEST_REFRESH):
        return None
    try:
        validators = {
            (row.code, what): Validators(*given)
            for row in SellerRow.objects.filter(by_hand=False)
            for what, given in row.validators.items()
        }
        known = frozenset(known_extensions())
        today = timezone.localdate()
        found = asyncio.run(fetch_sellers(lookup_settings(), known, today, validators))
        _keep(found, today)
        prices_changed()
        cache.set(ASKED, 1, AGAIN.total_seconds())
        return found
    finally:
        cache.delete(UNDER_WAY)


def _keep(found: FoundSellers, today: date) -> None:
    now = timezone.now()
    troubles: dict[str, list[str]] = {}
    for code, what in found.troubles:
        troubles.setdefault(code, []).append(what)
    of_all = "\n".join(troubles.get("", ()))
    with transaction.atomic():
        others = SellerRow.objects.filter(by_hand=False).exclude(code__in=found.entries)
        if of_all:
            # Those not told of may be among what could not be read.
            others.update(trouble=of_all, asked_at=now)
        else:
            others.update(listed=False)
        for place, (code, entry) in enumerate(found.entries.items()):
            row, _ = SellerRow.objects.get_or_create(
                code=code, defaults={"terms": {}, "asked_at": now}
            )
            if row.by_hand:
                continue
            row.place, row.listed, row.asked_at = place, True, now
            row.terms = seller_document(entry)
            for what in ("prices", "coupons"):
                _keep_file(row, what, found, today, now)
            # What was wrong with a file that has not changed is wrong still.
            row.trouble = "\n".join(troubles.get(code, ()))
            row.save()


def _keep_file(row: SellerRow, what: str, found: FoundSellers, today: date, now: datetime) -> None:
    """One file of a seller. Only one that is right in every line is not asked for again unless it
    changed: of another it has to be told each time what is wrong.
    """
    file = found.files.get((row.code, what))
    if file is None or file.trouble:
        return
    if file.text is None:
        taken = True
    elif what == "prices":
        taken = bool(found.prices[row.code].rows)
        if taken:
            new_version(row, file.text, today)
    else:
        taken = bool(found.coupons[row.code]) or (row.code, what) in found.whole
        if taken:
            row.coupons = file.text
    if file.text is not None:
        row.validators.pop(what, None)
        if (row.code, what) in found.whole:
            row.validators[what] = list(file.validators)
    if taken and what == "prices":
        row.fetched_at = now


def new_version(row: SellerRow, text: str, today: date) -> None:
    """Another version, unless the newest says the same."""
    digest = hashlib.sha256(text.encode()).hexdigest()
    newest = row.versions.order_by("-id").first()
    if newest is None or newest.digest != digest:
        content = PriceVersion.packed(text)
        row.versions.create(dated=today, digest=digest, content=content)


def seller_states(person: User, now: datetime | None = None) -> list[SellerState]:
    """Every seller the person sees."""
    now = now or timezone.now()
    known = known_extensions()
    found = []
    for row in sellers_for(person):
        entry = read_seller(row.terms)
        versions = list(row.versions.order_by("-id").values_list("pk", "dated")[:2])
        changes: Sequence[PriceChange] = ()
        if len(versions) == 2:
            (later, _), (earlier, _) = versions
            changes = _changes(earlier, later, row.code, entry.currency, known)
        found.append(
            SellerState(
                entry,
                versions[0][1] if versions else None,
                row.fetched_at,
                _is_stale(row, now),
                row.trouble,
                changes,
                versions[0][1] if changes else None,
                row.by_hand,
                row.owner_id is not None,
                may_change(person, row),
            )
        )
    return found


def _is_stale(row: SellerRow, now: datetime) -> bool:
    """Lists that are asked for grow stale after some days, those kept by hand after a year."""
    lasts = KEPT_FRESH if row.by_hand else STALE_AFTER
    return row.fetched_at is None or row.fetched_at < now - lasts


@lru_cache(maxsize=64)
def _changes(
    earlier: int, later: int, code: str, currency: str, known: tuple[str, ...]
) -> Sequence[PriceChange]:
    """What changed between two versions; those of the extensions people ask for most come first."""
    before, after = (price_version(pk, code, currency, known) for pk in (earlier, later))
    places = {extension: place for place, extension in enumerate(known)}
    changes = changes_between(before, after, before.dated, after.dated)
    return sorted(changes, key=lambda c: places.get(c.extension, -1))[:MOST_CHANGES]
