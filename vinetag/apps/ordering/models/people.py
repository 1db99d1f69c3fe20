"""Whom names are for, sealed."""

from __future__ import annotations

from typing import ClassVar

from django.conf import settings
from django.db import models

from vinetag.core.ordering import ROLES

__all__ = ["Contact", "ContactSet"]


class Contact(models.Model):
    """A person or an organisation: all of it is in `sealed` (vinetag.apps.ordering.sealing), and
    read by its owner alone.
    """

    owner = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="contacts"
    )
    sealed = models.BinaryField()
    changed_at = models.DateTimeField(auto_now=True)

    def __str__(self) -> str:
        return f"contact {self.pk}"


class ContactSet(models.Model):
    """Who holds a name, and who is asked about it: None is whoever holds it. `usual`: the one that
    is taken where none is chosen.
    """

    owner = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="contact_sets"
    )
    name = models.CharField(max_length=60)
    registrant = models.ForeignKey(Contact, on_delete=models.CASCADE, related_name="+")
    admin = models.ForeignKey(
        Contact, on_delete=models.SET_NULL, null=True, blank=True, related_name="+"
    )
    tech = models.ForeignKey(
        Contact, on_delete=models.SET_NULL, null=True, blank=True, related_name="+"
    )
    billing = models.ForeignKey(
        Contact, on_delete=models.SET_NULL, null=True, blank=True, related_name="+"
    )
    usual = models.BooleanField(default=False)

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["owner", "name"], name="one_set_of_a_name")
        ]

    def __str__(self) -> str:
        return self.name

    def by_role(self) -> dict[str, Contact]:
        """Whom for what, each named."""
        return {role: getattr(self, role) or self.registrant for role in ROLES}
