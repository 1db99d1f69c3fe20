"""The shortlist as CSV and XLSX that a spreadsheet opens safely, and as JSON."""

from __future__ import annotations

import json
from collections.abc import Sequence
from typing import Any, Final

from vinetag.apps.shortlists.services import Kept
from vinetag.core.money import neat
from vinetag.core.names import unicode_label
from vinetag.core.spreadsheet import Cell, as_csv, as_xlsx

__all__ = ["shortlist_file"]

PRICES: Final = ("first year", "each later year", "currency")


def shortlist_file(kept: Sequence[Kept], extensions: Sequence[str], form: str) -> bytes:
    """One name a row, with its status and age under each extension; `form` is a key of FORMS."""
    asked = [
        column
        for e in extensions
        for column in (f".{e}", f".{e} asked (UTC)", *(f".{e} {what}" for what in PRICES))
    ]
    columns = ["place", "name", "full name", "letters", "grade", *asked, "tags", "note"]
    rows = [_row(place, item, extensions) for place, item in enumerate(kept, start=1)]
    if form == "json":
        documents: list[dict[str, Any]] = [dict(zip(columns, row, strict=True)) for row in rows]
        for document, item in zip(documents, kept, strict=True):
            document["tags"] = item.entry.tags
        return json.dumps(documents, ensure_ascii=False, indent=1, default=str).encode()
    return as_csv(columns, rows) if form == "csv" else as_xlsx(columns, rows)


def _row(place: int, item: Kept, extensions: Sequence[str]) -> list[Cell]:
    cells: list[Cell] = []
    for extension in extensions:
        lookup = item.statuses.get(extension)
        cells.append(lookup.status if lookup else "not asked")
        moment = lookup.asked_at if lookup else None
        cells.append(moment.strftime("%Y-%m-%d %H:%M") if moment else "")
        prices = (lookup.first_year, lookup.renewal) if lookup else (None, None)
        cells += [price if price is None else neat(price) for price in prices]
        cells.append(lookup.currency if lookup and lookup.first_year is not None else "")
    label = unicode_label(item.entry.label)
    letters = len(label) - label.count("-")
    grade = "" if item.grade is None else round(item.grade)
    full = f"{label}.{item.entry.extension}" if item.entry.extension else ""
    return [place, label, full, letters, grade, *cells, ", ".join(item.entry.tags), item.entry.note]
