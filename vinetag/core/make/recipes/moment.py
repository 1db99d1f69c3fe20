"""moment: a thing of the world with a moment, a place or an act of it."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from vinetag.core.make.draft import Draft
from vinetag.core.make.job import Job
from vinetag.core.make.stems import Stem
from vinetag.core.make.worldly import mark_strength, said
from vinetag.core.world.world import WorldWord

__all__ = ["Moment", "combined"]

MOST = 330
KEEP = 500
A_ROW = 12
BASE = 0.7
OF_WORTH = 1.1
OF_BELONGING = 0.9
OF_NEAR = 1.4
# Two words of unlike fields seldom say one thing.
STRANGERS = 0.5
SYNONYMS = 0.62


class Moment:
    """Every thing before every moment, place and act; the best."""

    name = "moment"

    def make(self, job: Job) -> Iterator[Draft]:
        """Only what goes side by side and says something of the brief."""
        yield from combined(job, self.name, ("things", "stuff", "beings"), ("moments", "places"))


def combined(
    job: Job, recipe: str, fronts: tuple[str, ...], backs: tuple[str, ...]
) -> Iterator[Draft]:
    """The best of all words of some facets before words of others: what both are worth, how well
    they go side by side, and how near both together are to the sentence.
    """
    world = [w for w in job.world.words.values() if " " not in w.text]
    firsts = [w for w in world if w.facet in fronts][:MOST]
    seconds = [w for w in world if w.facet in backs][:MOST]
    if not firsts or not seconds:
        return
    together = job.collocation.together(_stems(firsts, job), _stems(seconds, job))
    worth = (np.array([w.worth for w in firsts])[:, None] + [w.worth for w in seconds]) / 2
    one = job.lexicon.meanings.rows([w.text for w in firsts])
    two = job.lexicon.meanings.rows([w.text for w in seconds])
    query, alike = job.world.query, one @ two.T
    near = ((one @ query)[:, None] + (two @ query)[None, :]) / np.sqrt(2 + 2 * alike)
    mark = BASE + OF_WORTH * worth + OF_BELONGING * together + OF_NEAR * near
    numbers = {field: n for n, field in enumerate({w.field for w in (*firsts, *seconds)})}
    fields = (np.array([numbers[w.field] for w in words]) for words in (firsts, seconds))
    apart = np.not_equal.outer(*fields)
    mark = np.where(apart, mark - STRANGERS, mark)
    letters = np.array([len(w.text) for w in firsts])[:, None] + [len(w.text) for w in seconds]
    limits = job.brief.limits
    out = (letters > limits.letters_max) | (letters < limits.letters_min) | (alike > SYNONYMS)
    mark[out] = 0
    job.considered[recipe] += int((~out).sum())
    shown: dict[int, int] = {}
    for flat in np.argsort(-mark, axis=None, kind="stable")[: 4 * KEEP]:
        i, j = divmod(int(flat), len(seconds))
        shown[i] = shown.get(i, 0) + 1
        if mark[i, j] > 0 and shown[i] <= A_ROW:
            words = (firsts[i].text, seconds[j].text)
            if not job.same(*words):
                yield said(words, job, mark_strength(float(mark[i, j])))


def _stems(words: list[WorldWord], job: Job) -> list[Stem]:
    return [Stem((w.text,), "world", "", w.worth, job.pos(w.text) or "n") for w in words]
