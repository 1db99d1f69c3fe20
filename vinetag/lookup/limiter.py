"""Politeness towards one host: how many at once, how fast, and when to leave it alone.

One host may answer for hundreds of extensions, so all of this belongs to the host. `HostState` is
the whole of the rules, with the clock given; a `LocalLimiter` keeps it in this process, a
`SharedLimiter` (vinetag.lookup.shared_limiter) in Redis, for every process on every machine.
"""

from __future__ import annotations

import asyncio
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Final, Protocol

from vinetag.core.checking import Trouble

__all__ = [
    "RESTING", "HostLimits", "HostState", "Limiter", "LimitsOf", "LocalLimiter", "Rest", "acquire",
]  # fmt: skip

RESTING: Final = -1.0
FAILURES: Final[frozenset[Trouble]] = frozenset(
    {"unreachable", "timeout", "server_error", "lame", "no_bootstrap"}
)
# Asked for this long, a question counts as lost and its permit is free again.
LOST_AFTER: Final = 30.0
# A registry keeps its own clock: staying a little under what it allows is what keeps it kept.
MARGIN: Final = 0.98
USUAL_PAUSE: Final = 1.0
SLOWER: Final = 0.7
FASTER: Final = 0.02
SLOWEST: Final = 0.2
NO_PERMIT: Final = 0.02
# However long a service asks to be left alone, it is asked again after so many seconds.
LONGEST_PAUSE: Final = 900.0
# A host nobody probed for so long may have been back meanwhile: it is not counted as away since.
FORGOTTEN: Final = 60.0
# One who wakes so much after its moment takes another: late ones would all ask at the same time.
TOO_LATE: Final = 0.08


@dataclass(frozen=True, slots=True)
class HostLimits:
    """`at_once`: open questions; `per_second`: 0 for no limit known; after `failures` in a row the
    host rests for `rest` seconds, then one question probes it.
    """

    at_once: int = 10
    per_second: float = 0.0
    failures: int = 10
    rest: float = 5.0


@dataclass(frozen=True, slots=True)
class Rest:
    """Of a host that failed too often: seconds until it is probed again, and since it is away; 0
    and 0 for one that is not.
    """

    left: float = 0.0
    away: float = 0.0


@dataclass(slots=True)
class HostState:
    """The rules for one host. Times are seconds on the caller's clock.

    The rate is kept by spacing (the generic cell rate algorithm of ITU-T I.371 without tolerance):
    each question gets the next free moment. A refusal for asking too fast pauses everyone and makes
    the rate slower by SLOWER; every good answer after it makes it faster by FASTER a second.
    """

    limits: HostLimits
    next_free: float = 0.0
    paused_until: float = 0.0
    resting_until: float = 0.0
    probing_until: float = 0.0
    away_since: float = 0.0
    failed: int = 0
    learned: float = 0.0
    second: float = 0.0
    this_second: int = 0
    last_second: int = 0
    permits: dict[str, float] = field(default_factory=dict)

    def enter(self, token: str, now: float) -> float:
        """Ask to put a question. 0: now; RESTING: not at all; seconds up to then with the permit
        and the moment reserved under `token`; negative seconds below RESTING: ask again after so
        many beyond it, nothing is reserved.
        """
        if self.failed >= self.limits.failures:
            if now < self.resting_until or now < self.probing_until:
                return RESTING
            self.probing_until = now + LOST_AFTER
        if now < self.paused_until:
            self.probing_until = 0.0
            return RESTING - (self.paused_until - now)
        if len(self.permits) >= self.limits.at_once:
            self.permits = {t: until for t, until in self.permits.items() if until > now}
            if len(self.permits) >= self.limits.at_once:
                self.probing_until = 0.0
                return RESTING - NO_PERMIT
        rate = self._rate()
        at = max(now, self.next_free) if rate else now
        if rate:
            self.next_free = at + 1 / rate
        self.permits[token] = at + LOST_AFTER
        if now - self.second >= 1:
            self.last_second = self.this_second if now - self.second < 2 else 0
            self.second, self.this_second = now, 0
        self.this_second += 1
        return at - now

    def leave(
        self,
        token: str,
        now: float,
        trouble: Trouble,
        retry_after: float | None = None,
        more: int = 0,
    ) -> None:
        """Say what became of the question; "late" when it was not put after all. `more` questions
        were put from the same permit before it.
        """
        self.permits.pop(token, None)
        self.this_second += more
        if trouble == "late":
            return
        self.probing_until = 0.0
        if trouble == "rate_limited":
            pause = USUAL_PAUSE if retry_after is None else min(retry_after, LONGEST_PAUSE)
            if now >= self.paused_until:
                seen = float(max(self.this_second, self.last_second, 1))
                self.learned = max(SLOWEST, SLOWER * (self._rate() or seen))
            self.paused_until = max(self.paused_until, now + pause)
            self.next_free = max(self.next_free, self.paused_until)
        elif trouble == "" and self.learned:
            self.learned += FASTER
        if trouble in FAILURES:
            self.failed += 1
            if self.failed >= self.limits.failures:
                if not self.away_since or now > self.resting_until + FORGOTTEN:
                    self.away_since = now
                self.resting_until = now + self.limits.rest
        else:
            self.failed, self.away_since = 0, 0.0

    def rest(self, now: float) -> Rest:
        """How long the host still rests, and since when it is away."""
        if self.failed < self.limits.failures:
            return Rest()
        left = max(self.resting_until, self.probing_until) - now
        return Rest(max(0.0, left), max(0.001, now - self.away_since))

    def _rate(self) -> float:
        """Questions a second, 0 for no limit."""
        allowed = self.limits.per_second * MARGIN
        if self.learned and (not allowed or self.learned < allowed):
            return self.learned
        return allowed


