"""The sources there are. Each opens itself by the settings, or says that they name none of it; what
the kinds of them mean stands in vinetag.core.checking.sources.
"""

from __future__ import annotations

from collections.abc import Awaitable, Callable, Sequence
from contextlib import AsyncExitStack
from time import monotonic
from typing import Final

import aiohttp

from vinetag.lookup.bootstrap import Bootstrap
from vinetag.lookup.fetching import fetch_bootstrap
from vinetag.lookup.settings import LookupSettings
from vinetag.lookup.sources.base import Asked, SourceOfAnswers
from vinetag.lookup.sources.dns import DnsSource
from vinetag.lookup.sources.gateway import GatewaySource
from vinetag.lookup.sources.quote import QuoteSource
from vinetag.lookup.sources.rdap import RdapSource
from vinetag.lookup.sources.whois import WhoisSource

__all__ = ["OPENERS", "Asked", "Opener", "SourceOfAnswers"]

Opener = Callable[
    [LookupSettings, aiohttp.ClientSession, AsyncExitStack], Awaitable[SourceOfAnswers | None]
]

BOOTSTRAP_LASTS: Final = 3600.0
_bootstraps: dict[str, tuple[float, Bootstrap]] = {}


async def _dns(
    settings: LookupSettings, _session: aiohttp.ClientSession, stack: AsyncExitStack
) -> SourceOfAnswers | None:
    if not settings.dns:
        return None
    if settings.dns == "system":
        source = DnsSource(timeout=settings.dns_timeout)
    else:
        server, _, port = settings.dns.rpartition(":")
        source = DnsSource((server,), int(port), settings.dns_timeout)
    stack.push_async_callback(source.close)
    return source


async def _rdap(
    settings: LookupSettings, session: aiohttp.ClientSession, _stack: AsyncExitStack
) -> SourceOfAnswers | None:
    return RdapSource(session, await _bootstrap(session, settings.bootstrap), settings.bases)


async def _whois(
    settings: LookupSettings, _session: aiohttp.ClientSession, _stack: AsyncExitStack
) -> SourceOfAnswers | None:
    if not settings.whois or not settings.whois_services:
        return None
    return WhoisSource(settings.whois_services, settings.whois, settings.whois_timeout)


async def _quote(
    settings: LookupSettings, session: aiohttp.ClientSession, _stack: AsyncExitStack
) -> SourceOfAnswers | None:
    return QuoteSource(session, settings.seller) if settings.seller else None


async def _gateway(
    settings: LookupSettings, _session: aiohttp.ClientSession, stack: AsyncExitStack
) -> SourceOfAnswers | None:
    if settings.gateway is None:
        return None
    source = GatewaySource(settings.gateway)
    stack.push_async_callback(source.close)
    return source


OPENERS: Final[Sequence[Opener]] = (_dns, _gateway, _rdap, _whois, _quote)


async def _bootstrap(session: aiohttp.ClientSession, address: str) -> Bootstrap | None:
    """The bootstrap, kept for an hour: it changes every few days."""
    read_at, found = _bootstraps.get(address, (0.0, None))
    if found and monotonic() - read_at < BOOTSTRAP_LASTS:
        return found
    fetched = await fetch_bootstrap(session, address)
    if fetched:
        _bootstraps[address] = monotonic(), fetched
    return fetched or found
