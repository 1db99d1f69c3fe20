"""A real HTTP server whose routes misbehave on request."""

from __future__ import annotations

import asyncio
from collections import Counter
from collections.abc import Callable

from aiohttp import web
from aiohttp.test_utils import TestServer

Handler = Callable[[web.Request, int], web.StreamResponse]


class Registry:
    """Answers `/domain/<name>` by a handler that is told how often the name was asked before."""

    def __init__(self, handler: Handler) -> None:
        self.asked: Counter[str] = Counter()
        self.open_now = self.most_open = 0
        self.delay = 0.0
        self._handler = handler

    async def domain(self, request: web.Request) -> web.StreamResponse:
        name = request.match_info["name"]
        before = self.asked[name]
        self.asked[name] += 1
        self.open_now += 1
        self.most_open = max(self.most_open, self.open_now)
        try:
            await asyncio.sleep(self.delay)
            return self._handler(request, before)
        finally:
            self.open_now -= 1

    async def bootstrap(self, request: web.Request) -> web.Response:
        base = str(request.url.origin())
        services = [[["com", "net"], [base]], [["gone"], ["http://127.0.0.1:9"]]]
        return web.json_response({"version": "1.0", "services": services})

    async def start(self) -> TestServer:
        app = web.Application()
        app.router.add_get("/dns.json", self.bootstrap)
        app.router.add_get("/domain/{name}", self.domain)
        server = TestServer(app)
        await server.start_server()
        return server


def domain(name: str, **fields: object) -> dict[str, object]:
    return {"objectClassName": "domain", "ldhName": name, **fields}
