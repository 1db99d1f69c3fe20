"""tail: a word behind (noun of place, craft, group, collection …)."""

from __future__ import annotations

from collections.abc import Iterator

from vinetag.core.make.draft import Draft, joined
from vinetag.core.make.job import Job

__all__ = ["Tail"]

KEEP = 900
# Before anything is known of the pair: a share of what the bank's word is worth.
PRIOR = 0.55


class Tail:
    """Tails from the bank behind each stem."""

    name = "tail"

    def make(self, job: Job) -> Iterator[Draft]:
        """The best KEEP, best first."""
        for stem, tail, strength in job.joints(self.name, job.modifiers, job.bank("tail"), KEEP):
            fit = min(1.0, 0.25 + 1.2 * tail.worth)
            if strength >= job.evidence and tail.text not in stem.words:
                yield joined((stem, tail), 1 - (1 - PRIOR * tail.worth) * (1 - strength * fit))
