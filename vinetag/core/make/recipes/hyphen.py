"""hyphen: as pair or exact, with one hyphen, when the brief allows it."""

from __future__ import annotations

from collections.abc import Iterator

from vinetag.core.make.draft import Draft, hyphened
from vinetag.core.make.job import Job
from vinetag.core.make.recipes.pair import BOTH_ASKED_FOR
from vinetag.core.make.stems import Stem
from vinetag.core.names import plain_words

__all__ = ["Hyphen"]

KEEP = 400


class Hyphen:
    """Phrases, the project's name and pairs of keywords, with one hyphen at a seam."""

    name = "hyphen"

    def make(self, job: Job) -> Iterator[Draft]:
        """Nothing when the brief allows no hyphen; a phrase of n words gives n - 1 drafts."""
        if job.brief.limits.hyphens < 1:
            return
        phrases = list(job.keyword_stems)
        phrases.append(Stem(tuple(plain_words(job.brief.name)), "name", "", 1.0, "n"))
        for stem in phrases:
            for seam in range(1, len(stem.words)):
                front = stem._replace(words=stem.words[:seam])
                yield hyphened([front], [stem._replace(words=stem.words[seam:])], 1.0)
        keywords = job.keyword_stems
        for first, second, strength in job.joints(self.name, keywords, keywords, KEEP):
            if set(first.words).isdisjoint(second.words):
                yield hyphened([first], [second], 1 - (1 - BOTH_ASKED_FOR) * (1 - strength))
