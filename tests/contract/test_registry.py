"""The stand-in registry speaks the open standard: read by someone else's client and by ours."""

import asyncio
from collections.abc import AsyncIterator
from datetime import UTC, datetime
from typing import Any

import aiohttp
import pytest
from aiohttp.test_utils import TestServer
from whodap.client import DNSClient
from whodap.errors import NotFoundError

from standins.faults import Faults
from standins.registry import make_app
from standins.world import World
from vinetag.core.names import FullName
from vinetag.lookup import LookupSettings, open_engine
from vinetag.lookup.retry import RetryPolicy

NOW = datetime.now(UTC)
WORLD = World()
HELD = next(name for name in ("inkpost", "post") if WORLD.registration(name, "com", NOW))
FREE = "qwzxvkjhqp"
ONCE = RetryPolicy(attempts=1)


@pytest.fixture
async def server() -> AsyncIterator[TestServer]:
    running = TestServer(make_app())
    await running.start_server()
    yield running
    await running.close()


async def get(server: TestServer, path: str) -> tuple[int, str, Any]:
    async with aiohttp.ClientSession() as session, session.get(server.make_url(path)) as reply:
        return reply.status, reply.content_type, await reply.json(content_type=None)


async def set_faults(server: TestServer, **faults: object) -> None:
    url = server.make_url("/_sim/faults")
    async with aiohttp.ClientSession() as session, session.put(url, json=faults) as reply:
        assert reply.status == 200


async def test_a_foreign_client_reads_the_domain(server: TestServer) -> None:
    class Reader(DNSClient):
        _iana_uri = str(server.make_url("/dns.json"))

    async with Reader.new_aio_client_context() as client:
        answer = await client.aio_lookup(HELD, "com")
        with pytest.raises(NotFoundError):
            await client.aio_lookup(FREE, "com")
    expected = World().registration(HELD, "com", NOW)
    assert expected is not None
    assert answer.ldhName == f"{HELD}.com"
    assert answer.events[0].eventAction == "registration"
    whois = answer.to_whois_dict()
    assert whois["created_date"].replace(tzinfo=UTC) == expected.created.replace(microsecond=0)
    assert whois["registrant_name"] == expected.holder
    assert whois["nameservers"]


async def test_our_client_reads_the_same(server: TestServer) -> None:
    where = LookupSettings(bootstrap=str(server.make_url("/dns.json")), retry=ONCE)
    async with open_engine(where) as client:
        held = await client.ask(FullName(HELD, "com"))
        free = await client.ask(FullName(FREE, "com"))
        two_levels = await client.ask(FullName(FREE, "co.uk"))
        elsewhere = await client.ask(FullName(FREE, "zuerich"))
    expected = World().registration(HELD, "com", NOW)
    assert expected is not None
    assert held.status == "taken"
    assert held.evidence[0].registered == expected.created.replace(microsecond=0)
    assert held.evidence[0].registrar == expected.registrar
    assert (free.status, two_levels.status) == ("open", "open")
    assert (elsewhere.status, elsewhere.trouble) == ("unsure", "no_service")


async def test_errors_follow_the_standard(server: TestServer) -> None:
    for path, code in (
        (f"/alderway/domain/{FREE}.com", 404),
        (f"/alderway/domain/{FREE}.org", 404),
        ("/alderway/domain/not%20a%20name.com", 400),
    ):
        status, content_type, body = await get(server, path)
        assert (status, content_type) == (code, "application/rdap+json")
        assert body["errorCode"] == code
        assert "rdap_level_0" in body["rdapConformance"]


async def test_the_bootstrap_file_follows_the_standard(server: TestServer) -> None:
    _, _, body = await get(server, "/dns.json")
    assert body["version"] == "1.0"
    listed = [extension for extensions, _ in body["services"] for extension in extensions]
    assert len(listed) == len(set(listed)) >= 150
    assert all(base.endswith("/") for _, bases in body["services"] for base in bases)


@pytest.mark.parametrize(
    ("kind", "trouble"),
    [
        ("slow", "timeout"),
        ("429", "rate_limited"),
        ("429-date", "rate_limited"),
        ("loss", "timeout"),
        ("redirect-away", "redirected"),
        ("500", "server_error"),
        ("nonsense", "nonsense"),
        ("webpage", "nonsense"),
        ("hangup", "unreachable"),
    ],
)
async def test_faults_on_request_leave_the_status_unsure(
    server: TestServer, kind: str, trouble: str
) -> None:
    await set_faults(server, kind=kind, seconds=2, extension="com")
    url = str(server.make_url("/dns.json"))
    async with open_engine(LookupSettings(bootstrap=url, timeout=0.5, retry=ONCE)) as client:
        asked = [FullName(HELD, "com"), FullName(FREE, "shop")]
        hit, spared = await asyncio.gather(*(client.ask(name) for name in asked))
    assert (hit.status, hit.trouble) == ("unsure", trouble)
    assert spared.status == "open"


def test_faults_say_what_is_wrong_with_them() -> None:
    for wrong in (
        {"kind": "fire"},
        {"kind": "slow", "rate": 2},
        {"colour": 1},
        [3],
        {"service": "post"},
    ):
        with pytest.raises(ValueError, match=r"\w"):
            Faults.read(wrong)
