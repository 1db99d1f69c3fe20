"""Turns: how many requests are worked on at once, who is next, and who is asked to come back.

A request is worked on by a thread, and a thread keeps a database connection: the lanes' threads
are therefore what bounds the connections of a process.
"""

from __future__ import annotations

import asyncio
from collections import OrderedDict, deque
from collections.abc import Callable
from http.cookies import CookieError, SimpleCookie

from vinetag.config.front.messages import App, Receive, Scope, Send, header, refuse

__all__ = ["Lane", "Lanes"]

BUSY = "Many people are at work here just now. Try again in some seconds."
TOO_MANY = "Your last requests are still being worked on. Try again in some seconds."


class Lane:
    """A bounded queue before an application: `at_once` requests are worked on, `most` wait, of one
    caller `of_one`, for up to `patience` seconds. Callers take turns, whatever each has sent.
    """

    def __init__(self, app: App, *, at_once: int, most: int, of_one: int, patience: float) -> None:
        self._app, self._free = app, at_once
        self._most, self._of_one, self._patience = most, of_one, patience
        self._waiting: OrderedDict[str, deque[asyncio.Future[None]]] = OrderedDict()
        self._count = 0

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """As any ASGI application; 429 and 503 say when to come back (RFC 9110 section 10.2.3)."""
        caller = caller_of(scope)
        if len(self._waiting.get(caller, ())) >= self._of_one:
            await refuse(send, 429, "throttled", TOO_MANY, 2)
            return
        if self._count >= self._most:
            await refuse(send, 503, "busy", BUSY, 5)
            return
        if not await self._turn(caller):
            await refuse(send, 503, "busy", BUSY, 5)
            return
        try:
            await self._app(scope, receive, send)
        finally:
            self._release()

    async def _turn(self, caller: str) -> bool:
        """Wait for one's turn; False when it did not come in time."""
        if self._free and not self._count:
            self._free -= 1
            return True
        turn: asyncio.Future[None] = asyncio.get_running_loop().create_future()
        self._waiting.setdefault(caller, deque()).append(turn)
        self._count += 1
        try:
            async with asyncio.timeout(self._patience):
                await turn
        except (TimeoutError, asyncio.CancelledError) as error:
            if turn.done() and not turn.cancelled():
                self._release()
            else:
                self._forget(caller, turn)
            if isinstance(error, asyncio.CancelledError):
                raise
            return False
        return True

    def _forget(self, caller: str, turn: asyncio.Future[None]) -> None:
        queue = self._waiting.get(caller)
        if queue and turn in queue:
            queue.remove(turn)
            self._count -= 1
            if not queue:
                del self._waiting[caller]

    def _release(self) -> None:
        """Hand the place to the caller who waited longest for a turn of theirs."""
        while self._waiting:
            caller, queue = self._waiting.popitem(last=False)
            turn = queue.popleft()
            self._count -= 1
            if queue:
                self._waiting[caller] = queue
            if not turn.done():
                turn.set_result(None)
                return
        self._free += 1


class Lanes:
    """Sends each request to a lane, by `choose` of its method and path."""

    def __init__(self, choose: Callable[[str, str], App]) -> None:
        self._choose = choose

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """As any ASGI application."""
        await self._choose(scope["method"], scope["path"])(scope, receive, send)


def caller_of(scope: Scope) -> str:
    """Whose turn it is: the session, or without one the address."""
    try:
        cookies = SimpleCookie(header(scope, b"cookie"))
    except CookieError:
        cookies = SimpleCookie()
    if "sessionid" in cookies:
        return f"session {cookies['sessionid'].value}"
    client = scope.get("client")
    return f"address {client[0] if client else ''}"
