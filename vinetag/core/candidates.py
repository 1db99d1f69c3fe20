"""Names as they are made: their parts, and what is known of how they came about."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any, NamedTuple

from vinetag.core.concepts import CHANGES, Change, PartName

__all__ = ["Candidate", "Part", "part_document", "read_part", "starts_of"]


class Part(NamedTuple):
    """A stretch of a label. `kind` names one of vinetag.core.concepts.PART_KINDS; `keyword`: the
    text of the brief's keyword it came from, or ''; `start`: its first letter's place, from 0;
    `change`: for a changed word what was done.
    """

    text: str
    kind: PartName
    keyword: str
    start: int
    change: Change | None = None


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


def part_document(part: Part) -> dict[str, Any]:
    """As a JSON object, without what is empty."""
    document: dict[str, Any] = {"text": part.text, "kind": part.kind, "start": part.start}
    if part.keyword:
        document["keyword"] = part.keyword
    if part.change:
        document["change"] = {"code": part.change.code, "args": dict(part.change.args)}
    return document


def read_part(document: Mapping[str, Any] | Sequence[Any]) -> Part:
    """What part_document wrote. Earlier versions wrote the fields in a row, with a sentence for
    the change.
    """
    if not isinstance(document, Mapping):
        text, kind, keyword, start, *rest = document
        change = Change("as_told", {"text": rest[0]}) if rest and rest[0] else None
        return Part(text, kind, keyword, start, change)
    change = document.get("change")
    return Part(
        document["text"],
        document["kind"],
        document.get("keyword", ""),
        document["start"],
        _read_change(change) if change else None,
    )


def starts_of(documents: Sequence[Any]) -> list[int]:
    """Where each of the parts written begins, from 0."""
    return [read_part(document).start for document in documents]


def _read_change(document: Mapping[str, Any]) -> Change:
    """A code of another version has no words here: what it was made of is told."""
    code, args = document["code"], document["args"]
    if code in CHANGES:
        return Change(code, args)
    return Change("as_told", {"text": ", ".join(args.values())})
