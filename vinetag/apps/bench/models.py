"""Work on files that takes longer than a person should wait for an answer."""

from __future__ import annotations

from django.conf import settings
from django.db import models

from vinetag.apps.naming.models import Project

__all__ = ["Filing"]


class Filing(models.Model):
    """A project to be made of a file, or copied. The row is the truth about the job: `content` is
    the file, compressed (zlib), until it is read; `source` the project to be copied. `done` is in
    percent; `problems` say why it failed, as the API tells them.
    """

    class State(models.TextChoices):
        WAITING = "waiting"
        WORKING = "working"
        DONE = "done"
        FAILED = "failed"

    owner = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="filings"
    )
    state = models.CharField(max_length=8, choices=State.choices, default=State.WAITING)
    content = models.BinaryField(null=True)
    source = models.ForeignKey(Project, on_delete=models.SET_NULL, null=True, related_name="+")
    done = models.PositiveSmallIntegerField(default=0)
    problems = models.JSONField(default=list)
    project = models.ForeignKey(Project, on_delete=models.SET_NULL, null=True, related_name="+")
    tries = models.PositiveSmallIntegerField(default=0)
    heartbeat_at = models.DateTimeField()
    created_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        indexes = [models.Index(fields=["state", "heartbeat_at"])]

    def __str__(self) -> str:
        return f"filing {self.pk} ({self.state})"
