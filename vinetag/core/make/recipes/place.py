"""place: keyword with a place word, before and after, with the words' forms."""

from __future__ import annotations

from collections.abc import Iterator

from vinetag.core.make.draft import Draft, hyphened, joined
from vinetag.core.make.job import Job
from vinetag.core.make.stems import Stem

__all__ = ["Place"]

FORMS = frozenset("plural doer trade ing".split())
STRENGTH = 0.7


class Place:
    """Place words around keywords and their plural, doer and trade."""

    name = "place"

    def make(self, job: Job) -> Iterator[Draft]:
        """Place by place, keyword by keyword; hyphened too when the brief allows it."""
        for place in job.brief.places:
            there = Stem(tuple(place.split()), "place", "", 0.8, "n")
            for keyword in job.keyword_stems:
                for stem in (keyword, *_forms(job, keyword)):
                    job.considered[self.name] += 2
                    strength = STRENGTH if stem is keyword else 0.9 * STRENGTH
                    yield joined((there, stem), strength)
                    yield joined((stem, there), 0.8 * strength)
                    if job.brief.limits.hyphens:
                        yield hyphened([there], [stem], strength)


def _forms(job: Job, keyword: Stem) -> Iterator[Stem]:
    head = keyword.words[-1]
    for kind, form in job.lexicon.thesaurus.forms(head):
        if kind in FORMS:
            yield keyword._replace(words=(*keyword.words[:-1], form))
