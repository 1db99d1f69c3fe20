"""Orders: one a seller, paid at once, and worked on until each name is registered or paid back."""

from __future__ import annotations

from decimal import Decimal
from typing import ClassVar

from django.conf import settings
from django.db import models

from vinetag.apps.availability.leases import Carried
from vinetag.apps.naming.models import Project
from vinetag.core.names import FullName

__all__ = ["Entry", "Errand", "GatewayNotice", "Order", "OrderName", "Payment", "Receipt"]


class Order(models.Model):
    """What is bought of one seller at once. `terms` say which tax is in it; `people` is sealed:
    whom its names are for, by set, and the codes by which names are moved, kept until all of it is
    done; `buyer`, sealed, is who it is
    written out to.
    """

    class Stage(models.TextChoices):
        OPEN = "open"
        PAID = "paid"
        DONE = "done"
        CALLED_OFF = "called_off"

    class Method(models.TextChoices):
        PAGE = "page"
        CREDIT = "credit"

    owner = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="orders"
    )
    number = models.CharField(max_length=24, unique=True, null=True, blank=True)
    seller = models.CharField(max_length=40)
    seller_name = models.CharField(max_length=80)
    seller_country = models.CharField(max_length=2, blank=True, default="")
    currency = models.CharField(max_length=3)
    stage = models.CharField(max_length=12, choices=Stage.choices, default=Stage.OPEN)
    method = models.CharField(max_length=8, choices=Method.choices, blank=True, default="")
    terms = models.JSONField(default=dict)
    people = models.BinaryField(default=bytes)
    buyer = models.BinaryField(default=bytes)
    placed_at = models.DateTimeField(auto_now_add=True)
    paid_at = models.DateTimeField(null=True, blank=True)
    ended_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        indexes: ClassVar = [models.Index(fields=["owner", "-id"])]

    def __str__(self) -> str:
        return self.number or f"order {self.pk}"


class OrderName(models.Model):
    """One name of an order, to be registered, moved here from another seller, or renewed where it
    ran out at `ran_until` as one had it. `state` is a step of vinetag.core.ordering.states; `fee`
    is what the seller is agreed to charge, `tax` its share of the order's; `trid` the transaction
    it is sent by, and never another; `tries` how often it was or may have been; `code`, `trouble`
    and `said` what the seller answered last; `charged` what it said it took, None where it did
    not say.
    """

    class Action(models.TextChoices):
        REGISTER = "register"
        RENEW = "renew"
        RESTORE = "restore"
        MOVE = "move"

    order = models.ForeignKey(Order, on_delete=models.CASCADE, related_name="names")
    project = models.ForeignKey(
        Project, on_delete=models.SET_NULL, null=True, blank=True, related_name="+"
    )
    label = models.CharField(max_length=63, db_collation="utf8mb4_bin")
    extension = models.CharField(max_length=63, db_collation="utf8mb4_bin")
    years = models.PositiveSmallIntegerField()
    action = models.CharField(max_length=8, choices=Action.choices, default=Action.REGISTER)
    ran_until = models.DateTimeField(null=True, blank=True)
    renewal = models.CharField(max_length=8, default="ask")
    privacy = models.BooleanField(default=False)
    premium = models.BooleanField(default=False)
    coupon = models.CharField(max_length=40, blank=True, default="")
    servers = models.JSONField(default=list)
    people_set = models.CharField(max_length=20, blank=True, default="")
    fee = models.DecimalField(max_digits=14, decimal_places=2)
    tax = models.DecimalField(max_digits=14, decimal_places=2, default=Decimal(0))
    state = models.CharField(max_length=12, default="agreed")
    trid = models.CharField(max_length=64, unique=True, db_collation="ascii_bin")
    tries = models.PositiveSmallIntegerField(default=0)
    code = models.PositiveSmallIntegerField(default=0)
    trouble = models.CharField(max_length=16, blank=True, default="")
    said = models.CharField(max_length=200, blank=True, default="")
    sent_at = models.DateTimeField(null=True, blank=True)
    charged = models.DecimalField(max_digits=14, decimal_places=2, null=True, blank=True)
    registered_at = models.DateTimeField(null=True, blank=True)
    expires_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["order", "label", "extension"], name="once_in_an_order")
        ]

    def __str__(self) -> str:
        return str(self.name)

    @property
    def name(self) -> FullName:
        """What is bought."""
        return FullName(self.label, self.extension)

    @property
    def amount(self) -> Decimal:
        """What is paid for it, tax and all."""
        return self.fee + self.tax


