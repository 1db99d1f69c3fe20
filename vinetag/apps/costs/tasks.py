"""Background tasks of costs."""

from __future__ import annotations

from django.conf import settings

from vinetag.apps.costs.demo import load_reports
from vinetag.apps.costs.quoting import ask_quotes
from vinetag.apps.costs.sellers import is_due, refresh_sellers
from vinetag.core.names import FullName
from vinetag.jobs.celery import app

__all__ = ["ask_for_quotes", "refresh_when_due"]


@app.task(name="costs.refresh_when_due", expires=60)
def refresh_when_due() -> None:
    """Ask the sellers for their lists, once a day."""
    if is_due():
        refresh_sellers()
        if settings.DEMO_MODE:
            load_reports()


@app.task(name="costs.ask_for_quotes", expires=60)
def ask_for_quotes(full_names: list[str]) -> None:
    """Ask the sellers what these names cost; who looks at them asks for the rest again."""
    ask_quotes([FullName(*name.split(".", 1)) for name in full_names])
