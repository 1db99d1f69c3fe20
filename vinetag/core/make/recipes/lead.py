"""lead: a short word in front, chosen for the keyword's part of speech."""

from __future__ import annotations

from collections.abc import Iterator

from vinetag.core.make.draft import Draft, joined
from vinetag.core.make.job import Job

__all__ = ["Lead"]

KEEP = 700
PRIOR = 0.15
# Determiners, prepositions and numbers go before nearly everything; they wait for a daring dial.
LITTLE = 0.1
FAR = 0.6


class Lead:
    """Leads from the bank before each stem."""

    name = "lead"

    def make(self, job: Job) -> Iterator[Draft]:
        """The best KEEP, best first."""
        for lead, stem, strength in job.joints(self.name, job.bank("lead"), job.stems, KEEP):
            if lead.worth < LITTLE and job.daring < FAR:
                continue
            if strength >= job.evidence and lead.text not in stem.words:
                # That "the" and "on" stand before a word says little: they do before most.
                said = strength * min(1.0, 0.3 + 1.3 * lead.worth)
                yield joined((lead, stem), 1 - (1 - PRIOR) * (1 - said))
