"""Politeness towards one host: how many at once, how fast, and when to leave it alone.

One host may answer for hundreds of extensions, so all of this belongs to the host.
"""

from __future__ import annotations

import asyncio
from collections.abc import Callable
from dataclasses import dataclass

from aiolimiter import AsyncLimiter

from vinetag.lookup.answers import Trouble

__all__ = ["Breaker", "Gate", "HostLimits"]


@dataclass(frozen=True, slots=True)
class HostLimits:
    """`at_once`: open questions; `per_second`: 0 for no limit; after `failures` in a row the host
    rests for `rest` seconds.
    """

    at_once: int = 10
    per_second: float = 0.0
    failures: int = 10
    rest: float = 20.0


class Breaker:
    """Opens after failures in a row; after a rest lets a single probe through, whose success closes
    it. `clock` gives seconds.
    """

    def __init__(self, failures: int, rest: float, clock: Callable[[], float]) -> None:
        self._limit, self._rest, self._clock = failures, rest, clock
        self._failed = 0
        self._closed_until = 0.0
        self._probing = False

    def allows(self) -> bool:
        """Whether a question may be asked now; a True while resting is over is the one probe."""
        if self._failed < self._limit:
            return True
        if self._probing or self._clock() < self._closed_until:
            return False
        self._probing = True
        return True

    def record(self, trouble: Trouble) -> None:
        """Count an outcome; only failures of the service itself count against it."""
        self._probing = False
        if trouble in ("unreachable", "timeout", "server_error"):
            self._failed += 1
            if self._failed >= self._limit:
                self._closed_until = self._clock() + self._rest
        else:
            self._failed = 0


class Gate:
    """Everything that stands before one host."""

    def __init__(self, limits: HostLimits, clock: Callable[[], float]) -> None:
        self.slots = asyncio.Semaphore(limits.at_once)
        self.breaker = Breaker(limits.failures, limits.rest, clock)
        rate = limits.per_second
        self._limiter = AsyncLimiter(1, 1 / rate) if rate > 0 else None
        self._clock = clock
        self._paused_until = 0.0

    def pause(self, seconds: float) -> None:
        """Ask nobody for this long: the host said so."""
        self._paused_until = max(self._paused_until, self._clock() + seconds)

    async def turn(self) -> None:
        """Wait for the pause to end and for the rate to allow a question."""
        while (left := self._paused_until - self._clock()) > 0:
            await asyncio.sleep(left)
        if self._limiter:
            await self._limiter.acquire()
