"""Noticing a keyword that is probably misspelt. It is never changed by itself."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from functools import lru_cache
from string import ascii_lowercase

from vinetag.core.lexicon import Lexicon

__all__ = ["did_you_mean", "distance", "one_slip_away", "slips"]

COMMON = 2.6
FAR_BEHIND = 1.2
TWO_SLIPS_FROM = 6
TWO_SLIPS_COMMON = 2.8
LEAST = 2.2


@lru_cache(2_000)
def did_you_mean(word: str, lexicon: Lexicon) -> str:
    """A far commoner word one slip away (a letter more, less, other, or two turned), else, for an
    unknown word of six letters or more, a common one two slips away that begins alike; '' when the
    word is known or nothing is near.
    """
    known = lexicon.words.get(word)
    if len(word) < 4 or not word.isalpha() or (known and known.pos and known.zipf >= COMMON):
        return ""
    floor = max(LEAST, (known.zipf if known else 0) + FAR_BEHIND)
    found = one_slip_away(word, lexicon, floor)
    if not found and not known and len(word) >= TWO_SLIPS_FROM:
        alike = (
            w
            for w in lexicon.words
            if w[0] == word[0] and abs(len(w) - len(word)) <= 2 and distance(w, word, 2) <= 2
        )
        found = _best(alike, lexicon, TWO_SLIPS_COMMON)
    return found


def one_slip_away(word: str, lexicon: Lexicon, floor: float) -> str:
    """The commonest word a slip away whose Zipf value is over `floor`; '' when there is none."""
    return _best(slips(word), lexicon, floor)


def _best(words: Iterable[str], lexicon: Lexicon, floor: float) -> str:
    best, highest = "", floor
    for word in words:
        known = lexicon.words.get(word)
        if known and known.pos and known.zipf > highest:
            best, highest = word, known.zipf
    return best


def distance(one: str, two: str, most: int) -> int:
    """Slips between two words, neighbours turned counting one (optimal string alignment); any
    number over `most` comes back as most + 1.
    """
    before: list[int] = []
    row = list(range(len(two) + 1))
    for i, a in enumerate(one, start=1):
        last, before, row = before, row, [i] + [0] * len(two)
        for j, b in enumerate(two, start=1):
            row[j] = min(row[j - 1] + 1, before[j] + 1, before[j - 1] + (a != b))
            if i > 1 and j > 1 and a == two[j - 2] and one[i - 2] == b:
                row[j] = min(row[j], last[j - 2] + 1)
        if min(row) > most:
            return most + 1
    return min(row[-1], most + 1)


def slips(word: str) -> Iterator[str]:
    for i in range(len(word) + 1):
        head, rest = word[:i], word[i:]
        if rest:
            yield head + rest[1:]
            yield from (head + c + rest[1:] for c in ascii_lowercase)
        if len(rest) > 1:
            yield head + rest[1] + rest[0] + rest[2:]
        yield from (head + c + rest for c in ascii_lowercase)
