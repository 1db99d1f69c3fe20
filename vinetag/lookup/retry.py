"""Whether to ask again, and when. Pure decisions; the client only carries them out."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from email.utils import parsedate_to_datetime
from typing import Final

from vinetag.core.checking import Trouble

__all__ = ["RetryPolicy", "next_wait", "read_retry_after"]

WORTH_ANOTHER_TRY: Final[frozenset[Trouble]] = frozenset(
    {"unreachable", "timeout", "rate_limited", "server_error", "lame"}
)
LONGEST: Final = 86_400.0


@dataclass(frozen=True, slots=True)
class RetryPolicy:
    """`attempts` in all; waits double from `first_wait` seconds; `patience`: the longest wait in
    seconds before giving up on a name. In a sweep a name whose host failed has so many `rounds` of
    attempts, the later ones after the host's other names; names of a host that is away wait for it
    up to `give_up` seconds.
    """

    attempts: int = 3
    first_wait: float = 0.4
    patience: float = 8.0
    rounds: int = 2
    give_up: float = 180.0


def next_wait(
    policy: RetryPolicy, attempt: int, trouble: Trouble, retry_after: float | None, chance: float
) -> float | None:
    """Seconds to wait before the next attempt, or None to give up.

    `attempt` counts from 1; `retry_after` is what the service asked for, honoured exactly and never
    shortened; `chance`, 0 to 1, spreads the other waits over half to one and a half.
    """
    if trouble not in WORTH_ANOTHER_TRY or attempt >= policy.attempts:
        return None
    if retry_after is not None:
        return retry_after if retry_after <= policy.patience else None
    wait: float = policy.first_wait * 2 ** (attempt - 1) * (0.5 + chance)
    return min(wait, policy.patience)


def read_retry_after(header: str | None, now: datetime) -> float | None:
    """Seconds from a Retry-After header: a number or an HTTP date (RFC 9110 section 10.2.3), up to
    a day; None where it is neither.
    """
    if not header:
        return None
    text = header.strip()
    if text.isascii() and text.isdigit():
        return min(LONGEST, float(text[:12]))
    try:
        seconds = (parsedate_to_datetime(text) - now).total_seconds()
    except (ValueError, TypeError, OverflowError, IndexError):
        return None
    return min(LONGEST, max(0.0, seconds))
