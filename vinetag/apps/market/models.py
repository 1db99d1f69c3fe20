"""Markets, what their lists tell of full names, and how that changed."""

from __future__ import annotations

from typing import ClassVar

from django.db import models

from vinetag.core.money import PLACES

__all__ = ["ListFile", "MarketRow", "OfferChange", "OfferRow", "SnapshotRow"]


def _label_field() -> models.CharField[str, str]:
    return models.CharField(max_length=63, db_collation="utf8mb4_bin")


def _amount_field() -> models.DecimalField[None, None]:
    return models.DecimalField(max_digits=14, decimal_places=PLACES, null=True)


class MarketRow(models.Model):
    """Who offers names, or tells which are let go. `address`: where the list is had, "" where it is
    brought by hand; `edition`: of the list in force, "" before the first, `told_at` its time;
    `spread`: the edition what is known of names was brought up to; `listed`: the document of the
    settings names it.
    """

    code = models.CharField(max_length=40, unique=True, db_collation="ascii_bin")
    name = models.CharField(max_length=80)
    address = models.CharField(max_length=300, blank=True, default="")
    listed = models.BooleanField(default=True)
    edition = models.CharField(max_length=32, blank=True, default="")
    spread = models.CharField(max_length=32, blank=True, default="")
    names = models.PositiveIntegerField(default=0)
    told_at = models.DateTimeField(null=True, blank=True)
    asked_at = models.DateTimeField(null=True, blank=True)
    validators = models.JSONField(default=list)
    trouble = models.CharField(max_length=400, blank=True, default="")

    def __str__(self) -> str:
        return self.code


class ListFile(models.Model):
    """A list that was brought or fetched: a file in the lake until it is read. `problems` are the
    first of `wrong` places.
    """

    class State(models.TextChoices):
        WAITING = "waiting"
        READING = "reading"
        DONE = "done"
        FAILED = "failed"

    ACTIVE: ClassVar = (State.WAITING, State.READING)

    market = models.ForeignKey(MarketRow, on_delete=models.CASCADE, related_name="files")
    name = models.CharField(max_length=120)
    state = models.CharField(max_length=8, choices=State.choices, default=State.WAITING)
    step = models.CharField(max_length=24, blank=True, default="")
    lines = models.PositiveIntegerField(default=0)
    taken = models.PositiveIntegerField(default=0)
    new = models.PositiveIntegerField(default=0)
    changed = models.PositiveIntegerField(default=0)
    gone = models.PositiveIntegerField(default=0)
    wrong = models.PositiveIntegerField(default=0)
    problems = models.JSONField(default=list)
    tries = models.PositiveSmallIntegerField(default=0)
    heartbeat_at = models.DateTimeField()
    brought_at = models.DateTimeField(auto_now_add=True)

    def __str__(self) -> str:
        return f"{self.name} ({self.state})"


class OfferRow(models.Model):
    """What one market tells of one full name (vinetag.core.market.Offer); `gone_at`: since when it
    tells nothing of it any more.
    """

    label = _label_field()
    extension = _label_field()
    market = models.ForeignKey(MarketRow, on_delete=models.CASCADE, related_name="+")
    kind = models.CharField(max_length=12)
    price = _amount_field()
    currency = models.CharField(max_length=3, blank=True, default="")
    bids = models.PositiveIntegerField(null=True)
    ends = models.DateTimeField(null=True)
    state = models.CharField(max_length=12, blank=True, default="")
    address = models.CharField(max_length=300, blank=True, default="")
    first_registered = models.DateField(null=True)
    times_registered = models.PositiveIntegerField(null=True)
    links = models.PositiveIntegerField(null=True)
    linking_sites = models.PositiveIntegerField(null=True)
    archived = models.PositiveIntegerField(null=True)
    archived_about = models.CharField(max_length=120, blank=True, default="")
    used_for = models.CharField(max_length=12, blank=True, default="")
    rank = models.PositiveIntegerField(null=True)
    click_price = _amount_field()
    also_registered = models.CharField(max_length=120, blank=True, default="")
    drops_from = models.DateTimeField(null=True)
    drops_to = models.DateTimeField(null=True)
    gone_at = models.DateTimeField(null=True)

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(
                fields=["label", "extension", "market"], name="one_offer_a_market"
            )
        ]

    def __str__(self) -> str:
        return f"{self.label}.{self.extension}: {self.kind}"


class OfferChange(models.Model):
    """That an offer became another: `what` changed (price, kind, extended, drops, gone), and what
    it was and is, as texts.
    """

    label = _label_field()
    extension = _label_field()
    market = models.ForeignKey(MarketRow, on_delete=models.CASCADE, related_name="+")
    at = models.DateTimeField()
    what = models.CharField(max_length=12)
    before = models.CharField(max_length=40, blank=True, default="")
    after = models.CharField(max_length=40, blank=True, default="")

    class Meta:
        indexes: ClassVar = [models.Index(fields=["label", "extension", "at"])]

    def __str__(self) -> str:
        return f"{self.label}.{self.extension}: {self.what}"


class SnapshotRow(models.Model):
    """The zone of an extension on a day: how many names were delegated, and of the short ones by
    shape (`short`: core.market.short_names.shape_counts). Its names are in the lake while it is
    `there`.
    """

    extension = models.CharField(max_length=63, db_collation="utf8mb4_bin")
    day = models.DateField()
    names = models.PositiveIntegerField()
    short = models.JSONField(default=dict)
    there = models.BooleanField(default=True)
    brought_at = models.DateTimeField()

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["extension", "day"], name="one_snapshot_a_day")
        ]

    def __str__(self) -> str:
        return f".{self.extension} on {self.day}"
