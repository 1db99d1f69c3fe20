"""Background tasks of checks. Each is safe to run twice, or to be killed at any line."""

from __future__ import annotations

from vinetag.apps.availability import checks, leases
from vinetag.apps.availability.answer_store import spread_offers
from vinetag.apps.availability.models import Check
from vinetag.apps.availability.runner import run_slice
from vinetag.jobs.celery import app

__all__ = ["resume_checks", "run_check", "spread_lists"]


@app.task(name="availability.run_check")
def run_check(check_id: int) -> None:
    """Carry a check on by one slice, then pass it on until it is done. When all that is left waits
    for registries that are away, the schedule goes on with it, and other checks have the worker.
    """
    carried = leases.carry(
        Check,
        check_id,
        lambda token: run_slice(check_id, token),
        lambda: checks.finish_if_done(check_id),
    )
    if carried == (True, False):
        run_check.delay(check_id)


@app.task(name="availability.resume_checks", expires=10)
def resume_checks() -> None:
    """Wake checks whose worker is gone, whose message was lost, or that wait for registries."""
    for check_id in leases.stale(Check):
        run_check.delay(check_id)


@app.task(name="availability.spread_lists", expires=10)
def spread_lists() -> None:
    """Tell the names of projects what the lists of markets tell of them by now."""
    spread_offers()
