"""How well one word goes in front of another, learned from what English puts together."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np
import numpy.typing as npt

from vinetag.core.lexicon.word import Word

__all__ = ["LETTERS", "Pairing", "Side"]

LETTERS = "nvar"
FEATURES = 8

Floats = npt.NDArray[np.float32]


class Side(NamedTuple):
    """Words seen from one side of a join: vectors (words x 50), places of their fields and parts of
    speech, how many words they stand before and behind in the dictionary, and their Zipf values.
    """

    vectors: Floats
    fields: npt.NDArray[np.int64]
    pos: npt.NDArray[np.int64]
    before: Floats
    behind: Floats
    zipf: Floats


class Pairing:
    """A bilinear logistic model of the second word given the first (as noun compounds go).

    Trained by scripts/build_pairing.py on four fifths of WordNet's two-word nouns and on closed
    compounds, against partners drawn at random, the same words turned round, and words of the same
    kind put side by side; the last fifth judges it (docs/quality.md).
    """

    def __init__(self, saved: dict[str, npt.NDArray[np.generic]]) -> None:
        load = {k: v.astype(np.float32) for k, v in saved.items() if k != "fields"}
        self.cross, self.first, self.second = load["cross"], load["first"], load["second"]
        self.by_field, self.by_pos, self.weights = load["by_field"], load["by_pos"], load["weights"]
        self.counts = load["counts"]
        self.crowd, self.pleasant = load["crowd"], load["pleasant"]
        self.fields = {str(f): i for i, f in enumerate(saved["fields"])}

    def side(self, words: Sequence[Word | None], places: Sequence[int], vectors: Floats) -> Side:
        """The words' features; `places` are their rows in the lexicon, -1 for an unknown word."""
        rows = np.asarray(places, np.int64)
        known = rows >= 0
        counts = np.where(known[:, None], self.counts[rows], 0.0).astype(np.float32)
        return Side(
            vectors,
            np.array([self.fields.get(w.field if w else "", 0) for w in words]),
            np.array([_pos(w.pos if w else "") for w in words]),
            counts[:, 0],
            counts[:, 1],
            np.array([w.zipf / 5 if w else 0.4 for w in words], np.float32),
        )

    def logits(self, firsts: Side, seconds: Side, alike: Floats | None = None) -> Floats:
        """Log odds that the second word stands behind the first, one row a first word. `alike`, the
        cosines of their vectors, spares working them out where they are known.

        The odds are those of the training set, one real pair to six false ones.
        """
        if alike is None:
            alike = firsts.vectors @ seconds.vectors.T
        z = (firsts.vectors @ self.cross) @ seconds.vectors.T
        z += (firsts.vectors @ self.first)[:, None] + (seconds.vectors @ self.second)[None, :]
        z += self.by_field[np.ix_(firsts.fields, seconds.fields)]
        z += self.by_pos[np.ix_(firsts.pos, seconds.pos)]
        w = self.weights
        one = (
            w[0] + w[2] * np.log1p(firsts.before) + w[4] * (firsts.before <= 0) + w[5] * firsts.zipf
        )
        two = w[1] * np.log1p(seconds.behind) + w[3] * (seconds.behind <= 0) + w[6] * seconds.zipf
        z += one[:, None] + two[None, :] + w[7] * alike
        return z.astype(np.float32)


def _pos(pos: str) -> int:
    return LETTERS.index(pos[0]) if pos[:1] and pos[0] in LETTERS else len(LETTERS)
