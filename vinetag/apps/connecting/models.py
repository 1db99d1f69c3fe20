"""Zones of names somebody owns."""

from __future__ import annotations

from typing import ClassVar

from django.db import models

from vinetag.apps.owning.models import OwnedName

__all__ = ["Zone"]


class Zone(models.Model):
    """The zone of one name. `records` are what is kept, `in_force` what name servers answer since
    `published_at`, under `serial`; `answering` is the name while they do, None while they do not,
    so that one zone of a name is in force at most. `edition` counts changes; `past` are the last
    that were in force, the newest first. `looked` is what was seen of it from outside.
    """

    owned = models.OneToOneField(OwnedName, on_delete=models.CASCADE, related_name="zone")
    records = models.JSONField(default=list)
    in_force = models.JSONField(default=list)
    past = models.JSONField(default=list)
    edition = models.PositiveIntegerField(default=0)
    serial = models.BigIntegerField(default=0)
    answering = models.CharField(max_length=253, null=True, unique=True)  # noqa: DJ001 - see above
    published_at = models.DateTimeField(null=True)
    trouble = models.CharField(max_length=16, blank=True, default="")
    looked = models.JSONField(default=list)
    looked_at = models.DateTimeField(null=True)

    class Meta:
        ordering: ClassVar = ["pk"]

    def __str__(self) -> str:
        return f"the zone of {self.owned}"
