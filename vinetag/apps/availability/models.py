"""Checks, and what they found out about full names."""

from __future__ import annotations

from typing import ClassVar

from django.db import models

from vinetag.apps.naming.models import Project

__all__ = ["Check", "Lookup"]


class Check(models.Model):
    """One press of the button: full names to ask about, in the background.

    The row is the truth about the job; the queue only wakes workers. A worker holds the check while
    its `lease` stands and its `heartbeat_at` is fresh.
    """

    class State(models.TextChoices):
        QUEUED = "queued"
        RUNNING = "running"
        DONE = "done"
        STOPPED = "stopped"

    ACTIVE: ClassVar[tuple[str, ...]] = (State.QUEUED, State.RUNNING)

    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="checks")
    state = models.CharField(max_length=8, choices=State.choices, default=State.QUEUED)
    total = models.PositiveIntegerField(default=0)
    lease = models.CharField(max_length=32, blank=True, default="")
    heartbeat_at = models.DateTimeField()
    created_at = models.DateTimeField(auto_now_add=True)
    ended_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        indexes = [
            models.Index(fields=["project", "-id"]),
            models.Index(fields=["state", "heartbeat_at"]),
        ]

    def __str__(self) -> str:
        return f"check {self.pk} ({self.state})"

    @property
    def is_active(self) -> bool:
        """Whether a worker has it or will."""
        return self.state in self.ACTIVE


class Lookup(models.Model):
    """What is known of one full name for one project. `check_run` is set while an answer is
    awaited; an earlier answer stays beside it until the new one comes.
    """

    class Status(models.TextChoices):
        WAITING = "waiting"
        OPEN = "open"
        TAKEN = "taken"
        UNSURE = "unsure"

    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="lookups")
    label = models.CharField(max_length=63, db_collation="utf8mb4_bin")
    extension = models.CharField(max_length=63, db_collation="utf8mb4_bin")
    status = models.CharField(max_length=8, choices=Status.choices, default=Status.WAITING)
    trouble = models.CharField(max_length=20, blank=True, default="")
    detail = models.CharField(max_length=200, blank=True, default="")
    source = models.CharField(max_length=400, blank=True, default="")
    asked_at = models.DateTimeField(null=True, blank=True)
    registered = models.DateTimeField(null=True, blank=True)
    expires = models.DateTimeField(null=True, blank=True)
    rdap_status = models.JSONField(default=list)
    check_run = models.ForeignKey(
        Check, on_delete=models.SET_NULL, null=True, blank=True, related_name="awaited"
    )

    class Meta:
        constraints = [
            models.UniqueConstraint(
                fields=["project", "label", "extension"], name="one_lookup_a_full_name"
            )
        ]
        indexes = [
            models.Index(fields=["project", "extension", "status"]),
            models.Index(fields=["project", "asked_at"]),
        ]

    def __str__(self) -> str:
        return f"{self.label}.{self.extension}: {self.status}"
