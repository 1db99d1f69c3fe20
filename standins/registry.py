"""The simulated outside world as one process: registries, name servers and a seller.

    python -m standins.registry --port 8701 --dns-port 8702 --whois-port 8703 --mail-port 8704 \\
        --epp-port 8705 --folder var/simulated

RDAP under /<registry>/domain/<name>, on a loopback address of its own for each registry; the
bootstrap file under /dns.json; quotes under /seller/quotes/<name>, described by
/seller/openapi.json; DNS over UDP and TCP on the second port; on the
third, WHOIS for the extensions whose registries have no RDAP; on the fourth, a mail server, whose
letters are read under /mail; on the fifth, a gateway of each seller at an address of its own
(standins.epp), its certificates and what was bought in the folder. Under /till a payment page,
under /demand a service of demand (standins.demand). On
the second port, at addresses of its own, a host of zones (standins.hosting), and at another on the
first whoever sends visitors on. The words for all of them are in VINETAG_EPP_PASSWORD,
VINETAG_TILL_SECRET and VINETAG_ZONE_WORD. For trying things out: PUT
/_sim/faults takes one fault or a list (standins.faults), PUT /_sim/limits rates (standins.limiter),
PUT /_sim/clock {"days"}; GET tells what is in force and what was asked.
"""

from __future__ import annotations

import argparse
import asyncio
import json
import os
import signal
from datetime import UTC, datetime, timedelta
from email.utils import format_datetime
from importlib.resources import files
from pathlib import Path
from typing import Any

from aiohttp import web

from standins.books import Books
from standins.demand import add_demand
from standins.dns import NameServers
from standins.epp import Gateways
from standins.epp_moves import code_of
from standins.faults import Fault, Faults
from standins.gateway import Gateway
from standins.hosting import FORWARDER, Hosting
from standins.limiter import Limiter
from standins.mail import Mailbox, add_mail
from standins.markets import add_markets
from standins.owned import Owned
from standins.platforms import add_platforms
from standins.rdap import (
    bootstrap_document,
    domain_document,
    error_document,
    help_document,
    reserved_document,
)
from standins.search import add_search
from standins.sellers import add_sellers
from standins.till import Till
from standins.whois import WhoisServers
from standins.world import EXTENSIONS, REGISTRIES, Offer, World
from standins.zones import add_zones

__all__ = ["make_app"]

RDAP_JSON = "application/rdap+json"
LDH = frozenset("abcdefghijklmnopqrstuvwxyz0123456789-.")
SILENCE = 120.0