class Limiter(Protocol):
    """What stands before the hosts."""

    def at_once(self, host: str) -> int:
        """The most questions open to the host."""

    async def enter(self, host: str, token: str) -> float:
        """As HostState.enter."""

    async def leave(
        self, host: str, token: str, trouble: Trouble, retry_after: float | None
    ) -> None:
        """As HostState.leave."""

    async def pause_left(self, host: str) -> float:
        """Seconds the host is still to be left alone."""

    async def rest(self, host: str) -> Rest:
        """As HostState.rest."""


LimitsOf = Callable[[str], HostLimits]


class LocalLimiter:
    """Limiter of this process alone; `limits_of` a host."""

    def __init__(self, limits_of: LimitsOf = lambda _: HostLimits()) -> None:
        self._limits_of = limits_of
        self._hosts: dict[str, HostState] = {}

    def at_once(self, host: str) -> int:
        return self._limits_of(host).at_once

    async def enter(self, host: str, token: str) -> float:
        return self._state(host).enter(token, time.monotonic())

    async def leave(
        self, host: str, token: str, trouble: Trouble, retry_after: float | None
    ) -> None:
        self._state(host).leave(token, time.monotonic(), trouble, retry_after)

    async def pause_left(self, host: str) -> float:
        return max(0.0, self._state(host).paused_until - time.monotonic())

    async def rest(self, host: str) -> Rest:
        return self._state(host).rest(time.monotonic())

    def _state(self, host: str) -> HostState:
        if host not in self._hosts:
            self._hosts[host] = HostState(self._limits_of(host))
        return self._hosts[host]


async def acquire(limiter: Limiter, host: str, token: str, patience: float) -> Trouble:
    """Wait for one's turn: "" when it has come, "resting" or, after `patience` seconds,
    "rate_limited".
    """
    deadline = hopeless = 0.0
    while True:
        wait = await limiter.enter(host, token)
        if wait == 0:
            return ""
        if wait == RESTING:
            return "resting"
        if wait > 0:
            due = time.monotonic() + wait
            await asyncio.sleep(wait)
            late = time.monotonic() - due > TOO_LATE
            if not late and not await limiter.pause_left(host):
                return ""
            # The moment has passed, or somebody was told to slow down meanwhile.
            await limiter.leave(host, token, "late", None)
            continue
        wait, now = RESTING - wait, time.monotonic()
        if wait < 1.5 * NO_PERMIT:
            # Others have the permits; those of a process that died come back after LOST_AFTER.
            hopeless = hopeless or now + 2 * LOST_AFTER
            hopeless_now = now > hopeless
        else:
            deadline = deadline or now + patience
            hopeless_now = now + wait > deadline
        if hopeless_now:
            return "rate_limited"
        await asyncio.sleep(wait)
