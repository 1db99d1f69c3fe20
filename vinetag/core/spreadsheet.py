"""Tables that a spreadsheet shows instead of running: CSV (RFC 4180) and XLSX (ISO/IEC 29500)."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable, Sequence

from openpyxl import Workbook
from openpyxl.cell import WriteOnlyCell
from openpyxl.cell.cell import ILLEGAL_CHARACTERS_RE

__all__ = ["Cell", "as_csv", "as_xlsx", "plain_cell", "safe_cell"]

Cell = str | int | float | None
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
    """A workbook of one sheet, its heading frozen; text is stored as text, come what may."""
    book = Workbook(write_only=True)
    sheet = book.create_sheet("Names")
    sheet.freeze_panes = "A2"

    def cell(value: Cell) -> object:
        if not isinstance(value, str):
            return value
        kept = WriteOnlyCell(sheet, ILLEGAL_CHARACTERS_RE.sub("", value))
        kept.data_type = "s"
        return kept

    sheet.append([cell(name) for name in heading])
    for row in rows:
        sheet.append([cell(value) for value in row])
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()
