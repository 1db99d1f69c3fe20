"""Names as they are made: their parts, and what is known of how they came about."""

from __future__ import annotations

from typing import NamedTuple

__all__ = ["Candidate", "Part"]


class Part(NamedTuple):
    """A stretch of a label. `kind`: keyword, name, lead, tail or hyphen; `keyword`: the text of the
    brief's keyword it came from, or ''; `start`: its first letter's place, from 0.
    """

    text: str
    kind: str
    keyword: str
    start: int


class Candidate(NamedTuple):
    """A label with every recipe that made it; the parts and strength are the strongest draft's."""

    label: str
    recipes: tuple[str, ...]
    parts: tuple[Part, ...]
    strength: float

    @property
    def letters(self) -> int:
        """Characters of the label but hyphens."""
        return len(self.label) - self.label.count("-")
