"""Sellers as they describe themselves: a JSON document with the terms of each and where its lists
are.
"""

from __future__ import annotations

import re
from dataclasses import dataclass, replace
from decimal import Decimal
from typing import Annotated, Any, ClassVar, Final, get_args

from pydantic import ConfigDict, Field

from vinetag.core.cost.sellers import LONGEST_AHEAD, Extra, Privacy, Seller, TaxShown
from vinetag.core.documents import UNREADABLE, Between, Document, Line, OneOf, Read, Text, refusal
from vinetag.core.errors import CoreError, Problem
from vinetag.core.money import amount_of, currency_of

__all__ = [
    "MOST_SELLERS", "ReadSellers", "SellerEntry", "SellersError", "read_seller", "read_sellers",
    "seller_document", "sellers_schema",
]  # fmt: skip

MOST_SELLERS: Final = 200
LONGEST_NAME: Final = 80
CODE: Final = re.compile(r"[a-z0-9][a-z0-9-]{0,39}")
COUNTRY: Final = re.compile("[A-Z]{2}")


class SellersError(CoreError):
    """A document of sellers has one or more problems, each at a path."""


def _code(value: str) -> str:
    if not CODE.fullmatch(value):
        raise refusal(UNREADABLE)
    return value


def _country(value: str) -> str:
    if not COUNTRY.fullmatch(value):
        raise refusal(UNREADABLE)
    return value


def _currency(value: str) -> str:
    try:
        return currency_of(value)
    except ValueError:
        raise refusal(UNREADABLE) from None


def _amount(value: str) -> Decimal:
    try:
        return amount_of(value)
    except ValueError:
        raise refusal("not_price", value=value[:20]) from None


def _rounding(value: str) -> Decimal:
    amount = _amount(value)
    if not Decimal("0.001") <= amount <= 100:
        raise refusal("out_of_range", low="0.001", high=100, value=value[:20])
    return amount


AMOUNT: Final = {"type": "string", "pattern": r"^[0-9]+(\.[0-9]{1,3})?$"}
Amount = Annotated[Decimal, Read(_amount, AMOUNT)]
Address = Annotated[str, Text(500), Field(description="Absolute, or from the document's own")]
Years = Annotated[int, Between(1, LONGEST_AHEAD)]


@dataclass(frozen=True, slots=True)
class ExtraEntry:
    """Something the seller ticks in advance."""

    __pydantic_config__: ClassVar[ConfigDict] = ConfigDict(extra="ignore")

    name: Annotated[str, Line(LONGEST_NAME)]
    yearly: Amount
    about: Annotated[str, Line(300)] = ""
    needed: Annotated[bool, Field(strict=True)] = False


@dataclass(frozen=True, slots=True)
class SellerEntry:
    """A seller's terms, and the addresses of its lists, "" for none."""

    __pydantic_config__: ClassVar[ConfigDict] = ConfigDict(extra="ignore")

    code: Annotated[
        str,
        Read(_code, {"type": "string", "pattern": f"^{CODE.pattern}$"}),
        Field(description="Its name in addresses and files"),
    ]
    name: Annotated[str, Line(LONGEST_NAME)]
    country: Annotated[
        str,
        Read(_country, {"type": "string", "pattern": f"^{COUNTRY.pattern}$"}),
        Field(description="ISO 3166-1"),
    ]
    currency: Annotated[
        str,
        Read(_currency, {"type": "string", "pattern": "^[A-Z]{3}$"}),
        Field(description="ISO 4217"),
    ]
    years_min: Years = 1
    years_max: Years = LONGEST_AHEAD
    years_chosen: Annotated[Years, Field(description="Chosen in advance")] = 1
    privacy: Annotated[str, OneOf(get_args(Privacy))] = "included"
    tax: Annotated[str, OneOf(get_args(TaxShown))] = "added"
    rounding: Annotated[Decimal, Read(_rounding, AMOUNT)] = Decimal("0.01")
    extras: Annotated[
        tuple[ExtraEntry, ...], Field(max_length=20, description="Ticked in advance")
    ] = ()
    top_up: Annotated[
        Amount, Field(description="The least that is paid into an account at a time; 0 for none")
    ] = Decimal(0)
    prices: Address = ""
    coupons: Address = ""
    quotes: Annotated[
        str, Text(500), Field(description="What quotes/<full name> is put behind; ends in a slash")
    ] = ""

    def seller(self) -> Seller:
        """The terms alone."""
        extras = tuple(Extra(e.name, e.about, e.yearly, e.needed) for e in self.extras)
        return Seller(
            self.code, self.name, self.country, self.currency, self.years_min, self.years_max,
            self.years_chosen, self.privacy, self.tax, self.rounding, extras,  # type: ignore[arg-type]
            self.top_up,
        )  # fmt: skip


_ENTRY: Final = Document(SellerEntry, SellersError)


@dataclass(frozen=True, slots=True)
class ReadSellers:
    """The sellers that could be read, and what was wrong with the others, each at its path."""

    entries: tuple[SellerEntry, ...]
    problems: tuple[Problem, ...]


def read_sellers(document: object) -> ReadSellers:
    """The sellers of a document, JSON as dicts and lists. Nothing is raised."""
    given = document.get("sellers") if isinstance(document, dict) else None
    if not isinstance(given, list):
        return ReadSellers((), (Problem("sellers", "not_list"),))
    entries: dict[str, SellerEntry] = {}
    problems: list[Problem] = []
    if len(given) > MOST_SELLERS:
        args = {"limit": MOST_SELLERS, "count": len(given)}
        problems.append(Problem("sellers", "too_many", args))
    for place, part in enumerate(given[:MOST_SELLERS]):
        at = f"sellers.{place}"
        try:
            entry = read_seller(part)
        except SellersError as error:
            problems += [replace(p, path=f"{at}.{p.path}".rstrip(".")) for p in error.problems]
            continue
        if entry.code in entries:
            problems.append(Problem(f"{at}.code", "repeated", {"value": entry.code}))
        else:
            entries[entry.code] = entry
    return ReadSellers(tuple(entries.values()), tuple(problems))


def read_seller(document: object) -> SellerEntry:
    """One seller. Raises SellersError with every problem at its path."""
    return _ENTRY.read(document)


def seller_document(entry: SellerEntry) -> dict[str, Any]:
    """An entry as read_seller reads it back."""
    return _ENTRY.write(entry)


def sellers_schema() -> dict[str, Any]:
    """The JSON Schema of a document of sellers."""
    described = "Who sells names, on what terms, and where their lists are."
    entry = _ENTRY.schema("Seller", "A seller's terms, and the addresses of its lists.")
    parts = entry.pop("$defs", {})
    return {
        "$schema": entry.pop("$schema"),
        "$defs": parts,
        "type": "object",
        "properties": {"sellers": {"type": "array", "maxItems": MOST_SELLERS, "items": entry}},
        "required": ["sellers"],
        "title": "Sellers",
        "description": described,
    }
