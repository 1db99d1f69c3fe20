"""Background tasks of costs."""

from __future__ import annotations

from vinetag.apps.costs.sellers import is_due, refresh_sellers
from vinetag.jobs.celery import app

__all__ = ["refresh_when_due"]


@app.task(name="costs.refresh_when_due", expires=60)
def refresh_when_due() -> None:
    """Ask the sellers for their lists, once a day."""
    if is_due():
        refresh_sellers()
