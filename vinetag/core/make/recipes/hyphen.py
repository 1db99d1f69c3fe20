"""hyphen: as pair or exact, with one hyphen, when the brief allows it."""

from __future__ import annotations

from collections.abc import Iterator

from vinetag.core.candidates import Part
from vinetag.core.make.draft import Draft, joined
from vinetag.core.make.job import Job
from vinetag.core.make.recipes.pair import keyword_pairs
from vinetag.core.names import plain_words

__all__ = ["Hyphen"]

Pieces = list[tuple[str, str, str]]


class Hyphen:
    """Phrases, the project's name and pairs of keywords, with one hyphen at a seam."""

    name = "hyphen"
    summary = "two parts with a hyphen between"

    def make(self, job: Job) -> Iterator[Draft]:
        """Nothing when the brief allows no hyphen; a phrase of n words gives n - 1 drafts."""
        if job.brief.limits.hyphens < 1:
            return
        phrases = [[(w, "keyword", k.text) for w in k.words] for k in job.keywords]
        phrases.append([(w, "name", "") for w in plain_words(job.brief.name)])
        for pieces in phrases:
            for seam in range(1, len(pieces)):
                yield Draft(*_hyphened(pieces[:seam], pieces[seam:]), strength=1.0)
        for first, second, strength in keyword_pairs(job):
            front = [(w, "keyword", first.text) for w in first.words]
            back = [(w, "keyword", second.text) for w in second.words]
            yield Draft(*_hyphened(front, back), strength=strength)


def _hyphened(front: Pieces, back: Pieces) -> tuple[str, tuple[Part, ...]]:
    return joined(*front, ("-", "hyphen", ""), *back)
