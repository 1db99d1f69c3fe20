"""The background tasks of ordering. Safe to run twice, or to be killed at any line."""

from __future__ import annotations

from vinetag.apps.ordering import settling
from vinetag.apps.ordering.errands import due_errands
from vinetag.apps.ordering.paying import look_at_payments
from vinetag.jobs.celery import app

__all__ = ["go_on", "work_on"]

MOST_AT_ONCE = 20


@app.task(name="ordering.work_on", expires=3_600)
def work_on(errand_id: int) -> None:
    """Work on one order."""
    settling.work_on(errand_id)


@app.task(name="ordering.go_on", expires=10)
def go_on() -> None:
    """Look at payments nobody told of, and work on what is due."""
    look_at_payments()
    for errand_id in due_errands(MOST_AT_ONCE):
        settling.work_on(errand_id)
