"""What a part of a name can be: where a stretch of its letters comes from."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final, Literal

__all__ = ["PART_KINDS", "PartKind", "PartName"]

PartName = Literal[
    "keyword", "name", "kin", "world", "word", "small", "lead", "tail", "place", "ending", "hyphen",
    "form", "affix", "blend", "clip", "respell", "homophone", "mirror", "invent", "initials",
    "acrossdot",
]  # fmt: skip


@dataclass(frozen=True, slots=True)
class PartKind:
    """`word`: what it is, for a person; `changed`: it is a word changed as a whole, and the part
    says how.
    """

    name: PartName
    word: str
    changed: bool = False


PART_KINDS: Final[Mapping[PartName, PartKind]] = {
    kind.name: kind
    for kind in (
        PartKind("keyword", "one of your words"),
        PartKind("name", "the project's name"),
        PartKind("kin", "a word yours lead to"),
        PartKind("world", "a word of your world"),
        PartKind("word", "a word"),
        PartKind("small", "a little word"),
        PartKind("lead", "a short word in front"),
        PartKind("tail", "a word behind"),
        PartKind("place", "a place"),
        PartKind("ending", "an ending that says something"),
        PartKind("hyphen", "a hyphen"),
        PartKind("form", "another form of a word", changed=True),
        PartKind("affix", "a word with a beginning or ending", changed=True),
        PartKind("blend", "one of two words overlapped", changed=True),
        PartKind("clip", "a word shortened", changed=True),
        PartKind("respell", "the same sound in other letters", changed=True),
        PartKind("homophone", "a word that sounds like one of yours", changed=True),
        PartKind("mirror", "a word backwards", changed=True),
        PartKind("invent", "a new word", changed=True),
        PartKind("initials", "first letters", changed=True),
        PartKind("acrossdot", "a word the extension completes", changed=True),
    )
}
