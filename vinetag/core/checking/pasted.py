"""Reading pasted or uploaded names: names and full names, mixed, in any reasonable separation."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from typing import Final
from urllib.parse import urlsplit

from vinetag.core.errors import CoreError, LabelError, Problem
from vinetag.core.extensions import parse_extension
from vinetag.core.names import FullName, parse_label

__all__ = [
    "MOST_LINES", "MOST_NAMES", "BadLine", "Pasted", "meant_name", "read_pasted", "read_typed",
]  # fmt: skip

MOST_LINES: Final = 5_000
MOST_NAMES: Final = 5_000
MOST_BAD: Final = 5_000
LONGEST: Final = 300
SEPARATORS: Final = re.compile(r"[\t,;|]")
EDGES: Final = " \t\"'“”‘’<>()[]*•·–—"
HEADINGS: Final = frozenset({"name", "names", "domain", "domains", "label", "url", "full name"})


@dataclass(frozen=True, slots=True)
class BadLine:
    """A piece that is no name: the line it is on, counted from 1, it, and why."""

    line: int
    text: str
    reason: str


@dataclass(slots=True)
class Pasted:
    """`names`: label to the extensions it came with, in order of appearance; `bare`: those that
    stood without extension, whatever else they came with; `merged` counts repeats; `left_out` lines
    beyond the most that are read, `names_left_out` names beyond the most that are taken;
    `passed_over` cells of other columns.
    """

    names: dict[str, list[str]] = field(default_factory=dict)
    bare: set[str] = field(default_factory=set)
    names_left_out: int = 0
    passed_over: int = 0
    bad: list[BadLine] = field(default_factory=list)
    merged: int = 0
    lines: int = 0
    left_out: int = 0


def read_pasted(text: str, most: int = MOST_LINES, most_names: int = MOST_NAMES) -> Pasted:
    """Read up to `most` lines, and take up to `most_names` names and full names of them. Cells of a
    line may be separated by commas, tabs, semicolons or bars; a web address counts as its name;
    www. in front is dropped. A line of one cell with spaces is read as several names only when each
    is a full name. In a line whose first cell is a name, cells that are numbers or sentences are
    passed over as other columns. When the first line is a heading that names a column of names,
    only that column is read.
    """
    found = Pasted()
    taken = 0
    column: int | None = None
    lines = text.removeprefix("\ufeff").splitlines()
    found.left_out = max(0, len(lines) - most)
    for number, line in enumerate(lines[:most], start=1):
        if not line.strip(EDGES):
            continue
        found.lines += 1
        cells = [cell.strip(EDGES) for cell in SEPARATORS.split(line)]
        if number == 1 and (heads := [c for c in cells if c.lower() in HEADINGS]):
            column = cells.index(heads[0]) if len(cells) > 1 else None
            continue
        if column is not None:
            others = [c for i, c in enumerate(cells) if c and i != column]
            found.passed_over += len(others)
            cells = cells[column : column + 1]
        cells = [cell for cell in cells if cell]
        good_before = False
        for cell in _split(cells):
            try:
                label, extension = read_name(cell)
            except CoreError as error:
                if good_before and _is_other_column(cell):
                    found.passed_over += 1
                elif len(found.bad) < MOST_BAD:
                    found.bad.append(BadLine(number, cell[:80], error.problems[0].text()))
                continue
            good_before = True
            known = found.names.get(label, [])
            if extension in known or (not extension and label in found.bare):
                found.merged += 1
            elif taken >= most_names:
                found.names_left_out += 1
            else:
                taken += 1
                found.names[label] = [*known, extension] if extension else known
                if not extension:
                    found.bare.add(label)
    return found


def _split(cells: Sequence[str]) -> Iterator[str]:
    """Full names separated by spaces are several."""
    for cell in cells:
        pieces = cell.split()
        if len(pieces) > 1 and all("." in piece.strip(".") for piece in pieces):
            yield from pieces
        else:
            yield cell


def _is_other_column(cell: str) -> bool:
    return " " in cell or bool(re.fullmatch(r"[-+€$£%\d.,:/ ]+", cell))


def read_typed(typed: str) -> tuple[str, str]:
    """As read_name, but of a bare name nothing is passed over. Raises CoreError."""
    return read_name(typed) if "." in typed else (parse_label(typed), "")


def meant_name(typed: str, extensions: Sequence[str]) -> FullName:
    """As read_typed, under the first of some extensions where it has none. Raises CoreError."""
    label, extension = read_typed(typed)
    return FullName(label, extension or next(iter(extensions), "com"))


def read_name(cell: str) -> tuple[str, str]:
    """A typed name or full name as label and extension ("" for a bare name). Raises CoreError."""
    text = cell[:LONGEST]
    if "://" in text:
        text = urlsplit(text).hostname or text
    text = text.split("/")[0].strip().strip(".").split("?")[0].split("#")[0]
    text = text.rsplit("@", 1)[-1].replace("。", ".")
    host, colon, port = text.rpartition(":")
    if colon and port.isdecimal():
        text = host
    if text.lower().startswith("www.") and text.count(".") > 1:
        text = text[4:]
    if "." not in text:
        return parse_label(text), ""
    pieces = text.split(".")
    if "" in pieces:
        raise LabelError(Problem("label", "label_dots"))
    # The longest known extension wins: inkpost.co.nz is under co.nz, shop.inkpost.com under com.
    error: CoreError | None = None
    for start in range(1, len(pieces)):
        try:
            extension = parse_extension(".".join(pieces[start:]))
        except CoreError as problem:
            error = problem
            continue
        return parse_label(pieces[start - 1]), extension
    raise error or CoreError()
