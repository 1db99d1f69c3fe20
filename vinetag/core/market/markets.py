"""Markets as they describe themselves, and zone files that can be had: JSON documents with where
lists and files are.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from datetime import date
from typing import Annotated, Any, ClassVar, Final

from pydantic import ConfigDict, Field

from vinetag.core.documents import UNREADABLE, Document, Line, Read, Text, refusal
from vinetag.core.errors import CoreError

__all__ = [
    "MarketEntry", "MarketsError", "ZoneEntry", "markets_schema", "read_markets", "read_zones",
    "zones_schema",
]  # fmt: skip

MOST_MARKETS: Final = 60
MOST_ZONES: Final = 20_000
CODE: Final = re.compile(r"[a-z0-9][a-z0-9-]{0,39}")


class MarketsError(CoreError):
    """A document of markets has one or more problems, each at a path."""


def _code(value: str) -> str:
    if not CODE.fullmatch(value):
        raise refusal(UNREADABLE)
    return value


@dataclass(frozen=True, slots=True)
class MarketEntry:
    """One market, and the address of its list."""

    __pydantic_config__: ClassVar[ConfigDict] = ConfigDict(extra="ignore")

    code: Annotated[
        str,
        Read(_code, {"type": "string", "pattern": f"^{CODE.pattern}$"}),
        Field(description="Its name in addresses and files"),
    ]
    name: Annotated[str, Line(80)]
    list: Annotated[str, Text(300), Field(description="Absolute, or from the document's own")]


@dataclass(frozen=True, slots=True)
class _Markets:
    __pydantic_config__: ClassVar[ConfigDict] = ConfigDict(extra="ignore")

    markets: Annotated[tuple[MarketEntry, ...], Field(max_length=MOST_MARKETS)]


_DOCUMENT: Final = Document(_Markets, MarketsError)


def read_markets(document: object) -> tuple[MarketEntry, ...]:
    """The markets of a document. Raises MarketsError with every problem at its path."""
    return _DOCUMENT.read(document).markets


def markets_schema() -> dict[str, Any]:
    """The JSON Schema of the document, as docs/markets.schema.json has it."""
    return _DOCUMENT.schema("Markets", "Who offers names, or tells which are let go.")


EXTENSION: Final = re.compile(r"[a-z0-9-]{2,63}(\.[a-z0-9-]{2,63})?")


def _extension(value: str) -> str:
    if not EXTENSION.fullmatch(value):
        raise refusal("zone_extension", value=value[:40])
    return value


def _day(value: str) -> date:
    try:
        return date.fromisoformat(value)
    except ValueError:
        raise refusal("zone_day", value=value[:20]) from None


@dataclass(frozen=True, slots=True)
class ZoneEntry:
    """A zone file that can be had: the delegated names of an extension on a day."""

    __pydantic_config__: ClassVar[ConfigDict] = ConfigDict(extra="ignore")

    extension: Annotated[
        str, Read(_extension, {"type": "string", "pattern": f"^{EXTENSION.pattern}$"})
    ]
    day: Annotated[date, Read(_day, {"type": "string", "format": "date"})]
    file: Annotated[str, Text(300), Field(description="Absolute, or from the document's own")]


@dataclass(frozen=True, slots=True)
class _Zones:
    __pydantic_config__: ClassVar[ConfigDict] = ConfigDict(extra="ignore")

    zones: Annotated[tuple[ZoneEntry, ...], Field(max_length=MOST_ZONES)]


_ZONES: Final = Document(_Zones, MarketsError)


def read_zones(document: object) -> tuple[ZoneEntry, ...]:
    """The zone files of a document. Raises MarketsError with every problem at its path."""
    return _ZONES.read(document).zones


def zones_schema() -> dict[str, Any]:
    """The JSON Schema of the document, as docs/zones.schema.json has it."""
    return _ZONES.schema("Zones", "Zone files that can be had, one an extension and day.")
