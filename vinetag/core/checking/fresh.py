"""How long an answer may be used again."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import datetime, timedelta
from typing import Final

from vinetag.core.checking.evidence import Status

__all__ = ["LIFETIMES", "is_fresh"]

# Taken names stay taken for long; open ones may be gone any moment; not knowing lasts shortest.
LIFETIMES: Final[Mapping[Status, timedelta]] = {
    "taken": timedelta(days=3),
    "reserved": timedelta(days=3),
    "barred": timedelta(0),
    "offered": timedelta(hours=6),
    "dropping": timedelta(hours=2),
    "premium": timedelta(minutes=30),
    "open": timedelta(minutes=15),
    "unsure": timedelta(seconds=20),
}


def is_fresh(
    status: Status,
    at: datetime,
    now: datetime,
    lifetimes: Mapping[Status, timedelta] = LIFETIMES,
) -> bool:
    """Whether an answer of `at` may stand in for asking at `now`. What rules say is worked out anew
    every time.
    """
    return at > now - lifetimes[status]
