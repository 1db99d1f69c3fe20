"""Names as they are made: their parts, and what is known of how they came about."""

from __future__ import annotations

from typing import NamedTuple

from vinetag.core.concepts import PartName

__all__ = ["Candidate", "Part"]


class Part(NamedTuple):
    """A stretch of a label. `kind` names one of vinetag.core.concepts.PART_KINDS; `keyword`: the
    text of the brief's keyword it came from, or ''; `start`: its first letter's place, from 0;
    `change`: for a changed word what was done, in words.
    """

    text: str
    kind: PartName
    keyword: str
    start: int
    change: str = ""


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
