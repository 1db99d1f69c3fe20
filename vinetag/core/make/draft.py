"""What recipes give, and what merging makes of it."""

from __future__ import annotations

from collections.abc import Iterator
from typing import TYPE_CHECKING, NamedTuple, Protocol

from vinetag.core.candidates import Part

if TYPE_CHECKING:
    from vinetag.core.make.job import Job

__all__ = ["Draft", "Recipe", "joined"]


class Draft(NamedTuple):
    """One recipe's proposal. `strength`, 0 to 1: the evidence that its parts belong together."""

    label: str
    parts: tuple[Part, ...]
    strength: float


class Recipe(Protocol):
    """One way to turn words into names: a module of its own, pure, the same job giving the same
    drafts in the same order.
    """

    @property
    def name(self) -> str:
        """Its name in product and code: exact, pair, lead …"""

    @property
    def summary(self) -> str:
        """What it does, in one line for a person."""

    def make(self, job: Job) -> Iterator[Draft]:
        """Every draft the recipe has for the job, within no limits but those it needs itself."""


def joined(*pieces: tuple[str, str, str]) -> tuple[str, tuple[Part, ...]]:
    """The label and parts of pieces (text, kind, keyword) set side by side."""
    parts: list[Part] = []
    start = 0
    for text, kind, keyword in pieces:
        parts.append(Part(text, kind, keyword, start))
        start += len(text)
    return "".join(p.text for p in parts), tuple(parts)
