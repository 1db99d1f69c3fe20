"""pair: two words that belong together, either order, one of them asked for."""

from __future__ import annotations

from collections.abc import Iterator

from vinetag.core.make.draft import Draft, joined
from vinetag.core.make.job import Job

__all__ = ["BOTH_ASKED_FOR", "Pair"]

KEEP = 3_000
BOTH_ASKED_FOR = 0.3
# A related word beside another wants to have been seen there, the more the plainer the dial, and
# where the name describes.
UNSEEN = 0.35
# What usually stands beside a verb (play tennis) says nothing of what else the brief is about.
ITS_COMPANY = 0.4


class Pair:
    """A keyword with every other stem, in both orders; that both were asked for is evidence."""

    name = "pair"

    def make(self, job: Job) -> Iterator[Draft]:
        """Those of the best KEEP of all pairs that hold a keyword, best first."""
        daring = min(job.daring, job.brief.dial / 100)
        for first, second, strength in job.joints(self.name, job.modifiers, job.heads, KEEP):
            if "keyword" not in (first.kind, second.kind):
                continue
            asked = first.kind == second.kind
            if not asked and not job.collocation.seen(first.words[-1], second.words[0]):
                strength *= UNSEEN + (1 - UNSEEN) * daring
            if first.keyword == second.keyword and "v" in (first.pos[:1], second.pos[:1]):
                strength *= ITS_COMPANY
            enough = asked or strength >= job.evidence
            act = job.doers.get(second.words[-1])  # tuning and tuner are one
            if enough and set(first.words).isdisjoint((*second.words, act)):
                prior = BOTH_ASKED_FOR if asked else 0.0
                yield joined((first, second), 1 - (1 - prior) * (1 - strength))
