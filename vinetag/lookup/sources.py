"""The sources a full name is asked of. Each asks once and tells what came of it, never raising for
what a service does; waiting, limits and asking again are the engine's.
"""

from __future__ import annotations

from collections.abc import Mapping
from datetime import UTC, datetime
from decimal import Decimal
from typing import Any, NamedTuple, Protocol
from urllib.parse import quote, urlsplit

import aiodns
import aiohttp
import msgspec
from pycares import errno

from vinetag.core.checking import Evidence, Quote, Says, Source, Trouble, may_open
from vinetag.core.money import Money, amount_of
from vinetag.core.names import FullName
from vinetag.lookup.bootstrap import Bootstrap
from vinetag.lookup.fetching import Failure, Reply, get, origin_of, target_of
from vinetag.lookup.rdap import Found, domain_address, read_domain

__all__ = ["Asked", "DnsSource", "QuoteSource", "RdapSource", "SourceOfAnswers"]


class Asked(NamedTuple):
    """One try: the evidence, how many seconds the service asked us to stay away, and the address it
    sent us on to, whose host has limits of its own.
    """

    evidence: Evidence
    retry_after: float | None = None
    onward: str = ""


class SourceOfAnswers(Protocol):
    """Somewhere to ask."""

    @property
    def name(self) -> Source:
        """Which source it is."""

    def host(self, name: FullName) -> str | None:
        """Whose limits count for this name, by its extension; None where the source has nothing."""

    async def ask(self, name: FullName, at: str = "") -> Asked:
        """Ask once, `at` the address an answer before sent us on to, if one did."""


class DnsSource:
    """Name servers: whether the name is delegated (RFC 1034). `servers`, with one port for UDP and
    TCP, are the system's own when left out; `timeout` in seconds.
    """

    name: Source = "dns"

    def __init__(self, servers: tuple[str, ...] = (), port: int = 53, timeout: float = 2.0) -> None:
        where: dict[str, Any] = {"udp_port": port, "tcp_port": port} if servers else {}
        self._address = f"dns://{','.join(servers) or 'system'}"
        self._resolver = aiodns.DNSResolver(
            list(servers) or None, timeout=timeout, tries=1, **where
        )

    def host(self, name: FullName) -> str:
        """Servers fail by extension: each has limits of its own."""
        return f"dns:{name.extension.rpartition('.')[2]}"

    async def ask(self, name: FullName, at: str = "") -> Asked:  # noqa: ARG002 - DNS sends nobody on
        """Ask for its name servers. An answer without any is a referral: delegated as well."""
        try:
            found = await self._resolver.query_dns(str(name), "NS")
        except aiodns.error.DNSError as error:
            return Asked(self._failed(error))
        servers = ", ".join(
            str(r.data.nsdname) for r in found.answer[:4] if hasattr(r.data, "nsdname")
        )
        return Asked(self._evidence("delegated", detail=servers[:200]))

    def _failed(self, error: aiodns.error.DNSError) -> Evidence:
        code = error.args[0] if error.args else 0
        if code == errno.ARES_ENODATA:
            return self._evidence("delegated", detail="a referral")
        if code == errno.ARES_ENOTFOUND:
            return self._evidence("absent", detail="NXDOMAIN")
        if code == errno.ARES_ETIMEOUT:
            return self._evidence("", "timeout")
        trouble: Trouble = "unreachable" if code == errno.ARES_ECONNREFUSED else "lame"
        return self._evidence("", trouble, str(error.args[-1])[:200])

    def _evidence(self, says: Says, trouble: Trouble = "", detail: str = "") -> Evidence:
        return Evidence("dns", says, _now(), self._address, trouble, detail)

    async def close(self) -> None:
        """Let the sockets go."""
        await self._resolver.close()


