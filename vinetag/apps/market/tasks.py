"""Background tasks of markets. Each is safe to run twice, or to be killed at any line."""

from __future__ import annotations

from vinetag.apps.market.refresh import is_due, read_file, refresh_markets, waiting_files
from vinetag.apps.market.snapshots import refresh_zones, zones_due
from vinetag.jobs.celery import app

__all__ = ["read_list", "read_waiting_lists", "refresh_when_due"]


@app.task(name="market.refresh_when_due", expires=60)
def refresh_when_due() -> None:
    """Ask the markets for their lists, once an hour, and for zone files that are new."""
    if is_due():
        refresh_markets()
        read_waiting_lists()
    if zones_due():
        refresh_zones()


@app.task(name="market.read_waiting_lists", expires=10)
def read_waiting_lists() -> None:
    """Wake lists nobody reads."""
    for file_id in waiting_files():
        read_list.delay(file_id)


@app.task(name="market.read_list")
def read_list(file_id: int) -> None:
    """Read a list that was brought or fetched."""
    read_file(file_id)