class Registries:
    """Request handlers over one world. `port`: where the registries' own addresses listen; without
    one, all answer at the address the bootstrap file was asked at.
    """

    def __init__(
        self, world: World, faults: Faults, port: int | None = None, books: Books | None = None
    ) -> None:
        self.world = world
        self.books = books or Books()
        world.bought = Owned(self.books)
        self._faults = faults
        self._port = port
        self._ahead = timedelta(0)
        self._served = 0
        self.limiter = Limiter()
        self.hosting = Hosting(self.books)
        self.name_servers = NameServers(world, lambda: self._faults, self.now, self.hosting)
        self.whois = WhoisServers(world, lambda: self._faults, self.limiter, self.now)
        self.mailbox = Mailbox(lambda: self._faults)
        password = os.environ.get("VINETAG_EPP_PASSWORD", "simulated-word")
        gateway = Gateway(self.books, world, self.now)
        self.gateways = Gateways(gateway, lambda: self._faults, self.now, password)
        secret = os.environ.get("VINETAG_TILL_SECRET", "simulated-word")
        self.till = Till(self.books, lambda: self._faults, secret)

    def now(self) -> datetime:
        """The world's time."""
        return datetime.now(UTC) + self._ahead

    async def domain(self, request: web.Request) -> web.StreamResponse:
        """A domain query (RFC 9082 section 3.1.3), by GET or HEAD."""
        self._served += 1
        name = request.match_info["name"].lower().rstrip(".")
        label, _, extension = name.partition(".")
        registry = request.match_info["registry"]
        if not self.limiter.allows(registry):
            return _too_many(1, dated=False)
        fault = self._faults.strike("rdap", extension, registry)
        if fault and (answer := await self._suffer(request, fault, name)) is not None:
            return answer
        if not LDH.issuperset(name) or not 0 < len(label) < 64 or label[0] == "-":
            return _reply(error_document(400, "Bad request", "That is not a domain name."), 400)
        if registry not in (EXTENSIONS.get(extension, ("",))[0], "mirror"):
            return _reply(error_document(404, "Not found", "Not ours to answer for."), 404)
        late = fault is not None and fault.kind == "late"
        found = None if late else self.world.registration(label, extension, self.now())
        if found is None:
            if self.world.is_reserved(label, extension):
                return _reply(reserved_document(name, str(request.url)))
            return _reply(error_document(404, "Not found", "No such registration."), 404)
        return _reply(domain_document(found, str(request.url), self.now()))

    async def quote(self, request: web.Request) -> web.StreamResponse:
        """A seller's quote."""
        name = request.match_info["name"].lower()
        if not self.limiter.allows("seller"):
            return _too_many(1, dated=False)
        fault = self._faults.strike("seller", name.partition(".")[2], "")
        if fault and (answer := await self._suffer(request, fault, name)) is not None:
            return answer
        offer = self.offer_of(name)
        if offer is None:
            return web.json_response({"error": "This extension is not sold here."}, status=404)
        document: dict[str, Any] = {"name": name, "offer": offer.kind}
        if offer.first_year is not None:
            document["currency"] = "EUR"
            document |= {"first_year": offer.first_year, "renewal": offer.renewal}
        if offer.asked is not None:
            document["asked"] = offer.asked
        return web.json_response(document)

    async def list_fault(self, request: web.Request, code: str) -> web.StreamResponse | None:
        """What is wrong with a seller's list now, if anything."""
        return await self._fault_of("lists", request, code)

    async def market_fault(self, request: web.Request, code: str) -> web.StreamResponse | None:
        """What is wrong with a market's list now, if anything."""
        return await self._fault_of("markets", request, code)

    async def zone_fault(self, request: web.Request, extension: str) -> web.StreamResponse | None:
        """What is wrong with a zone file now, if anything."""
        return await self._fault_of("zones", request, extension)

    async def platform_fault(self, request: web.Request, code: str) -> web.StreamResponse | None:
        """What is wrong with a platform now, if anything."""
        return await self._fault_of("platforms", request, code)

    async def demand_fault(self, request: web.Request, part: str) -> web.StreamResponse | None:
        """What is wrong with the service of demand now, if anything."""
        return await self._fault_of("demand", request, part)

    async def search_fault(self, request: web.Request, part: str) -> web.StreamResponse | None:
        """What is wrong with the search service now, if anything."""
        return await self._fault_of("search", request, part)

    async def _fault_of(
        self, service: str, request: web.Request, code: str
    ) -> web.StreamResponse | None:
        if not self.limiter.allows(service):
            return _too_many(1, dated=False)
        fault = self._faults.strike(service, "", code)
        return await self._suffer(request, fault, code) if fault else None

    def is_registered(self, label: str) -> bool:
        """Whether somebody has a label where most would want it."""
        return any(self.world.registration(label, e, self.now()) for e in ("com", "net"))

    def offer_of(self, name: str) -> Offer | None:
        """How a full name can be had now, None for what is no name here."""
        label, _, extension = name.partition(".")
        if extension not in EXTENSIONS or not label or not LDH.issuperset(name):
            return None
        return self.world.offer(label, extension, self.now())

    async def quotes_described(self, _request: web.Request) -> web.Response:
        """The OpenAPI document of the quotes."""
        text = files("standins").joinpath("data/seller.openapi.json").read_text("utf-8")
        return web.Response(text=text, content_type="application/json")

    async def _suffer(
        self, request: web.Request, fault: Fault, name: str
    ) -> web.StreamResponse | None:
        kind = fault.kind
        if kind in ("slow", "loss"):
            await asyncio.sleep(fault.seconds if kind == "slow" else SILENCE)
        elif kind in ("429", "429-date"):
            return _too_many(fault.seconds, dated=kind == "429-date")
        elif kind == "500":
            return _reply(error_document(500, "Internal error", "Something broke."), 500)
        elif kind == "webpage":
            return web.Response(text="<html><h1>Welcome</h1></html>", content_type="text/html")
        elif kind == "nonsense":
            return web.Response(body=b'{"objectClassName": "domain", "ldh', content_type=RDAP_JSON)
        elif kind == "hangup":
            if request.transport:
                request.transport.close()
            return web.Response()
        elif kind == "redirect" and request.match_info["registry"] != "mirror":
            raise web.HTTPFound(f"/mirror/domain/{name}")
        elif kind == "redirect-away":
            raise web.HTTPFound(f"http://elsewhere.invalid/domain/{name}")
        return None

    async def help(self, _request: web.Request) -> web.Response:
        """A help query."""
        return _reply(help_document())

    async def bootstrap(self, request: web.Request) -> web.Response:
        """The bootstrap file: the registries' addresses."""

        def origin(registry: str) -> str:
            if self._port is None:
                return str(request.url.origin())
            return f"http://{address_of(registry)}:{self._port}"

        return web.json_response(bootstrap_document(origin))

    async def read_faults(self, _request: web.Request) -> web.Response:
        """The faults in force, and how many questions have come."""
        return web.json_response(
            {
                "faults": self._faults.document(),
                "served": self._served,
                "served_dns": self.name_servers.served,
                "served_whois": self.whois.served,
            }
        )

    async def write_faults(self, request: web.Request) -> web.Response:
        """Change the faults."""
        try:
            self._faults = Faults.read(await request.json())
        except (ValueError, TypeError) as error:
            return web.json_response({"error": str(error)}, status=400)
        return await self.read_faults(request)

    async def read_limits(self, _request: web.Request) -> web.Response:
        """The limits, what was asked, and how often they were broken."""
        return web.json_response(self.limiter.document())

    async def write_limits(self, request: web.Request) -> web.Response:
        """Change the limits, and count anew."""
        try:
            self.limiter.change(await request.json())
        except ValueError as error:
            return web.json_response({"error": str(error)}, status=400)
        return await self.read_limits(request)

    async def read_code(self, request: web.Request) -> web.Response:
        """The code by which a name can be moved, as its holder is told it where it is."""
        name = request.match_info["name"].lower()
        held = self.books.held.get(name)
        return web.json_response({"name": name, "code": held.auth if held else code_of(name)})

    async def read_books(self, _request: web.Request) -> web.Response:
        """What was bought, and for how much."""
        return web.json_response(self.books.document())

    @web.middleware
    async def send_on(self, request: web.Request, handler: Any) -> Any:
        """Visitors who came to the address that sends them on."""
        socket = request.transport.get_extra_info("sockname") if request.transport else None
        if not socket or socket[0] != FORWARDER:
            return await handler(request)
        to = self.hosting.sent_on(request.host.partition(":")[0].lower())
        if not to:
            return web.Response(text="Nobody is sent on from here.", status=404)
        raise web.HTTPFound(to)

    async def write_clock(self, request: web.Request) -> web.Response:
        """Move the world's time some days ahead of the real one."""
        try:
            self._ahead = timedelta(days=float((await request.json())["days"]))
        except (ValueError, KeyError, TypeError, OverflowError):
            return web.json_response({"error": "days is a number"}, status=400)
        return web.json_response({"now": self.now().isoformat()})


