"""Background work: the Celery application."""

from vinetag.jobs.celery import app

__all__ = ["app"]
