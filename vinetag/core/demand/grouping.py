"""Phrases grouped by what they mean and the words they share: a tree, cut where a person likes.

Agglomerative, average linkage (R. Sokal and C. Michener, 1958) over one minus the cosine; the
implementation is scipy's.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, Final

import numpy as np
import numpy.typing as npt
from scipy.cluster.hierarchy import fcluster, linkage
from scipy.sparse import csr_matrix, diags

from vinetag.core.demand.gathering import Folding, folded_words
from vinetag.core.lexicon import Lexicon

__all__ = ["MOST_GROUPED", "Space", "Tree", "content_words", "grow"]

MOST_GROUPED: Final = 5_000
# The share of meaning in the likeness of two phrases, the rest is shared words; how much a rare
# word is worth more. Tuned by scripts/eval_phrases.py on half of the groups written down before.
MEANT: Final = 0.6
RARITY: Final = 2
# Where the tree may be cut unasked, and how many phrases are looked at to choose.
CUTS: Final = tuple(round(0.5 + 0.02 * step, 2) for step in range(24))
SAMPLE: Final = 600
# Words that say nothing of what is looked for.
EMPTY: Final = frozenset(
    "a an the of for in on at to from by with and or near me my your our i you is are do does can "
    "how what which where when who why best top good cheap buy online vs versus it its be".split()
)
# Words that say nothing at all.
GRAMMAR: Final = frozenset("a an the of for in on at to by and or is are be".split())
Real = npt.NDArray[np.float32]
Places = Sequence[int] | npt.NDArray[np.intp] | slice


def content_words(phrase: str, folding: Folding) -> tuple[str, ...]:
    """The words that say what is looked for, as they count for the same; all of them where none
    does.
    """
    words = folded_words(phrase, folding)
    telling = tuple(dict.fromkeys(word for word in words if word not in EMPTY))
    return telling or tuple(dict.fromkeys(words))


class Space:
    """Phrases by meaning and by words. `words` by phrase; `meaning` unit rows, less what all of
    them have in common; `shared` unit rows by word, rare ones for more.
    """

    def __init__(self, phrases: Sequence[str], lexicon: Lexicon, folding: Folding) -> None:
        self.words = [content_words(phrase, folding) for phrase in phrases]
        meaning = lexicon.meanings.phrases(self.words)
        blank: npt.NDArray[np.bool_] = np.logical_not(np.any(meaning != 0, axis=1))
        if len(phrases):
            meaning -= meaning.mean(axis=0)
        meaning[blank] = 0
        # Of these words alone tell.
        self._blank = blank
        self.meaning: Real = meaning / np.maximum(np.linalg.norm(meaning, axis=1), 1e-6)[:, None]
        by_word = _by_word(self.words)
        counts = np.maximum(np.asarray(by_word.sum(0)).ravel(), 1)
        shared = by_word @ diags(np.log1p(len(phrases) / counts) ** RARITY)
        lengths = np.sqrt(np.asarray(shared.multiply(shared).sum(1)).ravel())
        self.shared = (diags(1 / np.maximum(lengths, 1e-9)) @ shared).tocsr().astype(np.float32)
        # "near me" says no other subject, but what covers the phrase without it is not covered by
        # the one with it: such words count here.
        spoken = (dict.fromkeys(folded_words(phrase, folding)) for phrase in phrases)
        self.binary = _by_word([[w for w in own if w not in GRAMMAR] for own in spoken])

    def __len__(self) -> int:
        return len(self.words)

    def alike(self, rows: Places, columns: Places = slice(None)) -> Real:
        """How alike phrases are, 0 to 1: MEANT times how near in meaning, the rest by words."""
        near = np.clip(self.meaning[rows] @ self.meaning[columns].T, 0, 1)
        words = (self.shared[rows] @ self.shared[columns].T).toarray()
        near = np.where(self._blank[rows][:, None] | self._blank[columns][None], words, near)
        found: Real = (MEANT * near + (1 - MEANT) * words).astype(np.float32)
        return np.minimum(found, 1)

    def within(self, rows: Places, columns: Places = slice(None)) -> npt.NDArray[np.bool_]:
        """Whether all words but GRAMMAR of the phrase of a row stand in that of the column."""
        both = (self.binary[rows] @ self.binary[columns].T).toarray()
        needed = np.asarray(self.binary[rows].sum(1)).ravel()
        found: npt.NDArray[np.bool_] = (both >= needed[:, None]) & (needed[:, None] > 0)
        return found


def _by_word(rows: Sequence[Sequence[str]]) -> Any:
    """A sparse row of ones a phrase, each of whose words is a column."""
    names = {word: at for at, word in enumerate(dict.fromkeys(w for row in rows for w in row))}
    places = np.array([names[word] for row in rows for word in row], np.intp)
    ends = np.cumsum([0, *map(len, rows)])
    shape = (len(rows), max(1, len(names)))
    return csr_matrix((np.ones(len(places), np.float32), places, ends), shape)


@dataclass(frozen=True, slots=True)
class Tree:
    """How phrases were joined: scipy's linkage matrix (count - 1, 4), distances from 0 to 1, and
    where it is cut unasked.
    """

    joins: npt.NDArray[np.float32]
    count: int
    cut: float

    def groups(self, cut: float) -> npt.NDArray[np.int32]:
        """By phrase the number of its group, from 0, when what is further apart than `cut` (0 to 1)
        stays apart.
        """
        if self.count < 2:
            return np.zeros(self.count, np.int32)
        found = fcluster(self.joins.astype(np.float64), cut, "distance")
        _, numbers = np.unique(found, return_inverse=True)
        return numbers.astype(np.int32)


def grow(space: Space) -> Tree:
    """The tree of phrases, and the cut at which they lie nearest to their own group and furthest
    from the next (P. Rousseeuw's silhouette, 1987, of up to SAMPLE phrases).
    """
    count = len(space)
    if count < 2:
        return Tree(np.zeros((0, 4), np.float32), count, 1.0)
    apart = 1 - space.alike(slice(None))
    upper = np.concatenate([apart[i, i + 1 :] for i in range(count - 1)])
    joins = linkage(upper.astype(np.float64), "average").astype(np.float32)
    del upper
    tree = Tree(joins, count, 1.0)
    seen = np.unique(np.linspace(0, count - 1, min(count, SAMPLE)).astype(np.intp))
    rows = apart[seen]
    best = max(CUTS, key=lambda cut: (_silhouette(rows, seen, tree.groups(cut)), -cut))
    return Tree(joins, count, best)


def _silhouette(apart: Real, seen: npt.NDArray[np.intp], groups: npt.NDArray[np.int32]) -> float:
    """The mean silhouette of the phrases `seen`, whose distances to all are the rows of `apart`; a
    phrase that is alone has 0.
    """
    kinds = int(groups.max()) + 1
    if kinds < 2:
        return -1.0
    ones = np.ones(len(groups), np.float32)
    member = csr_matrix((ones, (np.arange(len(groups)), groups)))
    sizes = np.bincount(groups, minlength=kinds).astype(np.float32)
    sums = apart @ member
    mine = groups[seen]
    at = np.arange(len(seen))
    own = sums[at, mine] / np.maximum(sizes[mine] - 1, 1)
    means = sums / sizes
    means[at, mine] = np.inf
    other = means.min(axis=1)
    worth = (other - own) / np.maximum(np.maximum(own, other), 1e-9)
    return float(np.where(sizes[mine] > 1, worth, 0).mean())
