"""Coupons as a person sees them: what each is for, how likely it works, and what it would save."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from django.db import transaction
from django.utils import timezone

from vinetag.apps.accounts.errors import NotFoundError
from vinetag.apps.accounts.models import User
from vinetag.apps.costs.listing import prices_changed
from vinetag.apps.costs.markets import coupons_by_seller, known_extensions, sellers_for
from vinetag.apps.costs.models import CouponReport, HeldCoupons, SellerRow
from vinetag.core.cost import Coupon, Market, Odds, Report, coupon_worth, odds_of
from vinetag.core.cost.coupon_files import read_coupons
from vinetag.core.cost.orders import Item
from vinetag.core.names import FullName

__all__ = ["OfferedCoupon", "offered_coupons", "report_coupon"]


@dataclass(frozen=True)
class OfferedCoupon:
    """A coupon with its odds by everybody's reports and what the person reported (None: nothing);
    `saving` in thousandths of the market's currency if it works on an order of all the names, and
    `expected`, that times the odds; `held`: "own" when the
    person entered it, "all" when an administrator did for everybody.
    """

    coupon: Coupon
    odds: Odds
    reported: bool | None
    saving: int
    expected: int
    held: str = ""


def offered_coupons(person: User, market: Market, names: Sequence[FullName]) -> list[OfferedCoupon]:
    """Those of the market's sellers that hold today or will, what saves most first."""
    now = timezone.now()
    rows = [row for row in sellers_for(person) if row.code in market.prices]
    by_code = {row.code: row for row in rows}
    reports: dict[tuple[int, str], list[Report]] = {}
    own: dict[tuple[int, str], bool] = {}
    for seller, code, whose, worked, at in CouponReport.objects.filter(seller__in=rows).values_list(
        "seller", "code", "person", "worked", "at"
    ):
        reports.setdefault((seller, code), []).append(Report(worked, at))
        if whose == person.pk:
            own[seller, code] = worked
    held = _held(person, rows)
    items = [Item(name.label, name.extension, "register", 1) for name in names]
    found = []
    for seller_code, coupons in coupons_by_seller(person, rows).items():
        for coupon in coupons:
            if coupon.ends < market.today:
                continue
            key = by_code[seller_code].pk, coupon.code
            odds = odds_of(reports.get(key, ()), now)
            saving = coupon_worth(market, coupon, items, market.today)
            expected = round(saving * odds.mean)
            found.append(
                OfferedCoupon(coupon, odds, own.get(key), saving, expected, held.get(key, ""))
            )
    return sorted(found, key=lambda one: (-one.expected, one.coupon.seller, one.coupon.code))


def _held(person: User, rows: Sequence[SellerRow]) -> dict[tuple[int, str], str]:
    """By seller and code, "own" or "all" for those entered by hand."""
    codes = {row.pk: row.code for row in rows}
    known = {*known_extensions()}
    found = {}
    for one in HeldCoupons.objects.filter(seller__in=rows).order_by("-owner"):
        if one.owner_id not in (None, person.pk):
            continue
        for coupon in read_coupons(one.text, codes[one.seller_id], known).coupons:
            found[one.seller_id, coupon.code] = "own" if one.owner_id else "all"
    return found


def report_coupon(person: User, seller: str, code: str, worked: bool | None) -> Odds:
    """Keep that it worked for the person, did not, or (None) that they take back what they said;
    the odds with it. Raises NotFoundError for a coupon the person does not see.
    """
    row = sellers_for(person).filter(code=seller).first()
    if row is None or all(c.code != code for c in coupons_by_seller(person, [row])[seller]):
        raise NotFoundError
    with transaction.atomic():
        if worked is None:
            CouponReport.objects.filter(seller=row, code=code, person=person).delete()
        else:
            CouponReport.objects.update_or_create(
                seller=row, code=code, person=person,
                defaults={"worked": worked, "at": timezone.now()},
            )  # fmt: skip
    prices_changed()
    reports = CouponReport.objects.filter(seller=row, code=code).values_list("worked", "at")
    return odds_of([Report(*report) for report in reports], timezone.now())
