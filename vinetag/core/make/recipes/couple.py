"""couple: two things of the world, joined by "and"."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from vinetag.core.lexicon.sounds import bare
from vinetag.core.make.draft import Draft
from vinetag.core.make.job import Job
from vinetag.core.make.worldly import entries, mark_strength, said

__all__ = ["Couple"]

FACETS = ("things", "tools", "stuff")
MOST_WORDS = 140
KEEP = 160
# Two things of one trade that are neither the same nor strangers, and sound alike.
BASE = 1.65
OF_WORTH = 0.9
APART = 0.3
TOO_ALIKE = 0.6
SOUND = 0.45


class Couple:
    """Those the fields hold as they were written, then new ones of things that sound well beside
    each other: the shorter first.
    """

    name = "couple"

    def make(self, job: Job) -> Iterator[Draft]:
        """Written ones first."""
        yield from entries(job, self.name, "pairs")
        words = [w for w in job.world.words.values() if w.facet in FACETS and " " not in w.text]
        words = words[:MOST_WORDS]
        if len(words) < 2:
            return
        rows = job.lexicon.meanings.rows([w.text for w in words])
        cosines = rows @ rows.T
        worth = np.array([w.worth for w in words])
        titles = {t: i for i, t in enumerate(sorted({w.field for w in words}))}
        fields = np.array([titles[w.field] for w in words])
        onsets = [bare(job.lexicon.sounds.phones(w.text))[:1] for w in words]
        names = {o: i for i, o in enumerate(sorted({tuple(o) for o in onsets}))}
        onset = np.array([names[tuple(o)] for o in onsets])
        mark = BASE + OF_WORTH * (worth[:, None] + worth[None, :]) / 2
        mark = mark - 0.9 * np.abs(cosines - APART) + SOUND * (onset[:, None] == onset[None, :])
        mark[(cosines > TOO_ALIKE) | (fields[:, None] != fields[None, :])] = 0
        mark[np.tril_indices(len(words))] = 0
        job.considered[self.name] += int((mark > 0).sum())
        best = np.argsort(-mark, axis=None, kind="stable")[:KEEP]
        for i, j in zip(*np.unravel_index(best, mark.shape), strict=True):
            if mark[i, j] > 0:
                pair = sorted((words[i].text, words[j].text), key=lambda w: (len(w), w))
                yield said((pair[0], "and", pair[1]), job, mark_strength(float(mark[i, j])))
