"""The bank of words that lead or follow a keyword: hundreds, by role, kind and part of speech."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, NamedTuple

__all__ = ["Bank", "BankWord", "Role", "read_bank"]

Role = Literal["lead", "tail"]


class BankWord(NamedTuple):
    """`kind` says what it adds (place, craft, group …); `goes_with`: parts of speech;
    `broad`: it goes with nearly every word of those, others want to have been seen beside it.
    """

    text: str
    role: Role
    kind: str
    goes_with: str
    broad: bool


@dataclass(frozen=True, slots=True)
class Bank:
    """Leads and tails; a word may stand in several kinds."""

    leads: tuple[BankWord, ...]
    tails: tuple[BankWord, ...]


def read_bank(text: str) -> Bank:
    """Read bank.txt: lines `role kind pos: broad words | other words`; `#` begins a comment."""
    entries: list[BankWord] = []
    for line in text.split("\n"):
        if not line or line.startswith("#"):
            continue
        head, _, listed = line.partition(":")
        role, kind, goes_with = head.split()
        for words, broad in zip(listed.split("|"), (True, False), strict=False):
            for item in words.split():
                entries.append(
                    BankWord(item, "lead" if role == "lead" else "tail", kind, goes_with, broad)
                )
    return Bank(
        leads=tuple(e for e in entries if e.role == "lead"),
        tails=tuple(e for e in entries if e.role == "tail"),
    )
