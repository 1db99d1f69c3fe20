"""Two small tests with people: was a heard name written right, and which names are remembered."""

from __future__ import annotations

import re
from collections.abc import Sequence

__all__ = ["recalled", "words_typed", "wrote_right"]

_SEPARATORS = re.compile(r"[,;\n\t]+")
MOST_TYPED = 60


def wrote_right(typed: str, label: str) -> bool:
    """Whether what was typed is the name, but for capitals, spaces and hyphens, which nobody can
    hear.
    """
    return _plain(typed) == _plain(label)


def words_typed(text: str) -> list[str]:
    """What was typed between commas or line ends, at most MOST_TYPED of it."""
    return [part.strip() for part in _SEPARATORS.split(text) if part.strip()][:MOST_TYPED]


def recalled(typed: Sequence[str], labels: Sequence[str]) -> set[str]:
    """Which of the labels were remembered: each typed word counts for the label nearest to it, when
    no more than a fifth of that label's letters differ, and at least one may.
    """
    found: set[str] = set()
    for word in map(_plain, typed):
        near = [(_distance(word, _plain(label)), label) for label in labels]
        if not near or not word:
            continue
        distance, label = min(near)
        if distance <= max(1, len(_plain(label)) // 5):
            found.add(label)
    return found


def _plain(text: str) -> str:
    return re.sub(r"[\s\-]", "", text.lower())


def _distance(one: str, other: str) -> int:
    """Levenshtein's: the fewest letters added, left out or replaced."""
    row = list(range(len(other) + 1))
    for i, a in enumerate(one, 1):
        last, row = row, [i]
        for j, b in enumerate(other, 1):
            row.append(min(last[j] + 1, row[j - 1] + 1, last[j - 1] + (a != b)))
    return row[-1]
