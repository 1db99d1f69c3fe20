"""The engine against the whole simulated world: DNS, RDAP and a seller, with what can go wrong."""

import asyncio
import os
from collections.abc import AsyncIterator
from typing import Any

import pytest
import redis.asyncio

from tests.conftest import Registry
from vinetag.core.names import FullName
from vinetag.lookup import Answer, HostLimits, LookupSettings, RetryPolicy, open_engine

FREE = "qwzxvkjhqp"
REDIS = os.environ.get("VINETAG_REDIS_URL", "")


def settings(registry: Registry, **changes: Any) -> LookupSettings:
    where: dict[str, Any] = {
        "bootstrap": registry.bootstrap,
        "dns": registry.dns,
        "seller": registry.seller,
        "timeout": 0.5,
        "dns_timeout": 0.4,
        "retry": RetryPolicy(attempts=2, first_wait=0.01, patience=3),
    }
    return LookupSettings(**{**where, **changes})


async def ask(where: LookupSettings, full: str, aim: Any = "scan") -> Answer:
    label, _, extension = full.partition(".")
    async with open_engine(where) as engine:
        return await engine.ask(FullName(label, extension), aim)


@pytest.fixture
async def forgotten() -> AsyncIterator[None]:
    """Limits in Redis begin anew."""
    client = redis.asyncio.Redis.from_url(REDIS)
    await client.flushdb()
    yield
    await client.aclose()


async def test_a_scan_asks_no_more_than_it_needs(registry: Registry) -> None:
    before = registry.served
    taken = await ask(settings(registry), "letter.com")
    assert ([e.source for e in taken.evidence], taken.status) == (["dns"], "taken")
    assert "ns1." in taken.evidence[0].detail
    free = await ask(settings(registry), f"{FREE}.com")
    assert ([e.source for e in free.evidence], free.status) == (["dns", "rdap"], "open")
    assert registry.served == before + 1


async def test_before_buying_registry_and_seller_are_asked(registry: Registry) -> None:
    answer = await ask(settings(registry), f"{FREE}.shop", "buying")
    quote = answer.evidence[-1].quote
    assert [e.says for e in answer.evidence] == ["absent", "unregistered", "usual"]
    assert quote is not None
    assert (quote.currency, quote.renewal) == ("EUR", 32.0)


async def test_a_registry_that_is_late_in_knowing_makes_the_name_unsure(
    registry: Registry,
) -> None:
    registry.faults(kind="late")
    answer = await ask(settings(registry), "letter.com", "buying")
    assert (answer.status, answer.trouble) == ("unsure", "contradiction")
    assert [e.says for e in answer.evidence][:2] == ["delegated", "unregistered"]


@pytest.mark.parametrize("kind", ["loss", "lame", "broken"])
async def test_without_name_servers_the_registrys_word_stands(
    registry: Registry, kind: str
) -> None:
    registry.faults(kind=kind, service="dns")
    assert (await ask(settings(registry), "letter.com")).status == "taken"
    assert (await ask(settings(registry), f"{FREE}.com")).status == "open"


@pytest.mark.parametrize("kind", ["500", "nonsense", "webpage", "loss", "hangup", "429"])
async def test_a_seller_that_fails_takes_nothing_away(registry: Registry, kind: str) -> None:
    registry.faults(kind=kind, service="seller", seconds=60)
    answer = await ask(settings(registry), f"{FREE}.com", "buying")
    assert answer.status == "open"
    assert answer.evidence[-1].trouble


async def test_redirects_within_the_registries_are_followed(registry: Registry) -> None:
    registry.faults(kind="redirect")
    where = settings(registry, dns="")
    answer = await ask(where, "letter.com")
    assert answer.status == "taken"
    assert "/mirror/" in answer.evidence[0].address


async def test_name_servers_alone_only_hint(registry: Registry) -> None:
    where = settings(registry, bases={}, seller="")
    async with open_engine(where) as engine:
        engine._sources.pop("rdap")
        free = await engine.ask(FullName(FREE, "com"))
        taken = await engine.ask(FullName("letter", "com"))
    assert (free.status, free.likely) == ("open", True)
    assert (taken.status, taken.likely) == ("taken", False)


async def test_a_rate_holds_for_two_engines_together(registry: Registry, forgotten: None) -> None:
    registry.limits(alderway=30)
    limits = HostLimits(at_once=10, per_second=30)
    where = settings(registry, dns="", redis=REDIS, limits=limits, timeout=3.0)
    got: list[Answer] = []

    async def sweep(part: int) -> None:
        names = [FullName(f"{FREE}{n}x{part}", "com") for n in range(15)]
        async with open_engine(where) as engine:
            await engine.sweep(names, got.append)

    began = asyncio.get_running_loop().time()
    await asyncio.gather(sweep(1), sweep(2))
    took = asyncio.get_running_loop().time() - began
    assert len(got) == 30
    assert "unsure" not in {a.status for a in got}
    assert registry.violations == 0
    assert took >= 29 / 30 - 0.1


async def test_a_rate_nobody_told_is_learned_from_refusals(
    registry: Registry, forgotten: None
) -> None:
    registry.limits(alderway=40)
    where = settings(
        registry, dns="", redis=REDIS, timeout=3.0,
        retry=RetryPolicy(attempts=6, first_wait=0.05, patience=5),
    )  # fmt: skip
    got: list[Answer] = []
    async with open_engine(where) as engine:
        await engine.sweep([FullName(f"{FREE}{n}y", "com") for n in range(90)], got.append)
    assert len(got) == 90
    assert "unsure" not in {a.status for a in got}
    # The first burst goes over; after the pause everyone keeps to a slower rate.
    assert 0 < registry.violations < 45


async def test_a_dead_registry_is_left_alone_and_the_others_finish(registry: Registry) -> None:
    registry.faults(kind="loss", registry="alderway")
    impatient = RetryPolicy(attempts=2, first_wait=0.01, patience=3, give_up=1.0)
    limits = HostLimits(at_once=4, failures=4, rest=60)
    where = settings(registry, dns="", limits=limits, retry=impatient)
    names = [FullName(f"{FREE}{n}z", e) for n in range(40) for e in ("com", "ie", "shop")]
    got: list[Answer] = []
    async with open_engine(where) as engine:
        await asyncio.wait_for(engine.sweep(names, got.append), 20)
    told = {e: {a.status for a in got if a.name.extension == e} for e in ("com", "ie", "shop")}
    assert told["com"] == {"unsure"}
    assert "unsure" not in told["ie"] | told["shop"]
    assert {a.trouble for a in got if a.name.extension == "com"} <= {"timeout", "resting"}
