"""Prices of single names, asked of the sellers of the settings."""

from __future__ import annotations

import asyncio
from collections.abc import Sequence
from contextlib import AsyncExitStack
from typing import Final, NamedTuple
from urllib.parse import urljoin

from vinetag.core.checking import Evidence, Trouble
from vinetag.core.names import FullName
from vinetag.lookup.engine_factory import open_limiter
from vinetag.lookup.fetching import open_session, origin_of
from vinetag.lookup.politely import Tried, politely
from vinetag.lookup.settings import LookupSettings
from vinetag.lookup.sources.base import now
from vinetag.lookup.sources.quote import QuoteSource

__all__ = ["QuoteWanted", "fetch_quotes", "may_be_asked"]

AT_ONCE: Final = 16


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
