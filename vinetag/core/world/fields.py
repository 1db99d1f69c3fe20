"""Fields: what the people of a trade or a subject handle, do and say, written for this product.

A file in `data/` holds blank-line separated blocks: `[title]`, then `facet: entry, entry …` in the
order of ABOUT. `about` finds the field; a `pairs` entry is `first & second`. To add a field, write
a block; the contract test reads them all.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Final

from vinetag.core.brief import FACETS, WORD_FACETS

__all__ = ["ABOUT", "ENTRIES", "WORDS", "Field", "entry_words", "parse_fields", "read_fields"]

WORDS: Final = WORD_FACETS
# Facets whose entries are whole names.
ENTRIES: Final = ("phrases", "pairs", "does")
ABOUT: Final = ("about", *FACETS)


@dataclass(frozen=True, slots=True)
class Field:
    """One trade or subject. `facets`: entries by facet, each facet of ABOUT present (some empty),
    the best first.
    """

    title: str
    facets: Mapping[str, tuple[str, ...]]

    def everything(self) -> Iterator[str]:
        """Title and entries of every facet."""
        yield self.title
        for entries in self.facets.values():
            yield from entries


def entry_words(text: str) -> tuple[str, ...]:
    """The words of an entry: lower case letters, `&` as "and"."""
    return tuple(re.findall("[a-z]+", text.lower().replace("'", "").replace("&", " and ")))


def parse_fields(text: str) -> list[Field]:
    """The fields of one file. Raises ValueError with the line of what is not understood."""
    found: list[Field] = []
    title, facets = "", dict[str, tuple[str, ...]]()
    for number, line in enumerate([*text.splitlines(), "[]"], 1):
        if line.startswith("[") and line.endswith("]"):
            if title:
                found.append(Field(title, {f: facets.get(f, ()) for f in ABOUT}))
            title, facets = line[1:-1], {}
        elif line.strip():
            facet, colon, entries = line.partition(":")
            if not title or not colon or facet not in ABOUT or facet in facets:
                raise ValueError(f"line {number}: “{line[:40]}” is no facet of a field")
            facets[facet] = tuple(entry.strip() for entry in entries.split(",") if entry.strip())
    return found


@cache
def read_fields() -> Sequence[Field]:
    """Every field that ships, in the order of their titles."""
    folder = files("vinetag.core.world").joinpath("data")
    texts = [f.read_text("utf-8") for f in folder.iterdir() if f.name.endswith(".txt")]
    found = [field for text in texts for field in parse_fields(text)]
    return sorted(found, key=lambda f: f.title)
