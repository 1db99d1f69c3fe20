"""Classes of goods and services (Nice Agreement, 45 classes), which lie near each other, and which
a brief's words speak of. What the classes hold is told in our own few words.
"""

from __future__ import annotations

from collections.abc import Collection, Mapping
from dataclasses import dataclass
from functools import cache, lru_cache
from importlib.resources import files
from typing import TYPE_CHECKING, Final

from vinetag.core.names import folded

if TYPE_CHECKING:
    from vinetag.core.brief import Brief
    from vinetag.core.lexicon import Lexicon

__all__ = ["CLASSES", "MarkClass", "Nearness", "nearness", "proposed_classes"]

MOST_PROPOSED: Final = 4
KEYWORD, FIRST, TOLD, ALIKE = 2.0, 2.0, 1.0, 0.62


@dataclass(frozen=True, slots=True)
class MarkClass:
    """`number` from 1 to 45; `words` say what is in it; `near` are classes of goods and services
    that people expect from the same hand.
    """

    number: int
    title: str
    words: frozenset[str]
    near: frozenset[int]


def _read() -> Mapping[int, MarkClass]:
    text = files("vinetag.core.vet").joinpath("data/classes.tsv").read_text("utf-8")
    found = {}
    for line in text.splitlines():
        number, title, words, near = line.split("\t")
        found[int(number)] = MarkClass(
            int(number), title, frozenset(words.split()), frozenset(map(int, near.split()))
        )
    return found


CLASSES: Final = _read()
Nearness = str
# How much a mark in such a class counts. Where somebody's classes are not known they may be any.
COUNTS: Final[Mapping[Nearness, float]] = {
    "same": 1.0, "near": 0.94, "unknown": 0.94, "other": 0.8,
}  # fmt: skip


def nearness(ours: Collection[int], theirs: Collection[int]) -> Nearness:
    """How a mark's classes lie to one's own: same, near, other, or unknown."""
    if not ours or not theirs:
        return "unknown"
    if set(ours) & set(theirs):
        return "same"
    near = any(b in CLASSES[a].near or a in CLASSES[b].near for a in ours for b in theirs)
    return "near" if near else "other"


@cache
def class_words(classes: frozenset[int]) -> frozenset[str]:
    """Words that merely say what is sold in these classes."""
    return frozenset().union(*(CLASSES[number].words for number in classes))


@lru_cache(256)
def proposed_classes(brief: Brief, lexicon: Lexicon) -> tuple[int, ...]:
    """The classes a brief's keywords and sentence speak of, the likeliest first, at most
    MOST_PROPOSED; none where it says nothing.
    """
    told: dict[str, float] = {}
    every = frozenset().union(*(kind.words for kind in CLASSES.values()))
    for word in folded(brief.about).replace("-", " ").split():
        plain = lexicon.lemma(word.strip(".,;:!?()'\""))
        if plain in every:
            # A sentence says first what it is, then for whom and where.
            told[plain] = TOLD if told else FIRST
    for keyword in brief.keywords:
        for word in keyword.words:
            told[lexicon.lemma(word) or word] = KEYWORD * keyword.weight / 3
    scores = {number: _score(told, kind, lexicon) for number, kind in CLASSES.items()}
    best = max(scores.values(), default=0.0)
    if best < TOLD:
        return ()
    ranked = sorted(scores, key=lambda number: (-scores[number], number))
    return tuple(n for n in ranked if scores[n] >= max(TOLD, best * 0.4))[:MOST_PROPOSED]


def _score(told: Mapping[str, float], kind: MarkClass, lexicon: Lexicon) -> float:
    words = sorted(kind.words)
    whole = 0.0
    for word, weight in told.items():
        if word in kind.words:
            whole += weight
        elif weight > TOLD and word in lexicon.words:
            nearest = max(lexicon.closeness(word, words), default=0.0)
            whole += weight * 0.4 if nearest >= ALIKE else 0.0
    return whole