class RdapSource:
    """Registries, found by the bootstrap (RFC 9224) or, where it has none, by `bases`, addresses by
    extension.
    """

    name: Source = "rdap"

    def __init__(
        self,
        session: aiohttp.ClientSession,
        bootstrap: Bootstrap | None,
        bases: Mapping[str, str] | None = None,
    ) -> None:
        self._session, self._bootstrap, self._bases = session, bootstrap, bases or {}
        known = [*(bootstrap.bases.values() if bootstrap else ()), *self._bases.values()]
        self._origins = {origin_of(base) for base in known}
        self._of: dict[str, tuple[str, str] | None] = {}

    def host(self, name: FullName) -> str | None:
        """The registry's host. Without a bootstrap nobody knows it; asking then says so."""
        if self._bootstrap is None:
            return "bootstrap"
        found = self._registry(name)
        return found[0] if found else None

    def _registry(self, name: FullName) -> tuple[str, str] | None:
        """Host and base address of the extension's registry."""
        extension = name.extension
        if extension not in self._of:
            base = self._bootstrap.base_for(name) if self._bootstrap else None
            base = base or self._bases.get(extension)
            self._of[extension] = (urlsplit(base).netloc, base) if base else None
        return self._of[extension]

    async def ask(self, name: FullName, at: str = "") -> Asked:
        """Ask the registry. A redirect may lead to origins of the bootstrap, and to no others."""
        registry = self._registry(name)
        if registry is None:
            return Asked(Evidence("rdap", "", _now(), trouble="no_bootstrap"))
        address = at or domain_address(registry[1], name)
        reply = await get(self._session, address, RDAP_HEADERS)
        if isinstance(reply, Failure):
            return Asked(Evidence("rdap", "", _now(), address, *reply))
        onward = target_of(address, reply.location) if reply.location else ""
        if origin_of(onward) not in self._origins:
            onward = ""
        found = read_domain(reply.status, reply.kind, reply.body, name)
        return Asked(_of_registry(found, address), reply.retry_after, onward)


class QuoteSource:
    """A seller's quotes as JSON over HTTP, as standins/data/seller.openapi.json describes them.
    `base` ends in a slash.
    """

    name: Source = "quote"

    def __init__(self, session: aiohttp.ClientSession, base: str) -> None:
        self._session, self._base = session, base
        self._host = urlsplit(base).netloc

    def host(self, name: FullName) -> str:  # noqa: ARG002 - one seller for all
        """The seller's, whatever the name."""
        return f"quote:{self._host}"

    async def ask(self, name: FullName, at: str = "") -> Asked:  # noqa: ARG002 - it sends nobody on
        """Ask what it costs."""
        address = f"{self._base}quotes/{quote(str(name))}"
        reply = await get(self._session, address, JSON_HEADERS)
        if isinstance(reply, Failure):
            return Asked(Evidence("quote", "", _now(), address, *reply))
        return Asked(_of_seller(reply, address, name), reply.retry_after)


RDAP_HEADERS = {"Accept": "application/rdap+json, application/json;q=0.8"}
JSON_HEADERS = {"Accept": "application/json"}


class _Quoted(msgspec.Struct):
    name: str
    offer: str
    currency: str = ""
    first_year: Decimal | None = None
    renewal: Decimal | None = None
    asked: Decimal | None = None

    def quote(self) -> Quote | None:
        """The prices, None where there are none. Raises ValueError for amounts and currencies that
        cannot be.
        """
        prices = (self.first_year, self.renewal, self.asked)
        if all(price is None for price in prices):
            return None
        first, renewal, asked = (
            None if price is None else Money(amount_of(price), self.currency).amount
            for price in prices
        )
        return Quote(self.currency, first, renewal, asked)


_QUOTE = msgspec.json.Decoder(_Quoted)
_OFFERS: Mapping[str, Says] = {
    "usual": "usual",
    "premium": "premium",
    "resale": "offered",
    "reserved": "reserved",
    "none": "held",
}


def _of_registry(found: Found, address: str) -> Evidence:
    drops = None
    if found.says == "dropping":
        drops = may_open(found.statuses, found.expires, found.changed)
    return Evidence(
        "rdap", found.says, _now(), address, found.trouble, found.detail, found.registered,
        found.expires, found.changed, found.statuses, drops, found.registrar,
        found.holder,
    )  # fmt: skip


def _of_seller(reply: Reply, address: str, name: FullName) -> Evidence:
    def nothing(trouble: Trouble, detail: str) -> Evidence:
        return Evidence("quote", "", _now(), address, trouble, detail[:200])

    if reply.status == 404:
        return nothing("no_service", "the seller does not sell this extension")
    if reply.status == 429:
        return nothing("rate_limited", "HTTP status 429")
    if reply.status != 200:
        trouble: Trouble = "server_error" if reply.status >= 500 else "refused"
        return nothing(trouble, f"HTTP status {reply.status}")
    try:
        quoted = _QUOTE.decode(reply.body)
    except (msgspec.DecodeError, UnicodeDecodeError, RecursionError) as error:
        return nothing("nonsense", str(error))
    try:
        prices = quoted.quote()
    except ValueError as error:
        return nothing("nonsense", f"a price that cannot be: {error}")
    says = _OFFERS.get(quoted.offer)
    if says is None or quoted.name != str(name):
        return nothing("nonsense", f"an offer {quoted.offer!r} about {quoted.name!r}")
    return Evidence("quote", says, _now(), address, quote=prices)


def _now() -> datetime:
    return datetime.now(UTC)
