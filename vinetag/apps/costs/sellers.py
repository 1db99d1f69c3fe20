"""Sellers and their lists, kept up to date; a market made of them."""

from __future__ import annotations

import asyncio
import hashlib
import zlib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from functools import lru_cache
from typing import Final

from django.db import transaction
from django.utils import timezone

from vinetag.apps.availability.catalogue import catalogue
from vinetag.apps.availability.lookups import lookup_settings
from vinetag.apps.costs.models import PriceVersion, SellerRow
from vinetag.core.cost import Buyer, Coupon, Market, PriceChange, PriceList, changes_between
from vinetag.core.cost.bank_rates import shipped_rates
from vinetag.core.cost.coupon_files import read_coupons
from vinetag.core.cost.price_files import read_price_list
from vinetag.core.cost.seller_documents import SellerEntry, read_sellers, seller_document
from vinetag.lookup.feeds import Validators
from vinetag.lookup.sellers import FoundSellers, fetch_sellers

__all__ = ["STALE_AFTER", "Told", "is_due", "market_for", "refresh_sellers", "told_sellers"]

EVERY: Final = timedelta(days=1)
# After a failure it is tried again sooner.
AGAIN: Final = timedelta(minutes=20)
STALE_AFTER: Final = timedelta(days=3)
MOST_CHANGES: Final = 40


@dataclass(frozen=True)
class Told:
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
    """Whether the sellers are to be asked again."""
    if not lookup_settings().sellers:
        return False
    now = now or timezone.now()
    rows = SellerRow.objects.values_list("asked_at", "trouble")
    return not rows or any(asked < now - (AGAIN if what else EVERY) for asked, what in rows)


def refresh_sellers() -> FoundSellers:
    """Ask for everything, and keep what is new. A file that cannot be had or read leaves the one
    there is in force, and is told of.
    """
    kept = {row.code: row for row in SellerRow.objects.all()}
    known = frozenset(entry.extension for entry in catalogue())
    validators = {
        (code, what): Validators(*given)
        for code, row in kept.items()
        for what, given in row.validators.items()
    }
    today = timezone.localdate()
    found = asyncio.run(fetch_sellers(lookup_settings(), known, today, validators))
    _keep(found, today)
    return found


def _keep(found: FoundSellers, today: date) -> None:
    now = timezone.now()
    troubles: dict[str, list[str]] = {}
    for code, what in found.troubles:
        troubles.setdefault(code, []).append(what)
    with transaction.atomic():
        if "" in troubles:
            SellerRow.objects.update(trouble="\n".join(troubles[""]), asked_at=now)
            return
        SellerRow.objects.exclude(code__in=found.entries).update(listed=False)
        for place, (code, entry) in enumerate(found.entries.items()):
            row, _ = SellerRow.objects.get_or_create(
                code=code, defaults={"terms": {}, "asked_at": now}
            )
            row.place, row.listed, row.asked_at = place, True, now
            row.terms = seller_document(entry)
            row.trouble = "\n".join(troubles.get(code, ()))
            prices, coupons = (found.files.get((code, what)) for what in ("prices", "coupons"))
            if coupons and coupons.text is not None:
                row.coupons = coupons.text
            if prices and not prices.trouble and (prices.text is None or found.prices[code].rows):
                row.fetched_at = now
            if prices and prices.text is not None and found.prices[code].rows:
                _new_version(row, prices.text, today)
            for what, file in (("prices", prices), ("coupons", coupons)):
                if file and not file.trouble:
                    row.validators[what] = list(file.validators)
            row.save()


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


def told_sellers(now: datetime | None = None) -> list[Told]:
    """Every seller there is."""
    now = now or timezone.now()
    known = tuple(entry.extension for entry in catalogue())
    places = {extension: place for place, extension in enumerate(known)}
    found = []
    for row in SellerRow.objects.filter(listed=True).order_by("place"):
        entry = _entry(row.terms)
        versions = list(row.versions.order_by("-id").values_list("pk", "dated")[:2])
        lists = [_list_of(pk, row.code, entry.currency, known) for pk, _ in versions]
        changes: list[PriceChange] = []
        if len(lists) == 2:
            changes = changes_between(lists[1], lists[0], versions[1][1], versions[0][1])
            # Those of the extensions people ask for most come first.
            changes.sort(key=lambda change: places.get(change.extension, -1))
        found.append(
            Told(
                entry,
                versions[0][1] if versions else None,
                row.fetched_at,
                row.fetched_at is None or row.fetched_at < now - STALE_AFTER,
                row.trouble,
                changes[:MOST_CHANGES],
                versions[0][1] if changes else None,
            )
        )
    return found


def _entry(terms: Mapping[str, object]) -> SellerEntry:
    [entry] = read_sellers({"sellers": [terms]})
    return entry


@lru_cache(maxsize=64)
def _list_of(version: int, code: str, currency: str, known: tuple[str, ...]) -> PriceList:
    """A version of a list, which never changes."""
    row = PriceVersion.objects.get(pk=version)
    return PriceList(code, row.dated, read_price_list(row.text, currency, {*known}).rows)


@lru_cache(maxsize=64)
def _coupons_of(text: str, code: str, known: tuple[str, ...]) -> tuple[Coupon, ...]:
    return read_coupons(text, code, {*known}).coupons if text else ()
