"""Sellers as they describe themselves, and every version of their price lists."""

from __future__ import annotations

import zlib

from django.db import models

__all__ = ["PriceVersion", "SellerRow"]


class SellerRow(models.Model):
    """A seller of the settings. `terms` is its entry (vinetag.core.cost.seller_documents), in the
    order of `place`; `coupons` the file as it was fetched last. `validators` are those of each
    file, by its name. `fetched_at` is when its list was last had, or found unchanged; `trouble`
    what went wrong since, a sentence a line.
    """

    code = models.CharField(max_length=40, unique=True)
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


class PriceVersion(models.Model):
    """A price list as it was from a day on, packed; the newest is in force."""

    seller = models.ForeignKey(SellerRow, on_delete=models.CASCADE, related_name="versions")
    dated = models.DateField()
    digest = models.CharField(max_length=64)
    content = models.BinaryField()

    class Meta:
        indexes = [models.Index(fields=["seller", "-id"])]

    def __str__(self) -> str:
        return f"{self.seller_id}, {self.dated}"

    @property
    def text(self) -> str:
        """The list as CSV."""
        return zlib.decompress(self.content).decode("utf-8")
