"""What recipes give, and what merging makes of it."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from typing import TYPE_CHECKING, NamedTuple, Protocol

from vinetag.core.candidates import Part
from vinetag.core.concepts import Change, PartName
from vinetag.core.make.stems import Stem

if TYPE_CHECKING:
    from vinetag.core.make.job import Job

__all__ = ["Draft", "Recipe", "changed", "hyphened", "joined"]


class Draft(NamedTuple):
    """One recipe's proposal. `strength`, 0 to 1: the evidence that its parts belong together, or,
    for a changed word, that it can still be known.
    """

    label: str
    parts: tuple[Part, ...]
    strength: float


class Recipe(Protocol):
    """One way to turn words into names: a module of its own, pure, the same job giving the same
    drafts in the same order.
    """

    @property
    def name(self) -> str:
        """The name of its record in vinetag.core.concepts."""

    def make(self, job: Job) -> Iterator[Draft]:
        """The recipe's drafts for the job, within no limits but those it needs itself."""


def joined(stems: Iterable[Stem], strength: float) -> Draft:
    """The stems side by side."""
    parts: list[Part] = []
    start = 0
    for stem in stems:
        for word in stem.words:
            parts.append(Part(word, stem.kind, stem.keyword, start))
            start += len(word)
    return Draft("".join(p.text for p in parts), tuple(parts), strength)


def hyphened(front: Iterable[Stem], back: Iterable[Stem], strength: float) -> Draft:
    """The stems with one hyphen between front and back."""
    return joined((*front, Stem(("-",), "hyphen", "", 0, ""), *back), strength)


def changed(label: str, kind: PartName, keyword: str, change: Change, strength: float) -> Draft:
    """A word changed as a whole by a change."""
    return Draft(label, (Part(label, kind, keyword, 0, change),), strength)
