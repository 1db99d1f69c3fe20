"""Tables as people and sellers send them, read cell by cell: what is wrong is told at its line and
column, what is right is taken.

A byte order mark may stand in front; between cells stand commas, semicolons or tabs; where it is
not commas, a comma may be the decimal one.
"""

from __future__ import annotations

import csv
import io
from collections.abc import Collection, Iterable, Iterator, Mapping, Sequence
from datetime import date
from decimal import Decimal
from itertools import chain, islice
from typing import Final

from vinetag.core.errors import Problem, add_words
from vinetag.core.money import amount_of
from vinetag.core.spreadsheet import plain_cell

__all__ = ["LARGEST", "Cells", "Table", "read_lines", "read_table"]

LARGEST: Final = 8_000_000
LONGEST_CELL: Final = 2_000
# So many are kept, and all are counted.
MOST_PROBLEMS: Final = 10_000

add_words(
    {
        "list_not_csv": "This is no table: it looks like {what}.",
        "list_large": "A list has at most {limit:,} characters; this has {length:,}.",
        "list_lines": "At most {limit:,} lines are read: what stands behind them was left out.",
        "list_dates": "It ends on {until}, before it begins on {since}.",
        "not_date": "“{value}” is no date: write it like 2026-11-29.",
    }
)


class Table:
    """The lines of a table, which can be gone through once, and what was wrong with it: `wrong` in
    how many places, of which the first are told.
    """

    def __init__(self) -> None:
        self.problems: list[Problem] = []
        self.wrong = 0
        self.lines: Iterator[Cells] = iter(())

    def problem(self, path: str, code: str, args: Mapping[str, object]) -> None:
        """Tell of a problem."""
        self.wrong += 1
        if len(self.problems) < MOST_PROBLEMS:
            self.problems.append(Problem(path, code, args))


def read_table(
    text: str, columns: Sequence[str], needed: Collection[str], most_lines: int
) -> Table:
    """The lines of a table whose heading names `columns`, in any order, those `needed` among them.
    Nothing is raised: a table that is none has a problem and no lines.
    """
    if len(text) > LARGEST:
        table = Table()
        table.problem("line 1", "list_large", {"limit": LARGEST, "length": len(text)})
        return table
    return read_lines(io.StringIO(text, newline=""), columns, needed, most_lines)


def read_lines(
    given: Iterable[str], columns: Sequence[str], needed: Collection[str], most_lines: int
) -> Table:
    """As read_table, of lines that come one by one and are never all held."""
    table, lines = Table(), iter(given)
    first = next(lines, "").removeprefix("\ufeff")
    start = first.lstrip()[:1]
    if start in ("<", "{", "["):
        what = "a web page or XML" if start == "<" else "JSON"
        table.problem("line 1", "list_not_csv", {"what": what})
    else:
        table.lines = _lines(table, first, lines, columns, needed, most_lines)
    return table


def _lines(
    table: Table,
    first: str,
    rest: Iterator[str],
    columns: Sequence[str],
    needed: Collection[str],
    most_lines: int,
) -> Iterator[Cells]:
    separator = max(",;\t", key=first.count)
    lines = csv.reader(chain([first], rest), delimiter=separator, strict=False)
    try:
        heading = [plain_cell(name).strip().lower() for name in next(lines, [])]
        for name in needed:
            if name not in heading:
                table.problem("line 1", "column_missing", {"value": name})
        for name in heading:
            if name and name not in columns:
                table.problem("line 1", "column_unknown", {"value": name[:40]})
        if table.problems:
            return
        for cells in islice(lines, most_lines):
            if any(cells):
                given = dict(zip(heading, cells, strict=False))
                yield Cells(table, lines.line_num, given, decimal_comma=separator != ",")
        if next(lines, None) is not None:
            table.problem(f"line {lines.line_num}", "list_lines", {"limit": most_lines})
    except csv.Error as error:
        what = f"something else ({error})"
        table.problem(f"line {lines.line_num}", "list_not_csv", {"what": what})


class Cells:
    """One line of a table."""

    def __init__(
        self, table: Table, line: int, given: Mapping[str, str], *, decimal_comma: bool
    ) -> None:
        self._table, self.line, self._decimal_comma = table, line, decimal_comma
        self._given = given
        self._before = table.wrong

    @property
    def are_good(self) -> bool:
        """Whether nothing was wrong so far."""
        return self._table.wrong == self._before

    def problem(self, column: str, code: str, args: Mapping[str, object]) -> None:
        """Tell what is wrong with a cell."""
        self._table.problem(f"line {self.line}, {column}", code, args)

    def text(self, column: str) -> str:
        """What stands there, "" for nothing."""
        return plain_cell(self._given.get(column, "")).strip()[:LONGEST_CELL]

    def choice(self, column: str, choices: Collection[str], usual: str) -> str:
        """One of the choices, `usual` where nothing stands."""
        value = self.text(column).lower() or usual
        if value not in choices:
            args = {"value": value[:40], "choices": ", ".join(choices)}
            self.problem(column, "unknown_choice", args)
        return value

    def yes(self, column: str) -> bool:
        """Whether "yes" stands there; "no" or nothing is no."""
        return self.choice(column, ("yes", "no"), "no") == "yes"

    def whole(self, column: str, low: int, high: int) -> int | None:
        """A whole number between two, None where nothing stands or it is wrong."""
        text = self.text(column)
        if not text:
            return None
        if not text.isascii() or not text.isdecimal() or len(text) > 12:
            self.problem(column, "not_number", {})
            return None
        if not low <= int(text) <= high:
            self.problem(column, "out_of_range", {"value": text, "low": low, "high": high})
            return None
        return int(text)

    def amount(self, column: str) -> Decimal | None:
        """An amount from 0, None where nothing stands or it is wrong."""
        text = self.text(column)
        if not text:
            return None
        comma = self._decimal_comma and "," in text
        try:
            return amount_of(text.replace(".", "").replace(",", ".") if comma else text)
        except ValueError:
            self.problem(column, "not_price", {"value": text[:20]})
            return None

    def days(self, first: str, last: str) -> tuple[date, date]:
        """From the day in one column to that in another, both included; without bound where nothing
        stands.
        """
        since, until = self._day(first, date.min), self._day(last, date.max)
        if until < since:
            args = {"since": since.isoformat(), "until": until.isoformat()}
            self.problem(last, "list_dates", args)
        return since, until

    def _day(self, column: str, usual: date) -> date:
        text = self.text(column)
        if not text:
            return usual
        try:
            return date.fromisoformat(text)
        except ValueError:
            self.problem(column, "not_date", {"value": text[:20]})
            return usual
