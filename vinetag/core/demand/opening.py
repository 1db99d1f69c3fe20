"""How a table of demand is written: its encoding, its separator, and which line is the heading."""

from __future__ import annotations

import codecs
import csv
import io
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import islice
from typing import Final, NamedTuple

from vinetag.core.demand.columns import Guess, guess_columns, heading_sign, kind_of_heading

__all__ = ["Opened", "Preview", "look_at", "open_table"]

MOST_COLUMNS: Final = 80
BEFORE_HEADING: Final = 30
SAMPLE: Final = 200
SHOWN: Final = 6
SEPARATORS: Final = "\t;,|"


@dataclass(frozen=True, slots=True)
class Preview:
    """How a file is understood: the `heading` in `heading_line` (0 where it has none), the first
    lines, and what each column seems to hold; `sign` is by what a heading is known again.
    """

    encoding: str
    separator: str
    heading: Sequence[str]
    heading_line: int
    rows: Sequence[Sequence[str]]
    guess: Guess
    sign: str


class Opened(NamedTuple):
    """A table, and its lines below the heading, each with its number."""

    preview: Preview
    lines: Iterator[tuple[int, list[str]]]


def look_at(content: bytes) -> Preview:
    """How a table is understood, before it is read."""
    return open_table(content).preview


def open_table(content: bytes) -> Opened:
    """A table as bytes of any kind; nothing is raised."""
    encoding = _encoding(content)
    text = content.decode(encoding, errors="replace").removeprefix("\ufeff").replace("\0", "")
    separator = _separator(text)
    first = list(islice(_rows(text, separator), BEFORE_HEADING + SAMPLE))
    at = _heading_at([cells for _, cells in first])
    heading = first[at][1] if at >= 0 else []
    after = [cells for _, cells in first[at + 1 :]]
    guess = guess_columns(heading, after)
    preview = Preview(
        encoding.upper().removesuffix("-SIG"),
        separator,
        heading,
        first[at][0] if at >= 0 else 0,
        after[:SHOWN],
        guess,
        heading_sign(heading),
    )
    return Opened(preview, islice(_rows(text, separator), at + 1, None))


def _rows(text: str, separator: str) -> Iterator[tuple[int, list[str]]]:
    """Lines that hold something, each with its number; a field without an end is cut."""
    lines = csv.reader(io.StringIO(text, newline=""), delimiter=separator)
    while True:
        try:
            cells = next(lines)
        except StopIteration:
            return
        except csv.Error:
            continue
        if any(cells):
            yield lines.line_num, cells[:MOST_COLUMNS]


def _encoding(content: bytes) -> str:
    if content.startswith((codecs.BOM_UTF16_LE, codecs.BOM_UTF16_BE)):
        return "utf-16"
    start = content[:4_000]
    for offset, name in ((1, "utf-16-le"), (0, "utf-16-be")):
        half = start[offset::2]
        if len(half) > 4 and half.count(0) > 0.6 * len(half):
            return name
    try:
        content.decode("utf-8")
    except UnicodeDecodeError:
        return "cp1252"
    return "utf-8-sig"


def _separator(text: str) -> str:
    """What stands between cells: the same number of times in most of the first lines."""
    lines = [line for line in text[:20_000].splitlines() if line.strip()][: BEFORE_HEADING + 20]
    best, most = ",", 0.0
    for separator in SEPARATORS:
        counts = [line.count(separator) for line in lines]
        usual = max(set(counts), key=counts.count, default=0)
        worth = counts.count(usual) / len(counts) * min(usual, 3) if usual else 0.0
        if worth > most * 1.2:
            best, most = separator, worth
    return best


def _heading_at(rows: Sequence[Sequence[str]]) -> int:
    """Which of the first lines is the heading, -1 for none: the one with most headings known, or
    one of words alone above lines with numbers.
    """
    first = rows[:BEFORE_HEADING]
    known = [sum(kind_of_heading(cell) is not None for cell in row) for row in first]
    most = max(known, default=0)
    if most >= 2 or (most == 1 and rows and len(rows[known.index(1)]) == 1):
        return known.index(most)
    for at, row in enumerate(rows[:BEFORE_HEADING]):
        below = rows[at + 1 : at + 6]
        wide = len(row) > 1 and all(len(one) == len(row) for one in below)
        if wide and below and not any(_has_digit(cell) for cell in row):
            if all(any(_has_digit(cell) for cell in one) for one in below):
                return at
            return known.index(1) if most == 1 else -1
    return known.index(1) if most == 1 and len(rows[known.index(1)]) > 1 else -1


def _has_digit(cell: str) -> bool:
    return any(c.isdigit() for c in cell)
