"""The bank of words that lead or follow a keyword: hundreds, by role, kind and part of speech."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import TYPE_CHECKING, Literal, NamedTuple

if TYPE_CHECKING:
    from vinetag.core.lexicon.store import Word

__all__ = ["Bank", "BankWord", "Role", "read_bank"]

Role = Literal["lead", "tail"]


class BankWord(NamedTuple):
    """`kind` says what it adds (place, craft, group …); `beside`: parts of speech it goes with."""

    text: str
    role: Role
    kind: str
    beside: str
    zipf: float


@dataclass(frozen=True, slots=True)
class Bank:
    """Leads and tails; a word may stand in several kinds."""

    leads: tuple[BankWord, ...]
    tails: tuple[BankWord, ...]

    def beside(self, role: Role, pos: str, letters_max: int = 63) -> list[BankWord]:
        """One entry a word that fits a keyword of these parts of speech (`pos` as in Word).

        A keyword the word data does not know (`pos` empty) is taken for a noun, as brand words are.
        """
        wanted = set(pos[:2] or "n")
        found: dict[str, BankWord] = {}
        for word in self.leads if role == "lead" else self.tails:
            if len(word.text) <= letters_max and not wanted.isdisjoint(word.beside):
                found.setdefault(word.text, word)
        return list(found.values())


def read_bank(text: str, words: Mapping[str, Word]) -> Bank:
    """Read bank.txt: lines `role kind pos: word word …`; `#` begins a comment."""
    entries: list[BankWord] = []
    for line in text.split("\n"):
        if not line or line.startswith("#"):
            continue
        head, _, listed = line.partition(":")
        role, kind, beside = head.split()
        for item in listed.split():
            known = words.get(item)
            zipf = known.zipf if known else 0.0
            entries.append(BankWord(item, "lead" if role == "lead" else "tail", kind, beside, zipf))
    return Bank(
        leads=tuple(e for e in entries if e.role == "lead"),
        tails=tuple(e for e in entries if e.role == "tail"),
    )
