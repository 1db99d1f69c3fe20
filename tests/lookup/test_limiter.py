"""Politeness: what the limiter of one host allows, in this process and shared through Redis."""

import asyncio
import os
from collections.abc import AsyncIterator
from dataclasses import dataclass, field

import pytest
import redis.asyncio
from hypothesis import given, settings
from hypothesis import strategies as st

from vinetag.lookup.limiter import RESTING, HostLimits, HostState, LocalLimiter, acquire
from vinetag.lookup.shared_limiter import SharedLimiter

TROUBLES = ("", "", "", "rate_limited", "timeout", "server_error", "nonsense", "late")


def test_questions_are_spaced_as_the_rate_says() -> None:
    state = HostState(HostLimits(at_once=100, per_second=10))
    waits = [state.enter(str(n), 5.0) for n in range(5)]
    step = 1 / (10 * 0.98)
    assert waits == pytest.approx([n * step for n in range(5)])
    assert state.enter("later", 50.0) == 0


def test_no_more_places_than_allowed_and_lost_ones_come_back() -> None:
    state = HostState(HostLimits(at_once=2))
    assert [state.enter(t, 0.0) for t in "ab"] == [0, 0]
    assert state.enter("c", 0.0) < RESTING
    state.leave("a", 0.1, "")
    assert state.enter("c", 0.1) == 0
    assert state.enter("d", 0.2) < RESTING
    assert state.enter("d", 31.0) == 0  # b was lost


def test_only_one_probe_passes_after_a_rest() -> None:
    state = HostState(HostLimits(at_once=60, failures=3, rest=10))
    for n in range(3):
        assert state.enter(str(n), 0.0) == 0
        state.leave(str(n), 0.0, "timeout")
    assert state.enter("x", 1.0) == RESTING
    waits = [state.enter(f"p{n}", 11.0) for n in range(50)]
    assert [wait == 0 for wait in waits].count(True) == 1
    state.leave("p0", 11.5, "timeout")
    assert state.enter("x", 12.0) == RESTING
    assert state.enter("p", 22.0) == 0
    state.leave("p", 22.1, "")
    assert all(state.enter(f"y{n}", 22.2) == 0 for n in range(5))


def test_a_refusal_is_no_failure_but_pauses_all_and_teaches_a_slower_rate() -> None:
    state = HostState(HostLimits(at_once=50, failures=2))
    for n in range(10):
        state.enter(str(n), 0.0)
    state.leave("0", 0.1, "rate_limited", 3.0)
    state.leave("1", 0.1, "rate_limited", 3.0)
    assert state.enter("a", 0.2) == pytest.approx(RESTING - 2.9)
    first, second = state.enter("a", 3.1), state.enter("b", 3.1)
    assert first == 0
    assert second == pytest.approx(1 / 7)  # ten were seen in a second; seven tenths of that
    for n in range(2, 10):
        state.leave(str(n), 3.2, "")
    assert state.learned > 7


def test_a_question_that_was_not_put_counts_for_nothing() -> None:
    state = HostState(HostLimits(failures=2))
    state.leave("a", 0.0, "timeout")
    state.leave("b", 0.0, "late")
    state.leave("c", 0.0, "timeout")
    assert state.enter("d", 0.0) == RESTING


async def test_patience_ends_at_a_long_pause() -> None:
    limiter = LocalLimiter()
    assert await acquire(limiter, "host", "a", 1) == ""
    await limiter.leave("host", "a", "rate_limited", 60)
    assert await acquire(limiter, "host", "b", 0.1) == "rate_limited"


@dataclass
class Script:
    """Steps for both kinds of limiter: who enters or leaves, how much later, and how it ended."""

    limits: HostLimits
    steps: list[tuple[bool, int, float, str, float | None]] = field(default_factory=list)


scripts = st.builds(
    Script,
    st.builds(
        HostLimits,
        at_once=st.integers(1, 4),
        per_second=st.sampled_from([0.0, 2.0, 50.0]),
        failures=st.integers(1, 3),
        rest=st.sampled_from([1.0, 5.0]),
    ),
    st.lists(
        st.tuples(
            st.booleans(),
            st.integers(0, 6),
            st.sampled_from([0.0, 0.01, 0.3, 2.0, 40.0, 90.0]),
            st.sampled_from(TROUBLES),
            st.sampled_from([None, 0.5, 4.0]),
        ),
        min_size=5,
        max_size=40,
    ),
)


@pytest.fixture
async def client() -> AsyncIterator[redis.asyncio.Redis]:
    opened = redis.asyncio.Redis.from_url(os.environ["VINETAG_REDIS_URL"])
    yield opened
    await opened.aclose()


