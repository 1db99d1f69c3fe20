"""Sellers as they describe themselves or as somebody entered them, every version of their price
lists, their quotes and coupons with what people report of these, and the bank's rates.
"""

from __future__ import annotations

import zlib
from typing import ClassVar

from django.conf import settings
from django.db import models

from vinetag.apps.availability.models import amount_field, code_field

__all__ = ["CouponReport", "HeldCoupons", "PriceVersion", "QuoteRow", "RatesFile", "SellerRow"]


class SellerRow(models.Model):
    """A seller. `terms` is its entry (vinetag.core.cost.seller_documents), in the order of `place`;
    `coupons` the file as it was had last. One of the settings is asked for its lists, unless an
    administrator keeps it `by_hand`; one with an `owner` is that person's own, seen by nobody else.
    `validators` are those of each file, by its name. `fetched_at` is when its list was last had, or
    found unchanged; `trouble` what went wrong since, a sentence a line. One no longer `listed` is
    kept for its versions.
    """

    code = models.CharField(max_length=40, unique=True)
    owner = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, null=True, related_name="own_sellers"
    )
    by_hand = models.BooleanField(default=False)
    place = models.PositiveSmallIntegerField(default=0)
    terms = models.JSONField()
    coupons = models.TextField(default="", blank=True)
    validators = models.JSONField(default=dict)
    fetched_at = models.DateTimeField(null=True, blank=True)
    asked_at = models.DateTimeField()
    trouble = models.TextField(default="", blank=True)
    listed = models.BooleanField(default=True)

    def __str__(self) -> str:
        return self.code


class Packed(models.Model):
    """A text that can be long, packed."""

    content = models.BinaryField()

    class Meta:
        abstract = True

    @staticmethod
    def packed(text: str) -> bytes:
        """As `content` has it."""
        return zlib.compress(text.encode(), 6)

    @property
    def text(self) -> str:
        """What was packed."""
        return zlib.decompress(self.content).decode("utf-8")


class PriceVersion(Packed):
    """A price list, as CSV, as it was from a day on; the newest is in force."""

    seller = models.ForeignKey(SellerRow, on_delete=models.CASCADE, related_name="versions")
    dated = models.DateField()
    digest = models.CharField(max_length=64)

    class Meta:
        indexes: ClassVar = [models.Index(fields=["seller", "-id"])]

    def __str__(self) -> str:
        return f"{self.seller_id}, {self.dated}"


class QuoteRow(models.Model):
    """What a seller said last of one full name: `says` "" with `trouble` where it said nothing of
    use; amounts in the seller's currency.
    """

    seller = models.ForeignKey(SellerRow, on_delete=models.CASCADE, related_name="quotes")
    full_name = models.CharField(max_length=255, db_collation="utf8mb4_bin")
    says = code_field(blank=True, default="")
    currency = models.CharField(max_length=3, blank=True, default="")
    first_year = amount_field()
    renewal = amount_field()
    trouble = code_field(blank=True, default="")
    asked_at = models.DateTimeField()

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["seller", "full_name"], name="one_quote_a_full_name")
        ]
        indexes: ClassVar = [models.Index(fields=["full_name"])]

    def __str__(self) -> str:
        return f"{self.full_name}, {self.seller_id}: {self.says}"


class HeldCoupons(models.Model):
    """Coupons of a seller entered by hand, as CSV: by an administrator for all (no `owner`), or by
    a person for themselves.
    """

    seller = models.ForeignKey(SellerRow, on_delete=models.CASCADE, related_name="held_coupons")
    owner = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, null=True, related_name="held_coupons"
    )
    text = models.TextField()

    class Meta:
        indexes: ClassVar = [models.Index(fields=["seller", "owner"])]

    def __str__(self) -> str:
        return f"{self.seller_id}, {self.owner_id}"


class CouponReport(models.Model):
    """That a coupon worked for a person, or did not, when they tried last."""

    seller = models.ForeignKey(SellerRow, on_delete=models.CASCADE, related_name="reports")
    code = models.CharField(max_length=40, db_collation="utf8mb4_bin")
    person = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="coupon_reports"
    )
    worked = models.BooleanField()
    at = models.DateTimeField()

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["seller", "code", "person"], name="one_report_a_person")
        ]

    def __str__(self) -> str:
        return f"{self.code}: {self.worked}"


class RatesFile(Packed):
    """Rates of the bank, as its CSV, that were brought in; the newest is joined with those that
    ship.
    """

    brought_at = models.DateTimeField()

    def __str__(self) -> str:
        return f"rates of {self.brought_at}"
