"""Asking one thing of a host, through its limits and again where that helps."""

from __future__ import annotations

import asyncio

import pytest

from vinetag.core.checking import Trouble
from vinetag.lookup.limiter import HostLimits, LocalLimiter
from vinetag.lookup.politely import Tried, politely
from vinetag.lookup.retry import RetryPolicy

QUICK = RetryPolicy(attempts=3, first_wait=0.001, patience=0.2)


def asked(tries: list[Tried], retry: RetryPolicy = QUICK) -> tuple[str, int]:
    """What came of it, and how many times it was tried."""
    count = 0

    async def once() -> tuple[str, Tried]:
        nonlocal count
        tried = tries[min(count, len(tries) - 1)]
        count += 1
        return tried.trouble or "found", tried

    async def run() -> str:
        return await politely(LocalLimiter(), retry, "host", once, lambda why: f"closed: {why}")

    return asyncio.run(run()), count


@pytest.mark.parametrize(
    ("tries", "found", "count"),
    [
        ([Tried()], "found", 1),
        ([Tried("timeout"), Tried()], "found", 2),
        ([Tried("server_error")], "server_error", 3),
        # What no second try betters is not tried again.
        ([Tried("nonsense")], "nonsense", 1),
        ([Tried("refused")], "refused", 1),
        ([Tried("rate_limited", 0.01), Tried()], "found", 2),
        # Whoever asks to stay away for longer than there is patience is left alone.
        ([Tried("rate_limited", 60.0), Tried()], "rate_limited", 1),
    ],
)
def test_it_is_tried_again_where_that_may_help(tries: list[Tried], found: str, count: int) -> None:
    assert asked(tries) == (found, count)


def test_a_host_that_asked_to_be_left_alone_is_not_asked_by_the_next_either() -> None:
    limiter = LocalLimiter()
    asked: list[str] = []

    async def run() -> list[str]:
        async def away() -> tuple[str, Tried]:
            return "later", Tried("rate_limited", 60.0)

        async def fine() -> tuple[str, Tried]:
            asked.append("fine")
            return "found", Tried()

        def closed(why: Trouble) -> str:
            return f"closed: {why}"

        return [
            await politely(limiter, QUICK, host, once, closed)
            for host, once in (("host", away), ("host", fine), ("another", fine))
        ]

    assert asyncio.run(run()) == ["later", "closed: rate_limited", "found"]
    assert asked == ["fine"]


def test_a_host_that_takes_one_at_a_time_is_asked_so() -> None:
    limiter = LocalLimiter(lambda _: HostLimits(1, 0.0))
    at_once = most = 0

    async def once() -> tuple[str, Tried]:
        nonlocal at_once, most
        at_once += 1
        most = max(most, at_once)
        await asyncio.sleep(0.01)
        at_once -= 1
        return "found", Tried()

    async def run() -> list[str]:
        return await asyncio.gather(
            *(politely(limiter, QUICK, "host", once, str) for _ in range(4))
        )

    assert asyncio.run(run()) == ["found"] * 4
    assert most == 1


def test_a_fault_of_ours_leaves_the_host_free() -> None:
    limiter = LocalLimiter(lambda _: HostLimits(1, 0.0))

    async def broken() -> tuple[str, Tried]:
        raise RuntimeError("ours")

    async def fine() -> tuple[str, Tried]:
        return "found", Tried()

    async def run() -> str:
        with pytest.raises(RuntimeError, match="ours"):
            await politely(limiter, QUICK, "host", broken, str)
        return await politely(limiter, QUICK, "host", fine, str)

    assert asyncio.run(run()) == "found"
