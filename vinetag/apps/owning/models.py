"""Names somebody owns, as they think them to be, and as the registry says."""

from __future__ import annotations

from typing import ClassVar

from django.conf import settings
from django.db import models

from vinetag.apps.naming.models import Project
from vinetag.apps.ordering.models import OrderName
from vinetag.core.names import FullName

__all__ = ["OwnedName"]


class OwnedName(models.Model):
    """One of them. `seller` is the code of one that is known here, "" for others; `tags` stand
    between bars ("|club|old|"). `said` is what the registry or the seller said when it was
    `asked_at`, with what of it `differs`. `yearly` is what renewing it for a year costs there by
    the list, in `yearly_currency`, None where that is not known. Renewed by `itself` it is up to
    the `ceiling`. `reminded` is what was told of it last. Those taken off the list stay for
    undoing, known by the `batch` they went with.
    """

    class Source(models.TextChoices):
        ORDERED = "ordered"
        IMPORTED = "imported"
        TYPED = "typed"

    owner = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="owned_names"
    )
    project = models.ForeignKey(
        Project, on_delete=models.SET_NULL, null=True, blank=True, related_name="+"
    )
    label = models.CharField(max_length=63, db_collation="utf8mb4_bin")
    extension = models.CharField(max_length=63, db_collation="utf8mb4_bin")
    source = models.CharField(max_length=8, choices=Source.choices)
    seller = models.CharField(max_length=40, blank=True, default="")
    seller_name = models.CharField(max_length=80, blank=True, default="")
    registered_at = models.DateTimeField(null=True, blank=True)
    expires_at = models.DateTimeField(null=True, blank=True)
    renewal = models.CharField(max_length=8, default="ask")
    ceiling = models.DecimalField(max_digits=14, decimal_places=2, null=True, blank=True)
    ceiling_currency = models.CharField(max_length=3, blank=True, default="")
    locked = models.BooleanField(null=True)
    privacy = models.BooleanField(null=True)
    signed = models.BooleanField(null=True)
    servers = models.JSONField(default=list)
    tags = models.CharField(max_length=400, blank=True, default="")
    yearly = models.DecimalField(max_digits=14, decimal_places=2, null=True, blank=True)
    yearly_currency = models.CharField(max_length=3, blank=True, default="")
    priced_on = models.DateField(null=True, blank=True)
    said = models.JSONField(default=dict)
    asked_at = models.DateTimeField(null=True, blank=True)
    ask_at = models.DateTimeField(null=True, blank=True)
    trouble = models.CharField(max_length=16, blank=True, default="")
    differs = models.JSONField(default=list)
    reminded = models.CharField(max_length=24, blank=True, default="")
    ordered = models.OneToOneField(
        OrderName, on_delete=models.SET_NULL, null=True, blank=True, related_name="owned"
    )
    added_at = models.DateTimeField(auto_now_add=True)
    left_at = models.DateTimeField(null=True, blank=True)
    batch = models.CharField(max_length=32, blank=True, default="")

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(
                fields=["owner", "label", "extension"], name="owned_once_a_person"
            )
        ]
        indexes: ClassVar = [
            models.Index(fields=["owner", "left_at", "expires_at"]),
            models.Index(fields=["owner", "left_at", "yearly"]),
            models.Index(fields=["owner", "left_at", "registered_at"]),
            models.Index(fields=["expires_at"]),
            models.Index(fields=["ask_at"]),
            models.Index(fields=["priced_on"]),
        ]

    def __str__(self) -> str:
        return str(self.name)

    @property
    def name(self) -> FullName:
        """What is owned."""
        return FullName(self.label, self.extension)
