"""Asking one thing of a host: through its limits, and again where that may help."""

from __future__ import annotations

import asyncio
import random
import uuid
from collections.abc import Awaitable, Callable
from typing import NamedTuple, TypeVar

from vinetag.core.checking import Trouble
from vinetag.lookup.limiter import Limiter, acquire
from vinetag.lookup.retry import RetryPolicy, next_wait

__all__ = ["Tried", "politely"]

Found = TypeVar("Found")


class Tried(NamedTuple):
    """What came of one try: its trouble, and how many seconds the host asked us to stay away."""

    trouble: Trouble = ""
    retry_after: float | None = None


async def politely(
    limiter: Limiter,
    retry: RetryPolicy,
    host: str,
    once: Callable[[], Awaitable[tuple[Found, Tried]]],
    refused: Callable[[Trouble], Found],
) -> Found:
    """What the last try found; `refused` makes what stands for it where the host's limits let
    nobody in. Raises nothing that `once` does not.
    """
    attempt = 0
    while True:
        token = uuid.uuid4().hex
        tried = Tried()
        try:
            closed = await acquire(limiter, host, token, retry.patience)
            if closed:
                return refused(closed)
            found, tried = await once()
        finally:
            await limiter.leave(host, token, tried.trouble, tried.retry_after)
        attempt += 1
        wait = next_wait(retry, attempt, tried.trouble, tried.retry_after, random.random())  # noqa: S311
        if not tried.trouble or wait is None:
            return found
        await asyncio.sleep(wait)