def address_of(registry: str) -> str:
    """The loopback address a registry answers at."""
    place = REGISTRIES.index(registry)
    return f"127.0.{1 + place // 250}.{1 + place % 250}"


def _too_many(seconds: float, *, dated: bool) -> web.Response:
    answer = _reply(error_document(429, "Too many requests", "Slow down."), 429)
    at = datetime.now(UTC) + timedelta(seconds=seconds)
    answer.headers["Retry-After"] = format_datetime(at, usegmt=True) if dated else f"{seconds:.0f}"
    return answer


def _reply(document: dict[str, Any], status: int = 200) -> web.Response:
    body = json.dumps(document, separators=(",", ":")).encode()
    return web.Response(body=body, status=status, content_type=RDAP_JSON)


def make_app(
    world: World | None = None,
    faults: Faults | None = None,
    port: int | None = None,
    books: Books | None = None,
) -> web.Application:
    """The HTTP services, ready to be run or put behind a test server."""
    handlers = Registries(world or World(), faults or Faults(), port, books)
    app = web.Application(middlewares=[handlers.send_on])
    app[HANDLERS] = handlers
    app.router.add_get("/dns.json", handlers.bootstrap)
    app.router.add_get("/_sim/faults", handlers.read_faults)
    app.router.add_put("/_sim/faults", handlers.write_faults)
    app.router.add_get("/_sim/limits", handlers.read_limits)
    app.router.add_put("/_sim/limits", handlers.write_limits)
    app.router.add_put("/_sim/clock", handlers.write_clock)
    app.router.add_get("/_sim/books", handlers.read_books)
    app.router.add_get("/_sim/codes/{name}", handlers.read_code)
    app.router.add_get("/seller/openapi.json", handlers.quotes_described)
    app.router.add_get("/seller/quotes/{name}", handlers.quote)
    add_sellers(app, handlers.now, handlers.list_fault, handlers.offer_of)
    add_platforms(app, handlers.platform_fault, handlers.is_registered)
    add_markets(app, handlers.world, handlers.now, handlers.market_fault)
    add_zones(app, handlers.world, handlers.now, handlers.zone_fault)
    add_mail(app, handlers.mailbox)
    handlers.till.add(app)
    add_demand(app, handlers.world, handlers.demand_fault, handlers.now)
    add_search(app, handlers.world, handlers.search_fault, handlers.is_registered)
    app.router.add_get("/{registry}/help", handlers.help)
    app.router.add_get("/{registry}/domain/{name}", handlers.domain)
    return app


