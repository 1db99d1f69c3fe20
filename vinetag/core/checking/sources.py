"""The kinds of sources a full name is asked of. Whoever plans, judges or tells reads what stands
here of a kind, and knows none of them by name.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import timedelta
from typing import Final, Literal, get_args

__all__ = ["IN_ORDER", "SOURCES", "Authority", "Source", "SourceKind"]

Source = Literal["rules", "dns", "rdap", "whois", "quote", "market", "zone", "gateway"]
Authority = Literal["rules", "hint", "account", "registry", "seller", "market"]


@dataclass(frozen=True, slots=True)
class SourceKind:
    """One kind of source.

    `authority`: "rules" decide alone; a "hint" can tell that a name is taken and never that it is
    open; an "account" with a seller has the last word that it is open, with its price, and leaves
    it to the registry why it is not; the "registry" has the last word; a "seller" knows prices; a
    "market" knows what holders offer and let go, and is not asked: its lists are there. Within an
    authority the one of the least `cost` is asked first, and the next where it gave nothing.
    `stands`: for how long what it said holds beside younger answers of others that know nothing of
    it; None where it does not.
    `word` begins a sentence about it; `summary` says what it is.
    """

    name: Source
    authority: Authority
    cost: int
    word: str
    summary: str
    stands: timedelta | None = None


SOURCES: Final[Mapping[Source, SourceKind]] = {
    kind.name: kind
    for kind in (
        SourceKind(
            "rules", "rules", 0, "Rules",
            "What the catalogue of extensions says of length, letters and who may register.",
        ),
        SourceKind(
            "zone", "hint", 0, "The extension’s zone file",
            "The names that were delegated on a day, as the registry publishes them: one that was "
            "is registered, one that was not may be, all the same.",
        ),
        SourceKind(
            "dns", "hint", 1, "Name servers (DNS)",
            "A name they know is registered; one they do not know may be, all the same.",
        ),
        SourceKind(
            "gateway", "account", 1, "A seller’s gateway (EPP)",
            "What a seller with whom we have an account can register now (RFC 5731), fifty at a "
            "time, and what it asks for one with a price of its own (RFC 8748).",
            stands=timedelta(days=7),
        ),
        SourceKind(
            "rdap", "registry", 2, "Registry (RDAP)",
            "The registry's own answer, by the standard of RFC 9083.",
        ),
        SourceKind(
            "whois", "registry", 5, "Registry (WHOIS)",
            "The registry's own answer as text (RFC 3912), where it has no RDAP. Whatever is not "
            "understood in it is no answer.",
        ),
        SourceKind(
            "quote", "seller", 3, "Seller",
            "Prices, and names that have a price of their own or are offered by their holder.",
            stands=timedelta(days=7),
        ),
        SourceKind(
            "market", "market", 4, "A market’s list",
            "What holders offer, what is in an auction, and which names are let go, as its list "
            "was when it was fetched.",
        ),
    )
}  # fmt: skip


# The sources of each authority, the cheapest first.
IN_ORDER: Final[Mapping[Authority, tuple[Source, ...]]] = {
    authority: tuple(
        kind.name
        for kind in sorted(SOURCES.values(), key=lambda kind: kind.cost)
        if kind.authority == authority
    )
    for authority in get_args(Authority)
}
