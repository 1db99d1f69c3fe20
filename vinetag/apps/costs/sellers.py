"""Sellers and their lists, kept up to date; a market made of them."""

from __future__ import annotations

import asyncio
import hashlib
import zlib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta
from functools import lru_cache
from typing import Final

from django.core.cache import cache
from django.db import transaction
from django.utils import timezone

from vinetag.apps.availability.catalogue import catalogue
from vinetag.apps.availability.lookups import lookup_settings
from vinetag.apps.costs.models import PriceVersion, SellerRow
from vinetag.core.cost import Buyer, Coupon, Market, PriceChange, PriceList, changes_between
from vinetag.core.cost.bank_rates import shipped_rates
from vinetag.core.cost.coupon_files import read_coupons
from vinetag.core.cost.price_files import read_price_list
from vinetag.core.cost.seller_documents import SellerEntry, read_seller, seller_document
from vinetag.lookup.feeds import Validators
from vinetag.lookup.sellers import FoundSellers, fetch_sellers

__all__ = [
    "STALE_AFTER", "SellerState", "ask_again", "is_due", "market_for", "refresh_sellers",
    "seller_states",
]  # fmt: skip

EVERY: Final = timedelta(days=1)
# After a failure it is tried again sooner.
AGAIN: Final = timedelta(minutes=20)
STALE_AFTER: Final = timedelta(days=3)
MOST_CHANGES: Final = 40
# In the cache: that somebody asks just now, and that they were asked lately.
UNDER_WAY: Final = "sellers-under-way"
ASKED: Final = "sellers-asked"
LONGEST_REFRESH: Final = 300


@dataclass(frozen=True)
class SellerState:
    """A seller as the interface shows it: the day of its list, whether that is stale, what went
    wrong since, and what changed from the list before.
    """

    entry: SellerEntry
    dated: date | None
    fetched_at: datetime | None
    stale: bool
    trouble: str
    changes: Sequence[PriceChange]
    changed_on: date | None


def is_due(now: datetime | None = None) -> bool:
    """Whether the sellers are to be asked again: once a day, and sooner after a failure."""
    if not lookup_settings().sellers:
        return False
    now = now or timezone.now()
    rows = SellerRow.objects.filter(listed=True).values_list("asked_at", "fetched_at")
    if not rows:
        return cache.get(ASKED) is None
    return any(
        asked < now - (EVERY if fetched and fetched >= asked else AGAIN) for asked, fetched in rows
    )


def ask_again() -> None:
    """Makes the sellers due: they are asked by the next round of the schedule at the latest."""
    SellerRow.objects.update(asked_at=datetime.min.replace(year=2000, tzinfo=UTC))
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
            for row in SellerRow.objects.all()
            for what, given in row.validators.items()
        }
        known = frozenset(entry.extension for entry in catalogue())
        today = timezone.localdate()
        found = asyncio.run(fetch_sellers(lookup_settings(), known, today, validators))
        _keep(found, today)
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
        others = SellerRow.objects.exclude(code__in=found.entries)
        if of_all:
            # Those not told of may be among what could not be read.
            others.update(trouble=of_all, asked_at=now)
        else:
            others.update(listed=False)
        for place, (code, entry) in enumerate(found.entries.items()):
            row, _ = SellerRow.objects.get_or_create(
                code=code, defaults={"terms": {}, "asked_at": now}
            )
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
            _new_version(row, file.text, today)
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


def _new_version(row: SellerRow, text: str, today: date) -> None:
    """Another version, unless the newest says the same."""
    digest = hashlib.sha256(text.encode()).hexdigest()
    newest = row.versions.order_by("-id").first()
    if newest is None or newest.digest != digest:
        content = zlib.compress(text.encode(), 6)
        row.versions.create(dated=today, digest=digest, content=content)


def market_for(buyer: Buyer, currency: str, today: date | None = None) -> Market:
    """What is known of prices, for a buyer."""
    today = today or timezone.localdate()
    sellers, prices, coupons = {}, {}, {}
    known = tuple(entry.extension for entry in catalogue())
    for row in SellerRow.objects.filter(listed=True).order_by("place"):
        version = row.versions.order_by("-id").values_list("pk", flat=True).first()
        if version is None:
            continue
        entry = _entry(row.terms)
        sellers[row.code] = entry.seller()
        prices[row.code] = _list_of(version, row.code, entry.currency, known)
        coupons[row.code] = _coupons_of(row.coupons, row.code, known)
    return Market(sellers, prices, coupons, shipped_rates(), buyer, currency, today)


def seller_states(now: datetime | None = None) -> list[SellerState]:
    """Every seller there is."""
    now = now or timezone.now()
    known = tuple(entry.extension for entry in catalogue())
    found = []
    for row in SellerRow.objects.filter(listed=True).order_by("place"):
        entry = _entry(row.terms)
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
                row.fetched_at is None or row.fetched_at < now - STALE_AFTER,
                row.trouble,
                changes,
                versions[0][1] if changes else None,
            )
        )
    return found


def _entry(terms: Mapping[str, object]) -> SellerEntry:
    return read_seller(terms)


@lru_cache(maxsize=64)
def _list_of(version: int, code: str, currency: str, known: tuple[str, ...]) -> PriceList:
    """A version of a list, which never changes."""
    row = PriceVersion.objects.get(pk=version)
    return PriceList(code, row.dated, read_price_list(row.text, currency, {*known}).rows)


@lru_cache(maxsize=64)
def _changes(
    earlier: int, later: int, code: str, currency: str, known: tuple[str, ...]
) -> Sequence[PriceChange]:
    """What changed between two versions; those of the extensions people ask for most come first."""
    before, after = (_list_of(pk, code, currency, known) for pk in (earlier, later))
    places = {extension: place for place, extension in enumerate(known)}
    changes = changes_between(before, after, before.dated, after.dated)
    return sorted(changes, key=lambda c: places.get(c.extension, -1))[:MOST_CHANGES]


@lru_cache(maxsize=64)
def _coupons_of(text: str, code: str, known: tuple[str, ...]) -> tuple[Coupon, ...]:
    return read_coupons(text, code, {*known}).coupons if text else ()
