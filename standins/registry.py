"""The simulated registries as one HTTP service.

    python -m standins.registry --port 8701 [--seed 7] [--fault slow --seconds 2 --rate 0.1]

RDAP under /<registry>/domain/<name>, the bootstrap file under /dns.json. For trying things out,
PUT /_sim/faults takes {"kind", "rate", "seconds", "extension"} and PUT /_sim/clock {"days"}.
"""

from __future__ import annotations

import argparse
import asyncio
import json
import random
from datetime import UTC, datetime, timedelta
from typing import Any

from aiohttp import web

from standins.faults import KINDS, Faults
from standins.rdap import bootstrap_document, domain_document, error_document, help_document
from standins.world import EXTENSIONS, World

__all__ = ["make_app"]

RDAP_JSON = "application/rdap+json"
LDH = frozenset("abcdefghijklmnopqrstuvwxyz0123456789-.")


class Registries:
    """Request handlers over one world."""

    def __init__(self, world: World, faults: Faults) -> None:
        self._world = world
        self._faults = faults
        self._rng = random.Random(11)  # noqa: S311 - chooses which requests suffer
        self._ahead = timedelta(0)
        self._served = 0

    def _now(self) -> datetime:
        return datetime.now(UTC) + self._ahead

    async def domain(self, request: web.Request) -> web.StreamResponse:
        """A domain query (RFC 9082 section 3.1.3), by GET or HEAD."""
        self._served += 1
        name = request.match_info["name"].lower().rstrip(".")
        label, _, extension = name.partition(".")
        if self._faults.strikes(extension, self._rng):
            answer = await self._suffer(request)
            if answer is not None:
                return answer
        if not LDH.issuperset(name) or not 0 < len(label) < 64 or label[0] == "-":
            return _reply(error_document(400, "Bad request", "That is not a domain name."), 400)
        if EXTENSIONS.get(extension, ("",))[0] != request.match_info["registry"]:
            return _reply(error_document(404, "Not found", "Not ours to answer for."), 404)
        found = self._world.registration(label, extension, self._now())
        if found is None:
            return _reply(error_document(404, "Not found", "No such registration."), 404)
        return _reply(domain_document(found, str(request.url), self._now()))

    async def _suffer(self, request: web.Request) -> web.StreamResponse | None:
        faults = self._faults
        if faults.kind == "slow":
            await asyncio.sleep(faults.seconds)
            return None
        if faults.kind == "429":
            answer = _reply(error_document(429, "Too many requests", "Slow down."), 429)
            answer.headers["Retry-After"] = str(int(faults.seconds))
            return answer
        if faults.kind == "500":
            return _reply(error_document(500, "Internal error", "Something broke."), 500)
        if faults.kind == "webpage":
            return web.Response(text="<html><h1>Welcome</h1></html>", content_type="text/html")
        if faults.kind == "hangup":
            if request.transport:
                request.transport.close()
            return web.Response()
        return web.Response(body=b'{"objectClassName": "domain", "ldh', content_type=RDAP_JSON)

    async def help(self, _request: web.Request) -> web.Response:
        """A help query."""
        return _reply(help_document())

    async def bootstrap(self, request: web.Request) -> web.Response:
        """The bootstrap file, naming the address it was asked at."""
        return web.json_response(bootstrap_document(str(request.url.origin())))

    async def read_faults(self, _request: web.Request) -> web.Response:
        """The faults in force, and how many domain queries have come."""
        return web.json_response({**self._faults.document(), "served": self._served})

    async def write_faults(self, request: web.Request) -> web.Response:
        """Change the faults."""
        try:
            self._faults = Faults.read(await request.json())
        except (ValueError, TypeError) as error:
            return web.json_response({"error": str(error)}, status=400)
        return await self.read_faults(request)

    async def write_clock(self, request: web.Request) -> web.Response:
        """Move the world's time some days ahead of the real one."""
        try:
            self._ahead = timedelta(days=float((await request.json())["days"]))
        except (ValueError, KeyError, TypeError, OverflowError):
            return web.json_response({"error": "days is a number"}, status=400)
        return web.json_response({"now": self._now().isoformat()})


def _reply(document: dict[str, Any], status: int = 200) -> web.Response:
    body = json.dumps(document, separators=(",", ":")).encode()
    return web.Response(body=body, status=status, content_type=RDAP_JSON)


def make_app(world: World | None = None, faults: Faults | None = None) -> web.Application:
    """The service, ready to be run or put behind a test server."""
    handlers = Registries(world or World(), faults or Faults())
    app = web.Application()
    app.router.add_get("/dns.json", handlers.bootstrap)
    app.router.add_get("/_sim/faults", handlers.read_faults)
    app.router.add_put("/_sim/faults", handlers.write_faults)
    app.router.add_put("/_sim/clock", handlers.write_clock)
    app.router.add_get("/{registry}/help", handlers.help)
    app.router.add_get("/{registry}/domain/{name}", handlers.domain)
    return app


def main() -> None:
    """Run until told to stop."""
    parser = argparse.ArgumentParser(description="Simulated registries, speaking RDAP.")
    parser.add_argument("--host", default="127.0.0.1")
    parser.add_argument("--port", type=int, default=8701)
    parser.add_argument("--seed", type=int, default=7)
    parser.add_argument("--fault", choices=KINDS, default="none")
    parser.add_argument("--seconds", type=float, default=1.0)
    parser.add_argument("--rate", type=float, default=1.0)
    args = parser.parse_args()
    faults = Faults(args.fault, args.rate, args.seconds)
    app = make_app(World(args.seed), faults)
    web.run_app(app, host=args.host, port=args.port, access_log=None, print=None)


if __name__ == "__main__":
    main()
