"""Carrying out a check: questions in an event loop of their own, answers stored as they come."""

from __future__ import annotations

import asyncio
import queue
import threading
import time
from collections.abc import Sequence

from django.conf import settings

from vinetag.apps.availability import services
from vinetag.core.names import FullName
from vinetag.lookup import Answer, HostLimits, open_client, sweep

__all__ = ["SLICE_NAMES", "SLICE_SECONDS", "run_slice"]

SLICE_SECONDS = 30.0
SLICE_NAMES = 2_000
STORE_EVERY = 0.25
SEVERAL_HOSTS = 5


def run_slice(check_id: int, token: str) -> None:
    """Ask about what is left of the check for up to SLICE_SECONDS, keeping the lease meanwhile.

    Ends early when the check was stopped. Answers that arrived are always stored.
    """
    names = services.awaited_names(check_id, SLICE_NAMES)
    asking = _Asking(names)
    asking.start()
    deadline = time.monotonic() + SLICE_SECONDS
    try:
        while asking.is_alive():
            asking.join(STORE_EVERY)
            services.save_answers(check_id, asking.answers())
            if not services.beat(check_id, token) or time.monotonic() > deadline:
                break
    finally:
        asking.stop()
        asking.join()
        if services.beat(check_id, token):
            services.save_answers(check_id, asking.answers())


class _Asking(threading.Thread):
    """The event loop that asks, in a thread, so that storing never holds up asking."""

    def __init__(self, names: Sequence[FullName]) -> None:
        super().__init__(name="asking", daemon=True)
        self._names = names
        self._arrived: queue.SimpleQueue[Answer] = queue.SimpleQueue()
        self._halt: asyncio.Event | None = None
        self._loop: asyncio.AbstractEventLoop | None = None
        self._ready = threading.Event()

    def run(self) -> None:
        asyncio.run(self._ask())

    async def _ask(self) -> None:
        self._loop, self._halt = asyncio.get_running_loop(), asyncio.Event()
        self._ready.set()
        limits = HostLimits(
            at_once=settings.RDAP_AT_ONCE_A_HOST, per_second=settings.RDAP_PER_SECOND_A_HOST
        )
        async with open_client(
            settings.RDAP_BOOTSTRAP_URL, timeout=settings.RDAP_TIMEOUT_SECONDS, limits=limits
        ) as client:
            await sweep(
                client,
                self._names,
                self._arrived.put,
                stop=self._halt,
                at_once=SEVERAL_HOSTS * limits.at_once,
            )

    def answers(self) -> list[Answer]:
        """What has arrived since the last call."""
        found: list[Answer] = []
        while not self._arrived.empty():
            found.append(self._arrived.get())
        return found

    def stop(self) -> None:
        """Ask no more; safe at any time, from any thread."""
        self._ready.wait()
        if self._loop and self._halt and not self._loop.is_closed():
            self._loop.call_soon_threadsafe(self._halt.set)
