"""Background tasks of checks. Each is safe to run twice, or to be killed at any line."""

from __future__ import annotations

from celery import shared_task

from vinetag.apps.availability import services
from vinetag.apps.availability.runner import run_slice

__all__ = ["resume_checks", "run_check"]


@shared_task(name="availability.run_check")
def run_check(check_id: int) -> None:
    """Carry a check on by one slice, then pass it on until it is done."""
    token = services.claim(check_id)
    if token is None:
        return
    try:
        run_slice(check_id, token)
        finished = services.finish_if_done(check_id)
    finally:
        services.release(check_id, token)
    if not finished:
        run_check.delay(check_id)


@shared_task(name="availability.resume_checks", expires=10)
def resume_checks() -> None:
    """Wake checks whose worker is gone, or whose message was lost."""
    for check_id in services.stale_checks():
        run_check.delay(check_id)
