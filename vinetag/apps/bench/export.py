"""Full names with their statuses, evidence and ages, as CSV, XLSX or JSON."""

from __future__ import annotations

import json
from collections.abc import Iterator, Sequence
from datetime import datetime
from decimal import Decimal
from typing import Any, Final

from django.utils import timezone

from vinetag.apps.availability.models import Lookup
from vinetag.apps.costs.listing import costs_document, prices_of
from vinetag.apps.naming.models import Candidate, Project
from vinetag.core.checking import in_words, read_evidence, reason_of
from vinetag.core.grade import MEASURES
from vinetag.core.money import neat
from vinetag.core.names import FullName, unicode_label
from vinetag.core.sheet import SPANS, SheetPrices
from vinetag.core.spreadsheet import FORMS, as_csv, as_xlsx

__all__ = ["exported"]

COLUMNS: Final = (
    "full name", "name", "extension", "letters", "grade", *(m.name for m in MEASURES), "recipes",
    "status", "likely", "why", "asked (UTC)",
    "age in minutes", "registered (UTC)", "expires (UTC)", "may open from (UTC)",
    "may open until (UTC)", "currency", "first year", "each later year", "holder asks", "evidence",
    "costs in", "costs, first year", "costs, each later year", "costs, all years", "years",
    "costs by",
)  # fmt: skip
COSTS: Final = 6
BATCH = 500


def exported(project: Project, names: Sequence[FullName], form: str) -> tuple[bytes, str]:
    """The file and its content type; names that were never asked say so."""
    rows = _rows(project, names)
    if form == "json":
        documents = [dict(zip(COLUMNS, row, strict=True)) for row in rows]
        content = json.dumps(documents, ensure_ascii=False, indent=1, default=str)
        return content.encode(), FORMS[form]
    write = as_csv if form == "csv" else as_xlsx
    return write(COLUMNS, rows), FORMS[form]


def _rows(project: Project, names: Sequence[FullName]) -> Iterator[list[Any]]:
    now = timezone.now()
    own = project.brief["extensions"]
    others = sorted({name.extension for name in names}.difference(own))
    prices = prices_of(project, others)
    for start in range(0, len(names), BATCH):
        part = names[start : start + BATCH]
        labels = {name.label for name in part}
        known = {
            FullName(row.label, row.extension): row
            for row in project.lookups.filter(label__in=labels)
        }
        made = {row.label: row for row in project.candidates.filter(label__in=labels)}
        for name in part:
            row = known.get(name)
            costs = _costs(prices, name, row)
            yield [*_row(name, row, made.get(name.label), now), *costs]


def _row(name: FullName, row: Lookup | None, made: Candidate | None, now: datetime) -> list[Any]:
    label = unicode_label(name.label)
    letters = len(label) - label.count("-")
    scores = made.scores if made else {}
    about = [
        f"{label}.{name.extension}", label, f".{name.extension}", letters,
        made.grade if made else None, *(scores.get(m.name) for m in MEASURES),
        ", ".join(made.recipes) if made else None,
    ]  # fmt: skip
    if row is None:
        return [*about, "not asked", *[None] * (len(COLUMNS) - COSTS - len(about) - 1)]
    age = None if row.asked_at is None else round((now - row.asked_at).total_seconds() / 60)
    evidence = [read_evidence(document) for document in row.evidence]
    return [
        *about,
        row.status,
        "yes" if row.likely else "no",
        reason_of(row.trouble),
        _moment(row.asked_at),
        age,
        _moment(row.registered),
        _moment(row.expires),
        _moment(row.drops_from),
        _moment(row.drops_to),
        row.currency or None,
        *(a if a is None else neat(a) for a in (row.first_year, row.renewal, row.holder_asks)),
        " ".join(f"{in_words(e)} ({e.at:%Y-%m-%d %H:%M})" for e in evidence),
    ]


def _costs(prices: SheetPrices, name: FullName, row: Lookup | None) -> list[Any]:
    """What the full name costs by lists and quotes, as far as it is not known to be taken."""
    costs = costs_document(prices, [row] if row else [], [name.extension])
    spans: list[Any] = [costs[span] for span in SPANS]
    if not any(spans):
        return [None] * COSTS
    by = "a quote" if spans[2] is None or not spans[2]["seller"] else spans[2]["seller"]
    amounts = [span and neat(Decimal(span["amount"])) for span in spans]
    return [prices.currency, *amounts, prices.years, by]


def _moment(moment: datetime | None) -> str | None:
    return f"{moment:%Y-%m-%d %H:%M}" if moment else None
