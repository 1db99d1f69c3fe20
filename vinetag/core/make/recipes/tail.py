"""tail: a word behind (noun of place, craft, group, collection …)."""

from __future__ import annotations

from collections.abc import Iterator

from vinetag.core.make.draft import Draft, joined
from vinetag.core.make.job import Job

__all__ = ["Tail"]

BANK_PRIOR = 0.2


class Tail:
    """Tails from the bank behind each keyword."""

    name = "tail"
    summary = "a word behind"

    def make(self, job: Job) -> Iterator[Draft]:
        """In the order of the keywords, then of the bank."""
        for keyword in job.keywords:
            tails = [b for b in job.beside("tail", keyword) if b.text not in keyword.words]
            strengths = job.belonging(keyword.words[-1], [b.text for b in tails])
            front = [(word, "keyword", keyword.text) for word in keyword.words]
            for tail, strength in zip(tails, strengths, strict=True):
                label, parts = joined(*front, (tail.text, "tail", ""))
                yield Draft(label, parts, 1 - (1 - BANK_PRIOR) * (1 - strength))
