"""How usual letters are at the beginning, in the middle and at the end of English words."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence

__all__ = ["Rarity"]

PLACES = ("begins", "is found in", "ends")


class Rarity:
    """Shares of the words given."""

    def __init__(self, words: Sequence[str]) -> None:
        self._words = len(words)
        self._first = Counter(w[:2] for w in words)
        self._last = Counter(w[-2:] for w in words)
        self._inside = Counter(
            pair for w in words for pair in {w[i : i + 2] for i in range(len(w) - 1)}
        )

    def rarest(self, text: str) -> tuple[str, str, float, int]:
        """The rarest two letters of `text` (two letters or more): they, "begins", "is found in" or
        "ends", the share of words of which that is true, and where they start.
        """
        last = len(text) - 2
        options = [(self._first[text[:2]] / self._words, 0, PLACES[0])]
        options += [
            (self._inside[text[i : i + 2]] / self._words, i, PLACES[1]) for i in range(last + 1)
        ]
        options.append((self._last[text[last:]] / self._words, last, PLACES[2]))
        share, start, place = min(options)
        return text[start : start + 2], place, share, start
