"""The background task of owning. Safe to run twice, or to be killed at any line."""

from __future__ import annotations

from vinetag.apps.owning import rounds
from vinetag.jobs.celery import app

__all__ = ["look_after"]


@app.task(name="owning.look_after", expires=20)
def look_after() -> None:
    """One round of looking after names."""
    rounds.go_round()
