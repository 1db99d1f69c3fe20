"""The background task of watching. Safe to run twice, or to be killed at any line."""

from __future__ import annotations

from vinetag.apps.watching import rounds
from vinetag.jobs.celery import app

__all__ = ["go_round"]


@app.task(name="watching.go_round", expires=10)
def go_round() -> None:
    """One round of watching."""
    rounds.go_round()
