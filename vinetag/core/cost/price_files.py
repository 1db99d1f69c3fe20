"""Price lists as files: CSV described by a Table Schema (specs.frictionlessdata.io/table-schema).

What people and sellers send is read as it comes: with a byte order mark or without, with commas,
semicolons or tabs between cells, with decimal points or commas.
"""

from __future__ import annotations

import csv
import io
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from decimal import Decimal
from typing import Any, Final, cast, get_args

from vinetag.core.cells import Cells, Table, read_table
from vinetag.core.cost.prices import (
    ACTIONS,
    EVERY,
    Action,
    Per,
    PriceRow,
    Promotion,
    PromotionKind,
)
from vinetag.core.cost.sellers import LONGEST_AHEAD
from vinetag.core.errors import Problem, add_words
from vinetag.core.money import neat
from vinetag.core.spreadsheet import safe_cell

__all__ = ["MOST_LINES", "ReadList", "price_list_schema", "read_price_list", "write_price_list"]

MOST_LINES: Final = 50_000
MOST_NAMES: Final = 10_000
# Of one extension and action: each is set against the others.
MOST_OF_ONE: Final = 300

add_words(
    {
        "list_empty": "There is no line with a price.",
        "list_currency": "The prices of this seller are in {currency}; this line says {value}.",
        "list_overlap": "This is the price of a time and term that line {line} has one for.",
        "list_years": "The term ends before it begins: {low} to {high} years.",
        "promotion_without_price": "A promotion needs a promotional_price.",
        "promotion_without_kind": "A promotional_price needs a promotion: {choices}.",
        "promotion_without_names": "For the first names, promotion_names says how many.",
        "list_prices": "At most {limit:,} prices for one extension and action.",
    }
)

_FIELDS: Final[Sequence[Mapping[str, Any]]] = (
    {
        "name": "extension",
        "type": "string",
        "description": "Without its dot; * is every extension without a line of its own",
        "constraints": {"required": True},
    },
    {
        "name": "action",
        "type": "string",
        "description": "; ".join(f"{name}: {words}" for name, words in ACTIONS.items()),
        "constraints": {"required": True, "enum": list(ACTIONS)},
    },
    {
        "name": "years_from",
        "type": "integer",
        "description": "The shortest term the price is for; 1 where it is empty",
        "constraints": {"minimum": 1, "maximum": LONGEST_AHEAD},
    },
    {
        "name": "years_to",
        "type": "integer",
        "description": "The longest term the price is for; 10 where it is empty",
        "constraints": {"minimum": 1, "maximum": LONGEST_AHEAD},
    },
    {"name": "price", "type": "number", "constraints": {"required": True, "minimum": 0}},
    {
        "name": "per",
        "type": "string",
        "description": "What the price is for: each year, or the whole term",
        "constraints": {"enum": list(get_args(Per))},
    },
    {
        "name": "currency",
        "type": "string",
        "description": "ISO 4217; the seller's, where it is empty",
        "constraints": {"pattern": "[A-Z]{3}"},
    },
    {"name": "promotional_price", "type": "number", "constraints": {"minimum": 0}},
    {
        "name": "promotion",
        "type": "string",
        "description": "What the promotional price is for",
        "constraints": {"enum": list(get_args(PromotionKind))},
    },
    {
        "name": "promotion_names",
        "type": "integer",
        "description": "For first_names: of how many names of an order",
        "constraints": {"minimum": 1, "maximum": MOST_NAMES},
    },
    {"name": "valid_from", "type": "date", "description": "The first day; empty for no bound"},
    {"name": "valid_until", "type": "date", "description": "The last day; empty for no bound"},
)
COLUMNS: Final = tuple(str(field["name"]) for field in _FIELDS)
NEEDED: Final = ("extension", "action", "price")


def price_list_schema() -> dict[str, Any]:
    """The Table Schema of a price list."""
    return {
        "$schema": "https://datapackage.org/profiles/2.0/tableschema.json",
        "title": "Price list of a seller",
        "fields": list(_FIELDS),
        "missingValues": [""],
    }


@dataclass(frozen=True, slots=True)
class ReadList:
    """The rows that could be read, and what was wrong with the others, each at its line."""

    rows: tuple[PriceRow, ...]
    problems: tuple[Problem, ...]


