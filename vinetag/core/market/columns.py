"""The columns of a list of offers and drops, as docs/market-list.table.json describes them: the
same in CSV and in JSON lines.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Final, Literal

from vinetag.core.concepts import LEAVINGS, OFFER_NAMES, PAST_USE_NAMES
from vinetag.core.errors import add_words

__all__ = ["COLUMNS", "NEEDED", "Column", "Kind", "feed_schema"]

Kind = Literal["name", "choice", "amount", "currency", "whole", "moment", "day", "text"]
MOST_COUNT: Final = 2_000_000_000

add_words(
    {
        "feed_empty": "There is no line with a name in it.",
        "feed_columns": "It has no column “{value}”: a list of offers needs name and kind.",
        "feed_unknown": "The column “{value}” is not known, and was passed over.",
        "feed_broken": "The file ends in the middle: {detail}.",
        "feed_large": "Unpacked, a list has at most {limit} MB.",
        "feed_not_table": "This is neither CSV nor JSON lines: {detail}.",
        "feed_line": "The line could not be read: {detail}.",
        "feed_name": "“{value}” is no full name that can be registered; the line was left out.",
        "feed_kind": "“{value}” is no kind of offer ({choices}); the line was left out.",
        "feed_amount": "“{value}” is no amount; there is none for this name.",
        "feed_unpriced": "“{value}” is no price, and a name for sale needs one: left out.",
        "feed_currency": "“{value}” is no currency of ISO 4217; the line was left out.",
        "feed_zone": "“{value}” has no time zone; without one nobody knows when that is.",
        "feed_moment": "“{value}” is no time: write it like 2026-11-29T18:00:00Z.",
        "feed_no_end": "An auction without an end that can be read (“{value}”): left out.",
        "feed_ended": "It ended on {value}; the line was left out.",
        "feed_number": "“{value}” is no whole number from 0; it counts as not told.",
        "feed_day": "“{value}” is no day: write it like 2026-11-29.",
        "feed_choice": "“{value}” is not known here; it counts as not told.",
        "feed_twice": "{value} stands there {count} times; the last one counts.",
        "feed_more": "{count} more of that kind.",
        "feed_overtaken": "Another list of this market was put in force meanwhile.",
        "feed_nothing_right": "No line of it could be used, so the list before it stays in force.",
    }
)


@dataclass(frozen=True, slots=True)
class Column:
    """One column: `what` it holds, for who writes such a list; `most`: characters of a text;
    `choices` of a choice.
    """

    name: str
    kind: Kind
    what: str
    most: int = 40
    choices: tuple[str, ...] = ()


COLUMNS: Final = (
    Column("name", "name", "The full name, as inkpost.example", 255),
    Column("kind", "choice", "How it can be had", choices=OFFER_NAMES),
    Column("price", "amount", "Asked, or bid so far in an auction"),
    Column("currency", "currency", "Of the price (ISO 4217)"),
    Column("bids", "whole", "How many have been made"),
    Column("ends", "moment", "When an auction ends (ISO 8601, with its zone)"),
    Column("drops", "moment", "When it is released: a time with its zone, or a day"),
    Column("state", "choice", "On its way out", choices=LEAVINGS),
    Column("address", "text", "Where it is offered", 300),
    Column("first_registered", "day", "When it was registered first"),
    Column("times_registered", "whole", "How often it was registered"),
    Column("links", "whole", "Links that lead to it"),
    Column("linking_sites", "whole", "Sites they stand on"),
    Column("archived", "whole", "Copies of it in public archives"),
    Column("archived_about", "text", "What those copies were about", 120),
    Column("used_for", "choice", "What it was used for before", choices=PAST_USE_NAMES),
    Column("rank", "whole", "Place among what is searched for with its words, 1 the most"),
    Column("click_price", "amount", "What a click costs with its words, in the currency"),
    Column("also_registered", "text", "Other extensions it is registered under, by spaces", 120),
)  # fmt: skip
NEEDED: Final = ("name", "kind")
_TYPES: Final = {
    "amount": "number", "whole": "integer", "moment": "datetime", "day": "date",
}  # fmt: skip


def _field(column: Column) -> dict[str, Any]:
    limits: dict[str, Any] = {}
    if column.name in NEEDED:
        limits["required"] = True
    if column.choices:
        limits["enum"] = list(column.choices)
    elif column.kind in ("text", "name"):
        limits["maxLength"] = column.most
    elif column.kind in ("whole", "amount"):
        limits["minimum"] = 0
    field = {
        "name": column.name,
        "type": _TYPES.get(column.kind, "string"),
        "description": column.what,
    }
    return {**field, "constraints": limits} if limits else field


def feed_schema() -> dict[str, Any]:
    """The Table Schema of a list, as docs/market-list.table.json has it."""
    return {
        "$schema": "https://datapackage.org/profiles/2.0/tableschema.json",
        "title": "Offers and drops",
        "fields": [_field(column) for column in COLUMNS],
        "missingValues": [""],
    }
