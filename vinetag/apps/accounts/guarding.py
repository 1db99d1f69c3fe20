"""Against guessing passwords: pauses that grow with every miss, by account and by address."""

from __future__ import annotations

import hashlib
import logging
import time
from dataclasses import dataclass
from typing import Final

from django.core.cache import cache

__all__ = ["TooManyTries", "note_success", "try_to_sign_in"]

# Misses are forgotten after so many seconds without one.
REMEMBERED: Final = 3 * 3600

log = logging.getLogger("vinetag.security")


@dataclass(frozen=True, slots=True)
class _Rule:
    """`free` tries cost nothing; each one more doubles the pause, up to `longest` seconds."""

    kind: str
    free: int
    longest: int

    def pause(self, tries: int) -> int:
        return min(self.longest, 2 ** min(30, tries - self.free)) if tries > self.free else 0


# Someone at one address has few tries at one account. Many addresses together are slowed down as
# well, but never so long that they could lock its owner out.
OF_BOTH: Final = _Rule("both", 5, 900)
OF_ADDRESS: Final = _Rule("address", 30, 900)
OF_ACCOUNT: Final = _Rule("account", 20, 60)


class TooManyTries(Exception):
    """`seconds` to wait before the next try."""

    def __init__(self, seconds: int) -> None:
        self.seconds = seconds
        super().__init__(f"wait {seconds} s")


def try_to_sign_in(username: str, address: str) -> None:
    """Count a try. Raises TooManyTries while it has to wait; such a try is not looked at."""
    now = time.time()
    keys = _keys(username, address)
    waits = [until - now for _, key in keys if (until := cache.get(f"{key}:until"))]
    if waits and max(waits) > 0:
        log.warning("sign-in as %r from %s refused: too many tries", username[:60], address)
        raise TooManyTries(int(max(waits)) + 1)
    for rule, key in keys:
        cache.add(key, 0, REMEMBERED)
        try:
            tries = cache.incr(key)
        except ValueError:  # forgotten between the two
            tries = 1
        if pause := rule.pause(tries):
            cache.set(f"{key}:until", now + pause, pause + 1)
        cache.touch(key, REMEMBERED)


def note_success(username: str, address: str) -> None:
    """It was the right password: what was missed before is forgiven, for the account."""
    for rule, key in _keys(username, address):
        if rule is not OF_ADDRESS:
            cache.delete(key)
            cache.delete(f"{key}:until")


def _keys(username: str, address: str) -> list[tuple[_Rule, str]]:
    account = hashlib.sha256(username.casefold().encode()).hexdigest()[:24]
    place = hashlib.sha256(address.encode()).hexdigest()[:24]
    return [
        (OF_BOTH, f"tries:{account}:{place}"),
        (OF_ACCOUNT, f"tries:{account}"),
        (OF_ADDRESS, f"tries::{place}"),
    ]
