"""A list of offers and drops read into a table of DuckDB, every cell looked at, what is wrong told
at its line. What is wrong with a line leaves the others alone.
"""

from __future__ import annotations

import csv
import json
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path
from typing import Any, Final

from vinetag.core.errors import Problem
from vinetag.core.market import COLUMNS, NEEDED
from vinetag.lake.cells import SHOWN, cell_values, faults_of
from vinetag.lake.duck import Duck, LakeError, first_row, literal, told
from vinetag.lake.unpacking import FeedError

__all__ = ["Read", "read_list"]

LONGEST_LINE: Final = 20_000
LONGEST_VALUE: Final = 40
MOST_TOLD: Final = 50
OF_A_KIND: Final = 8
MOST_REJECTED: Final = 100_000


@dataclass(frozen=True, slots=True)
class Read:
    """How many lines there were and were taken, in how many places something was wrong, and the
    first of those of each kind.
    """

    lines: int
    taken: int
    wrong: int
    problems: Sequence[Problem]


def read_list(duck: Duck, file: Path, now: datetime) -> Read:
    """Read a plain file into the table `listed`, one line a full name, in the order of names.
    Raises FeedError when it is no list of offers; `now` tells what is over.
    """
    return _List(duck, file).read(now)


class _List:
    """One file on its way into DuckDB: its lines as texts, then as values, then one a name."""

    def __init__(self, duck: Duck, file: Path) -> None:
        self._duck, self._file = duck, file
        self._problems: list[Problem] = []
        self._wrong = 0
        with file.open(encoding="utf-8", newline="") as text:
            self._first = text.readline(LONGEST_LINE).strip()
        if not self._first:
            raise FeedError(Problem("file", "feed_empty"))
        if self._first.startswith(("<", "[")):
            raise self._no_table("line 1", self._first[:LONGEST_VALUE])
        self._json = self._first.startswith("{")
        # Lines before the first that has a name in it.
        self._heading = 0 if self._json else 1
        self._given: set[str] = set()

    def read(self, now: datetime) -> Read:
        """All of it."""
        try:
            self._open_json() if self._json else self._open_table()
            self._type(now)
        except LakeError as error:
            raise self._no_table("file", told(error, self._file)) from error
        lines, taken = self._one("count(*), count(*) filter (not fatal) from typed")
        self._duck.execute(
            "create or replace table listed as select * exclude (line, wrong, fatal, said) "
            "from typed where not fatal qualify row_number() over "
            "(partition by label, extension order by line desc) = 1 order by label, extension"
        )
        (kept,) = self._one("count(*) from listed")
        rejected = self._tell_rejected()
        self._tell_faults()
        self._tell_twice(taken - kept)
        self._duck.execute("drop table typed")
        problems = self._problems[:MOST_TOLD]
        if not kept:
            code = "feed_nothing_right" if lines + rejected else "feed_empty"
            raise FeedError(Problem("file", code), *problems)
        return Read(lines + rejected, kept, self._wrong, problems)

    def _one(self, selected: str) -> tuple[int, ...]:
        return first_row(self._duck, f"select {selected}")

    def _rows(self, selected: str) -> list[Any]:
        return self._duck.execute(f"select {selected}").fetchall()

    def _no_table(self, where: str, detail: str) -> FeedError:
        return FeedError(Problem(where, "feed_not_table", {"detail": detail[:120]}))

    def _open_table(self) -> None:
        separator = max(",;\t|", key=self._first.count)
        line = next(csv.reader([self._first], delimiter=separator))
        heading = [cell.strip().lower() for cell in line]
        self._know(heading)
        # A column without a word, or with one that stood before, is passed over.
        names = [n if n and heading.index(n) == i else f"_{i}" for i, n in enumerate(heading)]
        columns = ", ".join(f"{literal(name)}: 'VARCHAR'" for name in names)
        self._duck.execute(
            "create or replace table texts as select row_number() over () as line, * from read_csv("
            f"{literal(str(self._file))}, header=true, delim={literal(separator)}, quote='\"', "
            f"escape='\"', auto_detect=false, strict_mode=false, columns={{{columns}}}, "
            "nullstr='', "
            f"max_line_size={LONGEST_LINE}, ignore_errors=true, store_rejects=true, "
            f"rejects_table='rejected', rejects_scan='scans', rejects_limit={MOST_REJECTED})"
        )

    def _open_json(self) -> None:
        try:
            first = json.loads(self._first)
        except (ValueError, RecursionError) as error:
            raise self._no_table("line 1", str(error)) from error
        self._know([str(name) for name in first])
        # A later object may have what the first has not.
        self._given = {column.name for column in COLUMNS}
        columns = ", ".join(f"{column.name}: 'VARCHAR'" for column in COLUMNS)
        self._duck.execute(
            "create or replace table texts as select row_number() over () as line, * from "
            f"read_json({literal(str(self._file))}, format='newline_delimited', "
            f"columns={{{columns}}}, ignore_errors=true, maximum_object_size={LONGEST_LINE})"
        )

    def _know(self, heading: Sequence[str]) -> None:
        """Raises FeedError where a column that is needed is missing; tells what is passed over."""
        missing = [n for n in NEEDED if n not in heading]
        if missing:
            raise FeedError(*(Problem("line 1", "feed_columns", {"value": n}) for n in missing))
        self._given = {column.name for column in COLUMNS} & set(heading)
        unknown = [name for name in heading if name and name not in self._given]
        self._problems += [
            Problem("line 1", "feed_unknown", {"value": name[:LONGEST_VALUE]})
            for name in unknown[:OF_A_KIND]
        ]

    def _type(self, now: datetime) -> None:
        """The table `typed`: values, with the faults of each line as bits."""
        faults = self._faults = faults_of(self._given)
        self._said = sorted(self._given & SHOWN)
        said = ", ".join(f"coalesce({name}, '')" for name in self._said)
        bits = " + ".join(
            f"coalesce({f.when}, false)::int * {1 << i}" for i, f in enumerate(faults)
        )
        fatal = sum(1 << i for i, fault in enumerate(faults) if fault.fatal)
        values = ", ".join(f"v_{c.name} as {c.name}" for c in COLUMNS[1:] if c.name != "drops")
        trimmed = ", ".join(f"nullif(trim({n}), '') as t_{n}" for n in sorted(self._given))
        kept = ", ".join(self._said)
        self._duck.execute(
            f"""create or replace table typed as
            with trimmed as (
              select line, {trimmed}, {kept} from texts
            ), cells as (
              select *, lower(rtrim(t_name, '.')) as whole_name,
                     {", ".join(cell_values(self._given))}, $now::timestamptz as now from trimmed
            ), judged as (select *, ({bits})::integer as wrong from cells)
            select line, wrong, (wrong & {fatal}) <> 0 as fatal,
                   case when wrong <> 0 then [{said}] end as said,
                   split_part(whole_name, '.', 1) as label,
                   substr(whole_name, strpos(whole_name, '.') + 1) as extension,
                   {values}, drops_from, drops_to
            from judged""",
            {"now": now},
        )
        self._duck.execute("drop table texts")

    def _tell_rejected(self) -> int:
        """Lines that are no lines of a table; how many."""
        self._gaps: list[int] = []
        if self._json:
            return 0
        found = self._rows("line, any_value(error_message) from rejected group by line order by 1")
        self._gaps = [line for line, _ in found]
        self._problems += [
            Problem(f"line {line}", "feed_line", {"detail": str(why).split("\n")[0][:80]})
            for line, why in found[:OF_A_KIND]
        ]
        self._more(len(found))
        return len(found)

    def _tell_faults(self) -> None:
        """The first faults of each kind, and how many more there are."""
        sums = (f"coalesce(sum((wrong >> {i}) & 1), 0)::bigint" for i in range(len(self._faults)))
        counts = self._one(", ".join(sums) + " from typed where wrong <> 0")
        for place, (fault, count) in enumerate(zip(self._faults, counts, strict=True)):
            if not count:
                continue
            at = self._said.index(fault.shows) if fault.shows in self._said else None
            for row, said in self._rows(
                f"line, said from typed where (wrong >> {place}) & 1 = 1 order by 1 "
                f"limit {OF_A_KIND}"
            ):
                value = "" if at is None else said[at][:LONGEST_VALUE]
                args = {"value": value, "choices": ", ".join(COLUMNS[1].choices)}
                self._problems.append(
                    Problem(f"line {self._line(row)}, {fault.shows}", fault.code, args)
                )
            self._more(count)

    def _tell_twice(self, count: int) -> None:
        """Full names that stand in more than one line; `count` lines give way to later ones."""
        if not count:
            return
        found = self._rows(
            "max(line), label || '.' || extension, count(*) from typed where not fatal "
            f"group by 2 having count(*) > 1 order by 1 limit {OF_A_KIND}"
        )
        self._problems += [
            Problem(f"line {self._line(row)}", "feed_twice", {"value": name, "count": times})
            for row, name, times in found
        ]
        self._more(count)

    def _more(self, count: int) -> None:
        """So many were wrong in one way, of which OF_A_KIND are told."""
        self._wrong += count
        if count > OF_A_KIND:
            self._problems.append(Problem("file", "feed_more", {"count": count - OF_A_KIND}))

    def _line(self, row: int) -> int:
        """The line of a file a row stands in; those rejected were not counted."""
        line = row + self._heading
        for gap in self._gaps:
            if gap > line:
                break
            line += 1
        return line
