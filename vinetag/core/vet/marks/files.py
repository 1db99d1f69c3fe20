"""Registers of marks as files, read mark by mark so that a million take no more memory than one:
CSV described by a Table Schema, or XML after WIPO Standard ST.96 (st96.py).
"""

from __future__ import annotations

import codecs
import io
from collections.abc import Iterator, Mapping, Sequence
from datetime import date
from typing import Any, BinaryIO, Final

from vinetag.core.cells import Cells, Table, read_lines
from vinetag.core.vet.marks.record import (
    LONGEST_NUMBER,
    LONGEST_OWNER,
    LONGEST_WORD,
    MARK_STATUSES,
    Mark,
    plain_status,
)
from vinetag.core.vet.marks.st96 import MarksInXml

__all__ = ["MOST_MARKS", "MarksInCsv", "marks_schema", "read_register"]

MOST_MARKS: Final = 5_000_000
CHUNK: Final = 1 << 20

_FIELDS: Final[Sequence[Mapping[str, Any]]] = (
    {
        "name": "number",
        "type": "string",
        "description": "In the register; a second line of the same number and office replaces it",
        "constraints": {"required": True, "maxLength": LONGEST_NUMBER},
    },
    {
        "name": "word",
        "type": "string",
        "description": "The mark's words as registered",
        "constraints": {"required": True, "maxLength": LONGEST_WORD},
    },
    {"name": "owner", "type": "string"},
    {"name": "office", "type": "string", "description": "That of the import, where it is empty"},
    {
        "name": "classes",
        "type": "string",
        "description": "Of the Nice Agreement, 1 to 45, with spaces between them",
    },
    {
        "name": "status",
        "type": "string",
        "description": f"{', '.join(MARK_STATUSES)}, or a register's own word that begins so",
    },
    {"name": "filed", "type": "date"},
    {"name": "registered", "type": "date"},
    {"name": "expires", "type": "date"},
)
COLUMNS: Final = tuple(str(field["name"]) for field in _FIELDS)


def marks_schema() -> dict[str, Any]:
    """The Table Schema of a register."""
    return {
        "$schema": "https://datapackage.org/profiles/2.0/tableschema.json",
        "title": "Register of marks",
        "fields": list(_FIELDS),
        "missingValues": [""],
    }


class MarksInCsv:
    """The marks of a file, which can be gone through once; what is wrong is in `table`."""

    def __init__(self, file: BinaryIO) -> None:
        encoding = encoding_of(file)
        self._lines = io.TextIOWrapper(file, encoding=encoding, errors="replace", newline="")
        self.table: Table = read_lines(self._lines, COLUMNS, ("number", "word"), MOST_MARKS)

    def __iter__(self) -> Iterator[Mark]:
        try:
            for cells in self.table.lines:
                mark = _mark(cells)
                if mark is not None:
                    yield mark
        finally:
            # The file is whoever's who opened it.
            self._lines.detach()


def read_register(file: BinaryIO) -> MarksInCsv | MarksInXml:
    """By how the file begins. Nothing is raised here or later: what is wrong is in `table`."""
    start = file.read(400)
    file.seek(0)
    plain = start.replace(b"\0", b"").lstrip(b"\xef\xbb\xbf\xff\xfe\xfe\xff \t\r\n")
    return MarksInXml(file) if plain.startswith(b"<") else MarksInCsv(file)


def encoding_of(file: BinaryIO) -> str:
    """UTF-16 where its byte order mark says so, UTF-8 where all of the file is, else Windows-1252;
    the file is where it was.
    """
    start = file.tell()
    decoder = codecs.getincrementaldecoder("utf-8")()
    try:
        chunk = file.read(CHUNK)
        if chunk.startswith((codecs.BOM_UTF16_LE, codecs.BOM_UTF16_BE)):
            return "utf-16"
        while chunk:
            decoder.decode(chunk)
            chunk = file.read(CHUNK)
        decoder.decode(b"", final=True)
    except UnicodeDecodeError:
        return "cp1252"
    finally:
        file.seek(start)
    return "utf-8-sig"


def _mark(cells: Cells) -> Mark | None:
    number, word = cells.text("number")[:LONGEST_NUMBER], " ".join(cells.text("word").split())
    if not number:
        cells.problem("number", "mark_number", {})
    if not word:
        cells.problem("word", "mark_word", {})
    classes = _classes(cells)
    days = [_day(cells, column) for column in ("filed", "registered", "expires")]
    if not cells.are_good:
        return None
    said = cells.text("status")
    status = plain_status(said)
    if status is None:
        cells.problem("status", "mark_status", {"value": said[:40]})
    return Mark(
        number, word[:LONGEST_WORD], cells.text("owner")[:LONGEST_OWNER],
        cells.text("office")[:LONGEST_NUMBER], classes, status or "unknown", *days,
    )  # fmt: skip


def _classes(cells: Cells) -> tuple[int, ...]:
    found = []
    for text in cells.text("classes").replace(";", " ").replace(",", " ").split():
        if text.isascii() and text.isdecimal() and len(text) <= 3 and 1 <= int(text) <= 45:
            found.append(int(text))
        else:
            cells.problem("classes", "mark_class", {"value": text[:20]})
    return tuple(sorted(set(found)))


def _day(cells: Cells, column: str) -> date | None:
    text = cells.text(column)
    try:
        return date.fromisoformat(text[:10]) if text else None
    except ValueError:
        cells.problem(column, "not_date", {"value": text[:20]})
        return None
