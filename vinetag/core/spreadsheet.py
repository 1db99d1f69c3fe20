"""Tables that a spreadsheet shows instead of running: CSV (RFC 4180) and XLSX (ISO/IEC 29500)."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable, Mapping, Sequence
from decimal import Decimal
from itertools import chain
from typing import Final

from xlsxwriter import Workbook

__all__ = ["FORMS", "Cell", "as_csv", "as_xlsx", "plain_cell", "safe_cell"]

# The open formats data are taken away in, with their media types.
FORMS: Final[Mapping[str, str]] = {
    "csv": "text/csv; charset=utf-8",
    "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
    "json": "application/json",
}

Cell = str | int | float | Decimal | None
# Characters a cell of a workbook can hold.
LONGEST_TEXT = 32_767
DANGEROUS = ("=", "+", "-", "@", "\t", "\r", "\n")


def safe_cell(text: str) -> str:
    """The text, with an apostrophe before what a spreadsheet would run as a formula."""
    return f"'{text}" if text.lstrip(" ").startswith(DANGEROUS) else text


def plain_cell(cell: str) -> str:
    """The text of a cell that safe_cell wrote."""
    return cell[1:] if cell.startswith("'") and safe_cell(cell[1:]) == cell else cell


def as_csv(heading: Sequence[str], rows: Iterable[Sequence[Cell]]) -> bytes:
    """UTF-8 with a byte order mark, so that spreadsheets read accents."""
    out = io.StringIO()
    # Quoted throughout: text stays one cell where a semicolon is taken for the end of one.
    writer = csv.writer(out, lineterminator="\r\n", quoting=csv.QUOTE_NONNUMERIC)
    writer.writerow(heading)
    writer.writerows([safe_cell(c) if isinstance(c, str) else c for c in row] for row in rows)
    return b"\xef\xbb\xbf" + out.getvalue().encode("utf-8")


def as_xlsx(heading: Sequence[str], rows: Iterable[Sequence[Cell]]) -> bytes:
    """A workbook of one sheet, its heading frozen; text is stored as text, come what may. Rows are
    written as they come, so that memory does not grow with them.
    """
    out = io.BytesIO()
    with Workbook(out, {"constant_memory": True}) as book:
        sheet = book.add_worksheet("Names")
        sheet.freeze_panes(1, 0)
        for place, row in enumerate(chain([heading], rows)):
            for column, value in enumerate(row):
                if isinstance(value, str):
                    sheet.write_string(place, column, value[:LONGEST_TEXT])
                elif value is not None:
                    sheet.write_number(place, column, value)
    return out.getvalue()
