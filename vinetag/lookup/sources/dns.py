"""Name servers."""

from __future__ import annotations

from typing import Any

import aiodns
from pycares import errno

from vinetag.core.checking import Evidence, Says, Source, Trouble
from vinetag.core.names import FullName
from vinetag.lookup.sources.base import Asked, now

__all__ = ["DnsSource"]


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
        return Evidence("dns", says, now(), self._address, trouble, detail)

    async def close(self) -> None:
        """Let the sockets go."""
        await self._resolver.close()
