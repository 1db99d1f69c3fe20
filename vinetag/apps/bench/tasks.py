"""Background tasks of filing. Each is safe to run twice, or to be killed at any line."""

from __future__ import annotations

from vinetag.apps.bench import filing
from vinetag.jobs.celery import app

__all__ = ["do_filing", "resume_filing"]


@app.task(name="bench.do_filing")
def do_filing(filing_id: int) -> None:
    """Read a project's file, or copy a project."""
    filing.work_on(filing_id)


@app.task(name="bench.resume_filing", expires=20)
def resume_filing() -> None:
    """Take up jobs whose worker is gone, or whose message was lost."""
    for filing_id in filing.stale_filings():
        filing.work_on(filing_id)
