"""Figures of phrases and what was decided of them, in a project's file."""

from __future__ import annotations

import csv
import io
from dataclasses import dataclass
from datetime import date
from typing import Annotated, Any, Final

from django.db import transaction
from django.utils import timezone
from django.utils.dateparse import parse_date
from pydantic import Field

from vinetag.apps.accounts.joining import Bringing
from vinetag.apps.naming.models import Project
from vinetag.apps.phrases.bringing import MOST_FILES, bump
from vinetag.apps.phrases.models import PhraseChoice, PhraseFile
from vinetag.apps.phrases.shelf import work_out
from vinetag.core.demand import (
    LONGEST_PHRASE,
    MONTHS,
    Column,
    Defaults,
    Figures,
    packed,
    read_demand,
    unpacked,
)
from vinetag.core.documents import OneOf, Text

__all__ = ["PhraseFields", "bring", "write"]

LONGEST: Final = 40_000_000
# How figures stand in a project's file, and are read again.
COLUMNS: Final = (
    Column("phrase"), Column("low"), Column("high"), Column("competition"), Column("price"),
    Column("currency"), Column("country"), Column("language"), Column("series"),
)  # fmt: skip
HEADING: Final = ("phrase", "low", "high", "competition", "price", "currency", "country",
                  "language", "months")  # fmt: skip
Phrase = Annotated[str, Text(LONGEST_PHRASE)]


@dataclass(frozen=True, slots=True)
class FiguresItem:
    """Figures of one source as of a day, as a table (CSV)."""

    kind: Annotated[str, OneOf(("file", "service", "typed"))]
    source: Annotated[str, Text(60)]
    dated: Annotated[str, Text(10)]
    table: Annotated[str, Text(LONGEST)]
    name: Annotated[str, Text(120)] = ""
    country: Annotated[str, Text(2)] = ""
    language: Annotated[str, Text(10)] = ""
    currency: Annotated[str, Text(3)] = ""
    last_month: Annotated[str, Text(7)] = ""


@dataclass(frozen=True)
class PhraseFields:
    """What the file has of phrases."""

    figures: Annotated[
        tuple[FiguresItem, ...], Field(max_length=MOST_FILES, description="What people look for")
    ] = ()
    phrases_chosen: Annotated[tuple[Phrase, ...], Field(max_length=500)] = ()
    phrases_apart: Annotated[tuple[Phrase, ...], Field(max_length=20_000)] = ()
    phrases_dropped: Annotated[tuple[Phrase, ...], Field(max_length=20_000)] = ()


def write(project: Project) -> dict[str, Any]:
    """The fields' values as documents have them."""
    files = project.phrase_files.filter(removed_at=None, state=PhraseFile.State.DONE).order_by("id")
    book = getattr(project, "phrase_book", None)
    return {
        "figures": [_item(file) for file in files],
        "phrases_chosen": list(
            project.phrase_choices.order_by("id").values_list("phrase", flat=True)
        ),
        "phrases_apart": list(book.apart) if book else [],
        "phrases_dropped": list(book.dropped) if book else [],
    }


def _item(file: PhraseFile) -> dict[str, Any]:
    figures = unpacked(bytes(file.figures or b""))
    return {
        "kind": file.kind, "source": file.source, "dated": file.dated.isoformat(),
        "table": _table(figures), "name": file.name, "country": file.country,
        "language": file.language, "currency": file.currency, "last_month": figures.last_month,
    }  # fmt: skip


def _table(figures: Figures) -> str:
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(HEADING)
    for at in range(len(figures)):
        row = figures.one(at)
        more = row.low is not None and row.high is None
        months = " ".join("" if m is None else str(m) for m in row.months)
        whole = len(months.split()) == MONTHS
        writer.writerow(
            [
                row.phrase,
                row.low,
                f"{row.low}+" if more else row.high,
                row.competition,
                row.price,
                row.currency,
                *row.market,
                months if whole else "",
            ]
        )
    return out.getvalue()


def bring(brought: Bringing) -> None:
    """Store what a file had of them."""
    project, file = brought.project, brought.file
    if not (file.figures or file.phrases_chosen):
        return
    now = timezone.now()
    rows = []
    for item in file.figures:
        defaults = Defaults(item.country, item.language, item.currency)
        demand = read_demand(item.table.encode(), defaults, COLUMNS)
        if len(demand.figures):
            rows.append(
                PhraseFile(
                    project=project,
                    kind=item.kind,
                    source=item.source or "a file",
                    name=item.name,
                    country=item.country,
                    language=item.language,
                    currency=item.currency,
                    dated=_day(item.dated, now.date()),
                    state=PhraseFile.State.DONE,
                    figures=packed(demand.figures),
                    lines=demand.lines,
                    taken=len(demand.figures),
                    done=demand.lines,
                    wrong=demand.wrong,
                    heartbeat_at=now,
                    problems=[one.document() for one in demand.problems],
                )
            )
    PhraseFile.objects.bulk_create(rows, 1)
    PhraseChoice.objects.bulk_create(
        [PhraseChoice(project=project, phrase=p) for p in dict.fromkeys(file.phrases_chosen)]
    )
    with transaction.atomic():
        book = bump(project)
        book.apart, book.dropped = list(file.phrases_apart), list(file.phrases_dropped)
        book.save(update_fields=["apart", "dropped"])
    # Here, and not when somebody opens the bench.
    work_out(project)


def _day(text: str, today: date) -> date:
    try:
        found = parse_date(text)
    except ValueError:
        found = None
    return found if found and found <= today else today