def read_price_list(text: str, currency: str, known: Collection[str]) -> ReadList:
    """Read a list of a seller whose prices are in `currency`; `known` are the extensions there are.
    Nothing is raised: a list that is none has a problem and no rows.
    """
    table = read_table(text, COLUMNS, NEEDED, MOST_LINES)
    reader = _Reader(currency, known, table)
    for cells in table.lines:
        reader.read(cells)
    reader.overlaps()
    if not reader.rows and not table.problems:
        table.problem("line 1", "list_empty", {})
    return ReadList(tuple(row for _, row in reader.rows), tuple(table.problems))


def write_price_list(rows: Sequence[PriceRow], currency: str) -> str:
    """As CSV, which read_price_list reads back."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(COLUMNS)
    for row in rows:
        offer = row.promotion
        cells = (
            row.extension, row.action, row.years_from, row.years_to, row.price, row.per, currency,
            *((offer.price, offer.kind, offer.names or "") if offer else ("", "", "")),
            "" if row.valid_from == date.min else row.valid_from.isoformat(),
            "" if row.valid_until == date.max else row.valid_until.isoformat(),
        )  # fmt: skip
        writer.writerow([
            str(neat(c)) if isinstance(c, Decimal) else safe_cell(str(c)) for c in cells
        ])  # fmt: skip
    return out.getvalue()


class _Reader:
    """Reads line by line; a line that is wrong is left out and told of."""

    def __init__(self, currency: str, known: Collection[str], table: Table) -> None:
        self._currency, self._known, self._table = currency, known, table
        self.rows: list[tuple[int, PriceRow]] = []

    def read(self, cells: Cells) -> None:
        """One line."""
        extension = cells.text("extension").lower().removeprefix(".")
        if extension != EVERY and extension not in self._known:
            cells.problem("extension", "extension_unknown", {"value": extension[:40]})
        action = cast(Action, cells.choice("action", ACTIONS, ""))
        low = cells.whole("years_from", 1, LONGEST_AHEAD) or 1
        high = cells.whole("years_to", 1, LONGEST_AHEAD) or LONGEST_AHEAD
        if high < low:
            cells.problem("years_to", "list_years", {"low": low, "high": high})
        price = cells.amount("price")
        if not cells.text("price"):
            cells.problem("price", "blank", {})
        per = cast(Per, cells.choice("per", get_args(Per), "year"))
        currency = cells.text("currency").upper()
        if currency and currency != self._currency:
            args = {"currency": self._currency, "value": currency[:10]}
            cells.problem("currency", "list_currency", args)
        since, until = cells.days("valid_from", "valid_until")
        promotion = _promotion(cells)
        if cells.are_good and price is not None:
            row = PriceRow(extension, action, price, low, high, per, promotion, since, until)
            self.rows.append((cells.line, row))

    def overlaps(self) -> None:
        """Leaves out what another line has a price for already."""
        kept: dict[tuple[str, str], list[tuple[int, PriceRow]]] = {}
        for line, row in self.rows:
            others = kept.setdefault((row.extension, row.action), [])
            if len(others) >= MOST_OF_ONE:
                self._table.problem(f"line {line}", "list_prices", {"limit": MOST_OF_ONE})
                continue
            first = next((at for at, other in others if _together(row, other)), None)
            if first is None:
                others.append((line, row))
            else:
                self._table.problem(f"line {line}", "list_overlap", {"line": first})
        self.rows = sorted(one for rows in kept.values() for one in rows)


def _together(row: PriceRow, other: PriceRow) -> bool:
    """Whether both are for some term on some day."""
    return (
        row.years_from <= other.years_to
        and other.years_from <= row.years_to
        and row.valid_from <= other.valid_until
        and other.valid_from <= row.valid_until
    )


def _promotion(cells: Cells) -> Promotion | None:
    kinds = get_args(PromotionKind)
    price = cells.amount("promotional_price")
    names = cells.whole("promotion_names", 1, MOST_NAMES)
    if not cells.text("promotion"):
        if price is not None:
            cells.problem("promotion", "promotion_without_kind", {"choices": ", ".join(kinds)})
        return None
    kind = cast(PromotionKind, cells.choice("promotion", kinds, ""))
    if price is None:
        if not cells.text("promotional_price"):
            cells.problem("promotional_price", "promotion_without_price", {})
        return None
    if kind == "first_names" and not names:
        cells.problem("promotion_names", "promotion_without_names", {})
    return Promotion(price, kind, names or 0)
