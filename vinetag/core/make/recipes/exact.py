"""exact: the phrase, business name or person's name as it is."""

from __future__ import annotations

from collections.abc import Iterator

from vinetag.core.make.draft import Draft, joined
from vinetag.core.make.job import Job
from vinetag.core.make.stems import Stem
from vinetag.core.names import plain_words

__all__ = ["Exact"]


class Exact:
    """Each keyword, and the name of the project, closed up."""

    name = "exact"

    def make(self, job: Job) -> Iterator[Draft]:
        """Keywords first, then the project's name where its letters are plain."""
        for stem in job.keyword_stems:
            yield joined([stem], 1.0)
        if words := plain_words(job.brief.name):
            yield joined([Stem(tuple(words), "name", "", 1.0, "n")], 1.0)
