"""Names one owns as a table: CSV described by a Table Schema."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date
from typing import Any, Final

from vinetag.core.cells import Cells, read_table
from vinetag.core.checking.pasted import read_name
from vinetag.core.errors import CoreError, Problem, add_words
from vinetag.core.names import FullName

__all__ = ["COLUMNS", "MOST_LINES", "ListedName", "ReadNames", "read_names", "schema_of_names"]

MOST_LINES: Final = 20_000
MOST_TAGS: Final = 10
LONGEST_TAG: Final = 30

add_words({"owned_twice": "“{value}” stands in line {line} already."})

_FIELDS: Final[Sequence[Mapping[str, Any]]] = (
    {"name": "full name", "type": "string", "constraints": {"required": True}},
    {"name": "seller", "type": "string", "description": "Where it is registered"},
    {"name": "registered", "type": "date", "description": "Like 2026-11-29"},
    {"name": "expires", "type": "date", "description": "The day it runs out"},
    {
        "name": "renewal", "type": "string", "constraints": {"enum": ["ask", "itself"]},
        "description": "Whether it is renewed by itself where it is",
    },
    {"name": "locked", "type": "string", "constraints": {"enum": ["yes", "no"]}},
    {"name": "privacy", "type": "string", "constraints": {"enum": ["yes", "no"]}},
    {"name": "name servers", "type": "string", "description": "With spaces between them"},
    {"name": "tags", "type": "string", "description": "With semicolons or commas between them"},
    {"name": "costs a year", "type": "string", "description": "Written out, not read"},
    {"name": "currency", "type": "string", "description": "Written out, not read"},
    {"name": "phase", "type": "string", "description": "Written out, not read"},
)  # fmt: skip
COLUMNS: Final = tuple(str(one["name"]) for one in _FIELDS)


@dataclass(frozen=True)
class ListedName:
    """A line; None where a cell was empty."""

    name: FullName
    seller: str = ""
    registered: date | None = None
    expires: date | None = None
    renewal: str = "ask"
    locked: bool | None = None
    privacy: bool | None = None
    servers: Sequence[str] = ()
    tags: Sequence[str] = ()


@dataclass
class ReadNames:
    """The lines that are good, and what was wrong with the others, each at its line."""

    names: list[ListedName] = field(default_factory=list)
    problems: list[Problem] = field(default_factory=list)
    wrong: int = 0


def schema_of_names() -> dict[str, Any]:
    """The Table Schema of the table."""
    return {"fields": [dict(one) for one in _FIELDS], "primaryKey": ["full name"]}


def read_names(text: str, extensions: Collection[str]) -> ReadNames:
    """A table of names under these extensions. Nothing is raised: what is wrong is told at its
    line, and all else is read.
    """
    table = read_table(text, COLUMNS, ("full name",), MOST_LINES)
    found = ReadNames()
    seen: dict[FullName, int] = {}
    for cells in table.lines:
        name = _name(cells, extensions)
        if name is None:
            continue
        if name in seen:
            cells.problem("full name", "owned_twice", {"value": str(name), "line": seen[name]})
            continue
        seen[name] = cells.line
        one = _line(cells, name)
        if cells.are_good:
            found.names.append(one)
    found.problems, found.wrong = table.problems, table.wrong
    return found


def _name(cells: Cells, extensions: Collection[str]) -> FullName | None:
    text = cells.text("full name")
    try:
        label, extension = read_name(text)
    except CoreError as error:
        for problem in error.problems:
            cells.problem("full name", problem.code, problem.args)
        return None
    if extension not in extensions:
        cells.problem("full name", "extension_unknown", {"value": extension or "?"})
        return None
    return FullName(label, extension)


def _line(cells: Cells, name: FullName) -> ListedName:
    registered, expires = cells.days("registered", "expires")
    return ListedName(
        name,
        cells.text("seller")[:80],
        None if registered == date.min else registered,
        None if expires == date.max else expires,
        cells.choice("renewal", ("ask", "itself"), "ask"),
        _either(cells, "locked"),
        _either(cells, "privacy"),
        tuple(cells.text("name servers").lower().replace(",", " ").split())[:13],
        tuple(tags_of(cells.text("tags"))),
    )


def _either(cells: Cells, column: str) -> bool | None:
    return cells.yes(column) if cells.text(column) else None


def tags_of(text: str) -> list[str]:
    """Tags as they are typed, each once."""
    parts = [
        one.strip()[:LONGEST_TAG] for one in text.replace(",", ";").replace("|", ";").split(";")
    ]
    return list(dict.fromkeys(one for one in parts if one))[:MOST_TAGS]
