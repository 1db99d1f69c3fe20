"""Opening an engine over the sources the settings name."""

from __future__ import annotations

from collections.abc import AsyncIterator
from contextlib import AsyncExitStack, asynccontextmanager

import redis.asyncio

from vinetag.core.checking import SOURCES, Source
from vinetag.lookup.engine import Engine, RuleOf
from vinetag.lookup.fetching import open_session
from vinetag.lookup.limiter import Limiter, LocalLimiter
from vinetag.lookup.settings import LookupSettings
from vinetag.lookup.shared_limiter import SharedLimiter
from vinetag.lookup.sources import OPENERS

__all__ = ["open_engine", "open_limiter"]


def open_limiter(settings: LookupSettings, stack: AsyncExitStack) -> Limiter:
    """The limiter of all hosts, shared with other processes where the settings say so."""
    if not settings.redis:
        return LocalLimiter(settings.limits_of)
    client = redis.asyncio.Redis.from_url(
        settings.redis, socket_timeout=2, socket_connect_timeout=1
    )
    stack.push_async_callback(client.aclose)
    shared = SharedLimiter(client, settings.limits_of)
    stack.push_async_callback(shared.close)
    return shared


@asynccontextmanager
async def open_engine(
    settings: LookupSettings, rule_of: RuleOf = lambda _: None
) -> AsyncIterator[Engine]:
    """An engine over the sources the settings name. When the bootstrap cannot be read it still
    opens, and what only a registry can say is unsure ("no_bootstrap").
    """
    async with AsyncExitStack() as stack:
        session = await stack.enter_async_context(open_session(settings.timeout))
        opened = [await opener(settings, session, stack) for opener in OPENERS]
        sources = [source for source in opened if source]
        shared = open_limiter(settings, stack)
        # Name servers only hint and are nearby: their limits are each process's own.
        near = LocalLimiter(lambda _: settings.dns_limits)
        limiters: dict[Source, Limiter] = {
            source.name: near if SOURCES[source.name].authority == "hint" else shared
            for source in sources
        }
        yield Engine(sources, limiters, rule_of=rule_of, retry=settings.retry)
