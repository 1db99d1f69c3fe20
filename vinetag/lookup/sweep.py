"""Asking about many names at once, handing over answers as they come."""

from __future__ import annotations

import asyncio
from collections.abc import Callable, Iterable

from vinetag.core.names import FullName
from vinetag.lookup.answers import Answer
from vinetag.lookup.client import RdapClient

__all__ = ["sweep"]


async def sweep(
    client: RdapClient,
    names: Iterable[FullName],
    deliver: Callable[[Answer], None],
    *,
    stop: asyncio.Event | None = None,
    at_once: int = 50,
) -> None:
    """Ask about every name, `at_once` of them together, calling `deliver` for each answer.

    After `stop` is set no new question is asked, and those under way are dropped undelivered.
    """
    waiting = iter(names)

    async def work() -> None:
        for name in waiting:
            deliver(await client.ask(name))

    workers = [asyncio.create_task(work()) for _ in range(at_once)]
    stopped = asyncio.create_task(_until(stop))
    try:
        left = set(workers)
        while left and not stopped.done():
            done, _ = await asyncio.wait({*left, stopped}, return_when=asyncio.FIRST_COMPLETED)
            left -= done
            for worker in done - {stopped}:
                worker.result()
    finally:
        for task in (stopped, *workers):
            task.cancel()
        await asyncio.gather(stopped, *workers, return_exceptions=True)


async def _until(stop: asyncio.Event | None) -> None:
    await (stop or asyncio.Event()).wait()
