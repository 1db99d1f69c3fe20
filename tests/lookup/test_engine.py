"""The engine against a real server that is slow, fails, and lies."""

import asyncio
import time
from collections.abc import AsyncIterator
from contextlib import asynccontextmanager

import pytest
from aiohttp import web

from tests.lookup.servers import Handler, Registry, domain
from vinetag.core.extensions import Barred
from vinetag.core.names import FullName
from vinetag.lookup import Answer, Engine, HostLimits, LookupSettings, open_engine
from vinetag.lookup.bootstrap import read_bootstrap
from vinetag.lookup.retry import RetryPolicy

NO_LIMITS = HostLimits()
QUICK = RetryPolicy(attempts=3, first_wait=0.01, patience=2)


@asynccontextmanager
async def asking(
    handler: Handler, limits: HostLimits = NO_LIMITS, timeout: float = 2.0
) -> AsyncIterator[tuple[Engine, Registry]]:
    registry = Registry(handler)
    server = await registry.start()
    try:
        url = str(server.make_url("/dns.json"))
        where = LookupSettings(bootstrap=url, timeout=timeout, limits=limits, retry=QUICK)
        async with open_engine(where) as engine:
            yield engine, registry
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
    [evidence] = taken.evidence
    assert evidence.address.endswith("/domain/inkpost.com")
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
    assert (nobody.status, nobody.trouble, nobody.evidence) == ("unsure", "no_service", ())


async def test_without_a_bootstrap_nothing_is_known() -> None:
    nowhere = LookupSettings(bootstrap="http://127.0.0.1:9/dns.json", retry=QUICK)
    async with open_engine(nowhere) as client:
        answer = await client.ask(FullName("a", "com"))
    assert (answer.status, answer.trouble) == ("unsure", "no_bootstrap")


async def test_a_huge_answer_is_not_read() -> None:
    async with asking(lambda *_: web.Response(body=b" " * 700_000)) as (client, _):
        assert (await client.ask(FullName("a", "com"))).trouble == "nonsense"


async def test_redirects_are_followed_to_listed_registries_only() -> None:
    def handler(request: web.Request, _before: int) -> web.Response:
        name = request.match_info["name"]
        if name == "away.com":
            raise web.HTTPFound("http://127.0.0.2:9/domain/away.com")
        if name == "round.com":
            raise web.HTTPFound("/domain/round.com")
        if name == "here.com" and "again" not in request.query:
            raise web.HTTPFound("/domain/here.com?again")
        return web.json_response(domain(name))

    async with asking(handler) as (client, registry):
        answers = [await client.ask(FullName(label, "com")) for label in ("away", "round", "here")]
    assert [(a.status, a.trouble) for a in answers] == [
        ("unsure", "redirected"),
        ("unsure", "redirected"),
        ("taken", ""),
    ]
    assert registry.asked["round.com"] == 4


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
        await client.sweep(named(60), got.append)
    assert registry.most_open == 4
    assert len({a.name for a in got}) == 60


async def test_no_faster_than_the_host_allows() -> None:
    got: list[Answer] = []
    async with asking(missing, HostLimits(per_second=50)) as (client, _):
        began = time.monotonic()
        await client.sweep(named(25), got.append)
        seconds = time.monotonic() - began
    assert seconds >= 24 / 50 - 0.03


async def test_a_sweep_can_be_stopped() -> None:
    got: list[Answer] = []
    stop = asyncio.Event()
    async with asking(missing, HostLimits(at_once=5)) as (client, registry):
        registry.delay = 0.02
        asyncio.get_running_loop().call_later(0.15, stop.set)
        await client.sweep(named(1000), got.append, stop=stop)
        await asyncio.sleep(0.1)
        asked = registry.asked.total()
    assert 0 < len(got) <= asked < 200


async def test_a_slow_host_costs_the_others_nothing() -> None:
    slow, quick = Registry(missing), Registry(missing)
    slow.delay = 0.3
    servers = [await slow.start(), await quick.start()]
    bases = {"com": str(servers[0].make_url("/")), "org": str(servers[1].make_url("/"))}
    where = LookupSettings(
        bootstrap=str(servers[1].make_url("/none.json")), bases=bases, limits=HostLimits(at_once=2)
    )
    came: list[str] = []
    try:
        async with open_engine(where) as engine:
            source = engine._sources["rdap"]
            source._bootstrap = read_bootstrap(b'{"version": "1.0", "services": []}')
            names = [FullName(f"n{n}", e) for n in range(60) for e in ("com", "org")]
            stop = asyncio.Event()
            asyncio.get_running_loop().call_later(2.0, stop.set)
            await engine.sweep(names, lambda a: came.append(a.name.extension), stop=stop)
    finally:
        for server in servers:
            await server.close()
    assert came.count("org") == 60
    assert 2 <= came.count("com") < 30


async def test_a_deadline_leaves_the_rest_unsaid() -> None:
    async with asking(missing) as (client, registry):
        registry.delay = 1
        began = time.monotonic()
        answer = await client.ask(FullName("a", "com"), deadline=0.1)
    assert time.monotonic() - began < 0.6
    assert (answer.status, answer.trouble) == ("unsure", "late")


async def test_what_rules_rule_out_is_not_asked() -> None:
    async with asking(missing) as (client, registry):
        client._rule_of = lambda name: Barred("barred", "No.") if name.label == "a" else None
        got: list[Answer] = []
        await client.sweep([FullName("a", "com"), FullName("b", "com")], got.append)
    assert {a.name.label: a.status for a in got} == {"a": "barred", "b": "open"}
    assert list(registry.asked) == ["b.com"]
