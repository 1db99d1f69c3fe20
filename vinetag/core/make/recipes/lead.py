"""lead: a short word in front, chosen for the keyword's part of speech."""

from __future__ import annotations

from collections.abc import Iterator

from vinetag.core.make.draft import Draft, joined
from vinetag.core.make.job import Job

__all__ = ["Lead"]

BANK_PRIOR = 0.2


class Lead:
    """Leads from the bank before each keyword."""

    name = "lead"
    summary = "a short word in front"

    def make(self, job: Job) -> Iterator[Draft]:
        """In the order of the keywords, then of the bank."""
        for keyword in job.keywords:
            leads = [b for b in job.beside("lead", keyword) if b.text not in keyword.words]
            strengths = job.belonging_before([b.text for b in leads], keyword.words[0])
            rest = [(word, "keyword", keyword.text) for word in keyword.words]
            for lead, strength in zip(leads, strengths, strict=True):
                label, parts = joined((lead.text, "lead", ""), *rest)
                yield Draft(label, parts, 1 - (1 - BANK_PRIOR) * (1 - strength))
