"""A registry that is away for a while: its names wait, others go on, and nobody asks twice."""

import asyncio
import time

from aiohttp import web

from tests.lookup.servers import Registry
from tests.lookup.test_engine import named
from vinetag.core.names import FullName
from vinetag.lookup import Answer, HostLimits, LookupSettings, open_engine
from vinetag.lookup.engine import Waits
from vinetag.lookup.limiter import HostState, Rest
from vinetag.lookup.retry import RetryPolicy

PATIENT = RetryPolicy(attempts=3, first_wait=0.01, patience=2, give_up=20)


def missing(_request: web.Request, _before: int) -> web.Response:
    return web.json_response({}, status=404)


async def test_names_of_a_registry_that_is_away_wait_until_it_is_back() -> None:
    away = Registry(lambda *_: web.Response(status=503) if time.monotonic() < back else missing(*_))
    fine = Registry(missing)
    servers = [await away.start(), await fine.start()]
    bases = {"com": str(servers[0].make_url("/")), "org": str(servers[1].make_url("/"))}
    back = time.monotonic() + 1.2
    where = LookupSettings(
        bootstrap=str(servers[0].make_url("/dns.json")), bases=bases, retry=PATIENT,
        limits=HostLimits(at_once=10, failures=10, rest=0.3),
    )  # fmt: skip
    names = [FullName(f"n{n}", e) for n in range(300) for e in ("com", "org")]
    got: list[Answer] = []
    org_done = 0.0
    waits, seen = Waits(), set()

    def deliver(answer: Answer) -> None:
        nonlocal org_done
        got.append(answer)
        if sum(a.name.extension == "org" for a in got) == 300 and not org_done:
            org_done = time.monotonic()

    async def watch() -> None:
        while True:
            seen.add((waits.extensions, waits.nothing_else))
            await asyncio.sleep(0.02)

    try:
        async with open_engine(where) as engine:
            engine._sources["rdap"]._bootstrap.bases.update(bases)  # type: ignore[attr-defined]
            watching = asyncio.create_task(watch())
            await asyncio.wait_for(engine.sweep(names, deliver, waits=waits), 20)
            watching.cancel()
    finally:
        for server in servers:
            await server.close()
    assert len(got) == 600
    assert {a.status for a in got} == {"open"}
    assert org_done < back
    # While it is away few questions are put, and who looks is told what is waited for.
    assert away.asked.total() < 300 + 60
    assert (frozenset({"com"}), True) in seen
    assert waits.extensions == frozenset()


async def test_a_registry_that_stays_away_is_given_up() -> None:
    away = Registry(lambda *_: web.Response(status=500))
    server = await away.start()
    retry = RetryPolicy(attempts=2, first_wait=0.01, give_up=0.5)
    where = LookupSettings(
        bootstrap=str(server.make_url("/dns.json")), retry=retry,
        limits=HostLimits(at_once=4, failures=4, rest=0.2),
    )  # fmt: skip
    got: list[Answer] = []
    try:
        async with open_engine(where) as engine:
            await asyncio.wait_for(engine.sweep(named(200), got.append), 20)
    finally:
        await server.close()
    assert len(got) == 200
    assert {a.trouble for a in got} <= {"server_error", "resting"}
    # However long a host is away, a name is asked a bounded number of times.
    assert away.asked.total() < 40


async def test_one_name_that_fails_is_tried_again_after_the_others() -> None:
    def handler(request: web.Request, before: int) -> web.Response:
        if request.match_info["name"] == "name0.com":
            return web.Response(status=500)
        return missing(request, before)

    registry = Registry(handler)
    server = await registry.start()
    where = LookupSettings(bootstrap=str(server.make_url("/dns.json")), retry=PATIENT)
    got: list[Answer] = []
    try:
        async with open_engine(where) as engine:
            await engine.sweep(named(30), got.append)
    finally:
        await server.close()
    assert [a.name.label for a in got if a.trouble] == ["name0"]
    assert registry.asked["name0.com"] == PATIENT.attempts * PATIENT.rounds


def test_since_when_a_host_is_away() -> None:
    state = HostState(HostLimits(failures=2, rest=5))
    assert state.rest(0) == Rest()
    state.leave("a", 10, "timeout")
    assert state.rest(10) == Rest()
    state.leave("b", 11, "timeout")
    assert state.rest(12) == Rest(left=4, away=1)
    assert state.enter("c", 16) == 0
    state.leave("c", 17, "unreachable")
    assert state.rest(18) == Rest(left=4, away=7)
    # Nobody asked for a day: what was known then is no reason to give up now.
    assert state.enter("d", 90_000) == 0
    state.leave("d", 90_001, "timeout")
    assert state.rest(90_001).away < 1
    state.leave("e", 90_002, "")
    assert state.rest(90_003) == Rest()
