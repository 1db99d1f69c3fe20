"""Prices of single names, asked of the sellers of the settings."""

from __future__ import annotations

import asyncio
from collections.abc import Sequence
from contextlib import AsyncExitStack
from typing import Final, NamedTuple
from urllib.parse import urljoin

from vinetag.core.checking import Evidence, Trouble
from vinetag.core.cost import Quoted
from vinetag.core.names import FullName
from vinetag.lookup.engine_factory import open_limiter
from vinetag.lookup.fetching import open_session, origin_of
from vinetag.lookup.politely import Tried, politely
from vinetag.lookup.settings import LookupSettings
from vinetag.lookup.sources.base import now
from vinetag.lookup.sources.quote import QuoteSource

__all__ = ["ELSEWHERE", "QuoteWanted", "ReadAnswer", "fetch_quotes", "may_be_asked", "read_answer"]

AT_ONCE: Final = 16
ELSEWHERE: Final = frozenset({"unavailable", "reserved", "offered"})


class QuoteWanted(NamedTuple):
    """Which seller is asked, by its code and its entry's `quotes`, about which name."""

    seller: str
    quotes: str
    name: FullName


def may_be_asked(settings: LookupSettings, quotes: str) -> bool:
    """Whether a seller's address is one of the host in the settings: others are never asked."""
    if not settings.sellers or not quotes:
        return False
    return origin_of(urljoin(settings.sellers, quotes)) == origin_of(settings.sellers)


class ReadAnswer(NamedTuple):
    """What an answer comes to: a price of the name in the seller's currency, or that the seller
    does not sell it (`sold` False); neither where it says nothing of use.
    """

    quoted: Quoted | None = None
    sold: bool | None = None


def read_answer(answer: Evidence, currency: str) -> ReadAnswer:
    """A seller's answer about one name; prices in another currency than its list are of no use."""
    if answer.says in ELSEWHERE:
        return ReadAnswer(sold=False)
    price = answer.quote
    if price is None or price.currency != currency:
        return ReadAnswer()
    if price.first_year is None or price.renewal is None:
        return ReadAnswer()
    quoted = Quoted(price.first_year, price.renewal, premium=answer.says == "premium")
    return ReadAnswer(quoted, sold=True)


async def fetch_quotes(settings: LookupSettings, wanted: Sequence[QuoteWanted]) -> list[Evidence]:
    """What each says, in their order; trouble is evidence, too. Those that may not be asked are
    refused.
    """
    async with AsyncExitStack() as stack:
        session = await stack.enter_async_context(open_session(settings.timeout))
        limiter = open_limiter(settings, stack)
        gate = asyncio.Semaphore(AT_ONCE)

        async def ask(one: QuoteWanted) -> Evidence:
            def refused(trouble: Trouble) -> Evidence:
                return Evidence("quote", "", now(), one.quotes, trouble)

            if not may_be_asked(settings, one.quotes):
                return refused("refused")
            source = QuoteSource(session, urljoin(settings.sellers, one.quotes))

            async def once() -> tuple[Evidence, Tried]:
                asked = await source.ask(one.name)
                return asked.evidence, Tried(asked.evidence.trouble, asked.retry_after)

            host = f"{source.host(one.name)}:{one.seller}"
            async with gate:
                return await politely(limiter, settings.retry, host, once, refused)

        return list(await asyncio.gather(*(ask(one) for one in wanted)))