@given(scripts)
@settings(max_examples=40, deadline=None)
def test_limiters_in_redis_decide_as_those_in_memory(script: Script) -> None:
    asyncio.run(_same(script))


async def _same(script: Script) -> None:
    client = redis.asyncio.Redis.from_url(os.environ["VINETAG_REDIS_URL"])
    await client.flushdb()
    shared, state = SharedLimiter(client, lambda _: script.limits), HostState(script.limits)
    now = 1000.0
    try:
        for enters, who, later, trouble, retry_after in script.steps:
            now += later
            token = str(who)
            if enters:
                told, _ = await shared.ask("h", token, now)
                assert told == pytest.approx(state.enter(token, now), abs=1e-9)
            else:
                await shared.tell("h", token, trouble, retry_after, 0, now)  # type: ignore[arg-type]
                state.leave(token, now, trouble, retry_after)  # type: ignore[arg-type]
            rest, told_rest = state.rest(now), await shared.rest("h", now)
            assert (told_rest.left, told_rest.away) == pytest.approx((rest.left, rest.away))
    finally:
        await client.aclose()


async def test_places_are_shared_between_processes(client: redis.asyncio.Redis) -> None:
    await client.flushdb()
    limits = HostLimits(at_once=3)
    one, other = SharedLimiter(client, lambda _: limits), SharedLimiter(client, lambda _: limits)
    assert [await one.enter("h", f"a{n}") for n in range(2)] == [0, 0]
    assert await other.enter("h", "b") == 0
    assert await other.enter("h", "c") < RESTING
    # A permit is kept for the next question for a while, and then given back.
    await one.leave("h", "a0", "", None)
    assert await one.enter("h", "a2") == 0
    assert await other.enter("h", "c") < RESTING
    await one.leave("h", "a2", "", None)
    await one.close()
    assert await other.enter("h", "c") == 0


async def test_a_place_is_not_kept_for_long_nor_after_a_refusal(
    client: redis.asyncio.Redis, monkeypatch: pytest.MonkeyPatch
) -> None:
    await client.flushdb()
    limits = HostLimits(at_once=2)
    one, other = SharedLimiter(client, lambda _: limits), SharedLimiter(client, lambda _: limits)
    assert [await one.enter("h", t) for t in ("a", "b")] == [0, 0]
    await one.leave("h", "a", "", None)
    await one.leave("h", "b", "rate_limited", 30)
    assert await one.enter("h", "c") < RESTING - 20
    assert await other.enter("h", "d") < RESTING - 20
    await client.flushdb()
    monkeypatch.setattr("vinetag.lookup.shared_limiter.HELD_FOR", 0.0)
    assert [await one.enter("h", t) for t in ("e", "f")] == [0, 0]
    await one.leave("h", "e", "", None)
    assert await other.enter("h", "g") == 0


async def test_who_waits_for_a_moment_hears_of_a_pause() -> None:
    limiter = LocalLimiter(lambda _: HostLimits(at_once=5, per_second=10))
    assert await acquire(limiter, "host", "a", 0.1) == ""
    waiting = asyncio.create_task(acquire(limiter, "host", "b", 0.05))
    await asyncio.sleep(0.02)
    await limiter.leave("host", "a", "rate_limited", 20)
    assert await asyncio.wait_for(waiting, 1) == "rate_limited"


async def test_what_one_process_is_told_holds_for_all(client: redis.asyncio.Redis) -> None:
    await client.flushdb()
    one, other = SharedLimiter(client), SharedLimiter(client)
    assert await one.enter("h", "a") == 0
    assert await other.enter("h", "b") == 0
    await one.leave("h", "a", "rate_limited", 30)
    await other.leave("h", "b", "timeout", None)
    assert await other.enter("h", "c") == pytest.approx(RESTING - 30, abs=1)


async def test_without_redis_nobody_passes() -> None:
    away = redis.asyncio.Redis(host="127.0.0.1", port=9, socket_connect_timeout=0.2)
    limiter = SharedLimiter(away)
    assert await acquire(limiter, "h", "a", 0.1) == "rate_limited"
    await limiter.leave("h", "a", "", None)
    await away.aclose()


async def test_waiting_for_a_place_is_not_being_refused() -> None:
    limiter = LocalLimiter(lambda _: HostLimits(at_once=1))
    assert await acquire(limiter, "host", "a", 0.01) == ""
    waiting = asyncio.create_task(acquire(limiter, "host", "b", 0.01))
    await asyncio.sleep(0.15)
    assert not waiting.done()
    await limiter.leave("host", "a", "", None)
    assert await asyncio.wait_for(waiting, 1) == ""
