"""The pieces of ASGI the front speaks (asgi.readthedocs.io, HTTP version 2.3)."""

from __future__ import annotations

import json
from collections.abc import Awaitable, Callable, MutableMapping
from typing import Any

__all__ = ["App", "Message", "Receive", "Scope", "Send", "header", "refuse"]

Scope = MutableMapping[str, Any]
Message = MutableMapping[str, Any]
Receive = Callable[[], Awaitable[Message]]
Send = Callable[[Message], Awaitable[None]]
App = Callable[[Scope, Receive, Send], Awaitable[None]]


def header(scope: Scope, name: bytes) -> str:
    """A header of the request, "" when it was not sent."""
    for key, value in scope["headers"]:
        if key == name:
            return str(value.decode("latin1"))
    return ""


async def refuse(
    send: Send, status: int, code: str, message: str, retry_after: int | None = None
) -> None:
    """Answer with an error in the shape of every other."""
    body = json.dumps({"code": code, "message": message, "problems": []}).encode()
    headers = [(b"content-type", b"application/json"), (b"content-length", b"%d" % len(body))]
    if retry_after is not None:
        headers.append((b"retry-after", b"%d" % retry_after))
    if status in (408, 413):
        # What is still on its way is not read.
        headers.append((b"connection", b"close"))
    await send({"type": "http.response.start", "status": status, "headers": headers})
    await send({"type": "http.response.body", "body": body})
