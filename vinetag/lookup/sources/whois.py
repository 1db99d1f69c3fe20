"""Registries that speak WHOIS."""

from __future__ import annotations

import asyncio
from collections.abc import Mapping
from typing import Final

from vinetag.core.checking import Evidence, Source, Trouble
from vinetag.core.names import FullName
from vinetag.lookup.settings import CATALOGUE, WHOIS
from vinetag.lookup.sources.base import Asked, evidence_of, now
from vinetag.lookup.whois import LARGEST, PORT, WhoisService, question, read_whois, referral_of

__all__ = ["WhoisSource"]

SCHEME: Final = "whois://"


class WhoisSource:
    """Registries by extension, as the catalogue names them (RFC 3912). `through`: CATALOGUE, or an
    address and a port that answers for all; `timeout` in seconds for a whole answer.
    """

    name: Source = "whois"

    def __init__(
        self, services: Mapping[str, WhoisService], through: str = CATALOGUE, timeout: float = 8.0
    ) -> None:
        self._services, self._through, self._timeout = services, through, timeout
        # An answer may send us on to these, and to nobody else.
        self._known = {service.server for service in services.values()}

    def host(self, name: FullName) -> str | None:
        """The registry's server."""
        service = self._services.get(name.extension)
        return f"{WHOIS}{service.server}" if service else None

    async def ask(self, name: FullName, at: str = "") -> Asked:
        """Ask the registry. What it does not know itself it may send us on for, once, to another
        server of the catalogue.
        """
        service = self._services[name.extension]
        server = at.removeprefix(f"{SCHEME}{WHOIS}") or service.server
        address = f"{SCHEME}{server}"
        body = await self._talk(server, question(service, name))
        if isinstance(body, tuple):
            return Asked(Evidence("whois", "", now(), address, *body))
        found = read_whois(body, name, service)
        onward = ""
        if not found.says and not at:
            referred = referral_of(body)
            if referred in self._known and referred != server:
                onward = f"{SCHEME}{WHOIS}{referred}"
        return Asked(evidence_of("whois", found, address, name.extension), onward=onward)

    async def _talk(self, server: str, sent: bytes) -> bytes | tuple[Trouble, str]:
        """The whole answer, or why there is none."""
        there = server if self._through == CATALOGUE else self._through
        host, _, port = there.partition(":")
        try:
            async with asyncio.timeout(self._timeout):
                reader, writer = await asyncio.open_connection(host, int(port or PORT))
                try:
                    writer.write(sent)
                    await writer.drain()
                    body = await _read(reader)
                finally:
                    writer.close()
        except TimeoutError:
            return "timeout", ""
        except (OSError, asyncio.IncompleteReadError) as error:
            return "unreachable", str(error)[:200]
        return body if body is not None else ("nonsense", f"more than {LARGEST:,} octets")


async def _read(reader: asyncio.StreamReader) -> bytes | None:
    """Up to the end of the stream; None where that is too far."""
    body = b""
    while piece := await reader.read(16_384):
        body += piece
        if len(body) > LARGEST:
            return None
    return body
