"""The client against a real server that is slow, fails, and lies."""

import asyncio
import time
from collections.abc import AsyncIterator
from contextlib import asynccontextmanager

import pytest
from aiohttp import web

from tests.lookup.servers import Handler, Registry, domain
from vinetag.core.names import FullName
from vinetag.lookup import Answer, HostLimits, RdapClient, open_client, sweep
from vinetag.lookup.retry import RetryPolicy

NO_LIMITS = HostLimits()
QUICK = RetryPolicy(attempts=3, first_wait=0.01, patience=2)


@asynccontextmanager
async def asking(
    handler: Handler, limits: HostLimits = NO_LIMITS, timeout: float = 2.0
) -> AsyncIterator[tuple[RdapClient, Registry]]:
    registry = Registry(handler)
    server = await registry.start()
    try:
        url = str(server.make_url("/dns.json"))
        async with open_client(url, timeout=timeout, limits=limits, retry=QUICK) as client:
            yield client, registry
    finally:
        await server.close()


def found(request: web.Request, _before: int) -> web.Response:
    return web.json_response(domain(request.match_info["name"]))


def missing(_request: web.Request, _before: int) -> web.Response:
    return web.json_response({"errorCode": 404}, status=404)


def named(count: int, extension: str = "com") -> list[FullName]:
    return [FullName(f"name{i}", extension) for i in range(count)]


async def test_open_and_taken_with_their_evidence() -> None:
    def handler(request: web.Request, before: int) -> web.Response:
        return (found if "ink" in request.path else missing)(request, before)

    async with asking(handler) as (client, _):
        taken = await client.ask(FullName("inkpost", "com"))
        free = await client.ask(FullName("quietsky", "net"))
    assert (taken.status, free.status) == ("taken", "open")
    assert taken.source.endswith("/domain/inkpost.com")
    assert taken.asked_at.tzinfo is not None


@pytest.mark.parametrize(
    ("status", "trouble", "asked"), [(500, "server_error", 3), (403, "refused", 1)]
)
async def test_failures_are_tried_again_and_refusals_are_not(
    status: int, trouble: str, asked: int
) -> None:
    async with asking(lambda *_: web.Response(status=status)) as (client, registry):
        answer = await client.ask(FullName("a", "com"))
    assert (answer.status, answer.trouble) == ("unsure", trouble)
    assert registry.asked["a.com"] == asked


async def test_a_passing_failure_is_got_over() -> None:
    def handler(request: web.Request, before: int) -> web.Response:
        return web.Response(status=503) if before < 2 else found(request, before)

    async with asking(handler) as (client, _):
        assert (await client.ask(FullName("a", "com"))).status == "taken"


async def test_retry_after_holds_everyone_back() -> None:
    times: list[float] = []

    def handler(_request: web.Request, _before: int) -> web.Response:
        times.append(time.monotonic())
        if len(times) == 1:
            return web.Response(status=429, headers={"Retry-After": "1"})
        return web.json_response({}, status=404)

    async with asking(handler, HostLimits(at_once=1)) as (client, _):
        first = asyncio.create_task(client.ask(FullName("a", "com")))
        await asyncio.sleep(0.2)
        second = await client.ask(FullName("b", "com"))
        assert (await first).status == second.status == "open"
    assert min(times[1:]) - times[0] >= 0.99


async def test_too_long_a_wait_is_not_waited_for() -> None:
    def handler(_request: web.Request, _before: int) -> web.Response:
        return web.Response(status=429, headers={"Retry-After": "3600"})

    async with asking(handler) as (client, registry):
        answer = await asyncio.wait_for(client.ask(FullName("a", "com")), 5)
    assert answer.trouble == "rate_limited"
    assert registry.asked["a.com"] == 1


async def test_a_service_that_is_slow_or_gone() -> None:
    async with asking(found, timeout=0.1) as (client, registry):
        registry.delay = 1
        slow = await client.ask(FullName("a", "com"))
        gone = await client.ask(FullName("a", "gone"))
        nobody = await client.ask(FullName("a", "press"))
    assert slow.trouble == "timeout"
    assert (gone.trouble, gone.status) == ("unreachable", "unsure")
    assert nobody.trouble == "no_service"


async def test_without_a_bootstrap_nothing_is_known() -> None:
    async with open_client("http://127.0.0.1:9/dns.json", retry=QUICK) as client:
        answer = await client.ask(FullName("a", "com"))
    assert (answer.status, answer.trouble) == ("unsure", "no_bootstrap")


async def test_a_huge_answer_is_not_read() -> None:
    async with asking(lambda *_: web.Response(body=b" " * 700_000)) as (client, _):
        assert (await client.ask(FullName("a", "com"))).trouble == "nonsense"


async def test_a_redirect_is_not_followed() -> None:
    def handler(_request: web.Request, _before: int) -> web.Response:
        return web.Response(status=302, headers={"Location": "/domain/elsewhere.com"})

    async with asking(handler) as (client, registry):
        assert (await client.ask(FullName("a", "com"))).trouble == "redirected"
    assert "elsewhere.com" not in registry.asked


async def test_a_dead_host_is_left_alone() -> None:
    limits = HostLimits(at_once=2, failures=4, rest=60)
    async with asking(lambda *_: web.Response(status=500), limits) as (client, registry):
        answers = [await client.ask(name) for name in named(10)]
    assert registry.asked.total() <= 5
    assert {a.trouble for a in answers} == {"server_error", "resting"}


async def test_no_more_at_once_than_the_host_allows() -> None:
    got: list[Answer] = []
    async with asking(missing, HostLimits(at_once=4)) as (client, registry):
        registry.delay = 0.01
        await sweep(client, named(60), got.append, at_once=30)
    assert registry.most_open == 4
    assert len({a.name for a in got}) == 60


async def test_no_faster_than_the_host_allows() -> None:
    got: list[Answer] = []
    async with asking(missing, HostLimits(per_second=50)) as (client, _):
        began = time.monotonic()
        await sweep(client, named(25), got.append)
        seconds = time.monotonic() - began
    assert seconds >= 24 / 50 - 0.03


async def test_a_sweep_can_be_stopped() -> None:
    got: list[Answer] = []
    stop = asyncio.Event()
    async with asking(missing, HostLimits(at_once=5)) as (client, registry):
        registry.delay = 0.02
        asyncio.get_running_loop().call_later(0.15, stop.set)
        await sweep(client, named(1000), got.append, stop=stop, at_once=5)
        await asyncio.sleep(0.1)
        asked = registry.asked.total()
    assert 0 < len(got) <= asked < 200
