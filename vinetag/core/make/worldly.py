"""Drafts of the words of a brief's world."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from vinetag.core.candidates import Part
from vinetag.core.concepts import PartName
from vinetag.core.make.draft import Draft
from vinetag.core.make.job import Job
from vinetag.core.world.incidental import SMALL

__all__ = ["entries", "mark_strength", "said"]


def mark_strength(mark: float) -> float:
    """A reader's expected mark, 1 to 5, as a strength, 0 to 1."""
    return min(1.0, max(0.0, (mark - 1) / 4))


def said(words: Sequence[str], job: Job, strength: float) -> Draft:
    """The words in a row: keywords as such, small words as such, the rest as words of the world."""
    parts, start = [], 0
    for word in words:
        keyword = job.standing.get(word, "")
        kind: PartName = "keyword" if keyword else "small" if word in SMALL else "world"
        parts.append(Part(word, kind, keyword, start))
        start += len(word)
    return Draft("".join(words), tuple(parts), strength)


def entries(job: Job, recipe: str, facet: str) -> Iterator[Draft]:
    """The names of one facet that the brief's fields hold, best first."""
    for entry in job.world.entries.values():
        if entry.facet == facet:
            job.considered[recipe] += 1
            yield said(entry.words, job, mark_strength(entry.mark))
