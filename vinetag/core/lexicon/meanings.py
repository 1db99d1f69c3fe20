"""What words mean, as small vectors cut out of a sentence model (scripts/build_meanings.py)."""

from __future__ import annotations

import io
from collections.abc import Callable, Iterable, Mapping, Sequence
from importlib.resources import files
from typing import Final

import numpy as np
import numpy.typing as npt

__all__ = ["FILES", "Meanings", "Vector"]

_DATA = files("vinetag.core.lexicon").joinpath("data")
Vector = npt.NDArray[np.float32]
# Smooth inverse frequency (S. Arora, Y. Liang and T. Ma, 2017): a / (a + share of a text's words).
SMOOTH: Final = 3e-4
FILES: Final = ("meanings.1.npz", "meanings.2.npz")


class Meanings:
    """One unit vector a word. `lemma_of` gives the dictionary form of a word the table lacks;
    `zipf_of` how common a word is (0 for one nobody lists).
    """

    def __init__(
        self, lemma_of: Callable[[str], str] = str, zipf_of: Callable[[str], float] = lambda _: 3.0
    ) -> None:
        words = _DATA.joinpath("meanings.txt").read_text("ascii").split()
        self._places: Mapping[str, int] = {word: place for place, word in enumerate(words)}
        self.words: Sequence[str] = words
        halves = []
        for name in FILES:
            with np.load(io.BytesIO(_DATA.joinpath(name).read_bytes())) as saved:
                halves.append(saved["rows"])
        self._rows = np.concatenate(halves)
        squares = np.square(self._rows.astype(np.float32)).sum(1)
        self._scale = (1 / np.sqrt(squares)).astype(np.float32)
        self._lemma_of = lemma_of
        self._zipf_of = zipf_of
        self._weights: dict[str, float] = {}

    @property
    def dimensions(self) -> int:
        """Numbers a vector has."""
        return int(self._rows.shape[1])

    def place(self, word: str) -> int:
        """The word's row, or that of its dictionary form; -1 when neither is known."""
        found = self._places.get(word, -1)
        return found if found >= 0 else self._places.get(self._lemma_of(word), -1)

    def weight(self, word: str) -> float:
        """How much a word says by its rarity, 0 to 1."""
        if word not in self._weights:
            share = 10 ** (self._zipf_of(word) - 9)
            self._weights[word] = SMOOTH / (SMOOTH + share)
        return self._weights[word]

    def rows(self, words: Sequence[str]) -> Vector:
        """Unit vectors, one row a word; zeros for what is not known."""
        places = np.array([self.place(w) for w in words], np.intp)
        out: Vector = self._rows[places].astype(np.float32) * self._scale[places, None]
        out[places < 0] = 0
        return out

    def mean(self, weighed: Iterable[tuple[str, float]]) -> Vector:
        """The unit vector of words with weights, each weighed by its rarity as well; zeros when
        none is known.
        """
        pairs = list(weighed)
        if not pairs:
            return np.zeros(self.dimensions, np.float32)
        weights = np.array([w * self.weight(text) for text, w in pairs], np.float32)
        total = weights @ self.rows([text for text, _ in pairs])
        found: Vector = (total / (np.linalg.norm(total) or 1.0)).astype(np.float32)
        return found

    def phrases(self, texts: Sequence[Sequence[str]]) -> Vector:
        """Unit vectors of phrases given as words, one row a phrase."""
        flat = [word for text in texts for word in text]
        if not flat:
            return np.zeros((len(texts), self.dimensions), np.float32)
        names = {word: place for place, word in enumerate(dict.fromkeys(flat))}
        known = self.rows(list(names)) * np.array([[self.weight(w)] for w in names], np.float32)
        most = max(1, max(map(len, texts)))
        out = np.zeros((len(texts), self.dimensions), np.float32)
        for at in range(most):
            having = [i for i, text in enumerate(texts) if len(text) > at]
            out[having] += known[[names[texts[i][at]] for i in having]]
        lengths = np.linalg.norm(out, axis=1, keepdims=True)
        found: Vector = (out / np.where(lengths == 0, 1, lengths)).astype(np.float32)
        return found

    def nearest(self, vector: Vector, limit: int) -> list[tuple[str, float]]:
        """The words nearest in meaning, with their cosines, the nearest first."""
        cosines = (self._rows @ (vector.astype(np.float32))) * self._scale
        top = np.argpartition(-cosines, limit)[:limit]
        order = top[np.argsort(-cosines[top], kind="stable")]
        return [(self.words[i], float(cosines[i])) for i in order]
