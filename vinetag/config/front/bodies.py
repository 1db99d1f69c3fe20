"""Bodies are read whole before anything is done with them, bounded while they arrive."""

from __future__ import annotations

import asyncio
from collections.abc import Callable
from dataclasses import dataclass
from tempfile import SpooledTemporaryFile

from vinetag.config.front.messages import App, Message, Receive, Scope, Send, header, refuse

__all__ = ["BoundedBodies", "Bounds"]

IN_MEMORY = 1_000_000
CHUNK = 256 * 1024


@dataclass(frozen=True, slots=True)
class Bounds:
    """`most` bytes, within so many `seconds`; `at_once` such bodies on their way in a process, 0
    for any number.
    """

    most: int
    seconds: float
    at_once: int = 0


class BoundedBodies:
    """Gives the application requests whose body is there, so that no thread waits for a slow one.
    `bounds_of` a path says what is taken.
    """

    def __init__(self, app: App, bounds_of: Callable[[str], Bounds]) -> None:
        self._app, self._bounds_of = app, bounds_of
        self._under_way: dict[Bounds, int] = {}

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """As any ASGI application."""
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return
        bounds = self._bounds_of(scope["path"])
        length = header(scope, b"content-length")
        if length.isdecimal() and int(length[:12]) > bounds.most:
            await _too_large(send, bounds)
            return
        if bounds.at_once and self._under_way.get(bounds, 0) >= bounds.at_once:
            message = "Other large files are being read. Try again in some seconds."
            await refuse(send, 503, "busy", message, 10)
            return
        self._under_way[bounds] = self._under_way.get(bounds, 0) + 1
        try:
            with SpooledTemporaryFile(IN_MEMORY) as body:
                try:
                    async with asyncio.timeout(bounds.seconds):
                        arrived = await _read(receive, body, bounds.most)
                except TimeoutError:
                    await refuse(send, 408, "slow", "The request took too long to arrive.")
                    return
                if arrived is None:
                    return  # whoever sent it has gone
                if arrived > bounds.most:
                    await _too_large(send, bounds)
                    return
                body.seek(0)
                await self._app(scope, _Replay(body, arrived, receive), send)
        finally:
            self._under_way[bounds] -= 1


class _Replay:
    """Gives the body again, then what the connection says."""

    def __init__(self, body: SpooledTemporaryFile[bytes], left: int, receive: Receive) -> None:
        self._body, self._left, self._receive, self._ended = body, left, receive, False

    async def __call__(self) -> Message:
        if self._ended:
            return await self._receive()
        chunk = self._body.read(CHUNK)
        self._left -= len(chunk)
        self._ended = self._left <= 0
        return {"type": "http.request", "body": chunk, "more_body": not self._ended}


async def _read(receive: Receive, body: SpooledTemporaryFile[bytes], most: int) -> int | None:
    """Bytes that arrived, at most one message more than `most`; None when the sender left."""
    arrived = 0
    while True:
        message = await receive()
        if message["type"] == "http.disconnect":
            return None
        chunk = message.get("body", b"")
        arrived += len(chunk)
        if arrived > most:
            return arrived
        body.write(chunk)
        if not message.get("more_body", False):
            return arrived


async def _too_large(send: Send, bounds: Bounds) -> None:
    size = f"{bounds.most / 1_000_000:,.0f} MB"
    await refuse(send, 413, "too_large", f"This is too large: at most {size} at once.")
