"""What one answer of a registry says, in whatever form it came."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass
from datetime import UTC, datetime

from vinetag.core.checking import Says, Trouble
from vinetag.core.checking.dropping import LEAVING

__all__ = ["LONGEST_STATUS", "MOST_STATUSES", "Found", "read_date", "says_of", "unsure"]

LONGEST_DETAIL = 200
# What is earlier is no date of a registration, and a database need not hold it.
FIRST_YEAR = 1970
MOST_STATUSES = 40
LONGEST_STATUS = 60


@dataclass(frozen=True, slots=True)
class Found:
    """What one response says; the fields are those of Evidence."""

    says: Says
    trouble: Trouble = ""
    detail: str = ""
    registered: datetime | None = None
    expires: datetime | None = None
    changed: datetime | None = None
    statuses: tuple[str, ...] = ()
    registrar: str = ""
    holder: str = ""


def says_of(statuses: Collection[str]) -> Says:
    """What status words come to (RFC 8056); `reserved` is that of RFC 9083 section 10.2.2."""
    if LEAVING.intersection(statuses):
        return "dropping"
    return "reserved" if "reserved" in statuses else "registered"


def read_date(text: str) -> datetime | None:
    """An RFC 3339 time in UTC; None where it is none, or one no calendar here can hold, for dates
    are not worth refusing all for.
    """
    try:
        read = datetime.fromisoformat(text)
        read = read.astimezone(UTC) if read.tzinfo else read.replace(tzinfo=UTC)
    except (ValueError, OverflowError):
        return None
    return read if read.year >= FIRST_YEAR else None


def unsure(trouble: Trouble, detail: str) -> Found:
    """An answer that tells nothing, and why."""
    return Found("", trouble=trouble, detail=detail[:LONGEST_DETAIL])
