"""What a source is: it asks once and tells what came of it, never raising for what a service does;
waiting, limits and asking again are the engine's.
"""

from __future__ import annotations

from datetime import UTC, datetime
from typing import NamedTuple, Protocol

from vinetag.core.checking import Evidence, Source, likely_drop
from vinetag.core.names import FullName
from vinetag.lookup.found import Found

__all__ = ["Asked", "SourceOfAnswers", "evidence_of", "now"]


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


def now() -> datetime:
    """In UTC."""
    return datetime.now(UTC)


def evidence_of(source: Source, found: Found, address: str, extension: str) -> Evidence:
    """What a registry's answer is as evidence; when a name drops, by the rules of its extension."""
    at, drops = now(), None
    if found.says == "dropping":
        drop = likely_drop(
            extension, found.statuses, at, expires=found.expires, changed=found.changed
        )
        drops = (drop.earliest, drop.latest) if drop else None
    return Evidence(
        source, found.says, at, address, found.trouble, found.detail, found.registered,
        found.expires, found.changed, found.statuses, drops, found.registrar, found.holder,
    )  # fmt: skip
