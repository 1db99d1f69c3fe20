"""When a name on its way out may become open."""

from __future__ import annotations

from collections.abc import Collection
from datetime import datetime, timedelta
from typing import Final

__all__ = ["LEAVING", "may_open"]

# Status words of RFC 8056, for the grace periods of RFC 3915.
REDEMPTION: Final = "redemption period"
DELETE: Final = "pending delete"
LEAVING: Final = frozenset({REDEMPTION, DELETE, "pending restore"})

GRACE: Final = timedelta(days=45)
REDEEM: Final = timedelta(days=30)
PENDING: Final = timedelta(days=5)


def may_open(
    statuses: Collection[str], expires: datetime | None, changed: datetime | None
) -> tuple[datetime, datetime] | None:
    """The first and the last moment a name of a generic extension may become open; None when that
    cannot be said, as of dates at the end of the calendar.

    After expiry come up to 45 days in which the registrar may renew, 30 days of redemption and 5 of
    pending delete; `changed` is when the registry last changed the name, which is when the period
    began.
    """
    try:
        if DELETE in statuses and changed:
            return changed, changed + PENDING
        if REDEMPTION in statuses and changed:
            return changed + REDEEM, changed + REDEEM + PENDING
        if expires and {DELETE, REDEMPTION}.intersection(statuses):
            return expires + REDEEM, expires + GRACE + REDEEM + PENDING
    except OverflowError:
        pass
    return None
