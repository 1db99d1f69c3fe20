"""Registries that speak RDAP."""

from __future__ import annotations

from collections.abc import Mapping
from urllib.parse import urlsplit

import aiohttp

from vinetag.core.checking import Evidence, Source
from vinetag.core.names import FullName
from vinetag.lookup.bootstrap import Bootstrap
from vinetag.lookup.fetching import Failure, get, origin_of, target_of
from vinetag.lookup.rdap import domain_address, read_domain
from vinetag.lookup.sources.base import Asked, evidence_of, now

__all__ = ["RdapSource"]

HEADERS = {"Accept": "application/rdap+json, application/json;q=0.8"}


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
            return Asked(Evidence("rdap", "", now(), trouble="no_bootstrap"))
        address = at or domain_address(registry[1], name)
        reply = await get(self._session, address, HEADERS)
        if isinstance(reply, Failure):
            return Asked(Evidence("rdap", "", now(), address, *reply))
        onward = target_of(address, reply.location) if reply.location else ""
        if origin_of(onward) not in self._origins:
            onward = ""
        found = read_domain(reply.status, reply.kind, reply.body, name)
        return Asked(evidence_of("rdap", found, address, name.extension), reply.retry_after, onward)
