"""A service of demand, asked politely: figures for phrases, and phrases that go with one."""

from __future__ import annotations

import asyncio
import json
from collections.abc import Awaitable, Callable, Sequence
from contextlib import AsyncExitStack
from typing import Final, NamedTuple
from urllib.parse import urlencode, urljoin, urlsplit

import aiohttp

from vinetag.core.checking import Trouble
from vinetag.core.demand import Market
from vinetag.core.demand.service import MOST_ASKED, ServiceAnswer, ServiceError, read_answer
from vinetag.lookup.engine_factory import open_limiter
from vinetag.lookup.fetching import Failure, Reply, get, open_session, post, trouble_of
from vinetag.lookup.limiter import Limiter
from vinetag.lookup.politely import Tried, politely
from vinetag.lookup.settings import LookupSettings

__all__ = ["DemandAnswer", "fetch_companions", "fetch_figures"]

Sending = Callable[[aiohttp.ClientSession], Awaitable[Reply | Failure]]
# Seconds somebody waits for all of it.
LONGEST: Final = 20.0
JSON: Final = {"Accept": "application/json", "Content-Type": "application/json"}
WHY: Final[dict[Trouble, str]] = {
    "rate_limited": "it asked us to slow down",
    "server_error": "it failed",
    "redirected": "it sent us elsewhere",
    "refused": "it refused the question",
    "timeout": "it did not answer in time",
    "unreachable": "it could not be reached",
    "nonsense": "its answer makes no sense",
    "resting": "it has not answered for some minutes",
}


class DemandAnswer(NamedTuple):
    """What was answered, of as many phrases as were; `why` in words where something was not."""

    answers: Sequence[ServiceAnswer]
    why: str = ""


async def fetch_figures(
    settings: LookupSettings, phrases: Sequence[str], market: Market
) -> DemandAnswer:
    """Figures for phrases, as many at once as the service takes. What was answered before one part
    failed is kept. Nothing is raised.
    """
    address = urljoin(settings.phrases, "figures")
    parts = [phrases[at : at + MOST_ASKED] for at in range(0, len(phrases), MOST_ASKED)]

    def sending(part: Sequence[str]) -> Sending:
        body = json.dumps({"phrases": list(part), **market._asdict()}).encode()
        return lambda session: post(session, address, JSON, body)

    return await _all(settings, market, list(map(sending, parts)))


async def fetch_companions(
    settings: LookupSettings, phrase: str, market: Market, most: int = 30
) -> DemandAnswer:
    """Phrases that go with one, with their figures. Nothing is raised."""
    query = urlencode({"phrase": phrase, **market._asdict(), "most": most})
    address = urljoin(settings.phrases, f"companions?{query}")
    return await _all(settings, market, [lambda session: get(session, address, JSON)])


async def _all(
    settings: LookupSettings, market: Market, questions: Sequence[Sending]
) -> DemandAnswer:
    if not settings.phrases:
        return DemandAnswer((), "no service of demand is set up")
    answers: list[ServiceAnswer] = []
    async with AsyncExitStack() as stack:
        session = await stack.enter_async_context(open_session(settings.timeout))
        limiter = open_limiter(settings, stack)
        try:
            async with asyncio.timeout(LONGEST):
                for question in questions:
                    answer, why = await _one(settings, limiter, session, question, market)
                    if answer is None:
                        return DemandAnswer(answers, why)
                    answers.append(answer)
        except TimeoutError:
            return DemandAnswer(answers, WHY["timeout"])
    return DemandAnswer(answers)


async def _one(
    settings: LookupSettings,
    limiter: Limiter,
    session: aiohttp.ClientSession,
    question: Sending,
    market: Market,
) -> tuple[ServiceAnswer | None, str]:
    def refused(trouble: Trouble) -> tuple[ServiceAnswer | None, str]:
        return None, WHY.get(trouble, "it gave no answer")

    async def once() -> tuple[tuple[ServiceAnswer | None, str], Tried]:
        reply = await question(session)
        if isinstance(reply, Failure):
            return refused(reply.trouble), Tried(reply.trouble)
        trouble = trouble_of(reply)
        if trouble:
            return refused(trouble), Tried(trouble, reply.retry_after)
        try:
            return (read_answer(reply.body, market), ""), Tried()
        except ServiceError as error:
            return (None, str(error)), Tried("nonsense")

    host = urlsplit(settings.phrases).netloc + ":demand"
    return await politely(limiter, settings.retry, host, once, refused)
