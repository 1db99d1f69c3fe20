"""Names as they are made: their parts, and what is known of how they came about."""

from __future__ import annotations

from typing import NamedTuple

__all__ = ["Candidate", "Part"]


class Part(NamedTuple):
    """A stretch of a label. `kind`: keyword, kin, name, lead, tail, place, hyphen, or a way of
    changing a word (form, affix, blend, clip, respell, mirror, invent, initials, acrossdot);
    `keyword`: the text of the brief's keyword it came from, or ''; `start`: its first letter's
    place, from 0; `change`: for a changed word what was done, in words.
    """

    text: str
    kind: str
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
