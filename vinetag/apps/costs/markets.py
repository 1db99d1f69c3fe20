"""A market for a person: the sellers everybody has and their own, with lists, coupons and rates."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from functools import lru_cache

from django.db.models import F, Q, QuerySet
from django.utils import timezone

from vinetag.apps.accounts.models import User
from vinetag.apps.availability.catalogue import catalogue
from vinetag.apps.costs.models import CouponReport, HeldCoupons, PriceVersion, SellerRow
from vinetag.apps.costs.rates import rates_in_force
from vinetag.core.cost import Buyer, Coupon, Market, PriceList
from vinetag.core.cost.coupon_files import read_coupons
from vinetag.core.cost.price_files import read_price_list
from vinetag.core.cost.seller_documents import read_seller

__all__ = [
    "NewestList", "coupons_by_seller", "known_extensions", "market_for", "may_change",
    "newest_price_list", "price_version", "sellers_for",
]  # fmt: skip


def sellers_for(person: User) -> QuerySet[SellerRow]:
    """Those a person sees: everybody's in their order, then their own."""
    seen = SellerRow.objects.filter(Q(owner=None) | Q(owner=person), listed=True)
    return seen.order_by(F("owner").asc(nulls_first=True), "place", "id")


def may_change(person: User, row: SellerRow) -> bool:
    """A person their own, an administrator everybody's."""
    return row.owner_id == person.pk or (row.owner_id is None and person.is_staff)


def known_extensions() -> tuple[str, ...]:
    """Every extension there is, in the catalogue's order."""
    return tuple(entry.extension for entry in catalogue())


def market_for(person: User, buyer: Buyer, currency: str, today: date | None = None) -> Market:
    """What is known of prices, for a buyer, without coupons that did not work for the person."""
    today = today or timezone.localdate()
    known = known_extensions()
    rows = list(sellers_for(person))
    newest = _newest_versions(rows)
    failed = {
        *CouponReport.objects.filter(person=person, worked=False).values_list("seller", "code")
    }
    coupons = coupons_by_seller(person, rows)
    sellers, prices, usable = {}, {}, {}
    for row in rows:
        if row.pk not in newest:
            continue
        entry = read_seller(row.terms)
        sellers[row.code] = entry.seller()
        prices[row.code] = price_version(newest[row.pk], row.code, entry.currency, known)
        usable[row.code] = tuple(c for c in coupons[row.code] if (row.pk, c.code) not in failed)
    return Market(sellers, prices, usable, rates_in_force(), buyer, currency, today)


@dataclass(frozen=True)
class NewestList:
    """A seller's list in force, with what it is called and what its prices are in."""

    name: str
    currency: str
    prices: PriceList


def newest_price_list(person: User, code: str) -> NewestList | None:
    """Of a seller the person sees; None where there is no such, or it has no list."""
    row = sellers_for(person).filter(code=code).first()
    newest = _newest_versions([row]) if row else {}
    if row is None or row.pk not in newest:
        return None
    entry = read_seller(row.terms)
    listed = price_version(newest[row.pk], row.code, entry.currency, known_extensions())
    return NewestList(entry.name, entry.currency, listed)


def coupons_by_seller(person: User, rows: Sequence[SellerRow]) -> Mapping[str, Sequence[Coupon]]:
    """Those a seller publishes, then those entered by hand, for everybody or by the person; of one
    code the first.
    """
    known = known_extensions()
    held: dict[int, list[str]] = {row.pk: [row.coupons] for row in rows}
    by_hand = HeldCoupons.objects.filter(Q(owner=None) | Q(owner=person), seller__in=rows)
    for pk, text in by_hand.order_by("owner", "id").values_list("seller", "text"):
        held[pk].append(text)
    found = {}
    for row in rows:
        of_one: dict[str, Coupon] = {}
        for text in held[row.pk]:
            for coupon in _coupons_of(text, row.code, known):
                of_one.setdefault(coupon.code, coupon)
        found[row.code] = tuple(of_one.values())
    return found


def _newest_versions(rows: Sequence[SellerRow]) -> dict[int, int]:
    versions = PriceVersion.objects.filter(seller__in=rows).order_by("id")
    return dict(versions.values_list("seller", "pk"))


@lru_cache(maxsize=128)
def price_version(version: int, code: str, currency: str, known: tuple[str, ...]) -> PriceList:
    """A version of a list, which never changes."""
    row = PriceVersion.objects.get(pk=version)
    return PriceList(code, row.dated, read_price_list(row.text, currency, {*known}).rows)


@lru_cache(maxsize=128)
def _coupons_of(text: str, code: str, known: tuple[str, ...]) -> tuple[Coupon, ...]:
    return read_coupons(text, code, {*known}).coupons if text else ()
