"""Which service answers for which extension (RFC 9224)."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from urllib.parse import urlsplit

import msgspec

from vinetag.core.names import FullName

__all__ = ["Bootstrap", "BootstrapError", "read_bootstrap"]


class BootstrapError(ValueError):
    """The document is no RDAP bootstrap file."""


class _Document(msgspec.Struct):
    version: str
    services: list[tuple[list[str], list[str]]]


@dataclass(frozen=True, slots=True)
class Bootstrap:
    """Base addresses by extension; each ends in a slash."""

    bases: Mapping[str, str]

    def base_for(self, name: FullName) -> str | None:
        """The base address of the longest matching entry, or None (RFC 9224 section 4)."""
        labels = name.extension.split(".")
        for start in range(len(labels)):
            base = self.bases.get(".".join(labels[start:]))
            if base:
                return base
        return None


def read_bootstrap(body: bytes) -> Bootstrap:
    """Read a bootstrap document, preferring https where an entry lists both.

    Raises BootstrapError when the document has not the form of RFC 9224 section 3.
    """
    try:
        document = msgspec.json.decode(body, type=_Document)
    except (msgspec.DecodeError, UnicodeDecodeError, RecursionError) as error:
        raise BootstrapError(str(error)) from error
    bases: dict[str, str] = {}
    for extensions, addresses in document.services:
        usable = [a for a in addresses if _is_web(a)]
        usable.sort(key=lambda a: urlsplit(a).scheme != "https")
        if usable:
            base = usable[0] if usable[0].endswith("/") else usable[0] + "/"
            bases.update((e.lower(), base) for e in extensions)
    return Bootstrap(bases)


def _is_web(address: str) -> bool:
    try:
        parts = urlsplit(address)
        _ = parts.port
    except ValueError:
        return False
    return parts.scheme in ("http", "https") and bool(parts.netloc)
