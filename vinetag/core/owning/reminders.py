"""What is told of a name before it runs out, and after."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Final, Literal, NamedTuple

from vinetag.core.owning.phases import phases_of

__all__ = ["BEFORE", "Due", "due_reminder"]

BEFORE: Final = (90, 30, 7, 1)
# So many days before it can no longer be renewed as before, or be had back, that is told, too.
LAST_DAYS: Final = 3

Of = Literal["expires", "ran_out", "grace_ends", "redemption", "redemption_ends"]


class Due(NamedTuple):
    """What is to be told now, `of` a moment that comes or came `when`; `sign` makes it one of the
    name's: another moment to run out is another.
    """

    of: Of
    when: datetime
    sign: str


def due_reminder(expires: datetime, extension: str, now: datetime) -> Due | None:
    """The newest of what there is to tell at a moment, None before the first and after the last.
    What was missed is not told any more.
    """
    phases = phases_of(expires, extension)
    day = timedelta(days=1)
    steps: list[tuple[datetime, Of, datetime, str]] = [
        (expires - days * day, "expires", expires, str(days)) for days in BEFORE
    ]
    if phases.renewable > expires:
        steps.append((expires, "ran_out", phases.renewable, "0"))
        ends = max(expires, phases.renewable - LAST_DAYS * day)
        steps.append((ends, "grace_ends", phases.renewable, "grace"))
    if phases.redeemable > phases.renewable:
        steps.append((phases.renewable, "redemption", phases.redeemable, "redemption"))
        ends = max(phases.renewable, phases.redeemable - LAST_DAYS * day)
        steps.append((ends, "redemption_ends", phases.redeemable, "redeemable"))
    if now >= max(phases.redeemable, expires):
        return None
    passed = [step for step in steps if step[0] <= now]
    if not passed:
        return None
    _, of, when, mark = max(passed, key=lambda step: step[0])
    return Due(of, when, f"{expires:%Y-%m-%d}:{mark}")
