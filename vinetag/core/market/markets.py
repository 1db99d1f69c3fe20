"""Markets as they describe themselves: a JSON document with where each one's list is."""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Annotated, Any, ClassVar, Final

from pydantic import ConfigDict, Field

from vinetag.core.documents import UNREADABLE, Document, Line, Read, Text, refusal
from vinetag.core.errors import CoreError

__all__ = ["MarketEntry", "MarketsError", "markets_schema", "read_markets"]

MOST_MARKETS: Final = 60
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
