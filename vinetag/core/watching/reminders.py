"""Moments told of before they come: an auction's end, a drop, the day a name runs out."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import datetime, timedelta
from typing import Final, Literal, NamedTuple

from vinetag.core.watching.seen import Seen

__all__ = ["Reminder", "next_reminder"]

Moment = Literal["ends", "drops", "expires"]
DAY: Final = timedelta(days=1)
HOUR: Final = timedelta(hours=1)
BEFORE: Final[dict[Moment, tuple[timedelta, ...]]] = {
    "ends": (DAY, HOUR),
    "drops": (DAY,),
    "expires": (30 * DAY, 7 * DAY, DAY),
}


class Reminder(NamedTuple):
    """That at a moment `at` it is told that the `of` of a name comes `when`, so long `before`."""

    at: datetime
    of: Moment
    when: datetime
    before: timedelta


def next_reminder(seen: Seen, after: datetime, *, expiry: bool) -> Reminder | None:
    """The next one after a moment; those of running out for who watches that (`expiry`) only."""
    return min(
        (one for one in _all(seen, expiry=expiry) if one.at > after),
        key=lambda one: one.at,
        default=None,
    )


def _all(seen: Seen, *, expiry: bool) -> Iterator[Reminder]:
    moments: dict[Moment, datetime | None] = {
        "ends": seen.ends if seen.status == "offered" and not expiry else None,
        "drops": seen.drops_from if seen.status == "dropping" else None,
        "expires": seen.expires if seen.status in ("taken", "offered") and expiry else None,
    }
    for of, when in moments.items():
        if when is not None:
            for before in BEFORE[of]:
                yield Reminder(when - before, of, when, before)
