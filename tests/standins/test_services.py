"""The stand-ins keep to their standards, and misbehave as they are told."""

import asyncio
import json
import socket
from collections.abc import AsyncIterator
from datetime import UTC, datetime, timedelta
from importlib.resources import files
from typing import Any

import aiohttp
import dns.asyncquery
import dns.exception
import dns.flags
import dns.message
import dns.rcode
import dns.rdatatype
import pytest
from aiohttp.test_utils import TestServer
from hypothesis import given
from hypothesis import strategies as st
from jsonschema import Draft202012Validator

from standins.dns import NameServers
from standins.faults import Fault, Faults
from standins.limiter import Limiter
from standins.registry import address_of, make_app
from standins.world import EXTENSIONS, REGISTRIES, World

NOW = datetime.now(UTC)
WORLD = World()
FREE = "qwzxvkjhqp"
TAKEN = next(
    n for n in ("letter", "paper") if (r := WORLD.registration(n, "com", NOW)) and r.delegated
)


def free_port() -> int:
    with socket.socket() as s:
        s.bind(("127.0.0.1", 0))
        return int(s.getsockname()[1])


class Servers:
    """Name servers on a port of their own, with faults to set."""

    def __init__(self) -> None:
        self.faults = Faults()
        self._servers = NameServers(WORLD, lambda: self.faults, lambda: NOW)

    async def ask(self, name: str, kind: str = "NS", *, tcp: bool = False) -> dns.message.Message:
        port = free_port()
        kept = await self._servers.start("127.0.0.1", port)
        query = dns.message.make_query(name, kind)
        ask = dns.asyncquery.tcp if tcp else dns.asyncquery.udp
        try:
            return await ask(query, "127.0.0.1", port=port, timeout=0.6)
        finally:
            for server in kept:
                server.close()  # type: ignore[attr-defined]


@pytest.fixture
def servers() -> Servers:
    return Servers()


@pytest.mark.parametrize("tcp", [False, True])
async def test_a_foreign_resolver_reads_the_name_servers(servers: Servers, tcp: bool) -> None:
    reply = await servers.ask(f"{TAKEN.upper()}.com", tcp=tcp)
    found = WORLD.registration(TAKEN, "com", NOW)
    assert found is not None
    assert reply.rcode() == dns.rcode.NOERROR
    assert reply.flags & dns.flags.AA
    [answer] = reply.answer
    assert {r.target.to_text(omit_final_dot=True) for r in answer} == set(found.nameservers)


async def test_names_without_a_delegation_are_denied_with_the_zones_start(
    servers: Servers,
) -> None:
    reply = await servers.ask(f"{FREE}.co.uk")
    assert reply.rcode() == dns.rcode.NXDOMAIN
    [start] = reply.authority
    assert start.name.to_text() == "co.uk."
    assert start.rdtype == dns.rdatatype.SOA
    apex = await servers.ask("com", "SOA")
    assert apex.rcode() == dns.rcode.NOERROR
    assert (await servers.ask("example.nosuch")).rcode() == dns.rcode.REFUSED
    other = await servers.ask(f"{TAKEN}.com", "A")
    assert (other.rcode(), other.answer) == (dns.rcode.NOERROR, [])


@pytest.mark.parametrize(
    ("kind", "code"), [("lame", dns.rcode.REFUSED), ("broken", dns.rcode.SERVFAIL)]
)
async def test_name_servers_fail_on_request(servers: Servers, kind: str, code: int) -> None:
    servers.faults = Faults([Fault(kind, "dns", extension="com")])
    assert (await servers.ask(f"{TAKEN}.com")).rcode() == code
    assert (await servers.ask(f"{FREE}.net")).rcode() == dns.rcode.NXDOMAIN
    servers.faults = Faults([Fault("loss", "dns")])
    with pytest.raises(dns.exception.Timeout):
        await servers.ask(f"{TAKEN}.com")


