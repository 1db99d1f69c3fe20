"""Host names the server answers for, and headers every answer carries, files included."""

from __future__ import annotations

from collections.abc import Sequence

from django.http.request import split_domain_port, validate_host

from vinetag.config.front.messages import App, Message, Receive, Scope, Send, header, refuse

__all__ = ["POLICY", "SafeHeaders"]

# Inline styles are allowed because the styling library writes them.
POLICY = (
    "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; "
    "object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'"
)
ALWAYS = {
    "content-security-policy": POLICY,
    "x-content-type-options": "nosniff",
    "x-frame-options": "DENY",
    "referrer-policy": "same-origin",
    "cross-origin-opener-policy": "same-origin",
}


class SafeHeaders:
    """Refuses other hosts than `hosts`; adds the headers. Answers of the API are not to be stored;
    `hsts` seconds of HTTPS only (RFC 6797), 0 for no such promise.
    """

    def __init__(self, app: App, hosts: Sequence[str], hsts: int = 0) -> None:
        self._app, self._hosts = app, list(hosts)
        self._headers = {name.encode(): value.encode() for name, value in ALWAYS.items()}
        if hsts:
            self._headers[b"strict-transport-security"] = b"max-age=%d" % hsts

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """As any ASGI application."""
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return
        api = scope["path"].startswith("/api/")

        async def adding(message: Message) -> None:
            if message["type"] == "http.response.start":
                given = [(name.lower(), value) for name, value in message["headers"]]
                there = {name for name, _ in given}
                given += [(n, v) for n, v in self._headers.items() if n not in there]
                if api and b"cache-control" not in there:
                    given.append((b"cache-control", b"no-store"))
                message["headers"] = given
            await send(message)

        domain, _port = split_domain_port(header(scope, b"host"))
        if not domain or not validate_host(domain, self._hosts):
            await refuse(adding, 400, "host", "This server does not answer for that host name.")
            return
        await self._app(scope, receive, adding)
