"""The RDAP client: one question in, one answer out, whatever happens on the way."""

from __future__ import annotations

import asyncio
import random
import time
from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from datetime import UTC, datetime
from urllib.parse import urlsplit

import aiohttp

from vinetag.core.names import FullName
from vinetag.lookup.answers import Answer, Trouble
from vinetag.lookup.bootstrap import Bootstrap, BootstrapError, read_bootstrap
from vinetag.lookup.limits import Gate, HostLimits
from vinetag.lookup.rdap import Found, domain_address, read_domain
from vinetag.lookup.retry import RetryPolicy, next_wait, read_retry_after

__all__ = ["DEFAULT_BOOTSTRAP", "RdapClient", "open_client"]

DEFAULT_BOOTSTRAP = "http://127.0.0.1:8701/dns.json"

LARGEST_BODY = 512 * 1024
HEADERS = {"Accept": "application/rdap+json, application/json;q=0.8"}


class RdapClient:
    """Asks registries about full names, within each host's limits."""

    def __init__(
        self,
        session: aiohttp.ClientSession,
        bootstrap: Bootstrap | None,
        *,
        limits: HostLimits = HostLimits(),
        retry: RetryPolicy = RetryPolicy(),
        rng: random.Random | None = None,
    ) -> None:
        self._session = session
        self._bootstrap = bootstrap
        self._limits = limits
        self._retry = retry
        self._rng = rng or random.Random()  # noqa: S311 - spreads waits, guards nothing
        self._gates: dict[str, Gate] = {}

    async def ask(self, name: FullName) -> Answer:
        """The answer about one name. Never raises for what the service does."""
        if self._bootstrap is None:
            return Answer(name, "unsure", _now(), trouble="no_bootstrap")
        base = self._bootstrap.base_for(name)
        if base is None:
            return Answer(name, "unsure", _now(), trouble="no_service")
        address = domain_address(base, name)
        gate = self._gate(base)
        async with gate.slots:
            found = await self._ask_gate(gate, address, name)
        return Answer(
            name,
            found.status,
            _now(),
            source=address,
            trouble=found.trouble,
            detail=found.detail,
            registered=found.registered,
            expires=found.expires,
            rdap_status=found.rdap_status,
        )

    async def _ask_gate(self, gate: Gate, address: str, name: FullName) -> Found:
        attempt = 0
        while True:
            await gate.turn()
            if not gate.breaker.allows():
                return Found("unsure", trouble="resting")
            attempt += 1
            found, retry_after = await self._once(address, name)
            gate.breaker.record(found.trouble)
            if retry_after is not None and found.trouble == "rate_limited":
                gate.pause(min(retry_after, self._retry.patience))
            wait = next_wait(self._retry, attempt, found.trouble, retry_after, self._rng.random())
            if wait is None:
                return found
            await asyncio.sleep(wait)

    async def _once(self, address: str, name: FullName) -> tuple[Found, float | None]:
        """One HTTP request; every way it can fail becomes a finding."""
        try:
            async with self._session.get(address, headers=HEADERS, allow_redirects=False) as reply:
                body = await _bounded(reply)
                found = read_domain(reply.status, reply.content_type, body, name)
                return found, read_retry_after(reply.headers.get("Retry-After"), _now())
        except TimeoutError:
            return _failed("timeout"), None
        except (aiohttp.ClientConnectionError, OSError) as error:
            return _failed("unreachable", error), None
        except (aiohttp.ClientError, ValueError) as error:
            return _failed("nonsense", error), None

    def _gate(self, base: str) -> Gate:
        host = urlsplit(base).netloc
        if host not in self._gates:
            self._gates[host] = Gate(self._limits, time.monotonic)
        return self._gates[host]


@asynccontextmanager
async def open_client(
    bootstrap_url: str,
    *,
    timeout: float = 6.0,
    limits: HostLimits = HostLimits(),
    retry: RetryPolicy = RetryPolicy(),
) -> AsyncIterator[RdapClient]:
    """A client whose services come from the bootstrap document at `bootstrap_url`.

    `timeout` is in seconds for each request. When the document cannot be read the client still
    opens, and answers every question with the trouble "no_bootstrap".
    """
    connector = aiohttp.TCPConnector(limit=0, ttl_dns_cache=300)
    wait = aiohttp.ClientTimeout(total=timeout)
    async with aiohttp.ClientSession(connector=connector, timeout=wait) as session:
        bootstrap = await _fetch_bootstrap(session, bootstrap_url)
        yield RdapClient(session, bootstrap, limits=limits, retry=retry)


async def _fetch_bootstrap(session: aiohttp.ClientSession, url: str) -> Bootstrap | None:
    try:
        async with session.get(url) as reply:
            return read_bootstrap(await _bounded(reply)) if reply.status == 200 else None
    except (aiohttp.ClientError, TimeoutError, OSError, ValueError, BootstrapError):
        return None


async def _bounded(reply: aiohttp.ClientResponse) -> bytes:
    """The body, refusing one over LARGEST_BODY bytes."""
    if (reply.content_length or 0) > LARGEST_BODY:
        raise ValueError("the answer is too large")
    body = await reply.content.read(LARGEST_BODY + 1)
    while len(body) <= LARGEST_BODY and not reply.content.at_eof():
        body += await reply.content.read(LARGEST_BODY + 1)
    if len(body) > LARGEST_BODY:
        raise ValueError("the answer is too large")
    return body


def _failed(trouble: Trouble, error: Exception | None = None) -> Found:
    return Found("unsure", trouble=trouble, detail=str(error)[:200] if error else "")


def _now() -> datetime:
    return datetime.now(UTC)
