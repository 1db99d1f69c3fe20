"""How long an answer may be used again."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import datetime, timedelta

from vinetag.core.checking.statuses import LIFETIMES, Status

__all__ = ["is_fresh"]


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
