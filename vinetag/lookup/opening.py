"""Opening an engine: which sources there are, by settings given as one value."""

from __future__ import annotations

from collections.abc import AsyncIterator, Mapping
from contextlib import AsyncExitStack, asynccontextmanager
from dataclasses import dataclass, field
from time import monotonic

import aiohttp
import redis.asyncio

from vinetag.core.checking import Source
from vinetag.lookup.bootstrap import Bootstrap
from vinetag.lookup.engine import Engine, RuleOf
from vinetag.lookup.fetching import fetch_bootstrap, open_session
from vinetag.lookup.gates import Gates, HostLimits, LocalGates
from vinetag.lookup.retry import RetryPolicy
from vinetag.lookup.shared import SharedGates
from vinetag.lookup.sources import DnsSource, QuoteSource, RdapSource, SourceOfAnswers

__all__ = [
    "DEFAULT_BOOTSTRAP",
    "DEFAULT_DNS",
    "DEFAULT_SELLER",
    "LIVE_BOOTSTRAP",
    "LookupSettings",
    "open_engine",
]

DEFAULT_BOOTSTRAP = "http://127.0.0.1:8701/dns.json"
DEFAULT_DNS = "127.0.0.1:8702"
DEFAULT_SELLER = "http://127.0.0.1:8701/seller/"
LIVE_BOOTSTRAP = "https://data.iana.org/rdap/dns.json"
BOOTSTRAP_LASTS = 3600.0
DNS_LIMITS = HostLimits(at_once=50, failures=25)
_bootstraps: dict[str, tuple[float, Bootstrap]] = {}


@dataclass(frozen=True, slots=True)
class LookupSettings:
    """Where to ask, and how politely.

    `dns`: "" for no DNS, "system" for the system's resolver, else an address and a port
    ("127.0.0.1:8702"); `seller`: "" for none; `redis`: where limits are shared, "" for limits of
    this process alone; `by_host`: limits of particular registries; timeouts in seconds.
    """

    bootstrap: str = DEFAULT_BOOTSTRAP
    dns: str = ""
    seller: str = ""
    redis: str = ""
    limits: HostLimits = field(default_factory=HostLimits)
    dns_limits: HostLimits = DNS_LIMITS
    by_host: Mapping[str, HostLimits] = field(default_factory=dict)
    bases: Mapping[str, str] = field(default_factory=dict)
    retry: RetryPolicy = field(default_factory=RetryPolicy)
    timeout: float = 6.0
    dns_timeout: float = 2.0

    def limits_of(self, host: str) -> HostLimits:
        """The limits of a host."""
        return self.by_host.get(host, self.limits)


@asynccontextmanager
async def open_engine(
    settings: LookupSettings, rule_of: RuleOf = lambda _: None
) -> AsyncIterator[Engine]:
    """An engine over the sources the settings name. When the bootstrap cannot be read it still
    opens, and what only a registry can say is unsure ("no_bootstrap").
    """
    async with AsyncExitStack() as stack:
        session = await stack.enter_async_context(open_session(settings.timeout))
        sources: list[SourceOfAnswers] = []
        if settings.dns:
            dns = _dns(settings)
            stack.push_async_callback(dns.close)
            sources.append(dns)
        sources.append(RdapSource(session, await _bootstrap(session, settings), settings.bases))
        if settings.seller:
            sources.append(QuoteSource(session, settings.seller))
        shared: Gates = LocalGates(settings.limits_of)
        if settings.redis:
            client = redis.asyncio.Redis.from_url(
                settings.redis, socket_timeout=2, socket_connect_timeout=1
            )
            stack.push_async_callback(client.aclose)
            shared = kept = SharedGates(client, settings.limits_of)
            stack.push_async_callback(kept.close)
        gates: dict[Source, Gates] = {
            "dns": LocalGates(lambda _: settings.dns_limits),
            "rdap": shared,
            "quote": shared,
        }
        yield Engine(sources, gates, rule_of=rule_of, retry=settings.retry)


def _dns(settings: LookupSettings) -> DnsSource:
    if settings.dns == "system":
        return DnsSource(timeout=settings.dns_timeout)
    server, _, port = settings.dns.rpartition(":")
    return DnsSource((server,), int(port), settings.dns_timeout)


async def _bootstrap(session: aiohttp.ClientSession, settings: LookupSettings) -> Bootstrap | None:
    """The bootstrap, kept for an hour: it changes every few days."""
    read_at, found = _bootstraps.get(settings.bootstrap, (0.0, None))
    if found and monotonic() - read_at < BOOTSTRAP_LASTS:
        return found
    fetched = await fetch_bootstrap(session, settings.bootstrap)
    if fetched:
        _bootstraps[settings.bootstrap] = monotonic(), fetched
    return fetched or found
