"""A name as the world sees it: whom the registry sends the world to, what those servers say, what a
resolver says, and whether signatures hold.
"""

from __future__ import annotations

import asyncio
import ipaddress
import itertools
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Any, Final, Literal

import aiohttp
import dns.asyncquery
import dns.dnssec
import dns.exception
import dns.flags
import dns.message
import dns.name
import dns.rcode
import dns.rdatatype
import dns.resolver
import dns.rrset

from vinetag.core.zone import Looked, ServerLooked

__all__ = ["Outside", "look", "texts_at"]

AT_ONCE: Final = 20
SECONDS: Final = 10.0
A_TRY: Final = 2.0
MOST_SERVERS: Final = 6
MOST_TEXT: Final = 8_000
Key = tuple[str, str]
Signing = Literal["none", "good", "broken", "unused", "unknown"]


@dataclass(frozen=True, slots=True)
class Outside:
    """Where to ask: a resolver at `address` and `port`, "" for the system's; all other name servers
    at `server_port`, `anywhere` or at addresses of the open Internet alone: whoever holds a name
    says where its servers are; whoever sends visitors on at an address and port, "" for nobody.
    """

    address: str = ""
    port: int = 53
    server_port: int = 53
    forwarder: str = ""
    forwarder_port: int = 80
    anywhere: bool = False


class _Looking:
    """One name, with what all of it takes at most."""

    def __init__(self, where: Outside) -> None:
        self._where = where
        self._turn = asyncio.Semaphore(AT_ONCE)
        # What a resolver is: without the system's there is nobody to ask.
        self._resolvers = [where.address] if where.address else _system()

    async def ask(
        self, name: str, kind: str, at: str = "", *, signed: bool = False
    ) -> dns.message.Message | None:
        """One question to a server, or to the resolver; None without an answer that can be read."""
        query = dns.message.make_query(name, kind, want_dnssec=signed)
        if at:
            query.flags &= ~dns.flags.RD
        port = self._where.server_port if at else self._where.port
        for address in [at] if at else self._resolvers[:2]:
            try:
                async with self._turn:
                    reply, _ = await dns.asyncquery.udp_with_fallback(query, address, A_TRY, port)
            except (dns.exception.DNSException, OSError, EOFError, ValueError):
                continue
            return reply
        return None

    async def data(self, name: str, kind: str, at: str = "") -> frozenset[str] | None:
        """What is said of a name; None where that could not be found out."""
        reply = await self.ask(name, kind, at)
        if reply is None or reply.rcode() not in (dns.rcode.NOERROR, dns.rcode.NXDOMAIN):
            return None
        return _texts(reply.answer, name, kind)

    async def addresses(self, host: str) -> list[str]:
        """Of a server, those that may be asked."""
        found = await self.data(host, "A") or await self.data(host, "AAAA") or frozenset()
        anywhere = self._where.anywhere
        return [one for one in sorted(found) if anywhere or ipaddress.ip_address(one).is_global]

    async def parent(self, name: str) -> list[str] | None:
        """The servers the registry names: by the registry's own where they can be found, else by
        the resolver.
        """
        above = name.partition(".")[2]
        hosts = await self.data(above, "NS") or frozenset()
        addresses = [await self.addresses(host.rstrip(".")) for host in sorted(hosts)[:2]]
        for address in itertools.chain.from_iterable(addresses):
            reply = await self.ask(name, "NS", address)
            if reply is None:
                continue
            if reply.rcode() == dns.rcode.NXDOMAIN:
                return []
            if reply.rcode() == dns.rcode.NOERROR:
                said = _texts([*reply.answer, *reply.authority], name, "NS")
                return sorted(one.rstrip(".").lower() for one in said)
        found = await self.data(name, "NS")
        return None if found is None else sorted(one.rstrip(".").lower() for one in found)

    async def server(self, name: str, host: str, keys: Iterable[Key]) -> ServerLooked:
        """What one of its servers says."""
        addresses = await self.addresses(host)
        if not addresses:
            return ServerLooked(host, "unfound")
        address = addresses[0]
        reply = await self.ask(name, "SOA", address)
        if reply is None:
            return ServerLooked(host, "silent")
        starts = [one for one in reply.answer if one.rdtype == dns.rdatatype.SOA]
        if reply.rcode() != dns.rcode.NOERROR or not starts or not reply.flags & dns.flags.AA:
            return ServerLooked(host, "lame")
        answers = await self.each(keys, address)
        return ServerLooked(host, "good", int(starts[0][0].serial), answers)

    async def each(self, keys: Iterable[Key], at: str = "") -> dict[Key, frozenset[str]]:
        """All of these at once; what was not found out is left out."""
        listed = list(keys)
        found = await asyncio.gather(*(self.data(name, kind, at) for name, kind in listed))
        return {key: said for key, said in zip(listed, found, strict=True) if said is not None}

    async def signing(self, name: str, servers: Sequence[str]) -> Signing:
        """Whether the registry's word and the servers' keys go together (RFC 4035)."""
        signers = await self.ask(name, "DS")
        if signers is None or signers.rcode() not in (dns.rcode.NOERROR, dns.rcode.NXDOMAIN):
            return "unknown"
        ds = [rdata for one in signers.answer if one.rdtype == dns.rdatatype.DS for rdata in one]
        for host in servers:
            address = await self.addresses(host)
            if not address:
                continue
            reply = await self.ask(name, "DNSKEY", address[0], signed=True)
            if reply is not None and reply.rcode() == dns.rcode.NOERROR:
                return _signing(name, ds, reply.answer)
        return "unknown" if ds or not servers else "none"

    async def sent_on(self, name: str) -> tuple[str, str]:
        """Where whoever sends visitors on sends those of a name, or why nowhere."""
        where = f"http://{self._where.forwarder}:{self._where.forwarder_port}/"
        limit = aiohttp.ClientTimeout(A_TRY * 2)
        try:
            async with (
                aiohttp.ClientSession(timeout=limit) as client,
                client.get(where, headers={"Host": name}, allow_redirects=False) as answer,
            ):
                if not 300 <= answer.status < 400:
                    return "", f"the answer is {answer.status}"
                return answer.headers.get("Location", "")[:2_000], ""
        except (aiohttp.ClientError, TimeoutError, OSError, ValueError):
            return "", "nobody answers"


