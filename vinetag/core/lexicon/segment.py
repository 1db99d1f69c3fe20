"""How a closed-up name is read as words: the likeliest splits, and how likely each is."""

from __future__ import annotations

import math
from collections.abc import Container, Mapping, Sequence
from typing import NamedTuple, Protocol

__all__ = ["LONGEST_WORD", "Costed", "Split", "reading_cost", "segment", "splits", "word_cost"]

LONGEST_WORD = 20
NATURAL = 2.302585
# Costs in nats, tuned on one half of the dictionary's two-word entries (scripts/eval_clarity.py).
UNKNOWN_WORD = 10.0
UNKNOWN_LETTER = 3.0
SINGLE_LETTER = 8.0
OTHER_LETTER = 13.0
TWO_LETTERS = 4.0
NAME = 1.0
A_WORD = 2.0
GIVEN_WORD = 2.0


class Costed(Protocol):
    """Words with what reading each of them costs, in nats; the lexicon is one."""

    @property
    def reading_costs(self) -> Mapping[str, float]:
        """By word."""


class Split(NamedTuple):
    """A way to read a label as words; `cost` in nats: the likelier, the lower."""

    cost: float
    words: tuple[str, ...]


def segment(text: str, lexicon: Costed, extra: Container[str] = ()) -> list[str]:
    """The words of `text` (lower case, no hyphens), in order; together they spell it.

    A word costs its negative log frequency, an unknown stretch 10 + 3 a letter, `extra` words next
    to nothing. Digits stay together.
    """
    best: list[tuple[float, int]] = [(0.0, 0)]
    for end in range(1, len(text) + 1):
        options = (
            (best[start][0] + _cost(text[start:end], lexicon, extra), start)
            for start in range(max(0, end - 63), end)
        )
        best.append(min(options))
    words: list[str] = []
    end = len(text)
    while end:
        start = best[end][1]
        words.append(text[start:end])
        end = start
    return words[::-1]


def splits(text: str, lexicon: Costed, most: int = 3) -> tuple[float, list[Split]]:
    """Minus the log of the probability of all readings of `text` as words together, and the
    likeliest `most` of them, likeliest first. Costs are those of `segment`; letters that make no
    word are read one by one, and only when there is no other reading.
    """
    found = _splits(text, lexicon, most, one_by_one=False)
    return found or _splits(text, lexicon, most, one_by_one=True) or (0.0, [])


def _splits(
    text: str, lexicon: Costed, most: int, *, one_by_one: bool
) -> tuple[float, list[Split]] | None:
    cost_of, letters_only = lexicon.reading_costs.get, text.isalpha()
    # Of each beginning of the text: its best readings as (cost, start of the last word, which of
    # the readings up to there), and minus the log of the probability of all.
    best: list[list[tuple[float, int, int]]] = [[(0.0, 0, 0)]]
    total = [0.0]
    for end in range(1, len(text) + 1):
        found: list[tuple[float, int, int]] = []
        chances: list[float] = []
        for start in range(max(0, end - LONGEST_WORD), end):
            before = best[start]
            if not before:
                continue
            word = text[start:end]
            cost = cost_of(word)
            if cost is None:
                alone = end - start == 1 and (one_by_one or word in "ai")
                if not alone and (letters_only or word.isalpha()):
                    continue
                cost = _cost(word, lexicon, ())
            chances.append(total[start] + cost)
            found += [(value + cost, start, which) for which, (value, _, _) in enumerate(before)]
        if len(found) > 1:
            found.sort()
        best.append(found[:most])
        least = min(chances, default=0.0)
        if len(chances) > 1:
            least -= math.log(sum(math.exp(least - c) for c in chances))
        total.append(least)
    if not best[-1]:
        return None
    return total[-1], [_traced(text, best, which) for which in range(len(best[-1]))]


def _traced(text: str, best: Sequence[Sequence[tuple[float, int, int]]], which: int) -> Split:
    end, words = len(text), []
    cost = best[end][which][0]
    while end:
        _, start, which = best[end][which]
        words.append(text[start:end])
        end = start
    return Split(cost, tuple(words[::-1]))


def reading_cost(words: Sequence[str], lexicon: Costed) -> float:
    """What it costs to read these words, in nats."""
    return sum(_cost(word, lexicon, ()) for word in words)


def word_cost(word: str, zipf: float, known: bool) -> float:
    """What a word of the vocabulary costs; `known` when a dictionary says its part of speech."""
    if len(word) == 1:
        return (SINGLE_LETTER if word in "ai" else OTHER_LETTER) + A_WORD
    cost = NATURAL * (9 - zipf) + A_WORD + (0.0 if known else NAME)
    return cost + (TWO_LETTERS if len(word) == 2 else 0.0)


def _cost(word: str, lexicon: Costed, extra: Container[str]) -> float:
    if word in extra:
        return GIVEN_WORD
    if word.isdigit():
        return UNKNOWN_WORD
    cost = lexicon.reading_costs.get(word)
    if cost is not None:
        return cost
    if len(word) == 1 and word.isalpha():
        return word_cost(word, 0.0, known=True)
    unread = UNKNOWN_LETTER * len(word) * (2 if not word.isalpha() else 1)
    return UNKNOWN_WORD + unread + A_WORD
