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
from itertools import islice
from typing import Any, Final, cast, get_args

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
from vinetag.core.money import amount_of, neat
from vinetag.core.spreadsheet import plain_cell, safe_cell

__all__ = ["MOST_LINES", "ReadList", "price_list_schema", "read_price_list", "write_price_list"]

MOST_LINES: Final = 50_000
LARGEST: Final = 8_000_000
LONGEST_CELL: Final = 100
MOST_NAMES: Final = 10_000
# Of one extension and action: each is set against the others.
MOST_OF_ONE: Final = 300

add_words(
    {
        "list_not_csv": "This is no table: it looks like {what}.",
        "list_empty": "There is no line with a price.",
        "list_large": "A list has at most {limit:,} characters; this has {length:,}.",
        "list_lines": "At most {limit:,} lines are read: what stands behind them was left out.",
        "list_currency": "The prices of this seller are in {currency}; this line says {value}.",
        "list_overlap": "This is the price of a time and term that line {line} has one for.",
        "list_years": "The term ends before it begins: {low} to {high} years.",
        "list_dates": "It ends on {until}, before it begins on {since}.",
        "not_date": "“{value}” is no date: write it like 2026-11-29.",
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
    text = text.removeprefix("\ufeff")
    if len(text) > LARGEST:
        return _none("list_large", {"limit": LARGEST, "length": len(text)})
    start = text.lstrip()[:1]
    if start in ("<", "{", "["):
        what = "a web page" if start == "<" else "JSON"
        return _none("list_not_csv", {"what": what})
    first = text.split("\n", 1)[0]
    separator = max(",;\t", key=first.count)
    try:
        lines = csv.reader(io.StringIO(text, newline=""), delimiter=separator, strict=False)
        heading = [plain_cell(name).strip().lower() for name in next(lines, [])]
        reader = _Reader(currency, known, comma=separator != ",")
        if problems := _heading(heading):
            return ReadList((), tuple(problems))
        for cells in islice(lines, MOST_LINES):
            if any(cells):
                reader.read(dict(zip(heading, cells, strict=False)), lines.line_num)
        if next(lines, None) is not None:
            reader.problem(f"line {lines.line_num}", "list_lines", {"limit": MOST_LINES})
    except csv.Error as error:
        return _none("list_not_csv", {"what": f"something else ({error})"})
    reader.overlaps()
    if not reader.rows and not reader.problems:
        return _none("list_empty", {})
    return ReadList(tuple(row for _, row in reader.rows), tuple(reader.problems))


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


def _none(code: str, args: Mapping[str, object]) -> ReadList:
    return ReadList((), (Problem("line 1", code, args),))


def _heading(heading: Sequence[str]) -> list[Problem]:
    unknown = [
        Problem("line 1", "column_unknown", {"value": name[:40]})
        for name in heading
        if name and name not in COLUMNS
    ]
    missing = [
        Problem("line 1", "column_missing", {"value": name})
        for name in NEEDED
        if name not in heading
    ]
    return [*missing, *unknown]


class _Reader:
    """Reads line by line; a line that is wrong is left out and told of."""

    def __init__(self, currency: str, known: Collection[str], *, comma: bool) -> None:
        self._currency, self._known, self._comma = currency, known, comma
        self.rows: list[tuple[int, PriceRow]] = []
        self.problems: list[Problem] = []

    def problem(self, path: str, code: str, args: Mapping[str, object]) -> None:
        self.problems.append(Problem(path, code, args))

    def read(self, given: Mapping[str, str], line: int) -> None:
        """One line; `given` are its cells by column."""
        before = len(self.problems)
        cells = {name: plain_cell(cell).strip()[:LONGEST_CELL] for name, cell in given.items()}
        self._line = f"line {line}"
        extension = cells.get("extension", "").lower().removeprefix(".")
        if extension != EVERY and extension not in self._known:
            self.problem(f"{self._line}, extension", "extension_unknown", {"value": extension[:40]})
        action = cast(Action, self._choice(cells, "action", ACTIONS, ""))
        low = self._whole(cells, "years_from", 1, LONGEST_AHEAD) or 1
        high = self._whole(cells, "years_to", 1, LONGEST_AHEAD) or LONGEST_AHEAD
        if high < low:
            self.problem(f"{self._line}, years_to", "list_years", {"low": low, "high": high})
        price = self._amount(cells, "price")
        if price is None and not cells.get("price"):
            self.problem(f"{self._line}, price", "blank", {})
        per = cast(Per, self._choice(cells, "per", get_args(Per), "year"))
        currency = cells.get("currency", "").upper()
        if currency and currency != self._currency:
            args = {"currency": self._currency, "value": currency[:10]}
            self.problem(f"{self._line}, currency", "list_currency", args)
        since = self._day(cells, "valid_from", date.min)
        until = self._day(cells, "valid_until", date.max)
        if until < since:
            args = {"since": since.isoformat(), "until": until.isoformat()}
            self.problem(f"{self._line}, valid_until", "list_dates", args)
        promotion = self._promotion(cells)
        if len(self.problems) == before and price is not None:
            row = PriceRow(extension, action, price, low, high, per, promotion, since, until)
            self.rows.append((line, row))

    def overlaps(self) -> None:
        """Leaves out what another line has a price for already."""
        kept: dict[tuple[str, str], list[tuple[int, PriceRow]]] = {}
        for line, row in self.rows:
            others = kept.setdefault((row.extension, row.action), [])
            if len(others) >= MOST_OF_ONE:
                self.problem(f"line {line}", "list_prices", {"limit": MOST_OF_ONE})
                continue
            for first, other in others:
                together = (
                    row.years_from <= other.years_to
                    and other.years_from <= row.years_to
                    and row.valid_from <= other.valid_until
                    and other.valid_from <= row.valid_until
                )
                if together:
                    self.problem(f"line {line}", "list_overlap", {"line": first})
                    break
            else:
                others.append((line, row))
        self.rows = sorted(one for rows in kept.values() for one in rows)

    def _promotion(self, cells: Mapping[str, str]) -> Promotion | None:
        kinds = get_args(PromotionKind)
        price = self._amount(cells, "promotional_price")
        names = self._whole(cells, "promotion_names", 1, MOST_NAMES)
        if not cells.get("promotion"):
            if price is not None:
                args = {"choices": ", ".join(kinds)}
                self.problem(f"{self._line}, promotion", "promotion_without_kind", args)
            return None
        kind = cast(PromotionKind, self._choice(cells, "promotion", kinds, ""))
        if price is None:
            if not cells.get("promotional_price"):
                self.problem(f"{self._line}, promotional_price", "promotion_without_price", {})
            return None
        if kind == "first_names" and not names:
            self.problem(f"{self._line}, promotion_names", "promotion_without_names", {})
        return Promotion(price, kind, names or 0)

    def _choice(
        self, cells: Mapping[str, str], name: str, choices: Collection[str], usual: str
    ) -> str:
        value = cells.get(name, "").lower() or usual
        if value not in choices:
            args = {"value": value[:40], "choices": ", ".join(choices)}
            self.problem(f"{self._line}, {name}", "unknown_choice", args)
        return value

    def _whole(self, cells: Mapping[str, str], name: str, low: int, high: int) -> int | None:
        text = cells.get(name, "")
        if not text:
            return None
        if not text.isascii() or not text.isdecimal():
            self.problem(f"{self._line}, {name}", "not_number", {})
            return None
        if not low <= int(text) <= high:
            args = {"value": text[:20], "low": low, "high": high}
            self.problem(f"{self._line}, {name}", "out_of_range", args)
            return None
        return int(text)

    def _amount(self, cells: Mapping[str, str], name: str) -> Decimal | None:
        text = cells.get(name, "")
        if not text:
            return None
        number = text.replace(".", "").replace(",", ".") if self._comma and "," in text else text
        try:
            return amount_of(number)
        except ValueError:
            self.problem(f"{self._line}, {name}", "not_price", {"value": text[:20]})
            return None

    def _day(self, cells: Mapping[str, str], name: str, usual: date) -> date:
        text = cells.get(name, "")
        if not text:
            return usual
        try:
            return date.fromisoformat(text)
        except ValueError:
            self.problem(f"{self._line}, {name}", "not_date", {"value": text[:20]})
            return usual
