"""What all worlds share: the fields' vectors, how near each is to a brief, and their entries."""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache
from typing import Final

import numpy as np

from vinetag.core.lexicon import Lexicon
from vinetag.core.lexicon.meanings import Vector
from vinetag.core.lexicon.morphology import singular
from vinetag.core.world.fields import ENTRIES, WORDS, entry_words, read_fields

__all__ = ["KEYWORD_PULL", "FieldIndex", "index_of"]

# How a keyword pulls, beside a word of the sentence.
KEYWORD_PULL: Final = 1.5
# A brief of two subjects: a keyword that says something, and of which the nearest field says less
# than LEFT (z-scores over all fields), has fields of its own, those that say at least COVERS of it
# and MEANT of the sentence (a potter's wheel is no bicycle's). The nearest A_KEYWORD of them count
# so much nearer, but less near than the nearest of all.
LEFT: Final = 2.5
COVERS: Final = 4.3
MEANT: Final = 2.0
SECOND: Final = 2.6
A_KEYWORD: Final = 2
BEHIND: Final = 0.1


class FieldIndex:
    """The fields with their vectors, the entries, and in how many fields a word stands."""

    def __init__(self, lexicon: Lexicon) -> None:
        meanings = lexicon.meanings
        self.fields = read_fields()
        rows = []
        for field in self.fields:
            words = [(w, 1.0) for entry in field.facets["about"] for w in entry.split()]
            rows.append(meanings.mean([*words, *((w, 2.0) for w in entry_words(field.title))]))
        vectors = np.stack(rows)
        vectors -= vectors.mean(0)
        self.vectors = vectors / np.linalg.norm(vectors, axis=1, keepdims=True)
        self.spread: dict[str, int] = {}
        for field in self.fields:
            for word in {w for f in WORDS for e in field.facets[f] for w in e.split()}:
                self.spread[word] = self.spread.get(word, 0) + 1
        self._lexicon = lexicon
        self._entries = [(f.title, k, t) for f in self.fields for k in ENTRIES for t in f.facets[k]]

    @lru_cache(400)  # noqa: B019 - there is one of it, as long as the process lasts
    def carrying(self, word: str) -> Sequence[tuple[str, str, str]]:
        """(title of the field, facet, entry) of every entry that holds the word in any form;
        remembered for the words asked for last.
        """
        return [
            (title, facet, text)
            for title, facet, text in self._entries
            if word in text and any(self.root(w) == word for w in entry_words(text))
        ]

    @lru_cache(20_000)  # noqa: B019 - as above
    def root(self, word: str) -> str:
        """What a word's forms have in common: one of many, or the dictionary form."""
        return singular(word, self._lexicon) or self._lexicon.lemma(word)

    def nearness(
        self, query: Vector, asked: Sequence[tuple[str, float]], sentence: Vector
    ) -> Vector:
        """How near each field is: a sum of two z-scores, of the brief as a whole (`query`) and of
        its keywords, each with its pull (`asked`); and what a second subject adds, which the
        `sentence` has to speak of.
        """
        score = _z(self.vectors @ query)
        if not asked:
            return 2 * score
        pulls = np.array([pull for _, pull in asked], np.float32)
        each = self.vectors @ self._lexicon.meanings.rows([word for word, _ in asked]).T
        pulled = each * pulls
        score = score + _z(pulled.mean(1) + 0.5 * pulled.max(1))
        return _with_second(score, each[:, pulls >= KEYWORD_PULL], self.vectors @ sentence)


@lru_cache(2)
def index_of(lexicon: Lexicon) -> FieldIndex:
    """The one index for a lexicon."""
    return FieldIndex(lexicon)


def _z(values: Vector) -> Vector:
    found: Vector = (values - values.mean(0)) / np.maximum(values.std(0), 1e-6)
    return found


def _with_second(score: Vector, each: Vector, told: Vector) -> Vector:
    """The fields' nearness where the brief has a second subject: `each` is how near they are to
    each keyword that says something, a row a field; `told` to the sentence.
    """
    said, nearest = _z(each), int(score.argmax())
    left = said[nearest] < LEFT
    covers = (said[:, left] >= COVERS) & (_z(told) >= MEANT)[:, None]
    place = np.argsort(np.argsort(np.where(covers, -score[:, None], np.inf), axis=0), axis=0)
    second = (covers & (place < A_KEYWORD)).any(axis=1)
    nearer = np.minimum(score + SECOND, np.maximum(score, score[nearest] - BEHIND))
    found: Vector = np.where(second, nearer, score)
    return found
