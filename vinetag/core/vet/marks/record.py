"""A mark as a register has it."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import Final, Literal, get_args

from vinetag.core.errors import add_words

__all__ = ["LONGEST_WORD", "MARK_STATUSES", "Mark", "MarkStatus", "plain_status"]

MarkStatus = Literal["registered", "pending", "opposed", "expired", "cancelled", "unknown"]
MARK_STATUSES: Final[tuple[MarkStatus, ...]] = get_args(MarkStatus)
ALIVE: Final[frozenset[MarkStatus]] = frozenset({"registered", "pending", "opposed", "unknown"})
LONGEST_WORD: Final = 200
LONGEST_OWNER: Final = 200
LONGEST_NUMBER: Final = 60

# What registers write, by how it begins in lower case.
_STATUSES: Final[tuple[tuple[str, MarkStatus], ...]] = (
    ("not registered", "cancelled"), ("unregistered", "cancelled"),
    ("registration cancel", "cancelled"), ("registration expired", "expired"),
    ("registration surrender", "cancelled"), ("regist", "registered"), ("renew", "registered"),
    ("live", "registered"), ("protected", "registered"), ("opposition", "opposed"),
    ("oppos", "opposed"), ("pending", "pending"), ("appli", "pending"), ("filed", "pending"),
    ("publish", "pending"), ("exam", "pending"), ("accept", "pending"), ("receiv", "pending"),
    ("expir", "expired"), ("laps", "expired"), ("ended", "expired"), ("dead", "cancelled"),
    ("cancel", "cancelled"), ("withdraw", "cancelled"), ("refus", "cancelled"),
    ("reject", "cancelled"), ("abandon", "cancelled"), ("surrender", "cancelled"),
    ("invalid", "cancelled"), ("revok", "cancelled"), ("unknown", "unknown"),
)  # fmt: skip

add_words(
    {
        "mark_class": "“{value}” is no class of goods or services: they are numbered 1 to 45.",
        "mark_number": "A mark needs the number it has in its register.",
        "mark_word": "A mark needs a word; those that are pictures alone are left out.",
        "mark_status": "“{value}” is no state known here; it is taken as unknown.",
        "register_empty": "There is no mark in it that could be read.",
        "xml_forbidden": "The file declares {what}, which is refused: it could grow without end.",
        "xml_broken": "This is no XML that can be read: {detail}.",
        "xml_other": "There is no element {wanted} of WIPO ST.96 in it.",
        "xml_deep": "Elements stand more than {limit} deep in each other.",
    }
)


@dataclass(frozen=True, slots=True)
class Mark:
    """`number` in the register of `office`; `word` as registered; classes from 1 to 45, none where
    they are not told.
    """

    number: str
    word: str
    owner: str = ""
    office: str = ""
    classes: tuple[int, ...] = ()
    status: MarkStatus = "unknown"
    filed: date | None = None
    registered: date | None = None
    expires: date | None = None

    @property
    def alive(self) -> bool:
        """Whether it may be in force, or come to be."""
        return self.status in ALIVE


def plain_status(text: str) -> MarkStatus | None:
    """Our word for a register's, None for one that is not known here."""
    said = text.strip().lower()
    if not said:
        return "unknown"
    return next((status for start, status in _STATUSES if said.startswith(start)), None)
