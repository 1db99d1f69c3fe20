"""What a recipe is given: the brief, the word data, and answers both share."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from vinetag.core.brief import Brief, Keyword
from vinetag.core.lexicon import BankWord, Lexicon

__all__ = ["Job"]

PAIR_FULL = 6.0
LIKENESS_SHARE = 0.6


@dataclass(frozen=True, slots=True)
class Job:
    """One run of making."""

    brief: Brief
    lexicon: Lexicon

    @property
    def keywords(self) -> Sequence[Keyword]:
        """The brief's keywords, the heaviest first, then in the brief's order."""
        return sorted(self.brief.keywords, key=lambda k: -k.weight)

    def pos(self, word: str) -> str:
        """Parts of speech, commonest first; '' for a word the data does not know."""
        known = self.lexicon.words.get(word)
        return known.pos if known else ""

    def beside(self, role: str, keyword: Keyword) -> list[BankWord]:
        """Bank words fit to lead or follow the keyword that leave it within the letter limit."""
        room = self.brief.limits.letters_max - len(keyword.joined)
        word = keyword.words[0] if role == "lead" else keyword.words[-1]
        bank = self.lexicon.bank
        if len(keyword.words) >= self.brief.limits.words or room < 1:
            return []
        return bank.beside("lead" if role == "lead" else "tail", self.pos(word), room)

    def belonging(self, first: str, seconds: Sequence[str]) -> list[float]:
        """How well each second word goes right after the first, 0 to 1.

        Two signals that do not know of each other: pointwise mutual information of the pair
        (6 nats or more count whole) and the likeness of their vectors (counting up to 0.6).
        """
        seen = self.lexicon.followers(first)
        likeness = self.lexicon.likeness(first, seconds)
        return [
            _either(seen.get(second, 0.0), alike)
            for second, alike in zip(seconds, likeness, strict=True)
        ]

    def belonging_before(self, firsts: Sequence[str], second: str) -> list[float]:
        """How well each first word goes right before the second, 0 to 1."""
        likeness = self.lexicon.likeness(second, firsts)
        return [
            _either(self.lexicon.followers(first).get(second, 0.0), alike)
            for first, alike in zip(firsts, likeness, strict=True)
        ]


def _either(pmi: float, alike: float) -> float:
    together = 0.5 + 0.5 * min(1.0, pmi / PAIR_FULL) if pmi > 0 else 0.0
    return 1 - (1 - together) * (1 - LIKENESS_SHARE * max(0.0, alike))
