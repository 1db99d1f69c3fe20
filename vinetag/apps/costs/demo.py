"""What made-up people say of the simulated sellers' coupons, in the demo."""

from __future__ import annotations

from datetime import timedelta
from typing import Final

from django.utils import timezone

from vinetag.apps.accounts.models import User
from vinetag.apps.costs.listing import prices_changed
from vinetag.apps.costs.models import CouponReport, SellerRow

__all__ = ["load_reports"]

# By seller and code, one report a reader: days ago, and whether it worked. One never does.
REPORTS: Final = {
    ("weir", "WEIR10"): ((2, True), (9, True), (20, True), (33, False), (61, True), (80, True)),
    ("quillgate", "QUIET"): ((1, False), (6, False), (13, False), (27, False), (44, False)),
    ("hazel", "HAZEL10"): ((4, True), (18, True), (51, False), (70, True)),
    ("lantern", "LANTERN10"): ((3, False), (11, True), (30, True), (95, False)),
    ("longacre", "LONGACRE10"): ((8, False), (40, True), (120, True)),
    ("ninefold", "FIVEUP"): ((5, True), (15, True)),
}


def load_reports() -> bool:
    """Once the sellers are known, and once only; whether anything was done."""
    sellers = {row.code: row for row in SellerRow.objects.filter(owner=None, listed=True)}
    if not sellers or User.objects.filter(username__startswith="demo-reader-").exists():
        return False
    most = max(map(len, REPORTS.values()))
    readers = []
    for number in range(1, most + 1):
        # Nobody signs in as one of them: they have no password.
        reader = User(username=f"demo-reader-{number}", is_active=False)
        reader.set_unusable_password()
        reader.save()
        readers.append(reader)
    now = timezone.now()
    CouponReport.objects.bulk_create(
        CouponReport(
            seller=sellers[seller], code=code, person=reader, worked=worked,
            at=now - timedelta(days=days),
        )
        for (seller, code), said in REPORTS.items()
        if seller in sellers
        for reader, (days, worked) in zip(readers, said, strict=False)
    )  # fmt: skip
    prices_changed()
    return True
