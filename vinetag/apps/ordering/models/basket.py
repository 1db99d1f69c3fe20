"""What is to be bought."""

from __future__ import annotations

from typing import ClassVar

from django.db import models

from vinetag.apps.naming.models import Project
from vinetag.apps.ordering.models.people import ContactSet
from vinetag.core.names import FullName

__all__ = ["BasketItem"]


class BasketItem(models.Model):
    """A full name somebody is about to buy, and how. Nothing that costs more is chosen in advance.

    `seller` is "" for whoever asks least; `planned` is what it was to cost when it was put in or is
    bought otherwise, or what was agreed to since; `seen` the status the last look found
    (vinetag.apps.ordering.reviews), and what the seller's gateway asks for it. `contacts` is whom
    it is for, None for the set somebody usually takes.
    Items taken out stay for undoing, known by the `batch` they went with.
    """

    class Renewal(models.TextChoices):
        ASK = "ask"
        ITSELF = "itself"

    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="basket")
    label = models.CharField(max_length=63, db_collation="utf8mb4_bin")
    extension = models.CharField(max_length=63, db_collation="utf8mb4_bin")
    years = models.PositiveSmallIntegerField(default=1)
    renewal = models.CharField(max_length=8, choices=Renewal.choices, default=Renewal.ASK)
    privacy = models.BooleanField(default=False)
    servers = models.JSONField(default=list)
    coupon = models.CharField(max_length=40, blank=True, default="")
    seller = models.CharField(max_length=40, blank=True, default="")
    contacts = models.ForeignKey(
        ContactSet, on_delete=models.SET_NULL, null=True, blank=True, related_name="+"
    )
    planned = models.JSONField(default=dict)
    seen = models.JSONField(default=dict)
    added_at = models.DateTimeField(auto_now_add=True)
    removed_at = models.DateTimeField(null=True, blank=True)
    batch = models.CharField(max_length=32, blank=True, default="")

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(
                fields=["project", "label", "extension"], name="once_in_a_basket"
            )
        ]

    def __str__(self) -> str:
        return str(self.name)

    @property
    def name(self) -> FullName:
        """What is bought."""
        return FullName(self.label, self.extension)
