"""Names that look like one and are written in other letters (Unicode Technical Standard 39,
confusables; its data come with the package confusable-homoglyphs).

Registries take labels of one script, so these are the labels with one letter in place of another of
the Latin script, and those that can be written in the letters of another script alone.
"""

from __future__ import annotations

from collections.abc import Iterator
from functools import lru_cache
from typing import Final

import idna
from confusable_homoglyphs import categories, confusables

__all__ = ["disguises"]

SCRIPTS: Final = ("CYRILLIC", "GREEK")
MOST_A_LETTER: Final = 4


@lru_cache(100)
def _alike(letter: str, script: str) -> tuple[str, ...]:
    """Single letters of a script that look like it, and that a label may have."""
    found = confusables.is_confusable(letter, greedy=True, preferred_aliases=[])
    rows = found[0]["homoglyphs"] if found else []
    texts = [row["c"] for row in rows if len(row["c"]) == 1 and not row["c"].isascii()]
    return tuple(t for t in texts if categories.alias(t) == script and _allowed(t))[:MOST_A_LETTER]


def _allowed(letter: str) -> bool:
    try:
        idna.check_label(letter)
    except (idna.IDNAError, UnicodeError):
        return False
    return True


def disguises(label: str) -> list[str]:
    """A-labels that look like a label in a to z, those in another script first."""
    if not label.isascii() or not label.isalpha():
        return []
    found: dict[str, None] = {}
    for text in (*_in_scripts(label), *_one_letter(label)):
        try:
            found[idna.alabel(text).decode("ascii")] = None
        except (idna.IDNAError, UnicodeError):
            continue
    return list(found)


def _in_scripts(label: str) -> Iterator[str]:
    for script in SCRIPTS:
        letters = [_alike(letter, script)[:1] for letter in label]
        if all(letters):
            yield "".join(one[0] for one in letters)


def _one_letter(label: str) -> Iterator[str]:
    for at, letter in enumerate(label):
        for other in _alike(letter, "LATIN"):
            yield label[:at] + other + label[at + 1 :]
