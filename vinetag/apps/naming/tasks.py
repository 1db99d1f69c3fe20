"""Background tasks of projects. Each is safe to run twice, or to be killed at any line."""

from __future__ import annotations

from django.utils import timezone

from vinetag.apps.naming.services import delete_for_good
from vinetag.jobs.celery import app

__all__ = ["delete_removed"]


@app.task(name="naming.delete_removed", expires=600)
def delete_removed() -> None:
    """Delete for good what was removed long ago, and what people left behind."""
    delete_for_good(timezone.now())
