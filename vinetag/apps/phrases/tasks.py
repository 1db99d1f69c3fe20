"""Background tasks of phrases. Each is safe to run twice, or to be killed at any line."""

from __future__ import annotations

from vinetag.apps.phrases.bringing import read_waiting, stale_files
from vinetag.jobs.celery import app

__all__ = ["read_figures", "read_waiting_figures"]


@app.task(name="phrases.read_figures")
def read_figures(file_id: int) -> None:
    """Read a file that was brought."""
    read_waiting(file_id)


@app.task(name="phrases.read_waiting_figures", expires=10)
def read_waiting_figures() -> None:
    """Wake files whose worker is gone, or whose message was lost."""
    for file_id in stale_files():
        read_figures.delay(file_id)