HANDLERS: web.AppKey[Registries] = web.AppKey("handlers", Registries)


async def _run(args: argparse.Namespace) -> None:
    folder: Path | None = args.folder
    if folder is not None:
        folder.mkdir(parents=True, exist_ok=True)
    books = Books("" if folder is None else str(folder / "books.sqlite"))
    app = make_app(World(args.seed), port=args.port, books=books)
    handlers = app[HANDLERS]
    runner = web.AppRunner(app, access_log=None)
    await runner.setup()
    for address in (args.host, FORWARDER, *map(address_of, REGISTRIES)):
        await web.TCPSite(runner, address, args.port, backlog=512).start()
    keep = await handlers.name_servers.start(args.host, args.dns_port)
    keep.append(await handlers.whois.start(args.host, args.whois_port))
    if args.epp_port and folder is not None:
        keep += await handlers.gateways.start(args.epp_port, folder)
    if args.mail_port:
        keep.append(await handlers.mailbox.start(args.host, args.mail_port))
    try:
        await asyncio.Event().wait()
    finally:
        keep.clear()
        left = asyncio.all_tasks() - {asyncio.current_task()}
        for task in left:
            task.cancel()
        await asyncio.gather(*left, return_exceptions=True)
        await runner.cleanup()


def main() -> None:
    """Run until told to stop."""
    parser = argparse.ArgumentParser(description="Simulated registries, name servers and sellers.")
    parser.add_argument("--host", default="127.0.0.1")
    parser.add_argument("--port", type=int, default=8701)
    parser.add_argument("--dns-port", type=int, default=8702)
    parser.add_argument("--whois-port", type=int, default=8703)
    parser.add_argument("--mail-port", type=int, default=0, help="none if left out")
    parser.add_argument("--epp-port", type=int, default=0, help="none if left out")
    parser.add_argument("--folder", type=Path, help="for certificates and what was bought")
    parser.add_argument("--seed", type=int, default=8)
    loop = asyncio.new_event_loop()
    task = loop.create_task(_run(parser.parse_args()))
    for sign in (signal.SIGTERM, signal.SIGINT):
        loop.add_signal_handler(sign, task.cancel)
    try:
        loop.run_until_complete(task)
    except asyncio.CancelledError:
        pass
    finally:
        loop.close()


if __name__ == "__main__":
    main()
