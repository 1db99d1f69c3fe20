"""The shortlist as CSV (RFC 4180) that a spreadsheet opens safely."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence

from vinetag.apps.shortlists.services import Kept
from vinetag.core.names import unicode_label
from vinetag.core.spreadsheet import safe_cell

__all__ = ["shortlist_csv"]


def shortlist_csv(kept: Sequence[Kept], extensions: Sequence[str]) -> bytes:
    """UTF-8 with a byte order mark, so that spreadsheets read accents; one name a row."""
    out = io.StringIO()
    rows = csv.writer(out, lineterminator="\r\n")
    asked = [column for e in extensions for column in (f".{e}", f".{e} asked (UTC)")]
    rows.writerow(["place", "name", "letters", "grade", *asked, "note"])
    for place, item in enumerate(kept, start=1):
        cells: list[str] = []
        for extension in extensions:
            lookup = item.statuses.get(extension)
            cells.append(lookup.status if lookup else "not asked")
            moment = lookup.asked_at if lookup else None
            cells.append(moment.strftime("%Y-%m-%d %H:%M") if moment else "")
        label = unicode_label(item.entry.label)
        letters = len(label) - label.count("-")
        grade = "" if item.grade is None else round(item.grade)
        row = [place, safe_cell(label), letters, grade, *cells]
        rows.writerow([*row, safe_cell(item.entry.note)])
    return b"\xef\xbb\xbf" + out.getvalue().encode("utf-8")