def _system() -> list[str]:
    try:
        return [str(one) for one in dns.resolver.get_default_resolver().nameservers]
    except (dns.exception.DNSException, OSError):
        return []


def _texts(sets: Iterable[dns.rrset.RRset], name: str, kind: str) -> frozenset[str]:
    wanted, at = dns.rdatatype.from_text(kind), dns.name.from_text(name)
    return frozenset(
        rdata.to_text()[:MOST_TEXT]
        for one in sets
        if one.rdtype == wanted and one.name == at
        for rdata in one
    )


def _signing(name: str, signers: Sequence[Any], answer: Sequence[dns.rrset.RRset]) -> Signing:
    keys = next((one for one in answer if one.rdtype == dns.rdatatype.DNSKEY), None)
    if keys is None:
        return "broken" if signers else "none"
    if not signers:
        return "unused"
    at = dns.name.from_text(name)
    try:
        named = any(
            dns.dnssec.make_ds(at, key, one.digest_type) == one for one in signers for key in keys
        )
        signatures = next(one for one in answer if one.rdtype == dns.rdatatype.RRSIG)
        dns.dnssec.validate(keys, signatures, {at: keys})
    except (dns.exception.DNSException, StopIteration, ValueError, ImportError):
        return "broken"
    return "good" if named else "broken"


async def look(
    name: str, keys: Iterable[Key], where: Outside, *, forwarded: bool = False
) -> Looked:
    """Look at a name (A-labels) with the names and kinds of its records. Takes ten seconds at most;
    raises nothing, and what was not found out by then is left open.
    """
    looking, listed = _Looking(where), list(dict.fromkeys(keys))
    if not looking._resolvers:
        return Looked()
    deadline = asyncio.get_running_loop().time() + SECONDS

    async def until(work: Any, otherwise: Any) -> Any:
        try:
            async with asyncio.timeout_at(deadline):
                return await work
        except TimeoutError:
            return otherwise

    parent = await until(looking.parent(name), None)
    hosts = (parent or [])[:MOST_SERVERS]
    servers, seen, signing, sent = await asyncio.gather(
        asyncio.gather(
            *(
                until(looking.server(name, host, listed), ServerLooked(host, "silent"))
                for host in hosts
            )
        ),
        until(looking.each(listed), None),
        until(looking.signing(name, hosts), "unknown"),
        until(looking.sent_on(name), ("", "nobody answers")) if forwarded else _nothing(),
    )
    return Looked(parent, servers, seen, signing, sent)


async def _nothing() -> None:
    return None


async def texts_at(name: str, where: Outside) -> list[str]:
    """The texts (TXT) the world sees at a name, each in one piece; none where that could not be
    found out.
    """
    reply = await _Looking(where).ask(name, "TXT")
    if reply is None:
        return []
    found = [one for one in reply.answer if one.rdtype == dns.rdatatype.TXT]
    return [
        b"".join(rdata.strings).decode("utf-8", "replace")[:MOST_TEXT]
        for one in found
        for rdata in one
    ]