class Payment(models.Model):
    """One try to pay an order at the payment page. `number` is the page's own, "" until it
    answered; `amount` and `currency` what was asked for.
    """

    class State(models.TextChoices):
        BEGUN = "begun"
        OPEN = "open"
        ACCEPTED = "accepted"
        DECLINED = "declined"
        ABANDONED = "abandoned"

    order = models.ForeignKey(Order, on_delete=models.CASCADE, related_name="payments")
    reference = models.CharField(max_length=40, unique=True, db_collation="ascii_bin")
    number = models.CharField(max_length=64, blank=True, default="", db_collation="ascii_bin")
    page = models.CharField(max_length=500, blank=True, default="")
    state = models.CharField(max_length=12, choices=State.choices, default=State.BEGUN)
    amount = models.DecimalField(max_digits=14, decimal_places=2)
    currency = models.CharField(max_length=3)
    begun_at = models.DateTimeField(auto_now_add=True)
    asked_at = models.DateTimeField(null=True, blank=True)
    settled_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        indexes: ClassVar = [models.Index(fields=["number"])]

    def __str__(self) -> str:
        return f"{self.reference}: {self.state}"


class Entry(models.Model):
    """Money that moved: `paid` by the owner, or given back (`refunded`), above 0 either way. The
    `reference` makes each one once. A refund is written down before it is asked for, and `done_at`
    once it is known to have happened.
    """

    class Kind(models.TextChoices):
        PAID = "paid"
        REFUNDED = "refunded"

    order = models.ForeignKey(Order, on_delete=models.CASCADE, related_name="entries")
    kind = models.CharField(max_length=8, choices=Kind.choices)
    amount = models.DecimalField(max_digits=14, decimal_places=2)
    reference = models.CharField(max_length=64, unique=True, db_collation="ascii_bin")
    payment = models.ForeignKey(
        Payment, on_delete=models.RESTRICT, null=True, blank=True, related_name="entries"
    )
    at = models.DateTimeField(auto_now_add=True)
    done_at = models.DateTimeField(null=True, blank=True)

    def __str__(self) -> str:
        return f"{self.kind} {self.amount}"


class Errand(Carried):
    """The work on an order that money moved for, held by one worker at a time; done again at
    `due_at`, after `tries` in a row that a seller did not answer.
    """

    order = models.OneToOneField(Order, on_delete=models.CASCADE, related_name="errand")
    due_at = models.DateTimeField()
    tries = models.PositiveSmallIntegerField(default=0)

    def __str__(self) -> str:
        return f"errand of {self.order_id}"


class GatewayNotice(models.Model):
    """A message of a seller's gateway, kept before the seller is told that it was read; `moving`
    while it is about a name being moved, and nobody looked at that yet.
    """

    seller = models.CharField(max_length=40)
    number = models.CharField(max_length=64, db_collation="utf8mb4_bin")
    text = models.CharField(max_length=200, blank=True, default="")
    full_name = models.CharField(max_length=253, blank=True, default="")
    granted = models.BooleanField(null=True)
    trid = models.CharField(max_length=64, blank=True, default="")
    moving = models.BooleanField(default=False, db_index=True)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["seller", "number"], name="one_notice_of_a_number")
        ]

    def __str__(self) -> str:
        return f"{self.seller} {self.number}"


class Receipt(models.Model):
    """What was paid for, or given back: the document as it was written out, which is never changed.
    `buyer` is sealed.
    """

    class Kind(models.TextChoices):
        RECEIPT = "receipt"
        CREDIT_NOTE = "credit_note"

    order = models.ForeignKey(Order, on_delete=models.CASCADE, related_name="receipts")
    kind = models.CharField(max_length=12, choices=Kind.choices)
    number = models.CharField(max_length=24, unique=True)
    document = models.JSONField()
    buyer = models.BinaryField(default=bytes)
    written_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["order", "kind"], name="one_of_a_kind_an_order")
        ]

    def __str__(self) -> str:
        return self.number