@given(st.binary(max_size=80))
def test_no_noise_breaks_the_name_servers(wire: bytes) -> None:
    quiet = NameServers(WORLD, Faults, lambda: NOW)
    answer = asyncio.run(quiet.answer(wire))
    assert answer is None or answer[2] & 0x80


def test_a_registrys_bucket_counts_who_goes_over() -> None:
    limiter = Limiter({"kauri": 10.0}, burst=3)
    assert [limiter.allows("kauri", 0.0) for _ in range(5)] == [True, True, True, False, False]
    assert limiter.allows("kauri", 0.1)
    assert not limiter.allows("kauri", 0.1)
    assert all(limiter.allows("lys", 0.0) for _ in range(50))
    assert limiter.document()["violations"] == {"kauri": 3}
    limiter.change({"per_second": {"*": 1}, "burst": 1})
    assert [limiter.allows("lys", 0.0), limiter.allows("lys", 0.5)] == [True, False]
    for wrong in ({}, {"per_second": {"x": "fast"}}, {"per_second": {}, "burst": 0}, []):
        with pytest.raises(ValueError, match=r"\w"):
            limiter.change(wrong)


@pytest.fixture
async def server() -> AsyncIterator[TestServer]:
    running = TestServer(make_app())
    await running.start_server()
    yield running
    await running.close()


async def test_quotes_keep_to_their_description(server: TestServer) -> None:
    described = json.loads(
        files("standins").joinpath("data/seller.openapi.json").read_text("utf-8")
    )
    schema = Draft202012Validator(described["components"]["schemas"]["Quote"])
    offers: set[str] = set()
    async with aiohttp.ClientSession() as session:
        async with session.get(server.make_url("/seller/openapi.json")) as reply:
            assert await reply.json() == described
        for n in range(400):
            name = f"{('ink', 'sky', 'paper', 'note')[n % 4]}{n}.shop"
            async with session.get(server.make_url(f"/seller/quotes/{name}")) as reply:
                told: dict[str, Any] = await reply.json()
            schema.validate(told)
            assert told["name"] == name
            offers.add(told["offer"])
        async with session.get(server.make_url("/seller/quotes/ink.nosuch")) as reply:
            assert reply.status == 404
    assert {"usual", "none"} <= offers


def test_offers_hang_together_with_registrations() -> None:
    kinds: dict[str, int] = {}
    for n in range(3_000):
        label, extension = f"{('ink', 'moon', 'tea')[n % 3]}post{n % 700}", ("com", "shop")[n % 2]
        offer, held = WORLD.offer(label, extension, NOW), WORLD.registration(label, extension, NOW)
        kinds[offer.kind] = kinds.get(offer.kind, 0) + 1
        assert (offer.kind in ("none", "resale")) == (held is not None)
        if offer.kind == "premium":
            assert offer.first_year is not None
            assert offer.first_year >= 3 * EXTENSIONS[extension][2] - 1
        if offer.kind == "resale":
            assert offer.asked is not None
            assert offer.asked >= 100
    assert kinds["usual"] > kinds.get("premium", 0)


def test_names_let_go_pass_through_every_stage_and_become_free() -> None:
    found: set[str] = set()
    for n in range(40_000):
        label = f"ink{n}post"
        held = WORLD.registration(label, "com", NOW)
        if not held or "redemption period" not in held.status:
            continue
        assert not held.delegated
        assert held.expires < held.changed <= NOW
        for days in range(0, 80, 2):
            later = WORLD.registration(label, "com", NOW + timedelta(days=days))
            found.update(later.status if later else ("free",))
        break
    assert found == {"redemption period", "pending delete", "free"}


def test_every_registry_has_an_address_of_its_own() -> None:
    addresses = {address_of(registry) for registry in REGISTRIES}
    assert len(addresses) == len(REGISTRIES) > 20
    assert all(address.startswith("127.0.") for address in addresses)
