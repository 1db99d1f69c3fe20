"""pair: two words that belong together, either order."""

from __future__ import annotations

from collections.abc import Iterator

from vinetag.core.brief import Keyword
from vinetag.core.make.draft import Draft, joined
from vinetag.core.make.job import Job

__all__ = ["Pair", "keyword_pairs"]

BOTH_ASKED_FOR = 0.35


class Pair:
    """Every two keywords, in both orders."""

    name = "pair"
    summary = "two of your words, either order"

    def make(self, job: Job) -> Iterator[Draft]:
        """In the order of the keywords."""
        for first, second, strength in keyword_pairs(job):
            pieces = [(w, "keyword", k.text) for k in (first, second) for w in k.words]
            yield Draft(*joined(*pieces), strength=strength)


def keyword_pairs(job: Job) -> Iterator[tuple[Keyword, Keyword, float]]:
    """Ordered pairs of keywords that share no word, with how well they go together, 0 to 1.

    That both were asked for is evidence too, so a pair never starts from nothing.
    """
    keywords = job.keywords
    for first in keywords:
        strengths = job.belonging(first.words[-1], [k.words[0] for k in keywords])
        for second, strength in zip(keywords, strengths, strict=True):
            if set(first.words).isdisjoint(second.words):
                yield first, second, 1 - (1 - BOTH_ASKED_FOR) * (1 - strength)
